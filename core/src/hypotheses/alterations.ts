import { nth } from '../lists'
import { terminalText, typeIn } from '../catalogue'
import type { Circuit } from '../circuit'
import type { Change, Command, Core, End, Installation, Link } from '../installation'

/** What kind of thing was done to the wiring. */
export const alterationKinds = [
  'core-open',
  'core-moved',
  'cores-exchanged',
  'link-missing',
  'link-extra',
  'factory-link',
  'setting',
] as const
export type AlterationKind = (typeof alterationKinds)[number]

/** A single thing that may be wrong with the wiring itself, as a change of the document. */
export interface Alteration {
  /** `moved boiler-cable.black.1 wc.14`: names it on command lines and in lists. */
  name: string
  kind: AlterationKind
  /** In the trade's words. */
  label: string
  command: Command
}

interface Landed {
  cable: string
  core: Core
  end: 0 | 1
  terminal: string
}

/**
 * Every single miswiring this installation can plausibly have: each conductor open, each at a terminal beside its own, each
 * two exchanged that lie beside each other or at one device, each link missing, one too many, a factory link left in or
 * cut, and each choice at set-up made otherwise. A terminal that gets a conductor more takes it: that it is one too many is
 * not what gives it away.
 */
export function alterationsOf(circuit: Circuit): Alteration[] {
  const doc = circuit.installation
  const landed = landedOf(doc)
  const strips = [
    ...doc.wiringCentres.map((c) => c.terminals.map((t) => `${c.id}.${t.id}`)),
    ...doc.devices.map((d) =>
      typeIn(doc, d.type)
        .terminals.filter((t) => !t.internal)
        .map((t) => `${d.id}.${t.id}`),
    ),
  ]
  return [
    ...opened(doc, landed),
    ...moved(doc, landed, strips),
    ...exchanged(doc, landed, strips),
    ...links(doc, strips),
    ...settings(doc),
  ]
}

const landedOf = (doc: Installation): Landed[] =>
  doc.cables.flatMap((cable) =>
    cable.cores.flatMap((core) =>
      core.ends.flatMap((end, i): Landed[] =>
        end.at === 'terminal' ? [{ cable: cable.id, core, end: i as 0 | 1, terminal: end.terminal }] : [],
      ),
    ),
  )

const labelOf = (doc: Installation, cable: string) => doc.cables.find((c) => c.id === cable)!.label
const onTerminal = (terminal: string): End => ({ at: 'terminal', terminal })

/** A conductor that joins nothing any more, wherever it broke: taken out of its cable. */
function opened(doc: Installation, landed: readonly Landed[]): Alteration[] {
  const cores = new Map(landed.map((l) => [`${l.cable}.${l.core.id}`, l]))
  return [...cores].flatMap(([ref, { cable, core }]): Alteration[] => {
    if (!core.ends.every((e) => e.at === 'terminal' || e.at === 'connector')) return []
    const whole = doc.cables.find((c) => c.id === cable)!
    if (whole.cores.length === 1)
      return [
        made(`open ${ref}`, 'core-open', `${core.colour} of ${whole.label} open`, [
          { do: 'drop', in: 'cables', id: cable },
        ]),
      ]
    const value = { ...whole, cores: whole.cores.filter((k) => k.id !== core.id) }
    return [
      made(`open ${ref}`, 'core-open', `${core.colour} of ${whole.label} open`, [{ do: 'put', in: 'cables', value }]),
    ]
  })
}

function moved(doc: Installation, landed: readonly Landed[], strips: readonly string[][]): Alteration[] {
  return landed.flatMap((at) =>
    neighbours(strips, at.terminal).map((to) =>
      made(
        `moved ${at.cable}.${at.core.id}.${at.end} ${to}`,
        'core-moved',
        `${at.core.colour} of ${labelOf(doc, at.cable)} in ${terminalText(doc, to)} instead of ${terminalText(doc, at.terminal)}`,
        [...room(doc, to), { do: 'end', cable: at.cable, core: at.core.id, end: at.end, to: onTerminal(to) }],
      ),
    ),
  )
}

/** The terminals beside one, on the same strip. */
function neighbours(strips: readonly string[][], terminal: string): string[] {
  const strip = strips.find((s) => s.includes(terminal)) ?? []
  const i = strip.indexOf(terminal)
  return [strip[i - 1], strip[i + 1]].filter((t) => t !== undefined)
}

/** A way more in a terminal of a wiring centre. */
function room(doc: Installation, terminal: string): Change[] {
  const [owner, id] = terminal.split('.')
  const centre = doc.wiringCentres.find((c) => c.id === owner)
  if (!centre) return []
  const terminals = centre.terminals.map((t) => (t.id === id ? { ...t, ways: Math.min(8, t.ways + 1) } : t))
  return [{ do: 'put', in: 'wiringCentres', value: { ...centre, terminals } }]
}

const ownerOf = (terminal: string): string => terminal.slice(0, terminal.indexOf('.'))

function exchanged(doc: Installation, landed: readonly Landed[], strips: readonly string[][]): Alteration[] {
  const devices = new Set(doc.devices.map((d) => d.id))
  return landed.flatMap((a, i) =>
    landed.slice(i + 1).flatMap((b): Alteration[] => {
      const owner = ownerOf(a.terminal)
      const together = owner === ownerOf(b.terminal) && devices.has(owner)
      if (a.terminal === b.terminal || !(together || neighbours(strips, a.terminal).includes(b.terminal))) return []
      const label = `${a.core.colour} of ${labelOf(doc, a.cable)} in ${terminalText(doc, a.terminal)} exchanged with ${b.core.colour} of ${labelOf(doc, b.cable)} in ${terminalText(doc, b.terminal)}`
      return [
        made(`exchanged ${a.cable}.${a.core.id}.${a.end} ${b.cable}.${b.core.id}.${b.end}`, 'cores-exchanged', label, [
          { do: 'end', cable: a.cable, core: a.core.id, end: a.end, to: onTerminal(b.terminal) },
          { do: 'end', cable: b.cable, core: b.core.id, end: b.end, to: onTerminal(a.terminal) },
        ]),
      ]
    }),
  )
}

function links(doc: Installation, strips: readonly string[][]): Alteration[] {
  const between = (a: string, b: string) => doc.links.some((l) => l.between.includes(a) && l.between.includes(b))
  const removed = doc.links.flatMap((link): Alteration[] => {
    const where = link.between.map((ref) => terminalText(doc, ref)).join(' and ')
    if (link.kind === 'fitted')
      return [
        made(`without ${link.id}`, 'link-missing', `link between ${where} missing`, [
          { do: 'drop', in: 'links', id: link.id },
        ]),
      ]
    const value: Link = { ...link, kind: link.kind === 'cut' ? 'factory' : 'cut' }
    const label = link.kind === 'cut' ? `factory link ${where} left in` : `factory link ${where} cut`
    return [made(`factory ${link.id}`, 'factory-link', label, [{ do: 'put', in: 'links', value }])]
  })
  const centres = strips.filter(([t]) => doc.wiringCentres.some((c) => t?.startsWith(`${c.id}.`)))
  const added = centres.flatMap((strip) =>
    strip.slice(1).flatMap((b, i): Alteration[] => {
      const a = nth(strip, i)
      if (between(a, b)) return []
      const value: Link = { id: 'link-extra', kind: 'fitted', between: [a, b] }
      return [
        made(
          `link ${a} ${b}`,
          'link-extra',
          `link too many between ${terminalText(doc, a)} and ${terminalText(doc, b)}`,
          [{ do: 'put', in: 'links', value }],
        ),
      ]
    }),
  )
  return [...removed, ...added]
}

/** Choices at set-up: a jumper the other way round, a slider, an input that is ignored. */
function settings(doc: Installation): Alteration[] {
  return doc.devices.flatMap((device) =>
    typeIn(doc, device.type).settings.flatMap((setting) => {
      const stands = device.settings[setting.id] ?? setting.default
      return (setting.choices ?? [])
        .filter((choice) => choice.value !== stands)
        .map((choice) =>
          made(
            `setting ${device.id}.${setting.id} ${choice.value}`,
            'setting',
            `${device.name}: ${setting.label.toLowerCase()} at "${choice.label}"`,
            [
              {
                do: 'put',
                in: 'devices',
                value: { ...device, settings: { ...device.settings, [setting.id]: choice.value } },
              },
            ],
          ),
        )
    }),
  )
}

const made = (name: string, kind: AlterationKind, label: string, changes: Change[]): Alteration => ({
  name,
  kind,
  label,
  command: { label, changes },
})
