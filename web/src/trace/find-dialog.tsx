import { conductorName, deviceName, terminalName, type Circuit } from '@nobbet/core'
import { useMemo, useState } from 'react'
import { Form, Modal } from 'react-bootstrap'
import { conductorRef, whyRef } from './picked'

/** Something that can be done from the keyboard, by name. */
export interface Command {
  name: string
  /** The key that does it as well. */
  key?: string
  run: () => void
}

interface FindDialogProps {
  circuit: Circuit
  commands: readonly Command[]
  onPick: (ref: string) => void
  onClose: () => void
}

interface Entry {
  kind: 'Do' | 'Why' | 'Device' | 'Terminal' | 'Conductor'
  name: string
  aside?: string
  run: () => void
}

/** More at once nobody reads. */
const mostShown = 14

/** Any terminal, device or conductor by a few letters, and whatever can be done here. */
export function FindDialog({ circuit, commands, onPick, onClose }: FindDialogProps) {
  const [text, setText] = useState('')
  const entries = useMemo(() => entriesOf(circuit, commands, onPick), [circuit, commands, onPick])
  const words = text.toLowerCase().split(/\s+/).filter(Boolean)
  const found = entries.filter(({ kind, name, aside = '' }) => {
    const all = `${kind} ${name} ${aside}`.toLowerCase()
    return words.every((w) => all.includes(w))
  })
  const shown = found.slice(0, mostShown)
  const take = (entry: Entry | undefined) => {
    if (!entry) return
    onClose()
    entry.run()
  }
  return (
    <Modal show onHide={onClose} scrollable aria-labelledby="find-title">
      <Modal.Header closeButton>
        <Modal.Title as="h2" id="find-title">
          Find, or do
        </Modal.Title>
      </Modal.Header>
      <Modal.Body
        className="find"
        onKeyDown={(event) => {
          if (event.key !== 'ArrowDown' && event.key !== 'ArrowUp') return
          event.preventDefault()
          const all = [...event.currentTarget.querySelectorAll<HTMLElement>('input, li button')]
          const at = all.indexOf(document.activeElement as HTMLElement)
          all[Math.min(all.length - 1, Math.max(0, at + (event.key === 'ArrowDown' ? 1 : -1)))]?.focus()
        }}
      >
        <Form
          onSubmit={(event) => {
            event.preventDefault()
            take(shown[0])
          }}
        >
          <Form.Control
            autoFocus
            value={text}
            placeholder="Boiler SL, 29, black of boiler, run"
            aria-label="Find a terminal, device or conductor, or something to do"
            onChange={(e) => setText(e.target.value)}
          />
        </Form>
        <ul aria-label="Found">
          {shown.map((entry) => (
            <li key={`${entry.kind} ${entry.name} ${entry.aside ?? ''}`}>
              <button onClick={() => take(entry)}>
                <span className="find-kind">{entry.kind}</span> {entry.name}{' '}
                <span className="quiet">{entry.aside}</span>
              </button>
            </li>
          ))}
        </ul>
        {found.length === 0 && <p className="quiet">Nothing of that name. Try fewer letters.</p>}
        {found.length > shown.length && <p className="quiet">{found.length - shown.length} more: write on.</p>}
      </Modal.Body>
    </Modal>
  )
}

function entriesOf(circuit: Circuit, commands: readonly Command[], onPick: (ref: string) => void): Entry[] {
  const { demands } = circuit.installation.intent
  const terminals = circuit.atoms.filter(({ kind }) => kind === 'device' || kind === 'centre')
  const first = (device: string) => terminals.find(({ owner }) => owner === device)?.ref
  return [
    ...commands.map(({ name, key, run }): Entry => ({ kind: 'Do', name, aside: key, run })),
    ...[
      ...demands.map((d) => ({ id: d.id, name: d.name })),
      ...circuit.behaviours.map(({ device }) => circuit.devices[device].device),
    ].map(({ id, name }): Entry => ({ kind: 'Why', name, run: () => onPick(whyRef(id)) })),
    ...circuit.devices.flatMap(({ device }): Entry[] => {
      const ref = first(device.id)
      return ref ? [{ kind: 'Device', name: deviceName(circuit, device.id), run: () => onPick(ref) }] : []
    }),
    ...terminals.map(({ ref, legend, kind }): Entry => ({
      kind: 'Terminal',
      name: terminalName(circuit, ref),
      ...(kind === 'centre' && legend !== '' && { aside: legend }),
      run: () => onPick(ref),
    })),
    ...circuit.installation.cables.flatMap((cable) =>
      cable.cores.map((core): Entry => ({
        kind: 'Conductor',
        name: conductorName(circuit, cable.id, core.id),
        run: () => onPick(conductorRef(cable.id, core.id)),
      })),
    ),
  ]
}
