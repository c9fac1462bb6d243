import { installationOf } from '../../testing'
import { parseInstallation } from '../installation'
import fingerprints from './fingerprints.json'
import { deviceType, deviceTypes, typeDirectory, typeIn } from '.'
import { pastTypes } from './past-types'
import { fingerprint, versionsOf } from './versions'

const pump = deviceType('pump')
const at = (version: number, name = `Pump ${version}`) => ({ ...pump, version, name })

describe('shipped types by version', () => {
  const find = versionsOf([at(4)], [at(2), at(3)])

  it('are found in the version an installation was made with', () => {
    expect([2, 3, 4].map((version) => find('pump', version)?.name)).toEqual(['Pump 2', 'Pump 3', 'Pump 4'])
  })

  it('older than the oldest kept, that one stands in; newer than any, or unknown, there is none', () => {
    expect(find('pump', 1)?.name).toBe('Pump 2')
    expect(find('pump', 5)).toBeUndefined()
    expect(find('spaceship', 1)).toBeUndefined()
  })

  it('have not changed under the version they had: if one has to, raise its version and lay the old one down', () => {
    for (const type of [...deviceTypes, ...pastTypes])
      expect([`${type.id} ${type.version}`, fingerprint(type)]).toEqual([
        `${type.id} ${type.version}`,
        (fingerprints as Record<string, string>)[`${type.id} ${type.version}`],
      ])
    const known = new Set([...deviceTypes, ...pastTypes].map((t) => `${t.id} ${t.version}`))
    expect(Object.keys(fingerprints).filter((key) => !known.has(key))).toEqual([])
  })

  it('differ in their fingerprint as soon as anything of them differs', () => {
    expect(fingerprint(at(pump.version, pump.name))).toBe(fingerprint(pump))
    expect(fingerprint({ ...pump, name: 'Pump.' })).not.toBe(fingerprint(pump))
  })

  it('are refused in a version that is not known here', () => {
    const doc = installationOf('two-port-heating')
    const types = doc.types.map((t) => (t.id === 'pump' ? { ...t, version: 99 } : t))
    expect(() => parseInstallation({ ...doc, types }, typeDirectory)).toThrow(
      `version 99 of "pump" is newer than version ${pump.version} known here`,
    )
    expect(typeIn(doc, 'pump')).toBe(pump)
  })
})
