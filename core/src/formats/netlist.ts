import { typeIn, type Primitive } from '../catalogue'
import { type EdgeId, assumedLengthM, leakConductance, usualPicofaradsPerM, type Element } from '../circuit'
import { plainText, type Core, type End, type Installation } from '../installation'
import type { Simulation } from '../simulation'

/** What stands for a conductor, link, closed contact or whole fuse, ohms: next to nothing beside any load. */
const joinOhms = 0.001
/** Cycles a transient analysis runs before and while it is looked at, and steps to a cycle. */
const cycles = { settling: 14, watched: 2, steps: 250 }

/**
 * The present state of an installation as a SPICE netlist, written conductor by conductor from the document and from
 * where each part stands: a check on the solver that shares none of its work. Node names are terminals with the dot
 * replaced (`wc_7`), node 0 is the neutral at the origin. Phasors are r.m.s. (`.ac`); where a diode may conduct the
 * analysis is a transient (`.tran`) of the last few cycles, in which volts are instantaneous.
 */
export function netlist(sim: Simulation): Netlist {
  return new NetlistWriter(sim).write()
}

export interface Netlist {
  text: string
  /** Node of each terminal, connector and free conductor end. */
  nodeOf: ReadonlyMap<string, string>
}

const spiceName = (id: string): string =>
  id
    .replace(/\+/g, 'p')
    .replace(/[^A-Za-z0-9]/g, '_')
    .toLowerCase()

class NetlistWriter {
  private readonly lines: string[] = []
  private readonly nodeOf = new Map<string, string>()
  private readonly taken = new Set<string>()
  private readonly installation: Installation

  constructor(private readonly sim: Simulation) {
    this.installation = sim.circuit.installation
  }

  write(): Netlist {
    const { installation, sim } = this
    const { volts, frequency } = installation.supply
    for (const device of installation.devices) {
      this.comment(`${device.name} (${device.id})`)
      // Every terminal is a node, whether anything is on it or not.
      for (const t of typeIn(installation, device.type).terminals) this.node(`${device.id}.${t.id}`)
      for (const part of typeIn(installation, device.type).primitives) this.part(device.id, part)
    }
    for (const centre of installation.wiringCentres) for (const t of centre.terminals) this.node(`${centre.id}.${t.id}`)
    for (const connector of installation.connectors) this.node(connector.id)
    for (const cable of installation.cables) {
      this.comment(cable.label)
      for (const core of cable.cores) this.core(cable.id, core)
      const farads = ((cable.picofaradsPerM ?? usualPicofaradsPerM) * 1e-12 * (cable.lengthM ?? assumedLengthM)) / 2
      if (farads === 0) continue
      cable.cores.forEach((first, i) =>
        cable.cores.slice(i + 1).forEach((second) =>
          ([0, 1] as const).forEach((end) => {
            const [a, b] = [first, second].map((core) => this.endNode(cable.id, core, end))
            if (a !== b) this.line(`C_${spiceName(`${cable.id}_${first.id}_${second.id}_${end + 1}`)}`, a, b, farads)
          }),
        ),
      )
    }
    this.comment('Links')
    for (const link of installation.links)
      if (link.kind !== 'cut')
        this.line(`R_${spiceName(link.id)}`, this.node(link.between[0]), this.node(link.between[1]), joinOhms)
    this.comment(`Leak of every terminal and conductor end to earth, ${leakConductance} S each`)
    for (const node of this.taken) this.line(`R_leak_${node}`, node, '0', 1 / leakConductance)
    const step = 1 / frequency / cycles.steps
    const until = (cycles.settling + cycles.watched) / frequency
    const from = cycles.settling / frequency
    const text = [
      // The word before it keeps a name from being taken for a command: the first line of a file may be one.
      plainText(`Nobbet: ${installation.name}, ${sim.time / 1000} s, ${volts} V ${frequency} Hz`),
      '.options reltol=1e-6 abstol=1e-12 gmin=1e-15',
      ...this.lines,
      ...(sim.electrics.halfWave
        ? ['.model halfwave D(is=1e-9 n=0.02)', `.tran ${step} ${until} ${from} ${step}`]
        : [`.ac lin 1 ${frequency} ${frequency}`]),
      '.end',
      '',
    ].join('\n')
    return { text, nodeOf: this.nodeOf }
  }

  private part(device: string, part: Primitive): void {
    const { sim } = this
    const at = (terminal: string) => this.node(`${device}.${terminal}`)
    const name = spiceName(`${device}_${part.id}`)
    const { circuit } = sim
    const number = (list: readonly { device: number; part: { id: string } }[]) =>
      list.findIndex((x) => circuit.devices[x.device].device.id === device && x.part.id === part.id)
    switch (part.kind) {
      case 'source': {
        const { volts, frequency } = this.installation.supply
        const peak = volts * Math.SQRT2
        this.lines.push(`V_${name} ${at(part.line)} 0 DC 0 AC ${volts} SIN(0 ${peak} ${frequency})`)
        this.line(`R_${name}_neutral`, at(part.neutral), '0', joinOhms)
        this.line(`R_${name}_earth`, at(part.earth), '0', joinOhms)
        break
      }
      case 'contact':
        this.throw(device, part.id, 'made', at(part.a), at(part.b))
        break
      case 'changeover':
        this.throw(device, part.id, 'no', at(part.common), at(part.no))
        this.throw(device, part.id, 'nc', at(part.common), at(part.nc))
        break
      case 'strap':
        this.line(`R_${name}`, at(part.a), at(part.b), joinOhms)
        break
      case 'fuse':
        if (!sim.fuseBlown(number(circuit.fuses))) this.line(`R_${name}`, at(part.a), at(part.b), joinOhms)
        break
      case 'load': {
        const load = number(circuit.loads)
        if (!sim.loadOpen(load)) this.load(name, sim.electrics.elementOf(load), at(part.from), at(part.to))
        break
      }
      case 'insulation':
        if (sim.electrics.state.failedInsulation[number(circuit.insulations)])
          this.line(`R_${name}`, at(part.a), at(part.b), this.amount(device, part.ohms))
        break
      case 'suppressor':
        this.line(`R_${name}`, at(part.a), `${name}_x`, this.amount(device, part.ohms))
        this.line(`C_${name}`, `${name}_x`, at(part.b), this.amount(device, part.microfarads) * 1e-6)
        break
      case 'diode': {
        const index = number(circuit.diodes)
        if (sim.electrics.state.openDiodes[index]) break
        const shorted = sim.electrics.state.shortedDiodes[index]
        // Without a current of its own it is left out: linearised at rest it would conduct both ways.
        if (!shorted && !sim.electrics.halfWave) {
          this.comment(`${part.label} of ${device} does not conduct`)
          break
        }
        this.line(`R_${name}`, at(part.anode), `${name}_x`, this.amount(device, part.ohms))
        if (shorted) this.line(`R_${name}_d`, `${name}_x`, at(part.cathode), joinOhms)
        else this.lines.push(`D_${name} ${name}_x ${at(part.cathode)} halfwave`)
        break
      }
      case 'transformer': {
        const index = number(circuit.transformers)
        if (sim.electrics.state.openTransformers[index]) break
        // An ideal transformer: volts by a controlled source, the current it draws reflected by another.
        const { primary, ratio, seriesOhms } = circuit.transformers[index]
        const { from, to } = circuit.loads[primary].part
        this.lines.push(`E_${name} ${name}_e ${at(part.common)} ${at(from)} ${at(to)} ${ratio}`)
        this.lines.push(`V_${name} ${name}_e ${name}_s DC 0 AC 0`)
        this.line(`R_${name}`, `${name}_s`, at(part.fed), seriesOhms)
        this.lines.push(`F_${name} ${at(from)} ${at(to)} V_${name} ${ratio}`)
        break
      }
    }
  }

  private throw(device: string, part: string, name: 'made' | 'no' | 'nc', a: string, b: string): void {
    const { circuit } = this.sim
    const contact = circuit.contacts.findIndex(
      (c) => circuit.devices[c.device].device.id === device && c.part.id === part && c.throw === name,
    )
    if (this.sim.contactClosed(contact)) this.line(`R_${spiceName(`${device}_${part}_${name}`)}`, a, b, joinOhms)
  }

  private load(name: string, element: Element, a: string, b: string): void {
    switch (element.kind) {
      case 'resistance':
        return this.line(`R_${name}`, a, b, element.ohms)
      case 'winding':
        this.line(`R_${name}`, a, `${name}_x`, element.dcOhms)
        this.line(`L_${name}`, `${name}_x`, b, element.henrys)
        return this.line(`R_${name}_loss`, `${name}_x`, b, element.lossOhms)
      case 'capacitance':
        return this.line(`C_${name}`, a, b, element.farads)
    }
  }

  private core(cable: string, core: Core): void {
    const { circuit } = this.sim
    const [a, b] = ([0, 1] as const).map((end) => this.endNode(cable, core, end))
    const edge = circuit.edges.findIndex(
      (e) => e.kind === 'core' && e.cable.id === cable && e.core.id === core.id,
    ) as EdgeId
    if (this.sim.edgeBroken(edge)) this.comment(`${core.colour} (${core.id}) is open`)
    else this.line(`R_${spiceName(`${cable}_${core.id}`)}`, a, b, joinOhms)
  }

  private endNode(cable: string, core: Core, index: 0 | 1): string {
    const end: End = core.ends[index]
    if (end.at === 'terminal' || end.at === 'parked') return this.node(end.terminal)
    return this.node(end.at === 'connector' ? end.connector : `${cable}.${core.id}.${index + 1}`)
  }

  private amount(device: string, amount: number | { setting: string }): number {
    const { circuit } = this.sim
    return circuit.devices[circuit.deviceIndex.get(device)!].amount(amount)
  }

  private node(ref: string): string {
    let name = this.nodeOf.get(ref)
    if (name === undefined) {
      // SPICE knows neither case nor hyphens: two terminals may come to the same name.
      const plain = spiceName(ref)
      name = plain
      for (let n = 2; this.taken.has(name); n++) name = `${plain}_n${n}`
      this.nodeOf.set(ref, name)
      this.taken.add(name)
    }
    return name
  }

  private line(name: string, a: string, b: string, value: number): void {
    this.lines.push(`${name} ${a} ${b} ${value}`)
  }

  private comment(text: string): void {
    // A line break would end the comment, and what follows would be read as an element or a command.
    this.lines.push(`* ${plainText(text)}`)
  }
}
