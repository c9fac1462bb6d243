import { compile, examples, Rig } from '@nobbet/core'
import { conductorRef } from './picked'
import { putInPlaces } from './put-in-marks'

const circuit = compile(examples[0].installation)
const put = (kind: string) => [...new Rig(circuit).faults.values()].filter((f) => f.kind === kind)
const placesWith = (...names: string[]) => {
  const rig = new Rig(circuit)
  for (const fault of names) rig.perform({ do: 'fault', fault })
  return [...putInPlaces(rig)]
}

describe('where something wrong was put in', () => {
  it('is nowhere in an installation as it stands', () => expect(placesWith()).toEqual([]))

  it('is the device of each failed part', () => {
    for (const { name, at } of put('part')) expect(placesWith(name)).toEqual(at)
  })

  it('is the conductor that was moved, each of two that were exchanged, and one that is open', () => {
    for (const { name } of put('core-moved').slice(0, 20)) {
      const [cable, core] = name.split(' ')[1].split('.')
      expect(placesWith(name)).toContain(conductorRef(cable, core))
    }
    expect(placesWith(put('cores-exchanged')[0].name)).toHaveLength(2)
    for (const { name } of put('conductor').slice(0, 20)) {
      const [cable, core] = name.split('.')
      expect(placesWith(name)).toEqual([conductorRef(cable, core)])
    }
  })

  it('is gone once it is taken out', () => {
    const rig = new Rig(circuit)
    const [{ name }] = put('core-moved')
    rig.perform({ do: 'fault', fault: name })
    expect(putInPlaces(rig).size).toBeGreaterThan(0)
    rig.perform({ do: 'mend', fault: name })
    expect(putInPlaces(rig).size).toBe(0)
  })
})
