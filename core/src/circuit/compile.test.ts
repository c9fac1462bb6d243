import fc from 'fast-check'
import { examples } from '../examples'
import { alterationsOf } from '../hypotheses'
import { edited, type Installation } from '../installation'
import { compile, type Circuit } from '.'

/** Everything in a circuit, as text: functions go by what they are of. */
const text = (circuit: Circuit) =>
  JSON.stringify(circuit, (_, value: unknown) => (value instanceof Map ? [...value].sort() : value))

const whole = examples.map(({ installation }) => compile(installation))
const alterations = whole.map(alterationsOf)

/** The documents of an example as it is, and of it altered once and twice. */
const anyDocuments = fc
  .tuple(fc.nat(whole.length - 1), fc.nat(), fc.nat(), fc.boolean())
  .map(([example, n, m, piped]): [Installation, Installation, Installation] => {
    const kinds = alterations[example]
    const { installation } = piped ? whole[example] : examples[example]
    const once = edited(installation, kinds[n % kinds.length].command).doc
    const again = alterationsOf(compile(once))
    return [installation, once, edited(once, again[m % again.length].command).doc]
  })

describe('a circuit compiled like another', () => {
  it('is what it would be alone, whatever differs', () => {
    fc.assert(
      fc.property(anyDocuments, ([doc, once, twice]) => {
        const like = compile(doc)
        expect(text(compile(once, like)) === text(compile(once))).toBe(true)
        expect(text(compile(twice, compile(once, like))) === text(compile(twice))).toBe(true)
        expect(text(compile(doc, compile(twice, like))) === text(compile(doc))).toBe(true)
        // What was taken over is not written to.
        expect(text(like) === text(compile(doc))).toBe(true)
      }),
      { numRuns: 60 },
    )
  })

  it('shares everything with it but the conductors that differ', () => {
    const [like] = whole
    const moved = alterations[0].find((a) => a.kind === 'core-moved')!
    const circuit = compile(edited(examples[0].installation, moved.command).doc, like)
    expect(circuit.devices).toBe(like.devices)
    expect(circuit.loads).toBe(like.loads)
    expect(circuit.atomIndex).toBe(like.atomIndex)
    const other = circuit.edges.filter((edge) => !like.edges.includes(edge))
    // The cable with the moved core is compiled anew.
    expect(new Set(other.map((edge) => edge.kind === 'core' && edge.cable.id)).size).toBe(1)
  })

  it('is not confused by ends that nobody has found, nor by names that laid-in pipework has taken', () => {
    const { installation } = examples[0]
    const like = compile(installation)
    const [first] = installation.cables
    const unknown: typeof first = {
      ...first,
      cores: first.cores.map((core, i) =>
        i === 0 ? { ...core, ends: [core.ends[0], { at: 'unknown' as const }] } : core,
      ),
    }
    const withUnknown = { ...installation, cables: [unknown, ...installation.cables.slice(1)] }
    expect(text(compile(withUnknown, like)) === text(compile(withUnknown))).toBe(true)
    expect(text(compile(installation, compile(withUnknown, like))) === text(compile(installation))).toBe(true)
    // Pipes left out are laid in again, with a bypass that takes a name.
    const dry = { ...installation, pipes: [], tees: [], devices: installation.devices.filter((d) => d.id !== 'bypass') }
    const laidIn = compile(dry)
    const laid = laidIn.installation.devices.find((d) => !dry.devices.includes(d))!
    const [{ between }] = installation.links
    const named = { ...dry, links: [...installation.links, { id: laid.id, kind: 'fitted' as const, between }] }
    expect(text(compile(named, laidIn)) === text(compile(named))).toBe(true)
  })
})
