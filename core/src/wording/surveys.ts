import { typeIn } from '../catalogue'
import { ownerOf, type Installation } from '../installation'
import type { Because, Departure, FarEnd, Survey, SurveyFact, SurveyLook } from '../survey'

const deviceOf = (doc: Installation, id: string): string => doc.devices.find((device) => device.id === id)?.name ?? id

/** A boiler has a casing, a control a plate. */
function hasCasing(doc: Installation, id: string): boolean {
  const device = doc.devices.find((one) => one.id === id)
  return device !== undefined && typeIn(doc, device.type).inputs.length > 0
}

/** "House thermostat, L (line in)": a device's terminal in words. */
function terminalOf(doc: Installation, ref: string): string {
  const [owner, id] = ref.split('.')
  const device = doc.devices.find((one) => one.id === owner)
  if (!device) return ref
  const legend = device.legends?.[id] ?? typeIn(doc, device.type).terminals.find((t) => t.id === id)?.legend ?? id
  return `${device.name}, ${legend === id ? id : `${id} (${legend})`}`
}

/** Where a conductor's far end is, in words. */
export function farEndText(doc: Installation, to: FarEnd): string {
  switch (to.at) {
    case 'terminal':
      return terminalOf(doc, to.terminal)
    case 'cut-back':
      return `cut back at ${deviceOf(doc, to.device)}`
    case 'joint':
      return `a joint behind ${deviceOf(doc, to.device)}`
    case 'away':
      return 'leaves this box for somewhere else'
  }
}

/** "Cable 3, brown". */
function conductorOf({ cables }: Survey, cable: string, core: string): string {
  const found = cables.find(({ id }) => id === cable)
  const own = found?.cores.find(({ id }) => id === core)
  if (!found || !own) return `${cable} ${core}`
  const twins = found.cores.filter(({ colour }) => colour === own.colour)
  const which = twins.length > 1 ? ` ${twins.indexOf(own) + 1}` : ''
  return `${found.label}, ${own.colour}${which}`
}

const labelOf = ({ cables }: Survey, id: string): string => cables.find((cable) => cable.id === id)?.label ?? id
const demandsOf = (doc: Installation, wanted: readonly string[]): string =>
  wanted.length === 0
    ? 'nothing on'
    : `${wanted.map((id) => doc.intent.demands.find((d) => d.id === id)?.name ?? id).join(' and ')} on, nothing else`

/** What to do for a look, and what is asked. */
export function surveyLookText(doc: Installation, survey: Survey, look: SurveyLook): { act: string; ask: string } {
  switch (look.look) {
    case 'follow':
      return { act: `Follow ${labelOf(survey, look.cable)} by eye to its end`, ask: 'What does it come to?' }
    case 'plate':
      return {
        act: `${hasCasing(doc, look.device) ? 'Open the casing of' : 'Take the plate off'} ${deviceOf(doc, look.device)}`,
        ask: 'Which colour is on which terminal?',
      }
    case 'ring':
      return {
        act: `Ring out ${conductorOf(survey, look.cable, look.core)}, lifted in the box, to ${terminalOf(doc, look.to)}`,
        ask: 'Open at first, and joined once you bridge it there?',
      }
    case 'feel':
      return {
        act: `Move ${labelOf(survey, look.cable)} in the box; feel at ${deviceOf(doc, look.device)}`,
        ask: 'Does it move there?',
      }
    case 'read':
      return {
        act: `${demandsOf(doc, look.wanted)}: read terminal ${look.terminal} to neutral with the tester`,
        ask: 'Live?',
      }
    case 'through': {
      const [a, b] = look.between.map((ref) => terminalOf(doc, ref))
      return { act: `Conductors of both lifted in the box: continuity from ${a} to ${b}`, ask: 'Joined?' }
    }
  }
}

/** What was found out, as a line. */
export function surveyFactText(doc: Installation, survey: Survey, fact: SurveyFact): string {
  switch (fact.see) {
    case 'far-end':
      return `${conductorOf(survey, fact.cable, fact.core)} seen at ${terminalOf(doc, fact.to)}`
    case 'follows':
      return `${labelOf(survey, fact.cable)} followed by eye to ${deviceOf(doc, fact.device)}`
    case 'not-found':
      return `${labelOf(survey, fact.cable)}: its far end was not found`
    case 'leaves':
      return `${labelOf(survey, fact.cable)} leaves this box for somewhere else`
    case 'felt':
      return `${labelOf(survey, fact.cable)} moved: ${fact.moved ? 'felt' : 'not felt'} at ${deviceOf(doc, fact.device)}`
    case 'rung':
      return `${conductorOf(survey, fact.cable, fact.core)} rung out to ${terminalOf(doc, fact.to)}: ${fact.joined ? 'joined' : 'not joined'}`
    case 'plate':
      return `Behind ${deviceOf(doc, fact.device)}: ${fact.sheaths.length === 0 ? 'no cable' : fact.sheaths.map(({ cores }) => cores.map(({ colour, at }) => `${colour} ${at.at === 'terminal' ? at.terminal : at.at === 'joint' ? 'in a joint' : 'cut back'}`).join(', ')).join('; ')}`
    case 'through': {
      const [a, b] = fact.between.map((ref) => terminalOf(doc, ref))
      return `${a} and ${b}, box lifted: ${fact.joined ? 'joined' : 'not joined'}`
    }
    case 'said':
      return `${sayingWords[fact.from]}: ${labelOf(survey, fact.cable)} goes to ${deviceOf(doc, fact.device)}`
    case 'reads':
      return `Terminal ${fact.terminal} ${fact.live ? 'live' : 'dead'} with ${demandsOf(doc, fact.wanted)}`
  }
}

const sayingWords = {
  label: 'A label says',
  drawing: 'A drawing says',
  'earlier-visit': 'An earlier visit says',
  guess: 'Guessed',
} as const

/** What speaks for where a conductor goes. */
export function surveyBecauseText(doc: Installation, survey: Survey, because: Because): string {
  switch (because.why) {
    case 'facts':
      return because.facts
        .flatMap((id) => survey.facts.find((fact) => fact.id === id) ?? [])
        .map((fact) => surveyFactText(doc, survey, fact))
        .join('; ')
    case 'sits-with':
      return `sits in ${because.box} with ${conductorOf(survey, because.cable, because.core)}, which goes to ${terminalOf(doc, because.with)}: those two belong together`
    case 'plate':
      return `the colours seen behind ${deviceOf(doc, because.device)} are those of this cable`
    case 'lead':
      return `it is the lead of such a device: ${typeIn(doc, because.type).name}`
  }
}

/** A departure from any drawing: what it is, what follows from it, and how grave that is. */
export function surveyDepartureText(
  doc: Installation,
  survey: Survey,
  departure: Departure,
): { title: string; means: string; severity: 'danger' | 'fault' | 'remark' } {
  const { kind, terminal = '', between = ['', ''], cable = '', core = '', device = '', devices = [] } = departure
  switch (kind) {
    case 'through-wall':
      return {
        title: `${terminalOf(doc, terminal)} is fed through the wall from ${terminalOf(doc, between[0] === terminal ? between[1] : between[0])}`,
        means:
          'Its conductor is missing in the box, and nothing is wrong with that. It cannot be tested or moved there.',
        severity: 'remark',
      }
    case 'no-conductor':
      return {
        title: `${terminalOf(doc, terminal)} has no conductor`,
        means: 'It was looked at behind its plate. What it should be fed with, or should feed, is not connected.',
        severity: 'fault',
      }
    case 'joint-behind-plate':
      return {
        title: `A joint behind ${deviceOf(doc, ownerOf(terminal))}`,
        means: 'Conductors go on from there that cannot be told apart in the box. Write down which colours meet in it.',
        severity: 'remark',
      }
    case 'earth-as-live':
      return {
        title: `${conductorOf(survey, cable, core)} is used as something else than earth`,
        means: `It goes to ${terminalOf(doc, terminal)}. Who trusts its colour may touch a live conductor. It needs a conductor of its own.`,
        severity: 'danger',
      }
    case 'earth-missing':
      return {
        title: `${terminalOf(doc, terminal)} has no earth from the box`,
        means: 'Check its earth with the earth test. Without one it must not stay in use.',
        severity: 'danger',
      }
    case 'fed-otherwise':
      return {
        title: `The supply does not come into the box from ${deviceOf(doc, device)}`,
        means: 'The controls are fed from somewhere else, the boiler’s output for one. Find where it is isolated.',
        severity: 'fault',
      }
    case 'leaves-box':
      return {
        title: `${labelOf(survey, cable)} goes on to somewhere else`,
        means: 'The rest may be in another box: the wiring here is not all of it.',
        severity: 'remark',
      }
    case 'two-devices':
      return {
        title: `${labelOf(survey, cable)} serves ${devices.map((id) => deviceOf(doc, id)).join(' and ')}`,
        means: 'Two devices share one cable: lifting it takes both out.',
        severity: 'remark',
      }
    case 'misplaced':
      return {
        title: `${conductorOf(survey, cable, core)} sits with conductors that its terminal has nothing to do with`,
        means: `It goes to ${terminalOf(doc, terminal)}. Either it is in the wrong place, or it does something else here than that terminal usually does.`,
        severity: 'fault',
      }
  }
}
