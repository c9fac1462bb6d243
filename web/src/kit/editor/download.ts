import { typeFormat, type DeviceType } from '@nobbet/core'
import { download } from '../../shell/download'

/** Hands a device type out as a file. */
export const downloadType = (type: DeviceType): void =>
  download(`${type.id}.nobbet-type.json`, JSON.stringify({ format: typeFormat, ...type }, null, 2), 'application/json')
