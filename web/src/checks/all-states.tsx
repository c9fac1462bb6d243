import {
  assumptions,
  fewAtOnceText,
  gapText,
  propertyVerdictWords,
  propertyWords,
  type AllStates,
  type Circuit,
  type DemandRow,
  type Known,
  type PropertyVerdict,
} from '@nobbet/core'
import { Check, CircleDashed, CircleHelp, Minus, X, type LucideIcon } from 'lucide-react'
import { useMemo, type ReactNode } from 'react'

/** How each verdict on a property is marked, beside its words. */
const marks: Record<PropertyVerdict, LucideIcon> = {
  held: Check,
  assumed: CircleHelp,
  broken: X,
  unfinished: CircleDashed,
  'not-looked-at': Minus,
}

/** What was looked at, what holds, and the table an engineer would draw: demand against outcome. */
export function AllStatesView({
  circuit,
  states,
  known,
  children,
}: {
  circuit: Circuit
  states: AllStates
  known: Known
  children?: ReactNode
}) {
  return (
    <div className="states-grid">
      <div>
        <section className="sheet properties" aria-label="Properties">
          <h2>In every state</h2>
          <ul>
            {states.properties.map(({ id, verdict, broken }) => {
              const Mark = marks[verdict]
              return (
                <li key={id} className={verdict} data-property={id} data-verdict={verdict}>
                  <Mark size={18} aria-hidden />
                  <span>
                    {propertyWords[id]}
                    {verdict === 'broken' && `: broken${broken.length > 1 ? ` in ${broken.length} ways` : ''}`}
                    {verdict !== 'broken' && verdict !== 'held' && (
                      <span className="how">{propertyVerdictWords[verdict]}</span>
                    )}
                  </span>
                  {verdict === 'held' && <span className="visually-hidden">holds</span>}
                </li>
              )
            })}
          </ul>
        </section>
        <section className="sheet assumed" aria-label="What was assumed">
          <h2>What was assumed, what was not looked at</h2>
          <ul>
            {known.gaps.map((gap) => (
              <li key={JSON.stringify(gap)} className="gap" data-gap={gap.gap}>
                {gapText(circuit, gap)}.
              </li>
            ))}
            {assumptions.map((text) => (
              <li key={text}>{text}</li>
            ))}
            {states.alike.map((group) => (
              <li key={group.join()}>
                Alike, and counted together: {group.map((id) => demandName(circuit, id)).join(', ')}.
              </li>
            ))}
            {states.fewAtOnce && <li data-few-at-once="">{fewAtOnceText(states.fewAtOnce)}.</li>}
          </ul>
        </section>
      </div>
      <div>
        <DemandTable circuit={circuit} states={states} />
        {children}
      </div>
    </div>
  )
}

const demandName = (circuit: Circuit, id: string): string =>
  circuit.installation.intent.demands.find((d) => d.id === id)?.name ?? id

function DemandTable({ circuit, states }: { circuit: Circuit; states: AllStates }) {
  const { demands } = circuit.installation.intent
  const calls = useMemo(
    () =>
      [...new Set(states.table.flatMap((row) => [...row.expected.calls, ...row.found.flatMap((f) => f.calls)]))].sort(),
    [states.table],
  )
  const callName = (call: string) => {
    const [boiler, input] = call.split('.')
    const device = circuit.devices[circuit.deviceIndex.get(boiler)!]
    return `${device.device.name} ${input}`
  }
  const cell = (expected: boolean, found: boolean[], wait: boolean) => {
    const always = found.every(Boolean)
    const sometimes = found.some(Boolean)
    const word = always ? 'yes' : sometimes ? 'either' : 'no'
    const wrong = expected ? !always : sometimes && !wait
    return { word, wrong }
  }
  return (
    <section className="sheet demand-table" aria-label="Demand table">
      <h2>Demands, and what comes of them</h2>
      <div className="scroller">
        <table>
          <thead>
            <tr>
              {demands.map((d) => (
                <th key={d.id} scope="col">
                  {d.name}
                </th>
              ))}
              {calls.map((c) => (
                <th key={c} scope="col" className="outcome">
                  {callName(c)} called
                </th>
              ))}
              <th scope="col" className="outcome">
                Open
              </th>
              <th scope="col" className="outcome">
                As expected
              </th>
            </tr>
          </thead>
          <tbody>
            {states.table.map((row) => (
              <tr key={row.wanted.join()} className={row.right ? '' : 'off'} data-wanted={row.wanted.join(' ')}>
                {demands.map((d) => (
                  <td key={d.id} className={row.wanted.includes(d.id) ? 'asked' : 'unasked'}>
                    {row.waits.includes(d.id) ? 'waits' : row.wanted.includes(d.id) ? 'wanted' : '–'}
                  </td>
                ))}
                {calls.map((c) => {
                  const found = row.found.map((f) => f.calls.includes(c))
                  const { word, wrong } = cell(row.expected.calls.includes(c), found, row.waits.length > 0)
                  return (
                    <td key={c} className={wrong ? 'differs' : word === 'yes' ? 'called' : ''}>
                      {word}
                      {wrong && (
                        <span className="expected">expected {row.expected.calls.includes(c) ? 'yes' : 'no'}</span>
                      )}
                    </td>
                  )
                })}
                <td className="circuits">{openText(circuit, row)}</td>
                <td className={row.right ? 'circuits' : 'differs'}>
                  {row.right ? (row.inPart ? 'yes, looked at in part' : 'yes') : 'no'}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </section>
  )
}

function openText(circuit: Circuit, { found }: DemandRow): string {
  const texts = found.map((f) => f.open.map((id) => demandName(circuit, id)).join(', ') || 'none')
  return [...new Set(texts)].join(' or ')
}
