import { DndContext, PointerSensor, pointerWithin, useSensor, useSensors, type DragEndEvent } from '@dnd-kit/core'
import {
  addCentre,
  commandOf,
  compile,
  findingKey,
  fitLink,
  isGrave,
  land,
  netAt,
  removeCentre,
  shortVerdictText,
  type Command,
  type Step,
} from '@nobbet/core'
import { useEffect, useMemo, useState } from 'react'
import { Button } from 'react-bootstrap'
import { useHotkeys } from 'react-hotkeys-hook'
import { Link, useParams } from 'react-router'
import { useIsolation } from '../shell/isolation-step'
import { Failed, Loading } from '../shell/notes'
import { useSearchValue } from '../shell/use-search-value'
import { WiringTools } from '../wiring/saving-note'
import { useWiring } from '../wiring/use-wiring'
import { useVerdict } from '../workers/use-verdict'
import { Cables } from './cables'
import { Demands } from './demands'
import { Devices } from './devices'
import { Files } from './files'
import { endKey, endOfKey, HandContext, type Hand, type Picked } from './hand'
import { IsolationGate } from './isolation-gate'
import { PickedPanel } from './picked-panel'
import { Revisions } from './revisions'
import { Strip } from './strip'

const tabs = {
  cables: 'Cables',
  devices: 'Devices',
  demands: 'Demands',
  revisions: 'Revisions',
  files: 'Files',
} as const
type Tab = keyof typeof tabs

/** What the address names: a terminal, an end by `cable.core.end`, or a conductor by `cable.core` at its end in a wiring centre. */
function pickedAt(text: string | undefined, doc: Hand['doc']): Picked | undefined {
  if (!text) return undefined
  const [owner, part, end] = text.split('.')
  const core = doc.cables.find((c) => c.id === owner)?.cores.find((k) => k.id === part)
  if (!core) return { kind: 'terminal', ref: `${owner}.${part}` }
  if (end !== undefined) return { kind: 'end', end: endOfKey(text) }
  const inCentre = core.ends.findIndex(
    (e) => 'terminal' in e && doc.wiringCentres.some((c) => e.terminal.startsWith(`${c.id}.`)),
  )
  return { kind: 'end', end: { cable: owner, core: part, end: inCentre === 0 ? 0 : 1 } }
}

/** The wiring itself, as a working surface: wiring centres, cables, devices; every step undone, kept, and checked at once. */
export function BenchPage() {
  const { job = '' } = useParams()
  const wiring = useWiring(job)
  const { doc, view } = wiring
  const [tabText, setTab] = useSearchValue('tab')
  const [at, setAt] = useSearchValue('at')
  const [linking, setLinking] = useState(false)
  const [problem, setProblem] = useState<string>()
  const [isolated, acknowledge] = useIsolation(job)
  const [waiting, setWaiting] = useState<Command>()
  const verdict = useVerdict(doc)
  const sensors = useSensors(useSensor(PointerSensor, { activationConstraint: { distance: 8 } }))
  const circuit = useMemo(() => doc && compile(doc), [doc])
  const tab: Tab = tabText && tabText in tabs ? (tabText as Tab) : 'cables'

  const picked = useMemo(() => doc && pickedAt(at, doc), [at, doc])
  const setPicked = (next: Picked | undefined) =>
    setAt(next && (next.kind === 'terminal' ? next.ref : endKey(next.end)))
  const netRef = picked?.kind === 'terminal' ? picked.ref : picked && `${picked.end.cable}.${picked.end.core}`
  const net = useMemo(() => (circuit && netRef ? netAt(circuit, netRef) : undefined), [circuit, netRef])

  useEffect(() => {
    document.querySelector('.bench-strips .chip.here, .bench-strips .t-row.here')?.scrollIntoView({ block: 'nearest' })
    // eslint-disable-next-line react-hooks/exhaustive-deps -- when something else is picked, or the wiring has come
  }, [at, doc === undefined])
  useHotkeys('escape', () => {
    setPicked(undefined)
    setLinking(false)
  })
  useHotkeys('m', (event) => {
    event.preventDefault()
    document.querySelector<HTMLInputElement>('.picked-panel .place-field input')?.focus()
  })

  if (view.error) return <Failed error={view.error} retry={wiring.again} />
  if (!doc || !circuit) return <Loading what="the wiring" />

  const perform = (command: Command) => {
    setProblem(undefined)
    wiring.perform(command)
  }
  const alter = (step: Step | Command | undefined) => {
    if (!step) return setProblem('That cannot be done here: there is no free terminal, or something needs it.')
    const command = 'deed' in step ? commandOf(doc, step) : step
    if (isolated) perform(command)
    else setWaiting(command)
  }
  const hand: Hand = {
    doc,
    picked,
    pick(next) {
      setPicked(next)
      setLinking(false)
    },
    net,
    tap(terminal) {
      if (picked?.kind === 'end') {
        alter(land(picked.end, terminal))
        return
      }
      if (linking && picked?.kind === 'terminal' && picked.ref !== terminal) {
        alter(fitLink(doc, picked.ref, terminal))
        setLinking(false)
        return
      }
      setPicked(
        picked?.kind === 'terminal' && picked.ref === terminal ? undefined : { kind: 'terminal', ref: terminal },
      )
    },
    alter,
    linking,
    setLinking,
  }
  const dropped = ({ active, over }: DragEndEvent) => {
    if (!over) return
    const end = endOfKey(String(active.id))
    setPicked({ kind: 'end', end })
    alter(land(end, String(over.id)))
  }
  const standing = verdict.findings?.filter((f) => !doc.waivers?.some((w) => w.id === findingKey(f)))
  return (
    <HandContext.Provider value={hand}>
      <DndContext sensors={sensors} collisionDetection={pointerWithin} onDragEnd={dropped}>
        <main className="bench">
          <header className="work-tools no-print">
            <WiringTools {...wiring} />
            <Link
              className={`btn btn-sm ${standing?.some(isGrave) ? 'btn-danger' : 'btn-outline-primary'}`}
              to={`/jobs/${job}/checks`}
              data-live-verdict
            >
              {standing ? shortVerdictText({ findings: standing, known: verdict.known }) : 'Checking'}
              {verdict.progress !== undefined && ', looking at all states'}
            </Link>
            <Button size="sm" variant="outline-primary" onClick={() => window.print()}>
              Print
            </Button>
            {view.done.length > 0 && (
              <span className="quiet last-step">Last: {view.done[view.done.length - 1].label}</span>
            )}
          </header>
          {problem && (
            <p className="alarm" role="alert">
              {problem}
            </p>
          )}
          <div className="bench-grid">
            <div className="bench-strips">
              {doc.wiringCentres.map((centre) => (
                <div key={centre.id}>
                  <Strip centre={centre} />
                  {doc.wiringCentres.length > 1 && (
                    <Button
                      size="sm"
                      variant="link"
                      className="no-print"
                      onClick={() => alter(removeCentre(doc, centre))}
                    >
                      Take {centre.name} out
                    </Button>
                  )}
                </div>
              ))}
              <Button
                variant="outline-primary"
                size="sm"
                className="no-print"
                onClick={() => alter(addCentre(doc, `Wiring centre ${doc.wiringCentres.length + 1}`, 12))}
              >
                Add a wiring centre
              </Button>
            </div>
            <div className="bench-side no-print">
              <PickedPanel />
              <nav className="bench-tabs" aria-label="Beside the wiring centre">
                {(Object.keys(tabs) as Tab[]).map((t) => (
                  <button
                    key={t}
                    type="button"
                    aria-pressed={t === tab}
                    className={t === tab ? 'on' : ''}
                    onClick={() => setTab(t)}
                  >
                    {tabs[t]}
                  </button>
                ))}
              </nav>
              <section className="bench-tab" aria-label={tabs[tab]}>
                {tab === 'cables' && <Cables />}
                {tab === 'devices' && <Devices />}
                {tab === 'demands' && <Demands />}
                {tab === 'revisions' && <Revisions job={job} />}
                {tab === 'files' && <Files />}
              </section>
            </div>
          </div>
        </main>
      </DndContext>
      <IsolationGate
        job={job}
        show={waiting !== undefined}
        onAcknowledged={() => {
          acknowledge()
          if (waiting) perform(waiting)
          setWaiting(undefined)
        }}
        onLeave={() => setWaiting(undefined)}
      />
    </HandContext.Provider>
  )
}
