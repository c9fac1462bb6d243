import { documentOf, FakeServer, FakeTabs } from '../../testing'
import { pass, quiet, stopTheClock } from '../../testing/clock'
import { JobStore } from './job-store'
import { MemoryKeeper } from './memory'

beforeAll(stopTheClock)
afterAll(() => jest.useRealTimers())

const job = 'job-mill-house'
async function opened(server: FakeServer): Promise<JobStore> {
  const store = new JobStore(job, { keeper: new MemoryKeeper(), server, tabs: new FakeTabs().tab() })
  await store.load()
  await quiet()
  return store
}

describe('what is written', () => {
  it('of a job that is begun here arrives once, however fast one thing follows another', async () => {
    const server = new FakeServer(job)
    const store = await opened(server)
    const done = [store.record({ do: 'open', ...documentOf() })]
    for (const text of ['one', 'two', 'three']) done.push(store.record({ do: 'note', text }))
    await Promise.all(done)
    await pass(1000)
    await store.record({ do: 'note', text: 'four' })
    await pass(5000)
    expect(store.current()).toMatchObject({ unsent: 0, sending: { is: 'saved' } })
    expect(server.log.map(({ entry }) => (entry.do === 'note' ? entry.text : entry.do))).toEqual([
      'open',
      'one',
      'two',
      'three',
      'four',
    ])
    const asked = server.asked
    await pass(10_000)
    expect(server.asked).toBe(asked)
  })

  it('and was taken in by a server whose data are others by then is not sent again and again', async () => {
    const server = new FakeServer(job, documentOf())
    const store = await opened(server)
    server.lineage = 'second'
    await store.record({ do: 'note', text: 'one' })
    await pass(5000)
    expect(store.current()).toMatchObject({ unsent: 0, sending: { is: 'saved' } })
    const asked = server.asked
    await pass(10_000)
    expect(server.asked).toBe(asked)
  })
})
