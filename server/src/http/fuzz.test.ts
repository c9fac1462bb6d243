import { markOf } from '../../fuzz/mark'
import { fuzzedRequests } from '../../fuzz/requests'
import { openStage } from '../../testing'

it('answers whatever is sent without failing, stalling, or changing anything it has refused', async () => {
  const stage = await openStage({ demo: true })
  const { statuses } = await fuzzedRequests(stage.url(), markOf(stage), 600, 26)
  // A fuzzer whose every request is refused looks at nothing, and one that is never refused neither.
  expect(statuses[200]).toBeGreaterThan(50)
  expect(statuses[422]).toBeGreaterThan(50)
  await stage.close()
})
