import { LINE } from '../../circuit'
import type { CheckFinding } from '../finding'
import { inUse, type Survey } from './survey'

/** Mains where only extra-low voltage may be, and supplies of it that are tied together. */
export function extraLowFindings(survey: Survey): CheckFinding[] {
  const { circuit, wired } = survey
  const findings: CheckFinding[] = []
  circuit.devices.forEach(({ device, type }) => {
    for (const terminal of type.terminals) {
      if (!terminal.extraLow || terminal.internal) continue
      const ref = `${device.id}.${terminal.id}`
      if (survey.poles(wired, survey.atom(ref)) & LINE)
        findings.push({ rule: 'mains-on-extra-low', severity: 'danger', terminals: [ref], devices: [device.id] })
    }
  })
  for (const cable of circuit.installation.cables) {
    if (cable.ratedForMains) continue
    const live = cable.cores.find((core) =>
      ([0, 1] as const).some((end) => inUse(core.ends[end]) && survey.canBeLive(survey.atomOf(cable, core, end))),
    )
    if (!live) continue
    const cores = [{ cable: cable.id, core: live.id }]
    findings.push({ rule: 'extra-low-beside-mains', severity: 'danger', terminals: [], devices: [], cores })
  }
  const owners = new Map<number, number>()
  circuit.transformers.forEach(({ fed, common, device }) => {
    for (const atom of [fed, common]) {
      // Tied through a contact they are tied for as long as it makes.
      const net = survey.all.netOf[atom]
      const other = owners.get(net)
      // Secondaries that a board ties to earth meet there, and that is meant.
      if (other !== undefined && other !== device && !survey.isEarth(atom))
        findings.push({
          rule: 'transformers-tied',
          severity: 'danger',
          terminals: [],
          devices: [other, device].map((d) => circuit.devices[d].device.id),
        })
      owners.set(net, device)
    }
  })
  return findings
}
