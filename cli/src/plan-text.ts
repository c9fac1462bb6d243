import {
  cableSchedule,
  centreKind,
  inCentres,
  linkText,
  terminalSchedule,
  type Installation,
  type PlanBrief,
  type ScheduledConductor,
} from '@nobbet/core'

const conductorText = ({ colour, sleeve, farText, parked }: ScheduledConductor): string =>
  `${colour}${sleeve ? ` sleeved ${sleeve}` : ''} ${parked ? '(parked) ' : ''}${farText}`

/** A plan as lines: terminal by terminal what goes in, cable by cable what each core joins, and what other wiring centres would do. */
export function planText(plan: Installation, brief: PlanBrief): string[] {
  const lines: string[] = []
  for (const { id, name, terminals } of plan.wiringCentres) {
    const fitted = plan.links.filter((l) => l.kind === 'fitted' && l.between.every((ref) => ref.startsWith(`${id}.`)))
    lines.push(
      `${name}: ${centreKind(brief.terminals).name}, ${terminals.length} terminals, ${fitted.length} links to fit`,
    )
    for (const { number, legend, conductors, ...links } of terminalSchedule(plan, id)) {
      const linked = linkText(links) ? `  links: ${linkText(links)}` : ''
      lines.push(`${number.padStart(5)}  ${legend.padEnd(20)}${linked}`)
      for (const conductor of conductors) lines.push(`           ${conductorText(conductor)}`)
    }
    lines.push('')
  }
  for (const { label, lengthM, cores } of cableSchedule(plan)) {
    lines.push(`${label}, ${cores.length}-core${lengthM === undefined ? '' : `, ${lengthM} m`}`)
    for (const { core, ends } of cores) lines.push(`       ${core.colour.padEnd(14)}${ends.join(' to ')}`)
  }
  lines.push('', 'In another wiring centre:')
  for (const { kind, fits, terminals, links, boxes } of inCentres(brief)) {
    if (kind === brief.terminals) continue
    const { name } = centreKind(kind)
    lines.push(
      fits
        ? `  ${name}: ${terminals} terminals${boxes > 1 ? ` in ${boxes} boxes` : ''}, ${links} links to fit`
        : `  ${name}: too small, it takes ${terminals}`,
    )
  }
  return lines
}
