import { typeFormat, type DeviceType } from '@nobbet/core'

/** Hands the type out as a file. */
export function download(type: DeviceType): void {
  const blob = new Blob([JSON.stringify({ format: typeFormat, ...type }, null, 2)], { type: 'application/json' })
  const link = document.createElement('a')
  link.href = URL.createObjectURL(blob)
  link.download = `${type.id}.nobbet-type.json`
  link.click()
  URL.revokeObjectURL(link.href)
}
