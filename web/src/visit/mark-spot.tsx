import type { Photo } from '@nobbet/contract'
import { useCallback, useState } from 'react'
import { Button, Form, Modal } from 'react-bootstrap'

interface MarkSpotProps {
  file: File
  onKeep: (caption: string, spot: Photo['spot']) => void
  onLeave: () => void
}

/** Where on the photo is what is meant, and what it is: touched, then written. Neither has to be. */
export function MarkSpot({ file, onKeep, onLeave }: MarkSpotProps) {
  // Made and given back with the picture element, so that no effect has to set it.
  const show = useCallback(
    (image: HTMLImageElement | null) => {
      if (!image) return
      const url = URL.createObjectURL(file)
      image.src = url
      return () => URL.revokeObjectURL(url)
    },
    [file],
  )
  const [caption, setCaption] = useState('')
  const [spot, setSpot] = useState<Photo['spot']>()
  const touch = (event: React.MouseEvent<HTMLElement>) => {
    const { left, top, width, height } = event.currentTarget.getBoundingClientRect()
    const share = (part: number, of: number) => (of > 0 ? Math.min(1, Math.max(0, part / of)) : 0)
    setSpot({ x: share(event.clientX - left, width), y: share(event.clientY - top, height) })
  }
  return (
    <Modal show onHide={onLeave} centered aria-labelledby="mark-spot">
      <Modal.Header closeButton>
        <Modal.Title id="mark-spot">Touch the spot that is meant</Modal.Title>
      </Modal.Header>
      <Modal.Body className="mark-spot">
        <span className="spotted large" onClick={touch}>
          <img ref={show} alt="The photo" />
          {spot && <span className="spot" style={{ left: `${spot.x * 100}%`, top: `${spot.y * 100}%` }} />}
        </span>
        <Form
          className="add-line"
          onSubmit={(event) => {
            event.preventDefault()
            onKeep(caption.trim(), spot)
          }}
        >
          <Form.Control
            aria-label="What it shows"
            placeholder="What it shows"
            value={caption}
            maxLength={200}
            onChange={(event) => setCaption(event.target.value)}
          />
          <Button type="submit">Keep the photo</Button>
        </Form>
        {spot && (
          <Button variant="link" onClick={() => setSpot(undefined)}>
            No mark
          </Button>
        )}
      </Modal.Body>
    </Modal>
  )
}
