import type { DeviceType } from './primitives'

/**
 * Looks types up by id and version. Of a version that is not kept, since it is older than the oldest kept one, that one stands
 * in; one that is newer than any known is undefined, as is an unknown id.
 */
export function versionsOf(
  current: readonly DeviceType[],
  past: readonly DeviceType[],
): (id: string, version: number) => DeviceType | undefined {
  const kept = new Map<string, DeviceType[]>()
  for (const type of [...past, ...current]) kept.set(type.id, [...(kept.get(type.id) ?? []), type])
  for (const versions of kept.values()) versions.sort((a, b) => a.version - b.version)
  return (id, version) => {
    const versions = kept.get(id)
    const newest = versions?.[versions.length - 1]
    if (!versions || !newest || version > newest.version) return undefined
    return versions.findLast((type) => type.version <= version) ?? versions[0]
  }
}

/** A number that is another one whenever a type's definition is: FNV-1a over its JSON, as eight hexadecimal digits. */
export function fingerprint(type: DeviceType): string {
  let hash = 0x811c9dc5
  for (const char of JSON.stringify(type)) hash = Math.imul(hash ^ char.codePointAt(0)!, 0x01000193)
  return (hash >>> 0).toString(16).padStart(8, '0')
}
