import { same, terminalText, type Core, type End, type FieldChange, type Installation, type Link } from '@nobbet/core'
import { openVisit, type Disturbed, type SiteRecord } from './site-record'

/**
 * What an alteration of the wiring on a visit disturbs: a conductor taken off its terminal, a link put in or taken out. What stands
 * again as it stood is disturbed no more; what somebody has settled is left alone. Plans and briefs disturb nothing: a change of the
 * brief is no work with a screwdriver, and what is done while no visit is open is done at the desk.
 */
export function disturbedAfter(
  record: SiteRecord,
  wiring: Installation,
  changes: readonly FieldChange[],
  { at, visit }: { at: string; visit: string },
): Disturbed[] {
  if (!openVisit(record) || changes.some(({ path }) => path[0] === 'brief')) return record.disturbed
  return changes.reduce((list, change) => afterChange(list, wiring, change, { at, visit }), record.disturbed)
}

function afterChange(
  list: Disturbed[],
  wiring: Installation,
  change: FieldChange,
  stamp: { at: string; visit: string },
): Disturbed[] {
  const [root, kind, cable = '', , core = '', ends, end = ''] = change.path
  if (root !== 'wiring') return list
  if (change.do === 'set' && kind === 'cables' && ends === 'ends') {
    const id = `lifted ${cable}.${core}.${end}`
    const [was, now] = [change.was as End | undefined, change.now as End | undefined]
    if (now?.at === 'terminal') return withoutOpen(list, id)
    if (was?.at !== 'terminal') return list
    return noted(
      list,
      {
        id,
        was: [was.terminal],
        what: `${coreText(wiring, cable, core)} is off ${terminalText(wiring, was.terminal)}`,
      },
      stamp,
    )
  }
  if (kind !== 'links' || (change.do !== 'add' && change.do !== 'drop')) return list
  const link = (change.do === 'add' ? change.value : change.was) as unknown as Link
  const [putIn, takenOut] = [`link-in ${link.id}`, `link-out ${link.between.join('-')}`]
  const between = link.between.map((ref) => terminalText(wiring, ref)).join(' and ')
  const [undoes, makes] = change.do === 'add' ? [takenOut, putIn] : [putIn, takenOut]
  const rest = withoutOpen(list, undoes)
  if (rest !== list) return rest
  const what = change.do === 'add' ? `A link is in between ${between}` : `The link between ${between} is out`
  return noted(list, { id: makes, was: [...link.between], what }, stamp)
}

/** Without what is undone; the same list where it was not in it. What was settled before is not touched. */
const withoutOpen = (list: Disturbed[], id: string): Disturbed[] =>
  list.some((one) => one.id === id && !one.settled) ? list.filter((one) => one.id !== id || one.settled) : list

const noted = (
  list: Disturbed[],
  thing: Pick<Disturbed, 'id' | 'what' | 'was'>,
  stamp: { at: string; visit: string },
) => {
  const now: Disturbed = { ...thing, ...stamp, by: 'wiring' }
  const known = list.find((one) => one.id === thing.id)
  return known && same({ ...known, at: '', visit: '' }, { ...now, at: '', visit: '' })
    ? list
    : [...list.filter((one) => one.id !== thing.id), now]
}

function coreText({ cables }: Installation, cable: string, core: string): string {
  const of = cables.find(({ id }) => id === cable)
  const one: Core | undefined = of?.cores.find(({ id }) => id === core)
  return one ? `${one.colour} of ${of!.label}` : `${core} of ${cable}`
}
