import {
  demandDetailText,
  demandStates,
  demandWords,
  eventText,
  flowText,
  isTold,
  signLines,
  signsOf,
  potentialText,
  claimText,
  effectText,
  type Background,
  stateWords,
  traceReport,
  weekTimeText,
  type Circuit,
  type Rig,
} from '@nobbet/core'

/** The trace report as lines for people. */
export function traceText(circuit: Circuit, rig: Rig, known?: Background): string[] {
  const report = traceReport(rig, known)
  const lines = [
    `${circuit.installation.name}, ${report.time} s${report.settled ? ', settled' : ''}${report.hunting ? ', hunting: time stopped there' : ''}`,
  ]
  if (rig.faultsIn.length > 0) lines.push(`Faults in: ${rig.faultsIn.map((f) => f.label).join('; ')}`)
  lines.push('', 'Demands')
  for (const state of demandStates(rig.simulation)) {
    const detail = demandDetailText(rig.simulation, state)
    lines.push(`  ${state.demand.name}: ${demandWords[state.word]}${detail ? ` (${detail})` : ''}`)
  }
  lines.push('', 'Calls')
  for (const c of report.calls) {
    const because = c.because.map((claim) => claimText(circuit, claim, true)).join('; ')
    const unasked = c.unasked ? ` with no demand${because ? `: ${because}` : ''}` : ''
    lines.push(`  ${c.boiler}.${c.input}: ${c.called ? `called${unasked}` : 'not called'}`)
  }
  if (report.why.length > 0) lines.push('', 'Why')
  for (const { effect, wrong, stands } of report.why) {
    lines.push(`  ${effectText(circuit, effect)}`)
    for (const claim of wrong) lines.push(`    x ${claimText(circuit, claim, true)}`)
    if (wrong.length === 0) for (const claim of stands) lines.push(`    - ${claimText(circuit, claim, false)}`)
  }
  lines.push('', 'Seen, heard, felt')
  for (const line of signLines(circuit, signsOf(rig.simulation)).values()) lines.push(`  ${line}`)
  lines.push('', 'Water, before and behind')
  for (const [way, { flow, before, behind }] of Object.entries(report.water))
    lines.push(`  ${way.padEnd(26)} ${flowText(flow).padEnd(12)}${before}, ${behind}`)
  if (report.heat) {
    const { minuteOfWeek, outdoors, rooms, cylinders, boilers } = report.heat
    lines.push('', `Heat, ${weekTimeText(minuteOfWeek)}, outdoors ${outdoors} °C`)
    for (const [of, celsius] of Object.entries({ ...rooms, ...cylinders, ...boilers }))
      lines.push(`  ${of}: ${celsius} °C`)
  }
  lines.push('', 'Terminals')
  for (const [ref, potential] of Object.entries(report.terminals))
    lines.push(`  ${ref.padEnd(26)} ${stateWords[potential.state].padEnd(9)}${potentialText(circuit, potential)}`)
  lines.push('', 'Events')
  for (const event of rig.simulation.history.filter((e) => isTold(circuit, e)))
    lines.push(`  ${(event.time / 1000).toFixed(3).padStart(10)} s  ${eventText(circuit, event, rig.faults)}`)
  return lines
}
