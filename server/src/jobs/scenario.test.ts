import type { Entry, JobState } from '@nobbet/contract'
import { logged, opening, openStage, type Stage } from '../../testing'

let stage: Stage
beforeAll(async () => void (stage = await openStage()), 30_000)
afterAll(() => stage.close())

const scenariosOf = async (job: string) =>
  ((await stage.call('GET', `/api/jobs/${job}`)).body as JobState).scenarios.map(({ name, acts }) => [name, ...acts])
const kept = (id: string, name: string, ...acts: string[]): Entry => ({ do: 'scenario', id, scenario: { name, acts } })

describe('a scenario', () => {
  it('is kept with the job, replaced by one of its id, taken off and brought back', async () => {
    await stage.record('job-scenes', [opening('Mill House')])
    expect(await scenariosOf('job-scenes')).toEqual([])
    await stage.record('job-scenes', [
      logged(kept('scene-1', 'Alone', 'programmer.heating=on', 'wait=20s')),
      logged(kept('scene-2', 'Beside', 'fault=moved boiler-cable.black.1 wc.14')),
      logged(kept('scene-1', 'Alone, longer', 'wait=60s')),
    ])
    expect(await scenariosOf('job-scenes')).toEqual([
      ['Beside', 'fault=moved boiler-cable.black.1 wc.14'],
      ['Alone, longer', 'wait=60s'],
    ])
    await stage.record('job-scenes', [logged({ do: 'scenario', id: 'scene-2', scenario: null })])
    expect(await scenariosOf('job-scenes')).toEqual([['Alone, longer', 'wait=60s']])
    await stage.record('job-scenes', [logged(kept('scene-2', 'Beside', 'wait=1s'))])
    expect((await scenariosOf('job-scenes')).map(([name]) => name)).toEqual(['Alone, longer', 'Beside'])
  })

  it('that cannot be read is refused by field and reason, and nothing is kept of it', async () => {
    await stage.record('job-scenes-2', [opening('Quay House')])
    const refused = async (entry: unknown) => {
      const { status, body } = await stage.record('job-scenes-2', [logged(entry as Entry)])
      return [status, JSON.stringify(body)]
    }
    const [status, text] = await refused({
      do: 'scenario',
      id: 'scene-3',
      scenario: { name: 'Odd', acts: ['wait=soon'] },
    })
    expect(status).toBe(422)
    expect(text).toMatch(/acts.*is not a time/)
    expect((await refused({ do: 'scenario', id: 'scene-3', scenario: { name: ' ', acts: [] } }))[1]).toMatch(
      /name is missing/,
    )
    const many = Array.from({ length: 501 }, () => 'wait=1s')
    expect((await refused({ do: 'scenario', id: 'scene-3', scenario: { name: 'Long', acts: many } }))[1]).toMatch(
      /at most 500 acts/,
    )
    expect(await scenariosOf('job-scenes-2')).toEqual([])
  })
})
