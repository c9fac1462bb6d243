import { edited, planBriefSchema, schemeIds, circuitKindIds, circuitsTaken, type SchemeId } from '@nobbet/core'
import { documentProblems, firstWiring, withBrief, type JobBrief, type JobDocument } from '.'

const circuits = (scheme: SchemeId, name: (i: number) => string) =>
  circuitKindIds
    .flatMap((kind) =>
      Array.from({ length: Math.max(circuitsTaken(scheme, kind)[0], kind === 'heating' ? 1 : 0) }, () => kind),
    )
    .map((kind, i) => ({ kind, name: name(i) }))
function jobOn(scheme: SchemeId, name = (i: number) => `Zone ${i}`): JobDocument {
  const fitted = planBriefSchema.parse({ scheme, circuits: circuits(scheme, name) })
  const brief: JobBrief = { site: 'Mill House', kind: 'new-system', symptom: '', earlier: '', engineer: '', fitted }
  return { brief, status: 'open', wiring: firstWiring(brief, 'mill-house') }
}
const renamed = ({ brief }: JobDocument, name: string): JobBrief => ({
  ...brief,
  fitted: { ...brief.fitted, circuits: brief.fitted.circuits.map((c, i) => (i === 0 ? { ...c, name } : c)) },
})

describe('another brief', () => {
  it.each(schemeIds)(
    '%s: another name for a circuit changes the wiring where it stands, as if it had been planned so',
    (scheme) => {
      const before = jobOn(scheme)
      const refit = withBrief(before, renamed(before, 'Garden room'))
      expect(refit.is).toBe('in-place')
      expect(refit.document.wiring).toEqual(firstWiring(refit.document.brief, 'mill-house'))
      expect(JSON.stringify(refit.document.wiring)).toContain('Garden room')
      expect(documentProblems(refit.document)).toEqual([])
    },
  )

  it('leaves alone what was recorded, and names that somebody has given', () => {
    const before = jobOn('two-port')
    const [cable] = before.wiring.cables
    const end = { at: 'unknown', provenance: 'seen' } as const
    const stat = before.wiring.devices.find((d) => d.name.startsWith('Zone 0'))!
    const wiring = edited(before.wiring, {
      label: 'Looked',
      changes: [
        { do: 'end', cable: cable.id, core: cable.cores[0].id, end: 1, to: end },
        { do: 'put', in: 'devices', value: { ...stat, name: 'The one in the hall' } },
      ],
    }).doc
    const { document, is } = withBrief({ ...before, wiring }, renamed(before, 'Garden room'))
    expect(is).toBe('in-place')
    expect(document.wiring.cables[0].cores[0].ends[1]).toEqual(end)
    expect(document.wiring.devices.find((d) => d.id === stat.id)!.name).toBe('The one in the hall')
    expect(document.wiring.intent.demands[0].name).toBe('Garden room')
  })

  it('of another site changes the name of the wiring, and of words nothing but the words', () => {
    const before = jobOn('two-port')
    const moved = withBrief(before, { ...before.brief, site: 'Ford House' })
    expect(moved.document.wiring).toEqual({ ...before.wiring, name: 'Ford House' })
    expect(withBrief(before, { ...before.brief, symptom: 'cold' }).document.wiring).toEqual(before.wiring)
    const longer = { ...before.brief, fitted: { ...before.brief.fitted, lengths: { supply: 7 } } }
    const measured = withBrief(before, longer)
    expect(measured.is).toBe('in-place')
    expect(measured.document.wiring.cables.find(({ id }) => id === 'supply')!.lengthM).toBe(7)
    expect(measured.document.wiring.cables.map(({ cores }) => cores)).toEqual(
      before.wiring.cables.map(({ cores }) => cores),
    )
    const upstairs = { ...before.brief, fitted: { ...before.brief.fitted, places: { controls: { floor: 1 } } } }
    const placed = withBrief(before, upstairs)
    expect(placed.is).toBe('in-place')
    expect(placed.document.wiring).toEqual({
      ...before.wiring,
      places: before.wiring.places.map((place) => (place.id === 'controls' ? { ...place, floor: 1 } : place)),
    })
    const forgotten = withBrief(placed.document, before.brief)
    expect(forgotten.is).toBe('in-place')
    expect(forgotten.document.wiring).toEqual(before.wiring)
  })

  it.each<[string, Partial<JobBrief['fitted']>]>([
    [
      'another scheme',
      {
        scheme: 'mid-position',
        circuits: [
          { kind: 'heating', name: 'House' },
          { kind: 'hot-water', name: 'Hot water' },
        ],
      },
    ],
    [
      'one circuit more',
      {
        circuits: [
          { kind: 'heating', name: 'Zone 0' },
          { kind: 'heating', name: 'Loft' },
        ],
      },
    ],
    ['other cables', { cable: 'only-needed' }],
    ['another boiler', { boiler: 'live-output' }],
  ])('%s proposes a new plan, and leaves the wiring as it is', (_, fitted) => {
    const before = jobOn('two-port')
    const wanted = planBriefSchema.parse({ ...before.brief.fitted, ...fitted })
    const refit = withBrief(before, { ...before.brief, fitted: wanted })
    expect(refit.is).toBe('new-plan')
    expect(refit.document.wiring).toBe(before.wiring)
    if (refit.is === 'new-plan') expect(refit.plan).toEqual(firstWiring(refit.document.brief, 'mill-house'))
  })
})
