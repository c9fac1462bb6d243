import fc from 'fast-check'
import { circuitOf } from '../../testing'
import { askableContacts, askedFor, statesFrom } from './candidates'

const circuit = circuitOf('two-port-heating-hot-water')
const contacts = askableContacts(circuit).map(({ device, contact }) => `${device}.${contact}`)
const services = (asking: string[]) => askedFor(circuit, asking).map(({ id }) => id)

describe('the states of the controls that a look is made in', () => {
  it('leave a thermostat whose channel is off as it stands', () => {
    const heating = statesFrom(circuit, contacts).find((asking) => services(asking).join() === 'heating-1')!
    expect(contacts.filter((key) => !heating.includes(key))).toEqual(['programmer.hot-water'])
  })

  it('ask for the same services, from wherever the controls stand', () => {
    const asked = (asking: string[]) =>
      [...new Set(statesFrom(circuit, asking).map((one) => services(one).join()))].sort()
    fc.assert(
      fc.property(fc.subarray(contacts), (standing) => {
        expect(asked(standing)).toEqual(asked([]))
        // What nobody needs to touch is not touched: nothing is set to rest that keeps no service from being off.
        for (const state of statesFrom(circuit, standing))
          for (const key of standing.filter((one) => !state.includes(one)))
            expect(services([...state, key])).not.toEqual(services(state))
      }),
    )
  })
})
