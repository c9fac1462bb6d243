import { circuitOf } from '../../testing'
import { answerOf, ForeseenHunt, Hunt, HuntError, settle, usualHuntOptions, type HuntEntry, type SoFar } from '.'

const circuit = circuitOf('two-port-heating')
const said: HuntEntry = { id: 'said', says: { what: 'does-not-come-on', demand: 'heating-1' } }

/** What is said on the way, and at the end. */
function asked(hunt: ForeseenHunt, log: readonly HuntEntry[]) {
  const soFar: SoFar[] = []
  const run = hunt.answering(log)
  for (;;) {
    const next = run.next()
    if (next.done) return { soFar, answer: next.value }
    soFar.push(next.value)
  }
}

describe('a hunt that is asked again and again', () => {
  it('says how it stands before it says what to look at, and the same as one that is asked once', () => {
    const { soFar, answer } = asked(new ForeseenHunt(circuit, usualHuntOptions), [said])
    const last = soFar.at(-1)
    if (!last || !('standing' in last)) throw new Error('nothing was said on the way')
    expect(last.standing.suspects).toEqual(answer.suspects)
    const once = new Hunt(circuit)
    once.follow([said])
    expect(answer).toEqual(answerOf(once, [said]))
  })

  it('has the answers to its own look ready: the very ones it would give then, whatever the entries are called', () => {
    const hunt = new ForeseenHunt(circuit, usualHuntOptions)
    let log: HuntEntry[] = [said, { id: 'asked', do: 'programmer.heating=on' }, { id: 'up', do: 'stat-1.set=30' }]
    // While a valve is on its way: what may be early or late is foreseen so as well.
    log = [...log, { id: 'wait', do: 'wait=8s' }]
    for (let turn = 0; turn < 3; turn++) {
      const [look] = asked(hunt, log).answer.next
      const ahead = hunt.foreseeing(log)
      while (!ahead.next().done);
      for (const { found } of look.outcomes) {
        const then: HuntEntry[] = [
          ...log,
          // In whatever order their fields are written.
          ...look.acts.map((act, i): HuntEntry => ({ do: act, id: `act-${turn}-${i}` })),
          { found, see: look.see, id: `seen-${turn}` },
        ]
        const foreseen = asked(hunt, then)
        expect(foreseen.soFar).toEqual([])
        const once = new Hunt(circuit)
        once.follow(then)
        expect(foreseen.answer).toEqual(answerOf(once, then))
      }
      const [{ found }] = [...look.outcomes].sort((x, y) => y.probability - x.probability)
      log = [...log, ...look.acts.map((act, i): HuntEntry => ({ id: `act-${turn}-${i}`, do: act }))]
      log.push({ id: `seen-${turn}`, see: look.see, found })
    }
  })

  it('answers anew where the log was edited, taken back or moved', () => {
    const hunt = new ForeseenHunt(circuit, usualHuntOptions)
    const log: HuntEntry[] = [
      { id: 'on', do: 'programmer.heating=on' },
      { id: 'up', do: 'stat-1.set=30' },
      { id: 'rest', do: settle },
      { id: 'seen', see: { at: 'boiler', device: 'boiler' }, found: { word: 'not-called' } },
    ]
    const before = asked(hunt, log).answer
    asked(hunt, [...log.slice(0, 3), { ...log[3], id: 'seen', found: { word: 'called' } }])
    expect(asked(hunt, [said]).answer.suspects).not.toEqual(before.suspects)
    expect(asked(hunt, log).answer).toEqual(before)
  })

  it('refuses a log that does not fit, and goes on after it', () => {
    const hunt = new ForeseenHunt(circuit, usualHuntOptions)
    expect(() => asked(hunt, [{ id: 'gone', do: 'attic.heating=on' }])).toThrow(HuntError)
    expect(asked(hunt, [said]).answer.next.length).toBeGreaterThan(0)
    expect(new Hunt(circuit).misfits([said, { id: 'gone', do: 'attic.heating=on' }]).map((m) => m.entry)).toEqual([
      'gone',
    ])
  })
})
