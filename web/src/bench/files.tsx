import {
  conductorsCsv,
  conductorsFromCsv,
  DocumentError,
  readInstallation,
  replaceWith,
  ScheduleError,
  terminalsCsv,
  terminalsFromCsv,
  wiringCentreSvg,
  writeInstallation,
  type Command,
  type Installation,
} from '@nobbet/core'
import { useState } from 'react'
import { Button, Form } from 'react-bootstrap'
import { download, fileStem } from '../shell/download'
import { useHand } from './hand'

interface Problem {
  where: string
  reason: string
}

/** The command a file stands for; throws what is wrong with it, by row and field. */
function commandOf(doc: Installation, name: string, text: string): Command | undefined {
  if (!/\.csv$/i.test(name)) {
    const read = readInstallation(text)
    const changes = replaceWith(doc, { ...read, id: doc.id })
    return changes.length > 0 ? { label: `Installation from ${name}`, changes } : undefined
  }
  const [head = ''] = text.split(/\r?\n/)
  return head.includes('core') ? conductorsFromCsv(doc, text) : terminalsFromCsv(doc, text)
}

function problemsOf(error: unknown): Problem[] {
  if (error instanceof ScheduleError)
    return error.problems.map((p) => ({ where: `Line ${p.line}${p.column ? `, ${p.column}` : ''}`, reason: p.reason }))
  if (error instanceof DocumentError)
    return error.problems.map((p) => ({ where: p.field || 'The file', reason: p.reason }))
  return [{ where: 'The file', reason: (error as Error).message }]
}

/** Files in and out: nothing is changed by one that is wrong. */
export function Files() {
  const { doc, alter } = useHand()
  const [problems, setProblems] = useState<Problem[]>([])
  const [taken, setTaken] = useState<string>()
  const take = async (file: File) => {
    setTaken(undefined)
    try {
      const command = commandOf(doc, file.name, await file.text())
      setProblems([])
      if (command) alter(command)
      setTaken(command ? `${file.name} is taken in. Undo takes it back.` : `${file.name} says what is here already.`)
    } catch (error) {
      setProblems(problemsOf(error))
    }
  }
  const stem = fileStem(doc.name)
  return (
    <>
      <div className="file-acts">
        <Button
          variant="outline-primary"
          onClick={() => download(`${stem}.json`, writeInstallation(doc), 'application/json')}
        >
          Installation (JSON)
        </Button>
        <Button
          variant="outline-primary"
          onClick={() => download(`${stem}-conductors.csv`, conductorsCsv(doc), 'text/csv')}
        >
          Conductors (CSV)
        </Button>
        <Button
          variant="outline-primary"
          onClick={() => download(`${stem}-terminals.csv`, terminalsCsv(doc), 'text/csv')}
        >
          Terminals (CSV)
        </Button>
        {doc.wiringCentres.map((c) => (
          <Button
            key={c.id}
            variant="outline-primary"
            onClick={() => download(`${stem}-${c.id}.svg`, wiringCentreSvg(doc, c.id), 'image/svg+xml')}
          >
            {c.name} (SVG)
          </Button>
        ))}
      </div>
      <Form.Group controlId="bench-file" className="mt-3">
        <Form.Label>Take a file in: an installation, or a schedule of conductors or terminals</Form.Label>
        <Form.Control
          type="file"
          accept=".json,.csv"
          onChange={(event) => {
            const input = event.target as HTMLInputElement
            const [file] = input.files ?? []
            if (file) void take(file)
            input.value = ''
          }}
        />
      </Form.Group>
      {taken && <p role="status">{taken}</p>}
      {problems.length > 0 && (
        <section className="file-problems" role="alert">
          <strong>
            Nothing was changed. {problems.length === 1 ? 'One thing is' : `${problems.length} things are`} wrong:
          </strong>
          <table className="plain">
            <tbody>
              {problems.slice(0, 40).map((p) => (
                <tr key={`${p.where} ${p.reason}`}>
                  <th scope="row">{p.where}</th>
                  <td>{p.reason}</td>
                </tr>
              ))}
            </tbody>
          </table>
        </section>
      )}
    </>
  )
}
