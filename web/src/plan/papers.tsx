import { basisText, nobodyLooked, verdictText, type FirstDone, type Installation } from '@nobbet/core'
import { FileText, QrCode, Tags } from 'lucide-react'
import { useState } from 'react'
import { Button, Form } from 'react-bootstrap'
import { errorText } from '../api/client'
import { dayText } from '../drawing/dates'
import type { PaperHeading } from '../paper/heading'
import { labelGrids, type LabelGridId } from '../paper/label-grids'
import type { PaperOrder } from '../paper/make-paper'
import { paperOf } from '../paper/paper'
import { download, fileStem } from '../shell/download'
import { ownName } from '../store/who'
import { useVerdict } from '../workers/use-verdict'

interface PapersProps {
  installation: Installation
  job: string
  /** Who attends, where nobody has said who uses this browser. */
  attends: string
  /** Which state of the wiring it is, in words. */
  revision: string
  /** What its steps begin with, where somebody has said. */
  stepsFrom?: FirstDone
}

const gridIds = Object.keys(labelGrids).map(Number) as LabelGridId[]

/** What is printed of a plan, as PDF. Nothing is made before the check is through: paper cannot be corrected. */
export function Papers({ installation, job, attends, revision, stepsFrom }: PapersProps) {
  const { findings, states, known, stopped, error, again } = useVerdict(installation)
  const [making, setMaking] = useState<PaperOrder['is']>()
  const [problem, setProblem] = useState<string>()
  const [grid, setGrid] = useState<LabelGridId>(24)
  const [from, setFrom] = useState('1')
  const places = labelGrids[grid].columns * labelGrids[grid].rows
  const first = Number(from)
  const isPlace = Number.isInteger(first) && first >= 1 && first <= places
  const checked = findings && states && known

  const make = async (order: PaperOrder, name: string) => {
    if (!checked) return
    setMaking(order.is)
    setProblem(undefined)
    const heading: PaperHeading = {
      job,
      revision,
      date: dayText(new Date()),
      by: ownName() || attends || 'somebody who has given no name',
      verdict: nobodyLooked(known)
        ? `Assumed wiring. ${verdictText({ findings, known, states })}`
        : verdictText({ findings, known, states }),
      basis: basisText(known, states),
    }
    try {
      const pdf = await paperOf(order, installation, heading)
      download(`${fileStem(job)}-${name}.pdf`, new Uint8Array(pdf), 'application/pdf')
    } catch (failure) {
      setProblem(`The paper was not made. ${errorText(failure as Error)}`)
    } finally {
      setMaking(undefined)
    }
  }
  const busy = !checked || making !== undefined
  const words = (is: PaperOrder['is'], text: string) => (making === is ? 'Making it' : text)
  return (
    <section className="sheet papers no-print" aria-label="Papers">
      <h2>Papers, as PDF</h2>
      {!checked && (
        <p role="status" className="m-0">
          {error
            ? `The check could not be run, so no paper is made. ${errorText(error)}`
            : stopped
              ? 'The check was stopped, so no paper is made.'
              : 'They are made when the check is through.'}{' '}
          {stopped && (
            <Button size="sm" variant="outline-primary" onClick={again}>
              Run the check
            </Button>
          )}
        </p>
      )}
      {problem && (
        <p role="alert" className="text-danger m-0">
          {problem}
        </p>
      )}
      <div className="paper-kinds">
        <Button
          variant="outline-primary"
          disabled={busy}
          onClick={() => void make({ is: 'pack', first: stepsFrom }, 'pack')}
        >
          <FileText aria-hidden />
          <strong>{words('pack', 'Wiring pack')}</strong>
          <span>schedules, drawing, steps to tick, parts and cable</span>
        </Button>
        <Button variant="outline-primary" disabled={busy} onClick={() => void make({ is: 'lid' }, 'lid-sheet')}>
          <QrCode aria-hidden />
          <strong>{words('lid', 'Lid sheet')}</strong>
          <span>one page for the lid, with a code that holds all of it</span>
        </Button>
        <div className="paper-labels">
          <Button
            variant="outline-primary"
            disabled={busy || !isPlace}
            onClick={() => void make({ is: 'labels', grid, from: first }, 'labels')}
          >
            <Tags aria-hidden />
            <strong>{words('labels', 'Labels')}</strong>
            <span>two to a cable, one to a conductor in the centre</span>
          </Button>
          <div className="paper-grid">
            <Form.Select
              size="sm"
              aria-label="Label sheet"
              value={grid}
              onChange={(event) => setGrid(Number(event.target.value) as LabelGridId)}
            >
              {gridIds.map((id) => (
                <option key={id} value={id}>
                  {labelGrids[id].name}
                </option>
              ))}
            </Form.Select>
            <Form.Group controlId="label-from" className="paper-from">
              <Form.Label>begin at label</Form.Label>
              <Form.Control
                size="sm"
                inputMode="numeric"
                value={from}
                isInvalid={!isPlace}
                onChange={(event) => setFrom(event.target.value)}
              />
              <Form.Control.Feedback type="invalid">1 to {places}</Form.Control.Feedback>
            </Form.Group>
          </div>
        </div>
      </div>
    </section>
  )
}
