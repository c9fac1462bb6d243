import { deviceType, typeDirectory } from '../src/catalogue'
import { compile, type Circuit } from '../src/circuit'
import { exampleById } from '../src/examples'
import { Rig } from '../src/hypotheses'
import { parseInstallation, type Cable, type Installation } from '../src/installation'
import { parseAction } from '../src/simulation'

export { departuresPutIn, HiddenWiring, withOtherColours } from './hidden-survey'

/** Shared by tests and benchmarks: an example by name, a copy to spoil, a rig after written actions. */
export const installationOf = (example: string): Installation => structuredClone(exampleById(example)!.installation)
export const circuitOf = (example: string): Circuit => compile(installationOf(example))
export const rigAfter = (circuit: Circuit, ...actions: string[]): Rig => Rig.after(circuit, actions.map(parseAction))

/** Puts one end of a core elsewhere; `end` 1 is the wiring centre's in every planned cable. */
export function moveCore(doc: Installation, cable: string, core: string, end: 0 | 1, terminal: string): void {
  doc.cables.find((c) => c.id === cable)!.cores.find((k) => k.id === core)!.ends[end] = { at: 'terminal', terminal }
}
export function loosenCore(
  doc: Installation,
  cable: string,
  core: string,
  end: 0 | 1,
  at: 'loose' | 'unknown' = 'loose',
): void {
  doc.cables.find((c) => c.id === cable)!.cores.find((k) => k.id === core)!.ends[end] = { at }
}

interface Wired {
  /** Device types by id, with settings where they differ. */
  devices: Record<string, string | [type: string, settings: Record<string, number>]>
  /** Single conductors from terminal to terminal. Without length: no capacitance to anything. */
  wires: [from: string, to: string][]
  cables?: Partial<Cable>[]
  demands?: Installation['intent']['demands']
  supply?: Installation['supply']
}

/** A few devices wired terminal to terminal, for cases worked by hand. */
export function wired({ devices, wires, cables = [], demands = [], supply }: Wired): Installation {
  const list = Object.entries(devices).map(([id, given]) => {
    const [type, settings] = typeof given === 'string' ? [given, {}] : given
    return { id, name: id, type, place: 'here', settings }
  })
  return parseInstallation(
    {
      format: 'nobbet-installation',
      version: 1,
      id: 'wired',
      name: 'Wired by hand',
      supply: supply ?? { volts: 230, frequency: 50 },
      provenance: 'seen',
      types: [...new Set(list.map((d) => d.type))].map((id) => ({ id, version: deviceType(id).version })),
      places: [{ id: 'here', name: 'Here' }],
      devices: list,
      wiringCentres: [],
      cables: [
        ...wires.map(([from, to], i) => ({
          id: `wire-${i + 1}`,
          label: `Wire ${i + 1}`,
          cores: [
            {
              id: 'core',
              colour: 'brown',
              ends: [from, to].map((terminal) => ({ at: 'terminal', terminal })),
            },
          ],
        })),
        ...cables,
      ],
      links: [],
      intent: { demands },
    },
    typeDirectory,
  )
}
export * from './briefs'
export * from './engineer'
export * from './lived'
export * from './numbers'
export * from './scrambled'
export * from './showing'

export { someAct, type Pick } from './hands'
