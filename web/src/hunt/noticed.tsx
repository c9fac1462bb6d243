import { deviceName, passes, settle, thingsOf, type Thing, type WrittenLook } from '@nobbet/core'
import { useMemo } from 'react'
import { Button } from 'react-bootstrap'
import { Link } from 'react-router'
import { CentreColumn } from './centre-column'
import { CustomerSays } from './customer-says'
import { placeName, type HuntScreen } from './hunt-screen'
import { OneControl } from './one-control'
import { OneLook } from './one-look'
import { useSearchValue } from '../shell/use-search-value'

interface NoticedProps {
  screen: HuntScreen
  onDone: () => void
}

/** Anything noticed, in any order: the thing first, then what it does. */
export function Noticed({ screen, onDone }: NoticedProps) {
  const { circuit } = screen
  const things = useMemo(() => thingsOf(circuit), [circuit])
  const [picked, setPicked] = useSearchValue('thing')
  const thing = things.find(({ id }) => id === picked)
  const back = (
    <button type="button" className="btn btn-link back" onClick={() => setPicked(undefined)}>
      All things
    </button>
  )
  if (picked === 'customer')
    return (
      <section className="sheet noticed" aria-label="The customer says">
        {back}
        <CustomerSays screen={screen} onSaid={onDone} />
      </section>
    )
  if (thing && circuit.installation.wiringCentres.some(({ id }) => id === thing.id))
    return (
      <section className="sheet noticed" aria-label={thing.name}>
        {back}
        <h2>{thing.name}</h2>
        <details className="by-eye">
          <summary>Isolated, cover off: what the eyes find</summary>
          {thing.looks
            .filter((see) => see.at !== 'points')
            .map((see) => (
              <OneLook key={see.at} screen={screen} of={thing.name} see={see} onDone={onDone} />
            ))}
        </details>
        <CentreColumn screen={screen} centre={thing.id} />
      </section>
    )
  if (thing)
    return (
      <section className="sheet noticed" aria-label={thing.name}>
        {back}
        <OneThing key={thing.id} screen={screen} thing={thing} onDone={onDone} />
      </section>
    )
  const places = [...new Set(things.map(({ place }) => place))]
  return (
    <section className="sheet noticed" aria-label="Something noticed">
      <h2>What did you look at?</h2>
      <div className="things">
        <button type="button" className="thing customer" onClick={() => setPicked('customer')}>
          The customer says
        </button>
      </div>
      {places.map((place) => (
        <fieldset key={place}>
          <legend>{placeName(circuit, place)}</legend>
          <div className="things">
            {things
              .filter((one) => one.place === place)
              .map(({ id, name }) => (
                <button key={id} type="button" className="thing" data-thing={id} onClick={() => setPicked(id)}>
                  {name}
                </button>
              ))}
          </div>
        </fieldset>
      ))}
      <Rest screen={screen} />
      <p className="otherwise">
        A conductor is not where it is shown, or a device is another one?{' '}
        <Link to={`/jobs/${screen.job}/bench`}>Record it at the Bench</Link>: the hunt goes on with the wiring as found.
      </p>
      <Button variant="link" onClick={onDone}>
        Back to the next look
      </Button>
    </section>
  )
}

/** Where something was set and has not come to rest yet, saying so is one press. */
function Rest({ screen }: { screen: HuntScreen }) {
  const last = screen.entries.findLast((entry) => 'do' in entry)
  if (!last || !('do' in last) || last.do === settle) return null
  return (
    <p className="still">
      {passes(last.do)
        ? 'Not everything had come to rest yet.'
        : 'Looked at straight after the last thing that was set.'}{' '}
      <Button variant="outline-primary" onClick={() => void screen.writer.add([{ do: settle }])}>
        It has all come to rest
      </Button>
    </p>
  )
}

interface OneThingProps {
  screen: HuntScreen
  thing: Thing
  onDone: () => void
}

const isTerminal = (see: WrittenLook): boolean => see.at === 'points' && see.with !== 'power'

/** What can be seen of it, each with its answers; then how it can be set; then its terminals. */
function OneThing({ screen, thing, onDone }: OneThingProps) {
  const seen = thing.looks.filter((see) => !isTerminal(see))
  const read = thing.looks.filter(isTerminal)
  const found = (see: WrittenLook) => (
    <OneLook key={JSON.stringify(see)} screen={screen} of={thing.name} see={see} onDone={onDone} />
  )
  return (
    <>
      <h2>{thing.name}</h2>
      {seen.map(found)}
      <Settings screen={screen} device={thing.id} />
      {read.length > 0 && (
        <details open={seen.length === 0}>
          <summary>Its terminals: {read.length}</summary>
          {read.map(found)}
        </details>
      )}
      <Past screen={screen} device={thing.id} onDone={onDone} />
    </>
  )
}

/** How it was set by hand, as a line of the log. */
function Settings({ screen, device }: { screen: HuntScreen; device: string }) {
  const { circuit, writer } = screen
  const at = circuit.deviceIndex.get(device)
  const controls = at === undefined ? [] : circuit.devices[at].type.controls
  if (controls.length === 0) return null
  return (
    <details className="set-by-hand">
      <summary>It was set</summary>
      {controls.map((control) => (
        <OneControl
          key={control.id}
          control={control}
          onSet={(value) => void writer.add([{ do: `${device}.${control.id}=${value}` }])}
        />
      ))}
    </details>
  )
}

/** What was done to it before, or now: changed for a new one, held to be at fault. */
function Past({ screen, device, onDone }: { screen: HuntScreen; device: string; onDone: () => void }) {
  const { circuit, writer } = screen
  if (!circuit.deviceIndex.has(device)) return null
  const name = deviceName(circuit, device)
  const parts = circuit.devices[circuit.deviceIndex.get(device)!].type.primitives.filter(
    (part) => part.kind === 'actuator' || part.kind === 'load',
  )
  const done = (entry: Parameters<typeof writer.add>[0][number]) => {
    void writer.add([entry])
    onDone()
  }
  return (
    <details className="past">
      <summary>It was changed, or blamed</summary>
      <div className="things">
        <button type="button" className="thing" onClick={() => done({ renew: device })}>
          New: {name}
        </button>
        {parts.map((part) => (
          <button key={part.id} type="button" className="thing" onClick={() => done({ renew: device, part: part.id })}>
            New: its {part.label.toLowerCase()}
          </button>
        ))}
        <button type="button" className="thing" onClick={() => done({ blamed: device })}>
          Somebody before held it to be at fault
        </button>
      </div>
    </details>
  )
}
