import { briefOf, DocumentError, lidReading, readLidCode, type Installation, type LidCode } from '@nobbet/core'
import { Camera } from 'lucide-react'
import { useState } from 'react'
import { Button, Form } from 'react-bootstrap'
import type { JobBrief } from '@nobbet/contract'
import { errorText } from '../api/client'
import { codesIn } from '../paper/paper'
import { emptyBrief } from './brief-form'

interface LidPhotoProps {
  busy: boolean
  /** The wiring of a sheet, and a brief for it to begin with. */
  onRead: (brief: JobBrief, wiring: Installation) => void
}

/** A job out of the lid of a box: its codes from photographs, one or several, or as a scanner reads them. */
export function LidPhoto({ busy, onRead }: LidPhotoProps) {
  const [codes, setCodes] = useState<LidCode[]>([])
  const [looking, setLooking] = useState(false)
  const [says, setSays] = useState<string>()
  const [problem, setProblem] = useState<string>()
  const [pasted, setPasted] = useState('')

  /** Puts what was read beside what is known already. */
  const take = (texts: readonly string[], from: string) => {
    try {
      const found = texts.flatMap((text) => readLidCode(text) ?? [])
      if (found.length === 0) {
        setProblem(
          texts.length > 0
            ? `${from} has a code, but not of a lid sheet.`
            : `No code was found in ${from}. Hold the camera straight above the sheet, nearer, without shadow; one code at a time will do.`,
        )
        return
      }
      // Another sheet begins anew.
      const kept = codes.filter(({ sum }) => sum === found[0].sum)
      const all = [...kept, ...found.filter(({ part }) => !kept.some((code) => code.part === part))]
      setCodes(all)
      const reading = lidReading(all)
      if ('missing' in reading) {
        const [n, rest] = [reading.of - reading.missing.length, reading.missing]
        setSays(`${n} of ${reading.of} codes read. Still to photograph: code ${rest.join(', code ')}.`)
        return
      }
      const wiring = reading.document
      onRead(
        {
          ...emptyBrief,
          site: wiring.name,
          kind: 'fault',
          fitted: briefOf(wiring),
          symptom: '',
          earlier: '',
          engineer: '',
        },
        wiring,
      )
    } catch (error) {
      if (!(error instanceof DocumentError)) throw error
      setProblem(error.problems.map(({ field, reason }) => `${field}: ${reason}`).join('. '))
    }
  }
  const look = async (files: readonly File[]) => {
    setLooking(true)
    setProblem(undefined)
    setSays(undefined)
    try {
      const texts = await Promise.all(files.map((file) => codesIn(file)))
      take(texts.flat(), files.length === 1 ? files[0].name : `${files.length} pictures`)
    } catch (error) {
      setProblem(`The picture could not be read: is it a photograph? ${errorText(error as Error)}`)
    } finally {
      setLooking(false)
    }
  }
  return (
    <section className="sheet lid-photo" aria-label="From a lid sheet">
      <div>
        <h2>Is there a lid sheet in the box?</h2>
        <p className="m-0">Its code holds the whole wiring. A photograph of it makes the job.</p>
      </div>
      <label className={`btn btn-lg btn-outline-primary ${looking || busy ? 'disabled' : ''}`}>
        <Camera aria-hidden /> {looking ? 'Looking for codes' : 'Photograph the sheet'}
        <input
          type="file"
          accept="image/*"
          multiple
          className="visually-hidden"
          disabled={looking || busy}
          onChange={({ target }) => {
            const files = [...(target.files ?? [])]
            target.value = ''
            if (files.length > 0) void look(files)
          }}
        />
      </label>
      {says && (
        <p role="status" className="lid-says">
          {says}
        </p>
      )}
      {problem && (
        <p role="alert" className="lid-says text-danger">
          {problem}
        </p>
      )}
      <details className="lid-says">
        <summary>Or paste what a scanner reads</summary>
        <Form.Control
          as="textarea"
          rows={3}
          aria-label="Texts of the codes, one to a line"
          value={pasted}
          onChange={(event) => setPasted(event.target.value)}
        />
        <Button
          variant="outline-primary"
          className="mt-2"
          disabled={busy || pasted.trim() === ''}
          onClick={() => {
            setProblem(undefined)
            setSays(undefined)
            take(
              pasted.split('\n').filter((line) => line.trim() !== ''),
              'what was pasted',
            )
          }}
        >
          Read it
        </Button>
      </details>
    </section>
  )
}
