import {
  ActionError,
  instruments,
  instrumentWords,
  measure,
  readingParts,
  terminalName,
  type Circuit,
  type Instrument,
  type Simulation,
  type WrittenLook,
} from '@nobbet/core'
import { ArrowLeftRight, Gauge } from 'lucide-react'
import { Button, CloseButton, Form } from 'react-bootstrap'
import { SiteReading } from './site-reading'
import type { Lead, MeterHandle } from './use-meter'

/** Instruments that need one lead only: the other end is the supply's. */
const oneLead: ReadonlySet<Instrument> = new Set(['power', 'earth'])

/** Takes the meter into the hand. */
export function MeterButton({ meter }: { meter: MeterHandle }) {
  if (meter.open) return null
  return (
    <Button variant="outline-dark" className="meter-open" onClick={meter.toggle} title="Between any two terminals: M">
      <Gauge size={18} aria-hidden /> Meter leads
    </Button>
  )
}

/** A meter whose leads are put on terminals by hand: press a lead, touch a terminal, read. */
interface MeterProps {
  simulation: Simulation
  meter: MeterHandle
  /** The job it is of: what the same leads show on site goes into its log. */
  job?: string
}

export function Meter({ simulation, meter, job }: MeterProps) {
  const { circuit } = simulation
  const { instrument, leads, armed } = meter
  const { figure, note, refused } = read(simulation, meter)
  const see = lookOf(circuit, meter)
  return (
    <section className="sheet meter" aria-label="Meter">
      <header>
        <Form.Select
          aria-label="Instrument"
          value={instrument}
          onChange={(event) => meter.choose(event.target.value as Instrument)}
        >
          {instruments.map((id) => (
            <option key={id} value={id}>
              {instrumentWords[id].name}
            </option>
          ))}
        </Form.Select>
        <CloseButton aria-label="Put the meter away" onClick={meter.toggle} />
      </header>
      <p className="quiet what">{instrumentWords[instrument].what}</p>
      <div className="leads">
        <LeadButton circuit={circuit} lead="red" at={leads.red} armed={armed === 'red'} onArm={meter.arm} />
        {!oneLead.has(instrument) && (
          <>
            <LeadButton circuit={circuit} lead="black" at={leads.black} armed={armed === 'black'} onArm={meter.arm} />
            <Button variant="outline-dark" size="sm" aria-label="Swap the leads" onClick={meter.swap}>
              <ArrowLeftRight size={16} aria-hidden />
            </Button>
          </>
        )}
      </div>
      {armed && (
        <Form.Select
          aria-label={`Terminal for the ${armed} lead`}
          value=""
          onChange={(event) => meter.put(event.target.value)}
        >
          <option value="">Touch a terminal on the screen, or choose it here</option>
          {ownersOf(circuit).map(({ name, refs }) => (
            <optgroup key={name} label={name}>
              {refs.map((ref) => (
                <option key={ref} value={ref}>
                  {terminalName(circuit, ref)}
                </option>
              ))}
            </optgroup>
          ))}
        </Form.Select>
      )}
      <output className={refused ? 'reading refused' : 'reading'} aria-live="polite">
        <strong>{figure}</strong>
        {note && <span>{note}</span>}
      </output>
      {job && see && <SiteReading job={job} simulation={simulation} see={see} />}
    </section>
  )
}

/** What is looked at, once the leads are on. */
function lookOf({ atomIndex }: Circuit, { instrument, leads: { red, black } }: MeterHandle): WrittenLook | undefined {
  if (!red || !atomIndex.has(red)) return undefined
  if (oneLead.has(instrument)) return { at: 'points', with: instrument, red }
  return black && atomIndex.has(black) ? { at: 'points', with: instrument, red, black } : undefined
}

interface LeadButtonProps {
  circuit: Circuit
  lead: Lead
  at?: string
  armed: boolean
  onArm: (lead: Lead | undefined) => void
}

function LeadButton({ circuit, lead, at, armed, onArm }: LeadButtonProps) {
  const place = at && circuit.atomIndex.has(at) ? terminalName(circuit, at) : 'not on anything'
  return (
    <button className={`lead ${lead}`} aria-pressed={armed} onClick={() => onArm(armed ? undefined : lead)}>
      <span className="lead-name">{lead === 'red' ? 'Red' : 'Black'}</span>
      <span>{armed ? 'touch a terminal' : place}</span>
    </button>
  )
}

function read(
  simulation: Simulation,
  { instrument, leads }: MeterHandle,
): ReturnType<typeof readingParts> & { refused: boolean } {
  const { red } = leads
  const black = oneLead.has(instrument) ? red : leads.black
  if (!red || !black) return { figure: '—', note: 'Put the leads on.', refused: false }
  try {
    const reading = measure(simulation, instrument, red, black)
    return { ...readingParts(simulation.circuit, reading), refused: reading.kind === 'refused' }
  } catch (error) {
    if (error instanceof ActionError) return { figure: '—', note: `${sentence(error.message)}.`, refused: true }
    throw error
  }
}

const sentence = (text: string) => text[0].toUpperCase() + text.slice(1)

/** Every terminal a lead can be put on, by what it belongs to. */
function ownersOf(circuit: Circuit): { name: string; refs: string[] }[] {
  const { installation } = circuit
  const named = [
    ...installation.wiringCentres,
    ...installation.devices,
    ...installation.connectors,
    ...installation.cables.map(({ id, label }) => ({ id, name: label })),
  ]
  return named
    .map(({ id, name }) => ({
      name,
      refs: circuit.atoms.filter((a) => a.owner === id && a.kind !== 'internal').map((a) => a.ref),
    }))
    .filter(({ refs }) => refs.length > 0)
}
