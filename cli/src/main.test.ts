import { mkdtempSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { examples } from '@nobbet/core'
import { start } from '@nobbet/server'
import { main } from './main'

async function nobbet(...args: string[]) {
  const out: string[] = []
  const err: string[] = []
  const code = await main(args, { out: (l) => out.push(l), err: (l) => err.push(l) })
  return { code, out: out.join('\n'), err }
}

const file = join(mkdtempSync(join(tmpdir(), 'nobbet-cli-')), 'house.json')

describe('nobbet on the command line', () => {
  it('lists the examples, one name a line, and prints one as a file that it reads again', async () => {
    expect((await nobbet('examples')).out.split('\n')).toEqual(examples.map((e) => e.id))
    writeFileSync(file, (await nobbet('examples', 'two-port-heating')).out)
    expect((await nobbet('trace', file, '--json')).code).toBe(0)
  })

  it('says why what is asked for does not come, by the plan where there is one', async () => {
    const acts = ['--do', 'programmer.heating=on', '--do', 'stat-1.set=25', '--do', 'wait=60s']
    const moved = await nobbet('trace', 'two-port-heating', '--fault', 'moved boiler-cable.black.1 wc.21', ...acts)
    expect(moved.out).toMatch(
      /House is wanted and does not come\n\s+x black of Boiler cable is in Wiring centre 21.*, planned in/,
    )
    const { out } = await nobbet(
      'trace',
      'two-port-heating',
      '--plan',
      'two-port-heating',
      '--fault',
      'zv-1.motor.open',
      ...acts,
      '--json',
    )
    expect(JSON.parse(out).why).toEqual([
      {
        effect: { is: 'unmet', demand: 'heating-1' },
        wrong: [expect.objectContaining({ is: 'load', device: 'zv-1', open: true })],
        stands: [],
      },
    ])
    expect((await nobbet('faults', 'two-port-heating')).out).toContain('moved boiler-cable.black.1 wc.')
  })

  it('traces actions in order and answers in JSON as docs/cli.md has it', async () => {
    const { out } = await nobbet(
      'trace',
      'two-port-heating-hot-water',
      '--json',
      '--do',
      'programmer.heating=on',
      '--do',
      'stat-1.set=21',
      '--do',
      'wait=60s',
    )
    const report = JSON.parse(out)
    expect(report).toMatchObject({
      time: 60,
      settled: true,
      faults: [],
      demands: [
        { demand: 'heating-1', state: 'calling', openPoints: [] },
        { demand: 'hot-water', state: 'not-asked' },
      ],
      calls: [{ boiler: 'boiler', input: 'SL', called: true, unasked: false }],
    })
    expect(report.terminals['boiler.SL']).toEqual({ state: 'live', volts: 230 })
    expect(report.devices.boiler.phase).toBe('firing')
    expect(report.events).toContainEqual({
      time: 20.765,
      kind: 'phase',
      device: 'boiler',
      part: 'sequence',
      phase: 'firing',
    })
  })

  it('without a file lists the faults of every device type', async () => {
    const { out } = await nobbet('faults')
    expect(out).toMatch(
      /^mid-position-valve\.s2\.never-operates +Three-port valve, mid-position: end switch never makes$/m,
    )
    expect(out.trim().split('\n').length).toBeGreaterThan(250)
  })

  it('takes every name that faults lists', async () => {
    const faults: { name: string }[] = JSON.parse((await nobbet('faults', 'two-port-heating', '--json')).out)
    for (const { name } of faults)
      expect(JSON.parse((await nobbet('trace', 'two-port-heating', '--json', '--fault', name)).out).faults).toEqual([
        name,
      ])
  })

  it('says in words who calls the boiler with every control off', async () => {
    const { out } = await nobbet(
      'trace',
      'two-port-heating',
      '--fault',
      'zv-1.end-switch.stuck-made',
      '--do',
      'wait=30s',
    )
    expect(out).toContain('boiler.SL: called with no demand: House valve end switch is stuck made')
  })

  it.each([
    [['trace', 'two-port-heating', '--do', 'programmer.heat=on'], 'has no control "heat"'],
    [['trace', 'two-port-heating', '--do', 'wait=now'], 'is not a time'],
    [['trace', 'two-port-heating', '--fault', 'gremlin'], 'there is no fault "gremlin"'],
    [['trace', 'no-such-file.json'], 'cannot read "no-such-file.json"'],
    [['examples', 'castle'], 'there is no example "castle"'],
    [['trace', 'two-port-heating', '--loudly'], 'unknown option'],
  ])('%j ends with one clear line and exit code 2', async (args, reason) => {
    const { code, err, out } = await nobbet(...args)
    expect(code).toBe(2)
    expect(err).toHaveLength(1)
    expect(err[0]).toContain(reason)
    expect(out).toBe('')
  })

  it('reads an instrument, and says why a dead test is refused', async () => {
    const heating = ['--do', 'programmer.heating=on', '--do', 'stat-1.set=21', '--do', 'wait=30s']
    const example = 'two-port-heating'
    expect((await nobbet('measure', example, 'tester', 'zv-1.M', 'zv-1.N', ...heating)).out).toBe('230 V')
    const { out } = await nobbet('measure', example, 'resistance', 'zv-1.M', 'zv-1.N', '--json')
    expect(JSON.parse(out)).toEqual({ kind: 'refused', refusal: { reason: 'live', sources: ['spur'] } })
    const wrong = await nobbet('measure', example, 'thermometer', 'zv-1.M', 'zv-1.N')
    expect(wrong.code).toBe(2)
    expect(wrong.err[0]).toContain('"thermometer" is no instrument')
  })

  it('writes the state as a netlist', async () => {
    const { code, out } = await nobbet('netlist', 'low-voltage', '--do', 'stat-1.set=25', '--do', 'wait=5s')
    expect(code).toBe(0)
    expect(out).toContain('R_stat_1_contact_made stat_1_r stat_1_w 0.001')
    expect(out.trimEnd().endsWith('.end')).toBe(true)
  })

  it('tells what flows, how the pipes feel, and the temperatures where they go their own way', async () => {
    const dos = ['programmer.heating=on', 'stat-1.set=21', 'clock=mon-06:00', 'heat=flat/winter', 'wait=30min']
    const args = ['trace', 'two-port-heating', ...dos.flatMap((d) => ['--do', d])]
    const { water, heat } = JSON.parse((await nobbet(...args, '--json')).out)
    expect(water['radiators-heating-1.water']).toEqual({ flow: 1195, before: 'hot', behind: 'hot' })
    expect(heat).toMatchObject({ minuteOfWeek: 390, rooms: { 'zone-1': expect.any(Number) }, boilers: { boiler: 70 } })
    const { out } = await nobbet(...args)
    expect(out).toContain('Heat, Mon 06:30, outdoors')
    expect(out).toMatch(/pump\.water +1200 l\/h +hot, hot/)
  })

  it('lives through days by the clocks, and says what went wrong', async () => {
    const { code, out } = await nobbet('week', 'mid-position', '--days', '1', '--house', 'flat')
    expect(code).toBe(0)
    expect(out).toMatch(/House: wanted \d+\.\d h, warm \d+\.\d h/)
    expect(out).toContain('nothing out of the ordinary')
    const faulty = await nobbet('week', 'two-port-heating', '--days', '1', '--fault', 'pump.motor.open')
    expect(faulty.out).toMatch(/Mon 06:3\d lockout boiler/)
    expect((await nobbet('week', 'mid-position', '--days', '9')).code).toBe(2)
  })

  it('checks: 0 where nothing grave is found, 1 where something is, 2 where the file cannot be used', async () => {
    const whole = await nobbet('check', 'two-port-heating')
    expect(whole.code).toBe(0)
    expect(whole.out).toContain('No defect found in the wiring as planned')
    const doc = JSON.parse((await nobbet('examples', 'two-port-heating')).out)
    doc.cables.find((c: { id: string }) => c.id === 'boiler-cable').cores[3].ends[1] = {
      at: 'terminal',
      terminal: 'wc.1',
    }
    writeFileSync(file, JSON.stringify(doc))
    const broken = await nobbet('check', file, '--json')
    expect(broken.code).toBe(1)
    const { findings, states, known } = JSON.parse(broken.out)
    expect(findings.map((f: { rule: string }) => f.rule)).toContain('all-off-ends-calls')
    expect(states).toMatchObject({ complete: true })
    const named = (await nobbet('check', file, '--plan', 'two-port-heating')).out
    expect(named).toMatch(/black of Boiler cable is in Wiring centre 1 \(Line\), planned in Wiring centre \d+/)
    expect(named).toContain('Put black of Boiler cable back: Wiring centre')
    expect(named).not.toContain('all-off-ends-calls')
    expect(known.unverifiedEnds).toBeGreaterThan(0)
    writeFileSync(file, '{"format":"nobbet-installation","version":1}')
    const unusable = await nobbet('check', file)
    expect([unusable.code, unusable.err.length]).toEqual([2, 1])
    expect((await nobbet('check', 'single-zone', '--faults')).out).toContain('single device faults end in danger')
  })
})

describe('check', () => {
  it('stops at as many states as it is told to, and says that it has not seen all', async () => {
    const few = JSON.parse((await nobbet('check', 'two-port-heating-hot-water', '--json', '--most', '20')).out)
    expect([few.states.complete, few.states.states]).toEqual([false, expect.any(Number)])
    expect(few.states.states).toBeLessThan(100)
    expect((await nobbet('check', 'two-port-heating', '--most', 'all')).err[0]).toContain('is no number of states')
  })

  it('takes 150 thermostats that are joined to nothing for what they are', async () => {
    const house = JSON.parse((await nobbet('examples', 'two-port-heating-hot-water')).out)
    const stat = house.devices.find((d: { id: string }) => d.id === 'stat-1')
    const more = Array.from({ length: 150 }, (_, i) => ({ ...stat, id: `extra-${i}` }))
    writeFileSync(file, JSON.stringify({ ...house, devices: [...house.devices, ...more] }))
    const { out } = await nobbet('check', file, '--json')
    const alone = JSON.parse((await nobbet('check', 'two-port-heating-hot-water', '--json')).out)
    expect(JSON.parse(out).states.states).toBe(alone.states.states)
  })
})

describe('backup and restore', () => {
  const serve = (data: string) => start({ data, port: 0, host: '127.0.0.1', demo: true })

  it('puts everything into one file while a server runs, and brings it back where none does', async () => {
    const data = mkdtempSync(join(tmpdir(), 'nobbet-cli-data-'))
    const to = join(data, '..', `nobbet-cli-${Date.now()}.sqlite`)
    const server = await serve(data)
    expect(await nobbet('backup', to, '--data', data)).toMatchObject({
      code: 0,
      out: expect.stringContaining('20 jobs'),
    })
    const again = await nobbet('backup', to, '--data', data)
    expect([again.code, again.err[0]]).toEqual([2, expect.stringContaining('is there already: choose another name')])
    const used = await nobbet('restore', to, '--data', data)
    expect([used.code, used.err[0]]).toEqual([2, expect.stringMatching(/in use by another Nobbet \(process \d+\)/)])
    await server.stop()

    const elsewhere = mkdtempSync(join(tmpdir(), 'nobbet-cli-data-'))
    const restored = await nobbet('restore', to, '--data', elsewhere)
    expect(restored).toMatchObject({ code: 0, out: expect.stringContaining('brought back: 20 jobs') })
    writeFileSync(file, 'no backup at all')
    const refused = await nobbet('restore', file, '--data', elsewhere)
    expect([refused.code, refused.err[0]]).toEqual([2, expect.stringContaining('damaged or no database')])
    const second = await nobbet('restore', to, '--data', elsewhere)
    expect(second.out).toMatch(/what was there before is the backup before-restore-/)
  })
})

it('a fault of Nobbet’s own is told as one, and never by the code that means dangerous', async () => {
  const spy = jest.spyOn(JSON, 'stringify').mockImplementation(() => {
    throw new Error('broken inside')
  })
  const { code, err } = await nobbet('check', 'two-port-heating', '--json')
  spy.mockRestore()
  expect([code, err[0]]).toEqual([70, expect.stringContaining('a fault of Nobbet’s own: Error: broken inside')])
})

it('hunts: what may be wrong after what was done and seen, and what to look at next', async () => {
  const { installation } = examples.find((e) => e.id === 'two-port-heating-hot-water')!
  const log = [
    { id: '1', do: 'programmer.heating=on' },
    { id: '2', do: 'stat-1.set=30' },
    { id: '3', do: 'settle' },
    { id: '4', see: { at: 'lever', device: 'zv-1' }, found: { word: 'slack' } },
    { id: '5', see: { at: 'boiler', device: 'boiler' }, found: { word: 'not-called' } },
  ]
  const written = (changed: object) => {
    writeFileSync(file, JSON.stringify({ format: 'nobbet-hunt', version: 1, installation, log, ...changed }))
    return file
  }
  const text = await nobbet('hunt', written({}))
  expect(text).toMatchObject({ code: 0, err: [] })
  expect(text.out).toContain('House valve: end switch never makes  [zv-1.end-switch.never-makes]')
  const { suspects, next, decision } = JSON.parse((await nobbet('hunt', written({}), '--json')).out)
  expect(suspects[0]).toMatchObject({ id: 'zv-1.end-switch.never-makes', share: expect.any(Number) })
  expect(next[0]).toMatchObject({
    minutes: expect.any(Number),
    bits: expect.any(Number),
    outcomes: expect.any(Array),
  })
  expect(decision).toMatchObject({ stop: expect.any(Boolean) })
  const pairs = await nobbet('hunt', written({}), '--pairs', '40')
  expect(pairs.out).toMatch(
    /Two causes at once: [\d.]+ % of all weight, of 40 pairs out of 40 \([\d.]+ % of their weight\)/,
  )
  expect((await nobbet('hunt', written({}), '--pairs', 'all')).err[0]).toContain('"all" is no number of pairs')
  const threes = await nobbet('hunt', written({}), '--pairs', '40', '--threes', '80')
  expect(threes.out).toMatch(/Two or three causes at once: .*, and 80 threes/)
  expect(threes.out).toMatch(/Pairs that were not looked at have at most [\d.]+ % of the weight/)
  expect((await nobbet('hunt', written({}), '--threes', '80')).err[0]).toContain('--threes goes with --pairs')
  // Without the wiring: as a standard plan would have it, which is assumed.
  const brief = { scheme: 'single-zone', circuits: [{ kind: 'heating', name: 'Flat' }] }
  const planned = await nobbet('hunt', written({ installation: undefined, brief, log: [] }))
  expect(planned).toMatchObject({ code: 0, err: [] })
  expect(planned.out).toContain('More looks pay.')
  for (const [changed, reason] of [
    [{ log: [...log, log[0]] }, 'log: two entries have the same id'],
    [{ log: [{ id: '1', do: 'stat-9.set=30' }] }, 'entry "1": there is no device "stat-9"'],
    [{ log: [{ id: '1', see: { at: 'nose', device: 'boiler' }, found: { word: 'x' } }] }, 'log.0.see.at'],
    [{ installation: {} }, 'this is not an installation'],
    [{ installation: undefined }, 'installation: give either an installation or a brief'],
  ] as const) {
    const { code, err } = await nobbet('hunt', written(changed))
    expect([code, err.length]).toEqual([2, 1])
    expect(err[0]).toContain(reason)
  }
})

describe('change', () => {
  const to = (brief: object) => {
    const path = join(mkdtempSync(join(tmpdir(), 'nobbet-cli-')), 'to.json')
    const circuits = [
      { kind: 'heating', name: 'House' },
      { kind: 'hot-water', name: 'Hot water' },
    ]
    const whole = { scheme: 'two-port', circuits, ...brief }
    writeFileSync(path, JSON.stringify({ format: 'nobbet-brief', version: 1, name: 'To be', brief: whole }))
    return path
  }

  it('tells the moves place by place, how near they are to the least, and reads them backwards', async () => {
    const path = to({ control: 'smart-receiver' })
    const { code, out } = await nobbet('change', 'two-port-heating-hot-water', path)
    expect(code).toBe(0)
    expect(out).toMatch(
      /^\d+ of \d+ conductors touched, \d+ links, 0 new cables: no other choice of terminals touches less/,
    )
    expect(out).toContain(
      'Exchange: Programmer: Receiver (Two-channel smart receiver with its thermostat) in its place',
    )
    const back = await nobbet('change', 'two-port-heating-hot-water', path, '--back')
    expect(back.out).toContain('Programmer back in the place of Receiver')
  })

  it('in JSON ends in an installation that it reads again and that checks clean', async () => {
    const { out } = await nobbet('change', 'two-port-heating-hot-water', to({ boiler: 'two-calls' }), '--json')
    const { moves, tally, installation } = JSON.parse(out) as { moves: object[]; tally: object; installation: object }
    expect(moves.length).toBeGreaterThan(5)
    expect(tally).toMatchObject({ cables: 0 })
    const path = join(mkdtempSync(join(tmpdir(), 'nobbet-cli-')), 'changed.json')
    writeFileSync(path, JSON.stringify(installation))
    expect((await nobbet('check', path)).code).toBe(0)
  })

  it('refuses what cannot be worked out, with what to do first', async () => {
    const example = JSON.parse((await nobbet('examples', 'two-port-heating')).out) as {
      cables: { cores: { ends: object[] }[] }[]
    }
    example.cables[0].cores[0].ends[0] = { at: 'unknown' }
    const path = join(mkdtempSync(join(tmpdir(), 'nobbet-cli-')), 'open.json')
    writeFileSync(path, JSON.stringify(example))
    const { code, err } = await nobbet('change', path, to({}))
    expect([code, err.join()]).toEqual([2, expect.stringContaining('find the ends of Supply cable first')])
  })
})

describe('plan', () => {
  const circuits = [
    { kind: 'heating', name: 'House' },
    { kind: 'hot-water', name: 'Hot water' },
  ]
  const written = (brief: object, rest: object = {}) => {
    writeFileSync(
      file,
      JSON.stringify({
        format: 'nobbet-brief',
        version: 1,
        name: 'Mill Lane',
        brief: { scheme: 'two-port', circuits, ...brief },
        ...rest,
      }),
    )
    return file
  }

  it('tells terminal by terminal what goes in, and which other wiring centres would do', async () => {
    const { code, out, err } = await nobbet('plan', written({ terminals: 'strip-12' }))
    expect([code, err]).toEqual([0, []])
    expect(out).toContain('Wiring centre: Strip of 12, 12 terminals, 3 links to fit')
    expect(out).toMatch(/7 {2}Heating ON +\n +black Programmer HTG-ON\n +brown House thermostat L/)
    expect(out).toContain('Strip of 8: too small, it takes 11')
    const plan = await nobbet('plan', written({ terminals: 'levers' }), '--json')
    writeFileSync(file, plan.out)
    expect((await nobbet('check', file)).code).toBe(0)
  })

  it('where no wiring centre is named, takes the smallest that does', async () => {
    const { out } = await nobbet('plan', written({}))
    expect(out).toContain('Wiring centre: Strip of 12, 12 terminals')
    const bigger = await nobbet('plan', written({ circuits: [...circuits, { kind: 'heating', name: 'Loft' }] }))
    expect(bigger.out).not.toContain('Wiring centre: Strip of')
  })

  it.each([
    [{ terminals: 'strip-8' }, {}, 'brief.terminals: the wiring takes 11 terminals, and a strip of 8 has 8'],
    [{ scheme: 'maze' }, {}, 'brief.scheme: the scheme is two-port'],
    [{ terminals: 'bucket' }, {}, 'brief.terminals: it is strip-8'],
    [{}, { format: 'nobbet-plan' }, 'format: this is not a brief'],
    [{}, { colour: 'red' }, 'colour'],
  ])('refuses %j %j and says why', async (brief, rest, reason) => {
    const { code, err } = await nobbet('plan', written(brief, rest))
    expect([code, err.length]).toEqual([2, 1])
    expect(err[0]).toContain(reason)
  })
})
