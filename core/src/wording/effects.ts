import type { Circuit } from '../circuit'
import type { Shown } from '../trace'
import { demandName, listed } from './findings'
import { deviceName } from './names'

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
