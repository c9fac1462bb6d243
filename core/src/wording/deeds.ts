import { coreName, endText, terminalText } from '../catalogue'
import type { Command, Deed, Installation, Step } from '../installation'

const poleWords = { line: 'Line', neutral: 'Neutral', earth: 'Earth' } as const

/** A step of work in words, names as they stand in the document before it. */
export function deedText(doc: Installation, deed: Deed): string {
  const core = ({ cable, core: id }: { cable: string; core: string }): string => {
    const whole = doc.cables.find((c) => c.id === cable)
    const found = whole?.cores.find((k) => k.id === id)
    return whole && found ? coreName(whole, found) : `${id} of ${whole?.label ?? cable}`
  }
  /** Of a cable, whoever's lead it is: as it is labelled. */
  const labelled = ({ cable, core: id }: { cable: string; core: string }): string => {
    const whole = doc.cables.find((c) => c.id === cable)
    return `${whole?.cores.find((k) => k.id === id)?.colour ?? id} of ${whole?.label ?? cable}`
  }
  const terminals = (between: readonly string[], word: string) =>
    between.map((ref) => terminalText(doc, ref)).join(` ${word} `)
  switch (deed.do) {
    case 'place-end':
      return `${labelled(deed.core)}: ${endText(doc, deed.to)}`
    case 'put-back':
      return `Put ${core(deed.core)} back: ${terminalText(doc, deed.to)}`
    case 'put-in':
      return `Put ${core(deed.core)} in ${terminalText(doc, deed.to)}`
    case 'exchange':
      return `Exchange ${deed.cores.map(core).join(' and ')}`
    case 'exchange-at':
      return `Exchange ${deed.colours.join(' and ')} at ${nameOf(doc, deed.device)}`
    case 'cut-back':
      return `Cut back ${core(deed.core)}`
    case 'own-terminal':
      return `Give ${core(deed.core)} a terminal of its own`
    case 'mark-end':
      return `${labelled(deed.core)}: ${deed.provenance}`
    case 'sleeve':
      if (!deed.colour) return `Sleeve off ${labelled(deed.core)}`
      return deed.found
        ? `${labelled(deed.core)} sleeved ${deed.colour}`
        : `Sleeve ${labelled(deed.core)} ${deed.colour}`
    case 'recolour':
      return `${labelled(deed.core)} is ${deed.colour}`
    case 'bring': {
      const [device, terminal] = deed.to.split('.')
      const what = 'pole' in deed.what ? poleWords[deed.what.pole] : deed.what.legend
      return `Bring ${what} to ${nameOf(doc, device)} ${terminal}`
    }
    case 'link':
      return `Link ${terminals(deed.between, 'to')}`
    case 'fit-link':
      return `Fit a link between ${terminals(deed.between, 'and')}`
    case 'unlink':
      return `Link between ${terminals(deed.between, 'and')} out`
    case 'take-link-out':
      return `Take out the link between ${terminals(deed.between, 'and')}`
    case 'factory-link':
      return `Factory link between ${terminals(deed.between, 'and')} ${deed.now === 'cut' ? 'cut' : 'left in'}`
    case 'cut-factory-link':
      return deed.between ? `Cut the factory link between ${terminals(deed.between, 'and')}` : 'Cut the factory link'
    case 'restore-factory-link':
      return `Put back the factory link between ${terminals(deed.between, 'and')}`
    case 'add':
      return `Add ${deed.name}`
    case 'take-out':
      return `Take ${deed.name} out`
    case 'add-terminal':
      return `Terminal ${deed.terminal} in ${deed.centre}`
    case 'remove-terminal':
      return `Terminal ${deed.terminal} of ${deed.centre} out`
    case 'change-terminal':
      return `Terminal ${deed.terminal} of ${deed.centre}`
    case 'settings':
      return `${deed.name}: settings`
    case 'set':
      return `${deed.name}, ${deed.setting.toLowerCase()}: ${deed.choice}`
    case 'duplicate':
      return `${deed.name} like ${deed.like}`
  }
}

const nameOf = (doc: Installation, device: string): string => doc.devices.find((d) => d.id === device)?.name ?? device

/** A step with its words, as it goes into the log. */
export const commandOf = (doc: Installation, { deed, changes }: Step): Command => ({
  label: deedText(doc, deed),
  changes,
})
