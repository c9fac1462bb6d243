import {
  agrees,
  answerText,
  lookAt,
  same,
  terminalName,
  wholeAfter,
  wordOf,
  type Found,
  type LookResult,
  type WrittenLook,
} from '@nobbet/core'
import { useMemo, useRef, useState } from 'react'
import type { HuntScreen } from './hunt-screen'

interface CentreColumnProps {
  screen: HuntScreen
  centre: string
}

/** A wiring centre, terminal under terminal: what each should read as the controls stand, beside what is found there. */
export function CentreColumn({ screen, centre }: CentreColumnProps) {
  const { circuit, entries, writer } = screen
  const whole = circuit.installation.wiringCentres.find(({ id }) => id === centre)!
  const inUse = useMemo(() => new Set(used(screen, centre)), [screen, centre])
  const healthy = useMemo(() => wholeAfter(circuit, entries), [circuit, entries])
  const rows = whole.terminals.filter(({ id }) => inUse.has(`${centre}.${id}`))
  // What was found since the last thing that was set: it is of the state things are in now.
  const since = entries.findLastIndex((entry) => 'do' in entry || 'mended' in entry || 'renew' in entry)
  const now = entries.slice(since + 1)
  const fields = useRef<(HTMLInputElement | null)[]>([])
  return (
    <>
      <p className="quiet">
        Low-impedance tester to neutral, controls as they stand now. Or type volts, l or d, and Enter for the next one.
      </p>
      <table className="centre-column">
        <thead>
          <tr>
            <th>Terminal</th>
            <th>Should read</th>
            <th>Found</th>
          </tr>
        </thead>
        <tbody>
          {rows.map(({ id, legend }, i) => {
            const see = tester(`${centre}.${id}`)
            const should = lookAt(healthy, see)
            const found = foundIn(now, see)
            const departs = found !== undefined && !agrees(should, asResult(found, should))
            return (
              <tr key={id} className={departs ? 'departs' : ''} data-terminal={`${centre}.${id}`}>
                <th scope="row">
                  {id} <span className="legend">{legend}</span>
                </th>
                <td>{shouldText(should)}</td>
                <td>
                  <FoundCell
                    label={terminalName(circuit, see.red)}
                    found={found && answerText(circuit, see, found)}
                    departs={departs}
                    refer={(field) => void (fields.current[i] = field)}
                    onFound={(one) => {
                      void writer.add([{ see, found: one }])
                      fields.current[i + 1]?.focus()
                    }}
                  />
                </td>
              </tr>
            )
          })}
        </tbody>
      </table>
    </>
  )
}

const tester = (red: string) => ({ at: 'points', with: 'tester', red }) as const satisfies WrittenLook

interface FoundCellProps {
  label: string
  found?: string
  departs: boolean
  refer: (field: HTMLInputElement | null) => void
  onFound: (found: Found) => void
}

function FoundCell({ label, found, departs, refer, onFound }: FoundCellProps) {
  const [text, setText] = useState('')
  const [wrong, setWrong] = useState(false)
  const write = () => {
    const read = foundOf(text)
    setWrong(read === undefined)
    if (!read) return
    onFound(read)
    setText('')
  }
  return (
    <form
      className="found-cell"
      onSubmit={(event) => {
        event.preventDefault()
        if (text.trim() !== '') write()
      }}
    >
      <button type="button" aria-label={`${label}: live`} onClick={() => onFound({ word: 'live' })}>
        Live
      </button>
      <button type="button" aria-label={`${label}: not live`} onClick={() => onFound({ word: 'dead' })}>
        Not live
      </button>
      <input
        ref={refer}
        aria-label={`${label}: volts`}
        aria-invalid={wrong}
        placeholder="V"
        value={text}
        maxLength={7}
        onChange={(event) => setText(event.target.value)}
      />
      {found !== undefined && (
        <span className="found">
          {departs && <span aria-label="departs">≠ </span>}
          {found}
        </span>
      )}
      {wrong && <span className="problem">Type volts, l for live or d for dead.</span>}
    </form>
  )
}

/** What was typed: volts, or live or dead by their letters; undefined where it is none of them. */
export function foundOf(text: string): Found | undefined {
  const typed = text.trim().toLowerCase().replace(/v$/, '').replace(',', '.').trim()
  if (typed === 'l' || typed === 'live') return { word: 'live' }
  if (typed === 'd' || typed === 'dead') return { word: 'dead' }
  const volts = Number(typed)
  return typed !== '' && volts >= 0 && volts <= 1000 ? { value: volts, unit: 'V' } : undefined
}

const foundIn = (entries: HuntScreen['entries'], see: WrittenLook): Found | undefined => {
  const last = entries.findLast((entry) => 'see' in entry && same(entry.see, see))
  return last && 'see' in last && typeof last.found !== 'string' ? last.found : undefined
}

const asResult = (found: Found, should: LookResult): LookResult =>
  'unit' in found && found.unit === 'V' ? { ...found, full: 'full' in should ? should.full : found.value } : found

function shouldText(should: LookResult): string {
  if ('unknown' in should) return 'not known'
  const word = wordOf(should)
  const volts = 'value' in should && should.value !== null ? `${Math.round(should.value)} V` : ''
  return word === 'live' ? `Live, ${volts}` : word === 'dead' ? `Not live, ${volts}` : volts
}

/** Terminals in which something is. */
function used({ circuit }: HuntScreen, centre: string): string[] {
  const { cables, links } = circuit.installation
  const ends = cables.flatMap((c) =>
    c.cores.flatMap((k) => k.ends.flatMap((e) => (e.at === 'terminal' ? [e.terminal] : []))),
  )
  return [...ends, ...links.flatMap(({ between }) => between)].filter((ref) => ref.startsWith(`${centre}.`))
}
