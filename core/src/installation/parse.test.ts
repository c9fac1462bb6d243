import { typeDirectory } from '../catalogue'
import { installationOf } from '../../testing'
import { DocumentError, parseInstallation } from '.'

const problems = (spoil: (doc: ReturnType<typeof installationOf>) => void): string => {
  const doc = installationOf('two-port-heating')
  spoil(doc)
  try {
    parseInstallation(doc, typeDirectory)
    return 'accepted'
  } catch (error) {
    if (!(error instanceof DocumentError)) throw error
    return error.message
  }
}

describe('an installation document', () => {
  it('is accepted as it was written, and again after a round through JSON', () => {
    const doc = installationOf('two-port-two-heating-hot-water')
    expect(parseInstallation(JSON.parse(JSON.stringify(doc)), typeDirectory)).toEqual(doc)
  })

  it.each<[string, Parameters<typeof problems>[0], string]>([
    ['another format', (d) => Object.assign(d, { format: 'drawing' }), 'format'],
    [
      'a terminal that is not there',
      (d) => (d.cables[0].cores[0].ends[1] = { at: 'terminal', terminal: 'wc.99' }),
      'cables.0.cores.0.ends.1.terminal: there is no terminal "wc.99"',
    ],
    [
      'an unknown device type',
      (d) => (d.devices[0].type = 'toaster'),
      'devices.0.type: "toaster" is not a device type Nobbet knows',
    ],
    ['two things of one id', (d) => (d.devices[1].id = 'spur'), '"spur" is already the id of devices.0.id'],
    [
      'a demand on a contact that is not there',
      (d) => (d.intent.demands[0].channel = { device: 'programmer', contact: 'third' }),
      '"programmer" has no contact "third"',
    ],
    ['a setting out of its range', (d) => (d.devices[0].settings = { fuse: 0 }), 'devices.0.settings.fuse'],
    [
      'a setting that its type has not',
      (d) => (d.devices[0].settings = { colour: 3 }),
      'devices.0.settings.colour: there is no setting "colour"',
    ],
    [
      'a knob at a position it has not',
      (d) => (d.devices.find((x) => x.id === 'programmer')!.positions = { heating: 'perhaps' }),
      'positions.heating: "perhaps" is not one of off',
    ],
    [
      'a week with a value that no clock gives',
      (d) =>
        (d.devices.find((x) => x.id === 'programmer')!.programme = { heating: [{ day: 0, minute: 0, value: 'warm' }] }),
      'programme.heating.0.value: "warm" is not one of off',
    ],
    [
      'a pipe to a connection that is not there',
      (d) => (d.pipes[0].to = 'pump.top'),
      'pipes.0.to: there is no water connection "pump.top"',
    ],
    [
      'a demand that warms what is not there',
      (d) => (d.intent.demands[0].circuit.emitters = ['stove']),
      'intent.demands.0.circuit.emitters.0: there is no device "stove"',
    ],
    ['a newer device type than is known', (d) => (d.types[0].version = 9), 'version 9'],
  ])('is refused with field and reason: %s', (_, spoil, message) => {
    expect(problems(spoil)).toContain(message)
  })
})
