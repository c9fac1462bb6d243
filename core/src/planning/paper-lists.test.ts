import { examples, exampleById } from '../examples'
import { cableLabels, conductorLabels } from './label-texts'
import { partsList } from './parts-list'
import { planSystem } from './plan'
import { planBriefSchema } from './plan-brief'

const house = exampleById('two-port-heating-hot-water')!.installation
const everyOne = examples.map(({ id, installation }) => [id, installation] as const)

describe('the list of parts', () => {
  it.each(everyOne)('names every device, cable, link and sleeve of %s once', (_, installation) => {
    const list = partsList(installation)
    const named = [...list.wired, ...list.unwired]
    expect(named.flatMap(({ called }) => called).sort()).toEqual(installation.devices.map(({ name }) => name).sort())
    for (const { count, called } of named) expect(called).toHaveLength(count)
    const cables = [...list.cables.flatMap((kind) => kind.cables.map(({ label }) => label)), ...list.leads]
    expect(cables.sort()).toEqual(installation.cables.map(({ label }) => label).sort())
    const ownLinks = installation.links.filter(
      ({ kind, between }) => kind === 'fitted' && between.every((ref) => ref.startsWith('wc')),
    )
    expect(list.wiringCentres.reduce((sum, { links }) => sum + links, 0)).toBe(ownLinks.length)
  })

  it('adds up what is cut from one drum, and leaves out a lead that its maker supplies', () => {
    const { cables, leads } = partsList(house)
    expect(cables.map(({ cores, areaMm2, lengthM }) => [cores, areaMm2, lengthM])).toEqual([
      [3, 0.75, 3],
      [5, 0.75, 27],
    ])
    expect(leads).toEqual(['House valve lead', 'Hot water valve lead'])
  })

  it('counts a sleeve to each end that is landed', () => {
    const american = planBriefSchema.parse({
      scheme: 'two-port',
      circuits: [{ kind: 'heating', name: 'House' }],
      supply: '120-60',
    })
    const plan = planSystem(american, 'plan', 'Plan')
    const ends = plan.cables.flatMap(({ cores }) =>
      cores.flatMap(({ sleeve, ends: both }) => (sleeve ? both.filter(({ at }) => at === 'terminal') : [])),
    )
    expect(partsList(plan).sleeves.reduce((sum, { count }) => sum + count, 0)).toBe(ends.length)
  })
})

describe('labels', () => {
  it('say at either end of a cable where the other one is', () => {
    expect(cableLabels(house).filter(({ mark }) => mark === 'Boiler cable')).toEqual([
      { mark: 'Boiler cable', lines: ['5-core, to Boiler'] },
      { mark: 'Boiler cable', lines: ['5-core, to Wiring centre'] },
    ])
    expect(cableLabels(house).filter(({ mark }) => mark === 'House valve lead')).toHaveLength(1)
  })

  it('are one to each conductor in a wiring centre, in the order of the terminals', () => {
    const labels = conductorLabels(house)
    const ends = house.cables.flatMap(({ cores }) =>
      cores.flatMap(({ ends: both }) => both.filter((end) => 'terminal' in end && end.terminal.startsWith('wc.'))),
    )
    expect(labels).toHaveLength(ends.length)
    expect(labels[0]).toEqual({ mark: '1', lines: ['Line', 'brown, Supply cable', 'Fused spur L'] })
  })
})
