import { terminalName, wiringAt } from '@nobbet/core'
import { Conductor } from '../drawing/conductor'
import type { HuntScreen } from './hunt-screen'

/** The wiring of a device or box as it is drawn, to be compared with what lies there. */
export function AsDrawn({ screen: { circuit }, thing }: { screen: Pick<HuntScreen, 'circuit'>; thing: string }) {
  const { terminals, links, settings } = wiringAt(circuit.installation, thing)
  const { devices, wiringCentres } = circuit.installation
  const owner = [...devices, ...wiringCentres].find(({ id }) => id === thing)?.name ?? ''
  // Whoever looks at it knows what it is.
  const nameOf = (terminal: string) => terminalName(circuit, terminal).replace(`${owner} `, '')
  return (
    <section className="as-drawn" aria-label="As it is drawn">
      <dl>
        {terminals.map(({ terminal, conductors }) => (
          <div key={terminal}>
            <dt>{nameOf(terminal)}</dt>
            {conductors.map(({ cable, colour, sleeve }, i) => (
              <dd key={i}>
                <Conductor colour={colour} sleeve={sleeve} /> <span className="of-cable">{cable}</span>
              </dd>
            ))}
          </div>
        ))}
        {links.map(({ between: [a, b], cut }) => (
          <div key={`${a} ${b}`}>
            <dt>Link</dt>
            <dd>
              {nameOf(a)} to {nameOf(b)}
              {cut && ', cut'}
            </dd>
          </div>
        ))}
        {settings.map(({ setting, value }) => (
          <div key={setting}>
            <dt>{setting}</dt>
            <dd>{value}</dd>
          </div>
        ))}
      </dl>
    </section>
  )
}
