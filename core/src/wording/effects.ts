import type { Circuit } from '../circuit'
import type { Effect, Shown } from '../trace'
import { demandName, listed } from './findings'
import { deviceName } from './names'

/** Something that is not as the demands would have it: "Hot water is wanted and does not come". */
export function effectText(circuit: Circuit, effect: Effect): string {
  switch (effect.is) {
    case 'unmet':
      return `${demandName(circuit, effect.demand)} is wanted and does not come`
    case 'called-unasked':
      return `${deviceName(circuit, effect.boiler)} is called with no demand`
    case 'warm-unasked':
      return `${demandName(circuit, effect.demand)} warms unasked`
  }
}

/** What something wrong shows, in one line; of demands that show the same, all of them. */
export function effectsText(circuit: Circuit, shown: readonly Shown[]): string {
  if (shown.length === 0) return 'Shows nothing a customer would notice'
  if (shown.some(({ effect }) => effect.is === 'fuse-blows')) return 'The fuse blows'
  const names = (is: 'unmet' | 'warm-unasked', when: (w: Shown['when']) => boolean) =>
    shown.flatMap(({ effect, when: w }) => (effect.is === is && when(w) ? [demandName(circuit, effect.demand)] : []))
  const parts: string[] = []
  const say = (list: readonly string[], text: string, ofSeveral: string) => {
    if (list.length > 0) parts.push(`${listed([...list])} ${list.length > 1 ? ofSeveral : text}`)
  }
  say(
    names('unmet', (w) => w !== 'together'),
    'does not come on',
    'do not come on',
  )
  say(
    names('unmet', (w) => w === 'together'),
    'does not come on beside the others',
    'do not come on together',
  )
  const called = shown.flatMap(({ effect, when }) =>
    effect.is === 'called-unasked'
      ? [`${deviceName(circuit, effect.boiler)} is called ${when === 'nothing' ? 'with everything off' : 'unasked'}`]
      : [],
  )
  parts.push(...new Set(called))
  say(
    names('warm-unasked', () => true),
    'warms unasked',
    'warm unasked',
  )
  if (shown.some(({ effect }) => effect.is === 'hunts')) parts.push('relays go round and round')
  return parts.map((part, i) => (i === 0 ? part[0].toUpperCase() + part.slice(1) : part)).join('; ')
}
