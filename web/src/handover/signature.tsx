import SignaturePad from 'signature_pad'
import { useEffect, useRef, useState } from 'react'
import { Button, Form } from 'react-bootstrap'

/** Points of a stroke beyond which every other one is left out: a name needs no more. */
const mostPoints = 1000

interface SignatureProps {
  name: string
  onSign: (name: string, strokes: number[][]) => void
}

/** The customer's name and hand, with a finger or a mouse. */
export function Signature({ name: known, onSign }: SignatureProps) {
  const canvas = useRef<HTMLCanvasElement>(null)
  const pad = useRef<SignaturePad>(undefined)
  const [name, setName] = useState(known)
  const [drawn, setDrawn] = useState(false)
  useEffect(() => {
    const sheet = canvas.current
    if (!sheet) return
    sheet.width = sheet.clientWidth
    sheet.height = sheet.clientHeight
    const made = new SignaturePad(sheet, { penColor: '#10201d', backgroundColor: '#fff' })
    const stroke = () => setDrawn(true)
    made.addEventListener('endStroke', stroke)
    pad.current = made
    return () => {
      made.removeEventListener('endStroke', stroke)
      made.off()
    }
  }, [])
  const sign = () => {
    const sheet = canvas.current
    if (!sheet || !pad.current) return
    const scale = 1000 / sheet.width
    const strokes = pad.current.toData().map(({ points }) => {
      const every = Math.ceil(points.length / mostPoints)
      return points
        .filter((_, i) => i % every === 0 || i === points.length - 1)
        .flatMap(({ x, y }) => [Math.round(x * scale), Math.round(y * scale)])
    })
    onSign(name.trim(), strokes.slice(0, 100))
  }
  return (
    <Form
      className="sign"
      onSubmit={(event) => {
        event.preventDefault()
        if (drawn && name.trim() !== '') sign()
      }}
    >
      <Form.Control
        aria-label="Name of who signs"
        placeholder="Name"
        value={name}
        maxLength={120}
        onChange={(event) => setName(event.target.value)}
      />
      <canvas ref={canvas} aria-label="Sign here" />
      <span className="buttons">
        <Button type="submit" disabled={!drawn || name.trim() === ''}>
          Sign
        </Button>
        <Button
          variant="link"
          onClick={() => {
            pad.current?.clear()
            setDrawn(false)
          }}
        >
          Clear
        </Button>
      </span>
    </Form>
  )
}
