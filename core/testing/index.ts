import { compile, type Circuit } from '../src/circuit'
import { exampleById } from '../src/examples'
import { Rig } from '../src/hypotheses'
import type { Installation } from '../src/installation'
import { parseAction } from '../src/simulation'

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
