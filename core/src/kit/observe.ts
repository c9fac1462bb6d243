import { leavesOf, type Condition, type DeviceType, type Primitive } from '../catalogue'

/** What a person can learn of a device without a tool, by the part that shows it. */
export interface Noticed {
  kind: 'lever' | 'travel' | 'hum' | 'runs' | 'heats' | 'click' | 'display' | 'fuse' | 'bus'
  part: string
}

const conditionOf = (p: Primitive): Condition | undefined =>
  p.kind === 'contact' ? p.closedWhen : p.kind === 'changeover' ? p.operatedWhen : undefined

/** Does a contact move with a click: on a gear, by a coil, by a bimetal? */
function clicks(type: DeviceType, part: Primitive): boolean {
  const condition = conditionOf(part)
  if (!condition) return false
  return leavesOf(condition).some((leaf) => {
    if ('actuator' in leaf || 'sensor' in leaf) return true
    if (!('energised' in leaf)) return false
    return type.primitives.some((p) => p.id === leaf.energised && p.kind === 'load' && !p.lights)
  })
}

/** Everything that can be seen, heard or felt on a device of this type, part by part. */
export function noticedOn(type: DeviceType): Noticed[] {
  return type.primitives.flatMap((p): Noticed[] => {
    const part = p.id
    switch (p.kind) {
      case 'actuator':
        return p.lever ? [{ kind: 'lever', part }] : [{ kind: 'travel', part }]
      case 'load': {
        const driven = type.primitives.some((q) => q.kind === 'actuator' && (q.movedBy ?? q.drivenBy) === part)
        return [
          ...(driven && p.dcPercent !== undefined ? [{ kind: 'hum', part } as const] : []),
          ...(p.work ? [{ kind: p.work, part } as const] : []),
          ...(p.lights ? [{ kind: 'display', part } as const] : []),
        ]
      }
      case 'behaviour':
        return [{ kind: 'display', part }]
      case 'fuse':
        return [{ kind: 'fuse', part }]
      case 'bus':
        return [{ kind: 'bus', part }]
      case 'contact':
      case 'changeover':
        return clicks(type, p) ? [{ kind: 'click', part }] : []
      default:
        return []
    }
  })
}
