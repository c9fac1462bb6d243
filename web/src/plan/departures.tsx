import { firstWiring, type JobDocument } from '@nobbet/contract'
import { differencesOf, endText, joinedIn, same, type Core, type Installation } from '@nobbet/core'
import { useMemo } from 'react'
import { Button } from 'react-bootstrap'

interface DeparturesProps {
  document: JobDocument
  onKeep: (kept: Record<string, string>) => void
}

/** A conductor that lies otherwise than the brief would have it, at one of its ends. */
interface Departure {
  /** The end: cable.core.0 or cable.core.1. */
  end: string
  name: string
  here: string
  proposed: string
  /** The terminal it could be kept in; left out where it is joined otherwise, or is in none. */
  terminal?: string
  /** It is in a terminal, whichever. */
  isLanded: boolean
}

function departuresOf(wiring: Installation, proposal: Installation): Departure[] {
  const at = (core: Core, i: 0 | 1) => JSON.stringify({ ...core.ends[i], provenance: undefined })
  return differencesOf(proposal, wiring).conductors.flatMap(({ cable, was, is }) =>
    was && is
      ? ([0, 1] as const)
          .filter((i) => at(was, i) !== at(is, i))
          .map((i): Departure => {
            const end = is.ends[i]
            const before = was.ends[i]
            // What is joined otherwise is not kept by keeping its number: the proposal joins it as it ought to be.
            const isJoinedAlike =
              end.at === 'terminal' &&
              before.at === 'terminal' &&
              same(joinedIn(wiring, end.terminal), joinedIn(proposal, before.terminal))
            return {
              end: `${cable.id}.${is.id}.${i}`,
              name: `${is.colour} of ${cable.label}`,
              here: endText(wiring, end),
              proposed: endText(proposal, was.ends[i]),
              terminal: isJoinedAlike ? end.terminal : undefined,
              isLanded: end.at === 'terminal',
            }
          })
      : [],
  )
}

/** What lies otherwise than it would be laid out, and what is to stay so when the plan is made again. */
export function Departures({ document, onKeep }: DeparturesProps) {
  const { wiring, brief } = document
  const departures = useMemo(() => departuresOf(wiring, firstWiring(brief, wiring.id)), [wiring, brief])
  const kept = brief.fitted.kept ?? {}
  const count = Object.keys(kept).length
  const canKeep = departures.filter(({ terminal }) => terminal !== undefined)
  if (departures.length === 0 && count === 0) return null
  const keep = (more: readonly Departure[]) =>
    onKeep({ ...kept, ...Object.fromEntries(more.flatMap(({ end, terminal }) => (terminal ? [[end, terminal]] : []))) })
  return (
    <section className="sheet departures no-print" aria-label="Departs from the proposal">
      <h2>
        {departures.length === 0
          ? 'As proposed'
          : departures.length === 1
            ? 'One end departs from the proposal'
            : `${departures.length} ends depart from the proposal`}
      </h2>
      {departures.length > 0 && (
        <details open={departures.length <= 8}>
          <summary>Which they are</summary>
          <table className="plain">
            <thead>
              <tr>
                <th scope="col">Conductor</th>
                <th scope="col">Here</th>
                <th scope="col">Proposed</th>
                <th scope="col">
                  <span className="visually-hidden">Keep</span>
                </th>
              </tr>
            </thead>
            <tbody>
              {departures.map((one) => (
                <tr key={one.end}>
                  <th scope="row">{one.name}</th>
                  <td>{one.here}</td>
                  <td>{one.proposed}</td>
                  <td>
                    {one.terminal ? (
                      <Button size="sm" variant="outline-primary" onClick={() => keep([one])}>
                        Keep it here
                      </Button>
                    ) : (
                      one.isLanded && 'joined otherwise'
                    )}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </details>
      )}
      <div className="d-flex flex-wrap gap-2 align-items-center">
        {canKeep.length > 1 && (
          <Button variant="outline-primary" onClick={() => keep(canKeep)}>
            Keep all of them here
          </Button>
        )}
        {count > 0 && (
          <>
            <span>
              {count === 1 ? 'One end is' : `${count} ends are`} kept where {count === 1 ? 'it is' : 'they are'} when
              the plan is made again, with what is joined there.
            </span>
            <Button size="sm" variant="outline-dark" onClick={() => onKeep({})}>
              Let go
            </Button>
          </>
        )}
      </div>
    </section>
  )
}
