import { effectsText, type Circuit, type PutIn } from '@nobbet/core'
import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { Form, Modal } from 'react-bootstrap'
import { ask } from '../workers/compute'
import type { SessionHandle } from './use-session'

/** Fewer than so many that are looked for are shown without their devices. */
const fewFound = 25

/** What can be put in that is wrong, by the device or box it is at, the commonest first: failed parts, conductors, links and settings. */
export function PutInDialog({ handle, onClose }: { handle: SessionHandle; onClose: () => void }) {
  const [filter, setFilter] = useState('')
  const [problem, setProblem] = useState<string>()
  const { rig, circuit } = handle.session
  const words = filter.toLowerCase().split(/\s+/).filter(Boolean)
  const all = [...rig.faults.values()]
  const found = all.filter((f) => words.every((w) => f.label.toLowerCase().includes(w)))
  const toggle = (fault: PutIn) => {
    const isIn = rig.faultsIn.includes(fault)
    handle.act({ do: isIn ? 'mend' : 'fault', fault: fault.name })
    const refused = handle.session.problem
    setProblem(refused)
    if (!isIn && !refused) onClose()
  }
  const list = (faults: readonly PutIn[]) => (
    <PutIns circuit={circuit} faults={faults} isIn={(f) => rig.faultsIn.includes(f)} onToggle={toggle} />
  )
  return (
    <Modal show onHide={onClose} scrollable size="lg" aria-labelledby="faults-title">
      <Modal.Header closeButton>
        <Modal.Title as="h2" id="faults-title">
          Put a fault in and watch
        </Modal.Title>
      </Modal.Header>
      <Modal.Body className="put-ins">
        <Form.Control
          autoFocus
          placeholder="Find: valve, end switch, open, link, exchanged"
          aria-label="Find a fault"
          value={filter}
          onChange={(e) => setFilter(e.target.value)}
        />
        {problem && <p className="alarm mt-2">{problem}</p>}
        {rig.faultsIn.length > 0 && (
          <section aria-label="What is in">
            <h3>In now</h3>
            {list(rig.faultsIn)}
          </section>
        )}
        {found.length === 0 && <p className="quiet p-2">No fault of that name. Try fewer letters.</p>}
        {words.length > 0 && found.length <= fewFound
          ? list(commonestFirst(found))
          : byPlace(circuit, found).map(({ id, name, faults }) => (
              <Place key={id} name={name} faults={faults} list={list} />
            ))}
      </Modal.Body>
    </Modal>
  )
}

const commonestFirst = (faults: readonly PutIn[]) => [...faults].sort((x, y) => y.prior - x.prior)

/** Devices and boxes in the order of the document, each with what can be wrong at it. */
function byPlace({ installation }: Circuit, faults: readonly PutIn[]) {
  const places = [...installation.devices, ...installation.wiringCentres]
  return places.flatMap(({ id, name }) => {
    const here = faults.filter((f) => f.at[0] === id)
    return here.length > 0 ? [{ id, name, faults: here }] : []
  })
}

interface PlaceProps {
  name: string
  faults: readonly PutIn[]
  list: (faults: readonly PutIn[]) => React.ReactNode
}

/** What can be wrong at one device: its parts and conductors first, then its wiring and how it was set up. */
function Place({ name, faults, list }: PlaceProps) {
  const [open, setOpen] = useState(false)
  const failed = faults.filter((f) => !f.change)
  const wired = faults.filter((f) => f.change)
  return (
    <details open={open} onToggle={(event) => setOpen(event.currentTarget.open)}>
      <summary>
        {name} <span className="quiet">{faults.length}</span>
      </summary>
      {open && failed.length > 0 && list(commonestFirst(failed))}
      {open && wired.length > 0 && (
        <>
          <h4>Wiring and set-up</h4>
          {list(commonestFirst(wired))}
        </>
      )}
    </details>
  )
}

interface PutInsProps {
  circuit: Circuit
  faults: readonly PutIn[]
  isIn: (fault: PutIn) => boolean
  onToggle: (fault: PutIn) => void
}

function PutIns({ circuit, faults, isIn, onToggle }: PutInsProps) {
  const names = faults.map((f) => f.name)
  const { data } = useQuery({
    staleTime: Infinity,
    networkMode: 'always',
    retry: false,
    queryKey: ['shown', circuit.installation, names],
    queryFn: () => ask('checks', (api) => api.shown(circuit.installation, names)),
  })
  return (
    <ul className="fault-list">
      {faults.map((fault) => (
        <li key={fault.name}>
          <button className={isIn(fault) ? 'in' : ''} aria-pressed={isIn(fault)} onClick={() => onToggle(fault)}>
            <span>
              {fault.label}
              <span className="shows">{data ? effectsText(circuit, data[fault.name] ?? []) : '\u00a0'}</span>
            </span>
            <strong>{isIn(fault) ? 'Take out' : 'Put in'}</strong>
          </button>
        </li>
      ))}
    </ul>
  )
}
