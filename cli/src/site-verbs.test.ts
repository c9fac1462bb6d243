import { mkdtempSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { main } from './main'

async function nobbet(...args: string[]) {
  const out: string[] = []
  const err: string[] = []
  const code = await main(args, { out: (l) => out.push(l), err: (l) => err.push(l) })
  return { code, out: out.join('\n'), err }
}

describe('commission', () => {
  it('tells the run step by step, and by its minutes', async () => {
    const { code, out } = await nobbet('commission', 'two-port-heating-hot-water')
    expect(code).toBe(0)
    expect(out).toMatch(/^24 steps, about \d+ minutes/)
    expect(out).toContain('House: alone')
    expect(out).toContain('expect: Boiler: does it show a call: Called')
    expect(out).toContain('see to: Wiring centre: each of')
    const untouched = await nobbet('commission', 'two-port-heating-hot-water', '--covers-on')
    expect(untouched.out).not.toContain('earth continuity')
  })

  it('carried out with a fault says which step is not as expected, and ends with 1', async () => {
    const { code, out } = await nobbet('commission', 'two-port-heating', '--fault', 'zv-1.motor.open')
    expect(code).toBe(1)
    expect(out).toContain('NOT AS EXPECTED: House valve: open or shut: Shut, expected Open')
    expect((await nobbet('commission', 'two-port-heating', '--carry-out')).code).toBe(0)
  })
})

describe('survey', () => {
  const written = (file: object) => {
    const path = join(mkdtempSync(join(tmpdir(), 'nobbet-cli-')), 'survey.json')
    writeFileSync(path, JSON.stringify(file))
    return path
  }
  const brief = { scheme: 'two-port', circuits: [{ kind: 'heating', name: 'House' }] }
  const lead = (core: string, colour: string, terminal: string) => ({
    id: core,
    colour,
    at: { at: 'terminal', terminal },
  })
  const survey = {
    cables: [
      {
        id: 'a',
        label: 'Flex',
        leadOf: 'two-port-valve',
        cores: [lead('k1', 'brown', '1'), lead('k2', 'blue', '2'), lead('k3', 'green-yellow', '3')],
      },
      { id: 'b', label: 'Grey cable', cores: [lead('k1', 'black', '1'), lead('k2', 'blue', '2')] },
    ],
    facts: [{ see: 'follows', id: 'f1', cable: 'a', device: 'zv-1' }],
  }
  const file = { format: 'nobbet-survey', version: 1, brief, survey }

  it('tells which conductor is which, how sure that is and why, and what to look at next', async () => {
    const { code, out } = await nobbet('survey', written(file))
    expect(code).toBe(0)
    expect(out).toMatch(/^5 conductors: 3 certain, \d likely, \d open/)
    expect(out).toContain('House valve, M (Motor) (certain)')
    expect(out).toContain('sits in 1 with Flex, brown, which goes to House valve, M (Motor): those two belong together')
    expect(out).toMatch(/Next:\n {2}Take the plate off House thermostat/)
  })

  it('makes an installation of it that is read again: what is likely is assumed there', async () => {
    const { out } = await nobbet('survey', written(file), '--as-found')
    const path = written(JSON.parse(out) as object)
    expect((await nobbet('check', path)).out).toMatch(/not verified|assumed/)
  })

  it.each([
    [{ ...file, brief: undefined }, 'installation: give either an installation or a brief'],
    [{ ...file, version: 2 }, 'version: it was written by a newer Nobbet'],
    [
      { ...file, survey: { cables: [{ id: 'a', label: 'x', cores: [] }] } },
      'survey.cables.0.cores: a cable has at least',
    ],
  ])('refuses what is no survey by field and reason: %#', async (wrong, reason) => {
    const { code, err } = await nobbet('survey', written(wrong))
    expect(code).toBe(2)
    expect(err.join()).toContain(reason)
  })
})
