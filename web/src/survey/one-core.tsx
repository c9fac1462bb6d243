import {
  farEndText,
  sayings,
  surveyBecauseText,
  typeIn,
  type Colour,
  type CoreStanding,
  type Installation,
} from '@nobbet/core'
import { useState } from 'react'
import { Button, Form } from 'react-bootstrap'
import { Conductor } from '../drawing/conductor'
import { SureMark } from './sure-mark'
import type { CoreName, Writing } from './use-writing'

interface OneCoreProps {
  doc: Installation
  writing: Writing
  name: CoreName
  standing?: CoreStanding
  onClose: () => void
}

const sleeves: readonly Colour[] = ['brown', 'blue', 'black', 'grey', 'red', 'yellow', 'white', 'orange']

const sayingWords = {
  label: 'A label says so',
  drawing: 'A drawing says so',
  'earlier-visit': 'An earlier visit says so',
  guess: 'My guess',
} as const

/** One conductor: where it goes and what speaks for that, what else it may be, and what was found out about its cable. */
export function OneCore({ doc, writing, name, standing, onClose }: OneCoreProps) {
  const { survey, wait, put, drop, found } = writing
  const cable = survey.cables.find(({ id }) => id === name.cable)
  const core = cable?.cores.find(({ id }) => id === name.core)
  const [device, setDevice] = useState('')
  const [how, setHow] = useState<'follows' | (typeof sayings)[number]>('follows')
  const [terminal, setTerminal] = useState('')
  if (!cable || !core) return null
  const withDevice = doc.devices.filter(({ type }) => typeIn(doc, type).terminals.some(({ internal }) => !internal))
  const terminals = withDevice.flatMap(({ id, name: called, type }) =>
    typeIn(doc, type).terminals.flatMap((t) =>
      t.internal ? [] : [{ ref: `${id}.${t.id}`, says: `${called}, ${t.id}` }],
    ),
  )
  return (
    <section className="sheet one-core" aria-label="This conductor">
      <header>
        <h2>
          <Conductor colour={core.colour} sleeve={core.sleeve} /> of {cable.label}
        </h2>
        <Button size="sm" variant="outline-dark" onClick={onClose}>
          Close
        </Button>
      </header>
      {standing?.to && (
        <p className="one-goes">
          <SureMark sure={standing.sure} share={standing.share} /> {farEndText(doc, standing.to)}
        </p>
      )}
      <ul className="one-because">
        {standing?.because.map((because) => (
          <li key={JSON.stringify(because)}>{surveyBecauseText(doc, survey, because)}</li>
        ))}
        {standing?.others.slice(0, 4).map(({ to, share }) => (
          <li key={JSON.stringify(to)} className="quiet">
            or {farEndText(doc, to)}, {Math.round(share * 100)} %
          </li>
        ))}
      </ul>
      <div className="one-acts no-print">
        <Button size="sm" variant="outline-primary" onClick={() => wait(name)}>
          It sits elsewhere
        </Button>
        <Button size="sm" variant="outline-dark" onClick={() => (drop(cable.id), onClose())}>
          There is no such cable
        </Button>
      </div>
      <div className="one-says no-print">
        <Form.Label htmlFor="cable-label">What is written on the cable</Form.Label>
        <Form.Control
          id="cable-label"
          key={cable.id}
          defaultValue={cable.label}
          maxLength={120}
          onBlur={(event) => {
            const label = event.target.value.trim()
            if (label !== '' && label !== cable.label) put({ ...cable, label })
          }}
        />
        <Form.Label htmlFor="core-sleeve">Sleeve or flag on this conductor</Form.Label>
        <Form.Select
          id="core-sleeve"
          value={core.sleeve ?? ''}
          onChange={(event) => {
            const colour = sleeves.find((one) => one === event.target.value)
            const cores = cable.cores.map(({ sleeve, ...one }) =>
              one.id !== core.id
                ? { ...one, ...(sleeve && { sleeve }) }
                : { ...one, ...(colour && { sleeve: colour }) },
            )
            put({ ...cable, cores })
          }}
        >
          <option value="">none</option>
          {sleeves.map((colour) => (
            <option key={colour} value={colour}>
              {colour}
            </option>
          ))}
        </Form.Select>
        <Form.Label htmlFor="cable-goes">The cable goes to</Form.Label>
        <div className="write-line">
          <Form.Select id="cable-goes" value={device} onChange={(event) => setDevice(event.target.value)}>
            <option value="">…</option>
            {withDevice.map(({ id, name: called }) => (
              <option key={id} value={id}>
                {called}
              </option>
            ))}
          </Form.Select>
          <Form.Select
            aria-label="How that is known"
            value={how}
            onChange={(event) => setHow(event.target.value as typeof how)}
          >
            <option value="follows">I followed it by eye</option>
            {sayings.map((one) => (
              <option key={one} value={one}>
                {sayingWords[one]}
              </option>
            ))}
          </Form.Select>
          <Button
            disabled={device === ''}
            onClick={() => {
              found(
                how === 'follows'
                  ? { see: 'follows', cable: cable.id, device }
                  : { see: 'said', cable: cable.id, device, from: how },
              )
              setDevice('')
            }}
          >
            Note
          </Button>
        </div>
        <Form.Label htmlFor="core-at">I saw this conductor’s far end on</Form.Label>
        <div className="write-line">
          <Form.Select id="core-at" value={terminal} onChange={(event) => setTerminal(event.target.value)}>
            <option value="">…</option>
            {terminals.map(({ ref, says }) => (
              <option key={ref} value={ref}>
                {says}
              </option>
            ))}
          </Form.Select>
          <Button
            disabled={terminal === ''}
            onClick={() => {
              found({ see: 'far-end', cable: cable.id, core: core.id, to: terminal })
              setTerminal('')
            }}
          >
            Note
          </Button>
        </div>
        <div className="one-acts">
          <Button size="sm" variant="outline-dark" onClick={() => found({ see: 'leaves', cable: cable.id })}>
            It leaves for another box
          </Button>
          <Button size="sm" variant="outline-dark" onClick={() => found({ see: 'not-found', cable: cable.id })}>
            Its end is not found
          </Button>
        </div>
      </div>
    </section>
  )
}
