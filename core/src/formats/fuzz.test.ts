import { fuzzed, subjects } from '../../fuzz/documents'

describe('whatever is brought', () => {
  it.each(subjects.map((s) => [s.name, s] as const))(
    '%s are taken or refused with a reason, and break nothing',
    (_, subject) => {
      const runs = subject.name === 'wirings' || subject.name === 'installations' ? 40 : 150
      const { taken } = fuzzed(subject, runs, 26)
      // A fuzzer whose every thing is refused looks at nothing.
      expect(taken).toBeGreaterThan(runs / 30)
    },
  )
})
