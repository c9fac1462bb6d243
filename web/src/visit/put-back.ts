import { recordOf, type Disturbed, type LeftOpen } from '@nobbet/contract'
import { edited, EditError, type Change, type Installation } from '@nobbet/core'
import { v4 as newId } from 'uuid'
import type { JobStore } from '../store/job-store'

/**
 * Puts a thing back in the record: of a hunt's it is the act that undoes it; what was done to the wiring is undone in the wiring, and is
 * then no longer disturbed.
 */
export async function putBack(store: JobStore, { id, by }: Pick<LeftOpen, 'id' | 'by'>): Promise<void> {
  if (by === 'hunt') {
    const line = { entry: { do: id, id: newId() }, at: new Date().toISOString(), note: '' }
    return store.record({ do: 'hunt', lines: [line] })
  }
  const { state } = store.current()
  const thing = state && recordOf(state).disturbed.find((one) => one.id === id)
  const change = thing?.by === 'wiring' && state ? undone(state.document.wiring, thing) : undefined
  if (!thing || !change) return store.record({ do: 'settle', disturbed: id, how: 'back' })
  try {
    await store.edit(`Put back: ${thing.what}`, (document) => ({
      ...document,
      wiring: edited(document.wiring, { label: 'Put back', changes: [change] }).doc,
    }))
  } catch (error) {
    if (!(error instanceof EditError)) throw error
    store.refuse(`Not put back: ${error.message}`)
  }
}

/** What undoes it; undefined where it is not so any more. */
function undone({ cables, links }: Installation, { id, was = [] }: Disturbed): Change | undefined {
  const [a, b] = was
  const [how, of = ''] = id.split(' ')
  if (how === 'link-in') return links.some((link) => link.id === of) ? { do: 'drop', in: 'links', id: of } : undefined
  if (how === 'link-out')
    return a !== undefined && b !== undefined
      ? { do: 'put', in: 'links', value: { id: `link-${newId().slice(0, 8)}`, kind: 'fitted', between: [a, b] } }
      : undefined
  const [cable = '', core = '', end] = of.split('.')
  const there = cables.find((one) => one.id === cable)?.cores.some((one) => one.id === core)
  if (!there || a === undefined) return undefined
  return { do: 'end', cable, core, end: end === '1' ? 1 : 0, to: { at: 'terminal', terminal: a, provenance: 'seen' } }
}
