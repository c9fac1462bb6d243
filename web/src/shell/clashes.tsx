import { changeText, valueText, type FieldChange, type Installation } from '@nobbet/core'
import { ChevronDown, Users } from 'lucide-react'
import { useState } from 'react'
import { Button } from 'react-bootstrap'
import { momentText } from '../drawing/dates'
import type { JobStore } from '../store/job-store'
import type { JobView } from '../store/job-view'
import type { KeptClash } from '../store/kept'
import { briefThing } from './brief-words'

/** Things that two have changed: what I wanted and what stands there, until one is chosen. Nothing waits for the choice. */
export function Clashes({ view, store }: { view: JobView; store: JobStore }) {
  const { clashes, state } = view
  // On a phone one line stays in sight, and the rest comes when it is asked for.
  const [open, setOpen] = useState(() => window.innerWidth > 640)
  if (clashes.length === 0 || !state) return null
  const { wiring } = state.document
  return (
    <section className="clashes no-print" aria-label="Changed by two">
      <button aria-expanded={open} onClick={() => setOpen(!open)}>
        <Users size={20} aria-hidden />
        {clashes.length === 1 ? 'One thing was changed by two' : `${clashes.length} things were changed by two`}
        <ChevronDown size={20} className="ms-auto" aria-hidden />
      </button>
      {open && (
        <>
          <p className="quiet m-0">Theirs stands. Yours is kept until you choose; all else you did is in.</p>
          <ul>
            {clashes.map((clash) => (
              <Choice
                key={clash.id}
                clash={clash}
                wiring={wiring}
                choose={(which) => void store.choose(clash.id, which)}
              />
            ))}
          </ul>
        </>
      )}
    </section>
  )
}

interface ChoiceProps {
  clash: KeptClash
  wiring: Installation
  choose: (which: 'mine' | 'theirs') => void
}

function Choice({ clash: { label, at, clash, by }, wiring, choose }: ChoiceProps) {
  const { mine, theirs, why } = clash
  const [first] = mine
  const who = by ? `${by.author || 'Somebody'}, ${momentText(by.at)}` : 'Theirs'
  const standing = {
    both: first ? valueIn(wiring, first, theirs) : '',
    gone: 'taken out',
    senseless: 'cannot stand beside yours',
  }[why]
  return (
    <li>
      <strong>{label}</strong>
      <dl>
        <div>
          <dt>Yours, {momentText(at)}</dt>
          <dd>
            {mine.length > 3 ? `${mine.length} changes` : mine.map((change) => wishText(wiring, change)).join('; ')}
          </dd>
        </div>
        <div>
          <dt>{who}</dt>
          <dd>{standing}</dd>
        </div>
      </dl>
      <div className="choose">
        <Button variant="outline-primary" onClick={() => choose('theirs')}>
          Leave theirs
        </Button>
        <Button onClick={() => choose('mine')}>{why === 'gone' ? 'Bring it back with mine' : 'Put mine there'}</Button>
      </div>
    </li>
  )
}

const inBrief = (change: FieldChange) => change.path[0] === 'brief' || change.path[0] === 'status'

/** What a change wanted, in words. */
function wishText(wiring: Installation, change: FieldChange): string {
  if (!inBrief(change)) return changeText(wiring, { ...change, path: change.path.slice(1) })
  return `${briefThing(change.path)}: ${change.do === 'set' ? briefValue(change.now) : ''}`
}

function valueIn(wiring: Installation, change: FieldChange, value: unknown): string {
  return inBrief(change) ? briefValue(value) : valueText(wiring, change.path.slice(1), value)
}

const briefValue = (value: unknown): string =>
  typeof value === 'string' ? (value === '' ? 'nothing' : `“${value}”`) : value === undefined ? 'nothing' : 'otherwise'
