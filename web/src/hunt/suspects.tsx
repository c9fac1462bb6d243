import {
  answerText,
  expectedText,
  inSentence,
  parseAction,
  passes,
  putInsOf,
  rewiringOf,
  suspectText,
  unlisted,
  type Action,
  type NextLook,
  type RankedSuspect,
} from '@nobbet/core'
import { Link } from 'react-router'
import { SeveralAtOnce } from './at-once'
import { traceAddress } from '../trace/use-session'
import type { HuntScreen } from './hunt-screen'
import { percentText, Sureness } from './sureness'

/** Suspects that are put right with the same remedy. */
interface Group {
  key: string
  share: number
  suspects: RankedSuspect[]
}

const groupsShown = 7
const suspectsShown = 5
/** A part is worth having in the van from here on. */
const worthBringing = 0.05

/** The suspects, grouped as what one would replace or mend, the likeliest first; why each is still in, and why others are out. */
export function Suspects({ screen }: { screen: HuntScreen }) {
  const { view } = screen
  const { standing, answer, current, along } = view
  if (!standing) return null
  const groups = groupsOf(standing.suspects)
  const parts = partsToBring(groups)
  const others = standing.unlikely + groups.slice(groupsShown).reduce((sum, g) => sum + g.suspects.length, 0)
  return (
    <aside className="sheet suspects" aria-label="Suspects" aria-busy={!current}>
      <h2>
        <span className="count">{groups.filter(({ share }) => share >= 0.02).length}</span> in question
        {!current && (
          <span className="quiet fw-normal">
            {' '}
            · working{along > 0 && along < 1 ? ` ${Math.round(along * 100)} %` : ''}
          </span>
        )}
      </h2>
      <Mistaken screen={screen} />
      <ol>
        {groups.slice(0, groupsShown).map((group) => (
          <GroupItem key={group.key} screen={screen} group={group} next={current ? answer?.next[0] : undefined} />
        ))}
      </ol>
      {parts.length > 0 && (
        <details>
          <summary>Parts to bring: {parts.length}</summary>
          <ul>
            {parts.map(({ cause, share }) => (
              <li key={cause.id}>
                {remedyOf(cause)}{' '}
                <span className="quiet">
                  {deviceOf(screen, cause)}, {percentText(share)}
                </span>
              </li>
            ))}
          </ul>
        </details>
      )}
      <details>
        <summary>{others} others with less</summary>
        <ul>
          {groups.slice(groupsShown).map(({ key, suspects }) => (
            <li key={key}>{suspects.map(suspectText).join('; ')}</li>
          ))}
        </ul>
      </details>
      <SeveralAtOnce screen={screen} />
      {standing.ruledOut.length > 0 && (
        <details>
          <summary>{standing.ruledOut.length} ruled out, and by what</summary>
          <ul>
            {standing.ruledOut.map((suspect) => (
              <li key={suspect.id}>
                {suspectText(suspect)}
                <Against screen={screen} suspect={suspect} />
              </li>
            ))}
          </ul>
        </details>
      )}
    </aside>
  )
}

export function groupsOf(suspects: readonly RankedSuspect[]): Group[] {
  const groups = new Map<string, Group>()
  for (const suspect of suspects) {
    const key = suspect.group === '' ? suspect.id : suspect.group
    const group = groups.get(key) ?? { key, share: 0, suspects: [] }
    group.share += suspect.share
    group.suspects.push(suspect)
    groups.set(key, group)
  }
  return [...groups.values()].sort((x, y) => y.share - x.share)
}

/** What is wrong with a suspect, one by one. */
export type OneCause = Pick<RankedSuspect, 'id' | 'label' | 'remedy' | 'kind'>
export const causesIn = (suspect: RankedSuspect): readonly OneCause[] => suspect.causes ?? [suspect]

/** Each part once, with the share of all groups that it would go into. */
function partsToBring(groups: readonly Group[]): { cause: OneCause; share: number }[] {
  const parts = new Map<string, { cause: OneCause; share: number }>()
  const partOf = (cause: OneCause) => `${cause.id.split('.')[0]} ${remedyOf(cause)}`
  for (const { suspects, share } of groups) {
    const causes = causesIn(suspects[0]).filter(({ kind }) => kind === 'part')
    // Both of two may go with the same part.
    for (const [part, cause] of new Map(causes.map((one) => [partOf(one), one])))
      parts.set(part, { cause, share: share + (parts.get(part)?.share ?? 0) })
  }
  return [...parts.values()].filter(({ share }) => share >= worthBringing)
}

const remedyOf = ({ remedy }: OneCause): string => /^[^,.;]*/.exec(remedy)?.[0] ?? ''

/** The device whose part a suspect is; empty of what is none. */
export function deviceOf({ circuit }: HuntScreen, { id, kind }: OneCause): string {
  if (kind !== 'part') return ''
  return circuit.installation.devices.find((device) => device.id === id.split('.')[0])?.name ?? ''
}

interface GroupItemProps {
  screen: HuntScreen
  group: Group
  next?: NextLook
}

function GroupItem({ screen, group, next }: GroupItemProps) {
  const [first, ...more] = group.suspects
  const heading = first.id === unlisted ? 'Something on no list' : suspectText(first)
  return (
    <li data-suspect={first.id}>
      <details className="group">
        <summary>
          <span className="label">
            {first.causes && <span className="quiet">Two at once: </span>}
            {heading}
            {more.length > 0 && <span className="quiet"> and {more.length} more</span>}
          </span>
          <Sureness share={group.share} />
        </summary>
        {causesIn(first).map(
          ({ id, remedy }) =>
            remedy !== '' && (
              <p className="remedy" key={id}>
                {remedy}
              </p>
            ),
        )}
        <ul>
          {group.suspects.slice(0, suspectsShown).map((suspect) => (
            <li key={suspect.id} data-one={suspect.id}>
              <strong>{suspectText(suspect)}</strong> <span className="quiet">{percentText(suspect.share)}</span>
              <Why screen={screen} suspect={suspect} next={next} />
            </li>
          ))}
        </ul>
      </details>
    </li>
  )
}

/** Why it is still in, what speaks against it, what it predicts; and the way to watch it. */
function Why({ screen, suspect, next }: { screen: HuntScreen; suspect: RankedSuspect; next?: NextLook }) {
  const { circuit } = screen
  const outcome = next?.outcomes.find(({ shownBy }) => shownBy.includes(suspect.id))
  const watch = watchAddress(screen, suspect)
  return (
    <span className="why">
      {suspect.supported.length > 0 && <span>For it: {numbered(screen, suspect.supported)}.</span>}
      <Against screen={screen} suspect={suspect} />
      {suspect.like && suspect.like.length > 0 && (
        <span>Most like: {suspect.like.map(screen.labelOf).join('; ')}.</span>
      )}
      {next && outcome && <span>Next it would show: {inSentence(answerText(circuit, next.see, outcome.found))}.</span>}
      {watch && (
        <Link to={watch} aria-label={`Watch it in Trace: ${suspect.label}`}>
          Watch it in Trace
        </Link>
      )}
    </span>
  )
}

function Against({ screen, suspect }: { screen: HuntScreen; suspect: RankedSuspect }) {
  const { circuit, entries } = screen
  if (suspect.against.length === 0) return null
  return (
    <span className="against">
      Against it:{' '}
      {suspect.against
        .map(({ finding, expected }) => {
          const entry = entries.find(({ id }) => id === finding)
          const shown =
            entry && 'see' in entry ? `, would have shown “${expectedText(circuit, entry.see, expected)}”` : ''
          return `line ${numberOf(screen, finding)}${shown}`
        })
        .join('; ')}
      .
    </span>
  )
}

/** A line's number in the log, in which lines that are set aside stand as well. */
export const numberOf = ({ lines }: HuntScreen, id: string): number =>
  lines.findIndex(({ entry }) => entry.id === id) + 1

const numbered = (screen: HuntScreen, ids: readonly string[]): string =>
  ids.map((id) => `line ${numberOf(screen, id)}`).join(', ')

/** Trace with the controls as they stand in the hunt, and this wrong; undefined of what cannot be put in there. */
function watchAddress({ job, circuit, entries }: HuntScreen, { id }: RankedSuspect): string | undefined {
  if (!putInsOf(circuit).has(id)) return undefined
  const acts = entries.flatMap((entry): Action[] => {
    if (!('do' in entry) || rewiringOf(entry.do)) return []
    return [passes(entry.do) ? { do: 'wait', ms: waited(entry.do) } : parseAction(entry.do)]
  })
  return traceAddress(job, [{ do: 'fault', fault: id }, ...acts])
}

/** Until everything is at rest, as Trace has it: valves have travelled, an overrun is over. */
const atRestMs = 300_000
function waited(act: string): number {
  if (!act.startsWith('wait=')) return atRestMs
  const action = parseAction(act)
  return action.do === 'wait' ? action.ms : atRestMs
}

/** The finding most likely mistaken, with what speaks against it. */
function Mistaken({ screen }: { screen: HuntScreen }) {
  const [first] = screen.view.standing?.contradictions ?? []
  if (!first) return null
  const against = first.against.length > 0 ? numbered(screen, first.against) : 'all the others together'
  return (
    <p className="doubtful">
      Line {numberOf(screen, first.id)} does not go with the rest ({against}). Look again, or change it in the log if it
      was not sure.
    </p>
  )
}
