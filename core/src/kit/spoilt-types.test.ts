import fc from 'fast-check'
import { deviceTypes, readDeviceType } from '../catalogue'
import { faultsOf, Rig } from '../hypotheses'
import { tryFeeds, tryOut, usualFeeds, type TryFeed } from '.'

type Json = null | boolean | number | string | Json[] | { [key: string]: Json }

/** Every place in a JSON value, as a path. */
function places(json: Json, at: (string | number)[] = []): (string | number)[][] {
  if (json === null || typeof json !== 'object') return [at]
  const inner = Array.isArray(json)
    ? json.flatMap((x, i) => places(x, [...at, i]))
    : Object.entries(json).flatMap(([k, x]) => places(x, [...at, k]))
  return at.length > 0 ? [at, ...inner] : inner
}

/** Takes out what stands at a place, doubles it, or puts something else of the same kind there. */
function spoil(json: Json, place: (string | number)[], how: number, words: string[]): void {
  let at = json as Record<string | number, Json>
  for (const step of place.slice(0, -1)) at = at[step] as Record<string | number, Json>
  const last = place[place.length - 1]
  const now = at[last]
  if (how % 3 === 0) {
    if (Array.isArray(at)) (at as Json[]).splice(Number(last), 1)
    else delete at[last]
  } else if (Array.isArray(at) && how % 3 === 1) (at as Json[]).push(JSON.parse(JSON.stringify(now)))
  else if (typeof now === 'string') at[last] = words[how % words.length]
  else if (typeof now === 'number') at[last] = [0, -1, 1, now * 10, now / 10][how % 5]
  else if (typeof now === 'boolean') at[last] = !now
}

describe('a device type that is found whole', () => {
  it('can be tried out and every fault of it put in, however it was spoilt before it was read', () => {
    let whole = 0
    fc.assert(
      fc.property(
        fc.constantFrom(...deviceTypes),
        fc.array(fc.tuple(fc.nat(), fc.nat()), { minLength: 1, maxLength: 3 }),
        fc.array(fc.constantFrom<TryFeed | undefined>(undefined, ...(Object.keys(tryFeeds) as TryFeed[])), {
          minLength: 12,
          maxLength: 12,
        }),
        (type, strokes, joins) => {
          const json = JSON.parse(JSON.stringify({ ...type, id: 'own-spoilt' })) as Json
          for (const [where, how] of strokes) {
            const all = places(json)
            const words = [...type.terminals, ...type.controls, ...type.settings, ...type.primitives].map((x) => x.id)
            spoil(json, all[where % all.length], how, words)
          }
          const read = readDeviceType(json)
          if ('problems' in read) {
            for (const { reason } of read.problems) expect(reason).not.toBe('')
            return
          }
          whole++
          const feeds = usualFeeds(read.type)
          read.type.terminals.forEach((t, i) => {
            const feed = joins[i % joins.length]
            if (feed && !t.internal) feeds[t.id] = feed
          })
          const circuit = tryOut(read.type, feeds)
          const rig = new Rig(circuit)
          rig.simulation.run(600_000)
          for (const { name } of faultsOf(circuit))
            if (name.startsWith('it.')) rig.perform({ do: 'fault', fault: name })
          rig.simulation.run(60_000)
          rig.simulation.letWarm({ house: 'flat', weather: 'winter' })
          rig.simulation.run(600_000)
        },
      ),
      { numRuns: 500 },
    )
    // Else the property would say nothing.
    expect(whole).toBeGreaterThan(60)
  })
})
