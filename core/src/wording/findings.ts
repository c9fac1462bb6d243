import { coreName } from '../catalogue'
import type { CheckFinding, RuleId, Severity } from '../checks'
import type { CoreRef } from '../departures'
import type { Circuit } from '../circuit'
import { deviceName, terminalName } from './names'

export const severityWords: Record<Severity, string> = {
  danger: 'Danger',
  'will-not-work': 'Will not work',
  'poor-practice': 'Poor practice',
  advice: 'Advice',
}

/** A finding in three lines: what, why it matters, what to do. */
export interface FindingText {
  title: string
  reason: string
  remedy: string
}

/** What a finding's sentences are made of. */
interface Words {
  terminal: string
  terminals: string
  device: string
  devices: string
  /** "black of Boiler cable", "black of Boiler cable, end at the boiler". */
  core: string
  demands: string
  figure: string
  limit: string
}

const round = (value: number) => String(Math.round(value * 100) / 100)

const played = 'Play it back in Trace: the first open point is named there.'
const playedBack = 'Play it back in Trace: the chain of causes is named there.'

const texts: Record<RuleId, (w: Words, finding: CheckFinding) => FindingText> = {
  'no-neutral': (w) => ({
    title: `No neutral at ${w.terminal}`,
    reason: `${w.device} needs a neutral that no switch interrupts but the isolator's.`,
    remedy: 'Bring a conductor from a Neutral terminal.',
  }),
  'no-permanent-live': (w) => ({
    title: `No permanent live at ${w.terminal}`,
    reason: `${w.device} must stay under supply whatever the controls do.`,
    remedy: 'Bring a conductor from a Line terminal.',
  }),
  'no-earth': (w) => ({
    title: `No earth at ${w.terminal}`,
    reason: `A line conductor touching ${w.device} would leave it live.`,
    remedy: 'Bring the green-yellow conductor from an Earth terminal.',
  }),
  'contact-without-feed': (w) => ({
    title: `Nothing feeds ${w.terminal}`,
    reason: 'The contact may make, but it has nothing to pass on.',
    remedy: 'Bring it its feed: what is to come through it.',
  }),
  'fewer-cores-than-needed': (w) => ({
    title: `No spare conductor for ${w.terminal}`,
    reason: `Every conductor of the cables at ${w.device} is taken.`,
    remedy: 'Bring a cable with more conductors, or give one of them up.',
  }),
  'neutral-earth-joined': (w, { cores, links }) => ({
    title: 'Neutral joined to earth',
    reason:
      'Behind the origin they stay apart: joined, the earth conductors carry current all the time, and a residual current device trips.',
    remedy:
      cores?.length || links?.length
        ? `Part them: the way from the one to the other goes by ${w.terminals || w.core}.`
        : 'Find where they meet, and part them.',
  }),
  'earth-as-neutral': (w) => ({
    title: `${w.terminal} is on earth`,
    reason: `${w.device} may run so, with its current in the earth conductor: with that open, everything earthed by it is live.`,
    remedy: 'Bring a conductor from a Neutral terminal.',
  }),
  'contact-fed-backwards': (w) => ({
    title: `Nothing feeds ${w.terminal}; the contact is fed from its other side`,
    reason: `A contact carries either way round: whether that serves, all states say. Who measures here next looks for the feed at the wrong one of ${w.terminals}.`,
    remedy: 'Exchange the two conductors, if that is what they are.',
  }),
  'live-end-cut-back': (w) => ({
    title: `${w.core} is cut back and can be live`,
    reason: 'Its end must not be touched, nor touch anything.',
    remedy: 'Park it in a terminal of its own, or see that its end is covered.',
  }),
  'link-between-places': (w) => ({
    title: `A link is recorded between ${w.terminals}`,
    reason:
      'A link reaches from one terminal of a box to another. What joins these two is a cable that nobody has recorded.',
    remedy: 'Find it, and record its conductor.',
  }),
  'line-neutral-joined': (w) => ({
    title: 'Line joined to neutral or earth',
    reason: 'With every control at rest: the fuse or breaker opens as power goes on.',
    remedy: w.terminals ? `Look at ${w.terminals}.` : 'Follow the live path in Trace.',
  }),
  'line-neutral-swapped': (w) => ({
    title: `Line and neutral swapped at ${w.device}`,
    reason: 'Line stands where neutral is expected: whoever works on it takes the wrong one for dead.',
    remedy: 'Exchange the two conductors, after finding out at which end they crossed.',
  }),
  'mains-on-extra-low': (w) => ({
    title: `Mains on ${w.terminal}`,
    reason: 'An extra-low-voltage terminal: its board can burn, and what it leads to is live.',
    remedy: 'Take the conductor off. Test what stood under mains before it is used again.',
  }),
  'extra-low-beside-mains': (w) => ({
    title: `${w.core}: mains in a cable that is not insulated for it`,
    reason: 'Its insulation is for extra-low voltage only.',
    remedy: 'Run mains in a cable of its own.',
  }),
  'transformers-tied': (w) => ({
    title: `Secondaries of ${w.devices} tied together`,
    reason: 'Two transformers never share a wire: one drives the other, and isolating one leaves its primary live.',
    remedy: 'Keep their circuits apart.',
  }),
  'green-yellow-misused': (w, { detail }) =>
    detail === 'sleeved-earth'
      ? {
          title: `${w.core} is earth and wears a sleeve of another colour`,
          reason: 'The next person will take it for what the sleeve says.',
          remedy: 'Take the sleeve off, after testing that it is earth.',
        }
      : {
          title: `${w.core} is used for something other than earth`,
          reason: 'The next person will take it for earth.',
          remedy: 'Bring another conductor. Green-yellow is never sleeved into something else.',
        },
  'switched-not-identified': (w) => ({
    title: `${w.core} does what its colour does not say`,
    reason: 'Colours prove nothing; without a sleeve they mislead.',
    remedy: 'Sleeve it at both ends.',
  }),
  'live-end-loose': (w) => ({
    title: `${w.core} is loose and can be live`,
    reason: 'Whatever it touches is live with it.',
    remedy: 'Isolate. Connect it, or cut it back and cover its end.',
  }),
  'unused-not-made-off': (w) => ({
    title: w.terminal ? `${w.core} is parked beside a conductor in use` : `${w.core} is loose`,
    reason: 'An unused conductor belongs in a terminal of its own, or cut back.',
    remedy: w.terminal ? 'Park it in a spare terminal.' : 'Cut it back, or park it in a spare terminal.',
  }),
  'leads-nowhere': (w) => ({
    title: `${w.core} leads nowhere at ${w.terminal}`,
    reason: 'Nothing else is on that terminal.',
    remedy: 'Land it where its function is, or park it.',
  }),
  'contact-bridged': (w, { links }) => ({
    title: links?.length ? `The factory link between ${w.terminals} is in` : `Something bridges ${w.terminals}`,
    reason: 'The contact can do nothing: what it should break is always made.',
    remedy: links?.length ? 'Cut the factory link.' : 'Find the link or conductor that goes round it.',
  }),
  'more-than-ways': (w) => ({
    title: `${w.figure} in ${w.terminal}, which takes ${w.limit}`,
    reason: 'One of them may work loose, or not be clamped at all.',
    remedy: 'Give one of them a terminal of its own, linked to this one.',
  }),
  'end-not-found': (w) => ({
    title: `${w.core}: end not found`,
    reason: 'What it is joined to is not known, and not counted as joined.',
    remedy: 'Find it before power goes on.',
  }),
  'load-over-fuse': (w) => ({
    title: `${w.figure} behind ${w.device}, fused at ${w.limit}`,
    reason: 'With everything on the fuse can open.',
    remedy: 'Divide the load, or have it fed from its own circuit.',
  }),
  'fuse-over-cable': (w) => ({
    title: `${w.core} behind a fuse of ${w.figure}; it carries ${w.limit}`,
    reason: 'Overloaded, it could burn before the fuse opens.',
    remedy: 'Fit a smaller fuse before it, or a larger conductor.',
  }),
  'contact-over-rating': (w) => ({
    title: `${w.figure} through ${w.terminals}, usual rating ${w.limit}`,
    reason: 'Contacts of controls weld under more than they are made for.',
    remedy: 'Read the rating on the device; switch the load through a relay or contactor.',
  }),
  'transformer-overloaded': (w) => ({
    title: `${w.figure} on ${w.device}, made for ${w.limit}`,
    reason: 'With everything on its voltage sinks, and its fuse or winding may go.',
    remedy: 'A larger transformer, or a second one with its own valves.',
  }),
  'borrowed-neutral': (w) => ({
    title: `${w.device} has its line from one supply and its neutral from another`,
    reason: 'With one supply off, its neutral conductor can be live; a residual current device trips for no fault.',
    remedy: 'Bring line and neutral from the same supply.',
  }),
  'contact-unused': (w) => ({
    title: `Nothing is on ${w.terminal}`,
    reason: 'The other side of the contact is wired: it switches nothing.',
    remedy: 'Bring the conductor it should switch, or take the other one off.',
  }),
  'second-supply': (w) => ({
    title: `More than one point of isolation: ${w.devices}`,
    reason: 'Switching one off leaves what the others feed live.',
    remedy: 'Label each at the wiring centre; isolate every one.',
  }),
  'pump-beside-its-output': (w) => ({
    title: `${w.device} is not on the boiler's pump output`,
    reason: 'The boiler cannot run it on after a call to carry its heat off.',
    remedy: 'Feed it from the pump output.',
  }),
  'limit-not-in-series': (w) => ({
    title: `${w.device} does not shut the hot water valve`,
    reason: 'Over its temperature the cylinder must lose its heat by a valve that closes without power.',
    remedy: 'Put its contact in series with a normally closed hot water valve.',
  }),
  'no-cylinder-thermostat': (w) => ({
    title: `${w.demands} has no cylinder thermostat`,
    reason: 'Only the clock ends it: the cylinder gets as hot as the boiler.',
    remedy: 'Fit one.',
  }),
  'no-bypass': (w) => ({
    title: `${w.device} has no way when every circuit is shut`,
    reason: 'With every valve shut, as in an overrun, it runs against closed valves.',
    remedy: 'Fit an automatic bypass, or leave one radiator open.',
  }),
  'no-short': (_, { detail }) => ({
    title: detail === 'secondary-short' ? 'Both sides of a transformer meet' : 'Line meets neutral or earth',
    reason:
      detail === 'secondary-short'
        ? 'Its fuse opens, or its winding overheats.'
        : 'The fuse or breaker opens as soon as it comes to that.',
    remedy: 'Play it back in Trace and follow the live path.',
  }),
  'extra-low-stays-low': (w, { detail }) => ({
    title: detail === 'over-volts' ? `More volts at ${w.terminal} than it withstands` : `Mains reaches ${w.terminal}`,
    reason: 'An extra-low-voltage terminal: what hangs on it can burn.',
    remedy: playedBack,
  }),
  'no-call-without-demand': (w) => ({
    title: `${w.device} is called at ${w.terminal} by a demand that is not its own`,
    reason: 'It runs at the wrong time or at the wrong temperature.',
    remedy: playedBack,
  }),
  'all-off-ends-calls': (w) => ({
    title: `${w.device} is called with no demand`,
    reason: 'With everything off it is still called.',
    remedy: playedBack,
  }),
  'water-moves': (w, { detail }) => {
    if (!w.demands)
      return {
        title: `${w.device} runs against closed valves`,
        reason: 'It moves no water, heats what stands in it, and wears.',
        remedy: playedBack,
      }
    return detail === 'water-elsewhere'
      ? {
          title: `${w.demands}: the water goes through another circuit`,
          reason: 'The boiler is called and fires; what the demand should warm stays cold.',
          remedy: playedBack,
        }
      : {
          title: `${w.demands}: the boiler is called and no water moves`,
          reason: 'The boiler overheats or locks itself out.',
          remedy: playedBack,
        }
  },
  isolates: (w) => ({
    title: `${w.terminal} stays live when ${w.device} is switched off`,
    reason: 'Something feeds it past that switch.',
    remedy: 'Find where another supply meets it, and part the two.',
  }),
  'demand-served': (w, { detail }) => ({
    title:
      detail === 'not-called'
        ? `${w.demands}: ${w.device} is not called`
        : detail === 'circuit-shut'
          ? `${w.demands}: its circuit does not open`
          : `${w.demands}: its circuit does not open and ${w.device} is not called`,
    reason: 'The demand is wanted, and nothing comes of it.',
    remedy: played,
  }),
  'no-heat-without-demand': (w, { detail }) => ({
    title:
      detail === 'has-to-wait' ? `${w.demands} warms while it has to wait` : `${w.demands} warms without being wanted`,
    reason: `Hot water goes through ${w.devices}.`,
    remedy: playedBack,
  }),
  'valves-rest': (w) => ({
    title: `${w.device} stands open with nobody wanting it`,
    reason: 'Its circuit warms whenever the boiler runs.',
    remedy: playedBack,
  }),
  'runs-when-wanted': (w) => ({
    title: `${w.device} runs with nobody wanting it`,
    reason: 'Whatever starts it is live without its demand.',
    remedy: playedBack,
  }),
  settles: () => ({
    title: 'The installation never settles',
    reason: 'Something switches itself off again and again.',
    remedy: 'Play it back in Trace and watch which contact starts the round.',
  }),
}

export const listed = (names: readonly string[]): string =>
  names.length < 2 ? (names[0] ?? '') : `${names.slice(0, -1).join(', ')} and ${names[names.length - 1]}`

export function findingText(circuit: Circuit, finding: CheckFinding): FindingText {
  const terminals = finding.terminals.map((t) => terminalName(circuit, t))
  const devices = finding.devices.map((d) => deviceName(circuit, d))
  const demands = (finding.demands ?? []).map((id) => demandName(circuit, id))
  const { is = 0, may = 0, unit = '' } = finding.figures ?? {}
  return texts[finding.rule](
    {
      terminal: terminals[0] ?? '',
      terminals: listed(terminals),
      device: devices[0] ?? '',
      devices: listed(devices),
      core: finding.cores?.[0] ? coreText(circuit, finding.cores[0]) : '',
      demands: listed(demands),
      figure: `${round(is)} ${unit}`,
      limit: `${round(may)}${unit === 'conductors' ? '' : ` ${unit}`}`,
    },
    finding,
  )
}

export const demandName = (circuit: Circuit, id: string): string =>
  circuit.installation.intent.demands.find((d) => d.id === id)?.name ?? id

/** "black of Boiler cable". */
export function coreText(circuit: Circuit, { cable, core }: CoreRef): string {
  const found = circuit.installation.cables.find((c) => c.id === cable)
  const one = found?.cores.find((k) => k.id === core)
  return found && one ? coreName(found, one) : `${core} of ${cable}`
}

/** "House and Hot water wanted", "nothing wanted". */
export function demandText(circuit: Circuit, ids: readonly string[]): string {
  return ids.length === 0 ? 'nothing wanted' : `${listed(ids.map((id) => demandName(circuit, id)))} wanted`
}
