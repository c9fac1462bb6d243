import { typeIn } from '../catalogue'
import {
  freeLinkId,
  placeOf,
  type Change,
  type Device,
  type End,
  type Installation,
  type Link,
  type Step,
} from '../installation'
import type { Departure } from './departure'

const text = (end: End): string => `${end.at} ${placeOf(end) ?? ''}`
const ends = ({ between }: Link): string => [...between].sort().join()

/** Where a wiring departs from its plan: conductors, links, choices at set-up. What only one of the two has is left out. */
export function departuresFrom(plan: Installation, doc: Installation): Departure[] {
  return [...settings(plan, doc), ...conductors(plan, doc), ...links(plan, doc)]
}

interface Moved {
  cable: string
  core: string
  end: 0 | 1
  is: End
  belongs: End
}

function conductors(plan: Installation, doc: Installation): Departure[] {
  const moved: Moved[] = doc.cables.flatMap((cable) => {
    const planned = plan.cables.find((c) => c.id === cable.id)
    return cable.cores.flatMap((core) => {
      const other = planned?.cores.find((k) => k.id === core.id)
      if (!other) return []
      return ([0, 1] as const).flatMap((end): Moved[] =>
        text(core.ends[end]) === text(other.ends[end])
          ? []
          : [
              {
                cable: cable.id,
                core: core.id,
                end,
                is: core.ends[end],
                belongs: other.ends[end],
              },
            ],
      )
    })
  })
  const back = ({ cable, core, end, belongs }: Moved): Change => ({ do: 'end', cable, core, end, to: belongs })
  const ref = ({ cable, core, end }: Moved) => ({ cable, core, end })
  const of = ({ cable, core }: Moved) => ({ cable, core })
  const alone = moved.flatMap((m): Departure[] => {
    const belongs = placeOf(m.belongs)
    if (belongs === undefined || m.belongs.at === 'parked') return []
    const step: Step = { deed: { do: 'put-back', core: of(m), to: belongs }, changes: [back(m)] }
    return [{ what: { kind: 'core', core: ref(m), at: placeOf(m.is) ?? '', belongs }, step }]
  })
  const pairs = moved.flatMap((a, i) =>
    moved.slice(i + 1).flatMap((b): Departure[] => {
      if (text(a.is) !== text(b.belongs) || text(b.is) !== text(a.belongs)) return []
      const step: Step = { deed: { do: 'exchange', cores: [of(a), of(b)] }, changes: [back(a), back(b)] }
      return [{ what: { kind: 'exchanged', cores: [ref(a), ref(b)] }, step }]
    }),
  )
  return [...pairs, ...alone]
}

function links(plan: Installation, doc: Installation): Departure[] {
  const found: Departure[] = []
  for (const link of doc.links) {
    const planned = plan.links.find((l) => ends(l) === ends(link))
    if (!planned && link.kind !== 'cut') found.push(withoutLink(link))
    if (planned && planned.kind !== link.kind) found.push(...otherKind(link))
  }
  for (const link of plan.links)
    if (link.kind !== 'cut' && !doc.links.some((l) => ends(l) === ends(link))) {
      // Its id may have gone to another link meanwhile, which must stay.
      const value: Link = doc.links.some((l) => l.id === link.id) ? { ...link, id: freeLinkId(doc) } : link
      found.push({
        what: { kind: 'link-missing', between: link.between },
        step: {
          deed: { do: 'fit-link', between: link.between },
          changes: [{ do: 'put', in: 'links', value }],
        },
      })
    }
  return found
}

/** A link taken out; a factory link is cut. */
export const withoutLink = (link: Link): Departure =>
  link.kind === 'factory'
    ? otherKind(link)[0]
    : {
        what: { kind: 'link', link: link.id, made: 'fitted', between: link.between },
        step: {
          deed: { do: 'take-link-out', between: link.between },
          changes: [{ do: 'drop', in: 'links', id: link.id }],
        },
      }

/** A factory link cut, or one that is cut put in again. */
export function otherKind(link: Link): Departure[] {
  if (link.kind === 'fitted') return []
  const cut = link.kind === 'factory'
  const value: Link = { ...link, kind: cut ? 'cut' : 'factory' }
  return [
    {
      what: cut
        ? { kind: 'link', link: link.id, made: 'factory', between: link.between }
        : { kind: 'factory-link-cut', link: link.id, between: link.between },
      step: {
        deed: { do: cut ? 'cut-factory-link' : 'restore-factory-link', between: link.between },
        changes: [{ do: 'put', in: 'links', value }],
      },
    },
  ]
}

function settings(plan: Installation, doc: Installation): Departure[] {
  return doc.devices.flatMap((device) => {
    const planned = plan.devices.find((d) => d.id === device.id)
    if (!planned || planned.type !== device.type) return []
    return typeIn(doc, device.type).settings.flatMap((setting): Departure[] => {
      const belongs = Number(planned.settings[setting.id] ?? setting.default)
      return setting.choices && belongs !== Number(device.settings[setting.id] ?? setting.default)
        ? [withSetting(doc, device, setting.id, belongs)]
        : []
    })
  })
}

/** A choice at set-up made otherwise. */
export function withSetting(doc: Installation, device: Device, id: string, belongs: number): Departure {
  const setting = typeIn(doc, device.type).settings.find((s) => s.id === id)!
  const stands = Number(device.settings[id] ?? setting.default)
  const choice = setting.choices?.find((c) => c.value === belongs)?.label ?? String(belongs)
  const value = { ...device, settings: { ...device.settings, [id]: belongs } }
  return {
    what: { kind: 'setting', device: device.id, setting: id, stands, belongs },
    step: {
      deed: { do: 'set', name: device.name, setting: setting.label, choice },
      changes: [{ do: 'put', in: 'devices', value }],
    },
  }
}
