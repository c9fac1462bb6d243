import { firstWiring, type JobBrief } from '@nobbet/contract'
import {
  circuitsTaken,
  complaintWords,
  usualFittings,
  usualHuntOptions,
  type CircuitBrief,
  type Complaint,
  type Fittings,
  type HuntOptions,
  type Installation,
  type SchemeId,
} from '@nobbet/core'
import { useMemo, useState } from 'react'
import { Button, Form } from 'react-bootstrap'
import { useNavigate } from 'react-router'
import { v4 as newId } from 'uuid'
import { errorText } from '../api/client'
import { momentText } from '../drawing/dates'
import { SchemeDrawing } from '../brief/scheme-drawing'
import { storeOf } from '../store/stores'
import { controlKinds, foundKinds, moreKinds, type FoundKind } from './kinds'
import { Channels, TellApart } from './tell-apart'

type Service = 'heating' | 'hot-water'
const serviceWords = { heating: 'Heating', 'hot-water': 'Hot water', both: 'Both', none: 'No complaint' } as const
type Of = keyof typeof serviceWords

/** What a customer says most; all else can be said on the hunt itself. */
const words: readonly Complaint[] = [
  'does-not-come-on',
  'never-goes-off',
  'only-with-another',
  'goes-off-when-another-is-done',
  'comes-on-by-itself',
  'comes-on-at-wrong-times',
  'warms-with-another',
  'gets-too-hot',
  'makes-a-noise',
  'blows-the-fuse',
]

/** What was there before the call, and what it makes likelier. */
const since = {
  summer: 'Since the summer',
  work: 'Since something was worked on',
} as const
type Since = keyof typeof since

/** From the call to the first look in a few taps; the wiring is assumed standard until somebody sees it. */
export function StartPage() {
  const navigate = useNavigate()
  const [of, setOf] = useState<Of>()
  const [what, setWhat] = useState<Complaint>()
  const [kind, setKind] = useState<FoundKind>()
  const [zones, setZones] = useState(1)
  const [hotWater, setHotWater] = useState(true)
  /** The heating zone that it is about; all of them where nobody says which. */
  const [zone, setZone] = useState<string>()
  const [controls, setControls] = useState<Fittings['control']>()
  const [when, setWhen] = useState<Since>()
  const [worked, setWorked] = useState<readonly string[]>([])
  const [blamed, setBlamed] = useState<string>()
  const [site, setSite] = useState('')
  const [problem, setProblem] = useState('')
  const [busy, setBusy] = useState(false)

  const circuits = kind ? circuitsOf(kind.scheme, zones, hotWater) : []
  const brief = useMemo((): JobBrief | undefined => {
    if (!kind) return undefined
    return {
      site: site.trim() || `Call of ${momentText(new Date().toISOString())}`,
      kind: 'fault',
      symptom: symptomText(of, what),
      earlier: '',
      engineer: '',
      fitted: {
        scheme: kind.scheme,
        circuits: circuitsOf(kind.scheme, zones, hotWater),
        supply: kind.scheme === 'low-voltage' || kind.scheme === 'relay-panel' ? '120-60' : '230-50',
        cable: 'five-core',
        terminals: 'separate',
        ...(usualFittings(kind.scheme) && controls && { control: controls }),
      },
    }
  }, [kind, zones, hotWater, controls, site, of, what])
  const assumed = useMemo(() => (brief ? laidOut(brief, 'assumed') : undefined), [brief])
  const complete =
    brief !== undefined && assumed !== undefined && of !== undefined && (of === 'none' || what !== undefined)

  const start = async () => {
    if (!brief || !of) return
    setBusy(true)
    try {
      const id = newId()
      const wiring = firstWiring(brief, id)
      const store = storeOf(id)
      await store.record({ do: 'open', brief, status: 'open', wiring })
      const options = optionsOf(when, worked)
      if (options) await store.record({ do: 'hunt-with', options })
      const at = new Date().toISOString()
      const entries = [
        ...(what && of !== 'none' ? saidOf(wiring, of, what, zone) : []),
        ...(blamed === undefined ? [] : [{ blamed }]),
      ]
      if (entries.length > 0)
        await store.record({
          do: 'hunt',
          lines: entries.map((entry) => ({ entry: { ...entry, id: newId() }, at, note: '' })),
        })
      await navigate(`/jobs/${id}/hunt`)
    } catch (failure) {
      setBusy(false)
      setProblem(errorText(failure as Error))
    }
  }

  const two = circuits.length > 1
  return (
    <main className="page start">
      <h1>Start a hunt</h1>
      <fieldset>
        <legend>What is it about?</legend>
        <div className="things">
          {(Object.keys(serviceWords) as Of[]).map((one) => (
            <Tile key={one} on={of === one} name={`of-${one}`} onPress={() => setOf(one)}>
              {serviceWords[one]}
            </Tile>
          ))}
        </div>
      </fieldset>
      {of && of !== 'none' && (
        <fieldset>
          <legend>
            {serviceWords[of]}
            {of === 'both' ? ', each' : ''}
          </legend>
          <div className="things">
            {words.map((one) => (
              <Tile key={one} on={what === one} name={`what-${one}`} onPress={() => setWhat(one)}>
                {complaintWords[one]}
              </Tile>
            ))}
          </div>
        </fieldset>
      )}
      {of && (
        <fieldset>
          <legend>What is there? Count the ports, and the conductors of the lead</legend>
          <Kinds kinds={foundKinds} chosen={kind} onChoose={setKind} />
          <details>
            <summary>{moreKinds.length} more kinds</summary>
            <Kinds kinds={moreKinds} chosen={kind} onChoose={setKind} />
          </details>
        </fieldset>
      )}
      {kind && (
        <fieldset className="more-answers">
          <legend>Assumed, until you see otherwise</legend>
          <Counter kind={kind.scheme} zones={zones} setZones={setZones} />
          {circuitsTaken(kind.scheme, 'hot-water')[1] > circuitsTaken(kind.scheme, 'hot-water')[0] && (
            <Form.Check
              id="has-hot-water"
              label="Hot water as well"
              checked={hotWater}
              onChange={(event) => setHotWater(event.target.checked)}
            />
          )}
          {usualFittings(kind.scheme) && (
            <div className="kinds" role="group" aria-label="What switches it: count the channels">
              {(Object.keys(controlKinds) as Fittings['control'][]).map((one) => {
                const on = (controls ?? usualFittings(kind.scheme)?.control) === one
                return (
                  <button
                    key={one}
                    type="button"
                    className={on ? 'thing on' : 'thing'}
                    aria-pressed={on}
                    data-name={`control-${one}`}
                    onClick={() => setControls(one)}
                  >
                    <Channels radio={one === 'smart-receiver'} />
                    <span>
                      <strong>{controlKinds[one].name}</strong>
                      <span className="told">{controlKinds[one].told}</span>
                    </span>
                  </button>
                )
              })}
            </div>
          )}
          {zonesOf(assumed).length > 1 && of !== 'hot-water' && of !== 'none' && (
            <div className="things mb-2" role="group" aria-label="Which zone">
              <Tile on={zone === undefined} name="zone-all" onPress={() => setZone(undefined)}>
                All zones
              </Tile>
              {zonesOf(assumed).map(({ id, name }) => (
                <Tile key={id} on={zone === id} name={`zone-${id}`} onPress={() => setZone(id)}>
                  {name}
                </Tile>
              ))}
            </div>
          )}
          <p className="quiet">
            {assumed
              ? `${assumed.devices.map(({ name }) => name).join(', ')}. Wiring as is standard for it.`
              : 'These do not go together: change the zones.'}
          </p>
          <div className="things">
            {(Object.keys(since) as Since[]).map((one) => (
              <Tile
                key={one}
                on={when === one}
                name={`since-${one}`}
                onPress={() => setWhen(when === one ? undefined : one)}
              >
                {since[one]}
              </Tile>
            ))}
          </div>
          {when === 'work' && assumed && (
            <Devices
              legend="What was worked on?"
              wiring={assumed}
              chosen={worked}
              onToggle={(id) => setWorked(worked.includes(id) ? worked.filter((one) => one !== id) : [...worked, id])}
            />
          )}
          {assumed && (
            <details>
              <summary>Somebody was here before and held something to be at fault</summary>
              <Devices
                legend="It was held to be"
                wiring={assumed}
                chosen={blamed === undefined ? [] : [blamed]}
                onToggle={(id) => setBlamed(blamed === id ? undefined : id)}
              />
            </details>
          )}
          <Form.Group controlId="site" className="mt-2">
            <Form.Label>Where (can wait)</Form.Label>
            <Form.Control value={site} maxLength={120} onChange={(event) => setSite(event.target.value)} />
          </Form.Group>
        </fieldset>
      )}
      {problem && (
        <p className="condition stopped" role="alert">
          {problem}
        </p>
      )}
      <div className="start-foot">
        <Button size="lg" disabled={!complete || busy} onClick={() => void start()}>
          {busy ? 'Starting' : 'To the first look'}
        </Button>
        <span className="quiet">
          {complete
            ? `Wiring assumed standard${two ? ` for ${circuits.length} circuits` : ''}.`
            : !of
              ? 'Say what it is about.'
              : of !== 'none' && !what
                ? 'Say what it does.'
                : 'Say what is there.'}
        </span>
      </div>
    </main>
  )
}

interface TileProps {
  on: boolean
  name: string
  onPress: () => void
  children: React.ReactNode
}

const Tile = ({ on, name, onPress, children }: TileProps) => (
  <button type="button" className={on ? 'thing on' : 'thing'} aria-pressed={on} data-name={name} onClick={onPress}>
    {children}
  </button>
)

interface KindsProps {
  kinds: readonly FoundKind[]
  chosen?: FoundKind
  onChoose: (kind: FoundKind) => void
}

const Kinds = ({ kinds, chosen, onChoose }: KindsProps) => (
  <div className="kinds">
    {kinds.map((one) => (
      <button
        key={one.scheme}
        type="button"
        className={chosen === one ? 'thing on' : 'thing'}
        aria-pressed={chosen === one}
        data-name={`kind-${one.scheme}`}
        onClick={() => onChoose(one)}
      >
        {one.counted ? <TellApart {...one.counted} /> : <SchemeDrawing scheme={one.scheme} />}
        <span>
          <strong>{one.name}</strong>
          <span className="told">{one.told}</span>
        </span>
      </button>
    ))}
  </div>
)

function Counter({ kind, zones, setZones }: { kind: SchemeId; zones: number; setZones: (zones: number) => void }) {
  const [fewest, most] = circuitsTaken(kind, 'heating')
  if (fewest === most) return null
  const least = Math.max(1, fewest)
  return (
    <div className="counter" role="group" aria-label="Heating zones">
      <span>Heating zones</span>
      <Button
        variant="outline-dark"
        aria-label="One zone less"
        disabled={zones <= least}
        onClick={() => setZones(zones - 1)}
      >
        −
      </Button>
      <output>{Math.min(zones, most)}</output>
      <Button
        variant="outline-dark"
        aria-label="One zone more"
        disabled={zones >= most}
        onClick={() => setZones(zones + 1)}
      >
        +
      </Button>
    </div>
  )
}

interface DevicesProps {
  legend: string
  wiring: Installation
  chosen: readonly string[]
  onToggle: (id: string) => void
}

const Devices = ({ legend, wiring, chosen, onToggle }: DevicesProps) => (
  <div className="things mt-2" role="group" aria-label={legend}>
    {wiring.devices.map(({ id, name }) => (
      <Tile key={id} on={chosen.includes(id)} name={`device-${id}`} onPress={() => onToggle(id)}>
        {name}
      </Tile>
    ))}
  </div>
)

/** The circuits a scheme is laid out for: so many heating zones as it takes, hot water where it is there. */
function circuitsOf(scheme: SchemeId, zones: number, hotWater: boolean): CircuitBrief[] {
  const [fewest, most] = circuitsTaken(scheme, 'heating')
  const [needed, taken] = circuitsTaken(scheme, 'hot-water')
  const count = Math.min(most, Math.max(fewest, zones))
  const heating = Array.from({ length: count }, (_, i): CircuitBrief => ({
    kind: 'heating',
    name: count === 1 ? 'House' : `Zone ${i + 1}`,
  }))
  return taken > 0 && (hotWater || needed > 0) ? [...heating, { kind: 'hot-water', name: 'Hot water' }] : heating
}

const zonesOf = (wiring: Installation | undefined) =>
  wiring?.intent.demands.filter(({ id }) => !id.startsWith('hot-water')) ?? []

function laidOut(brief: JobBrief, id: string): Installation | undefined {
  try {
    return firstWiring(brief, id)
  } catch {
    return undefined
  }
}

const symptomText = (of: Of | undefined, what: Complaint | undefined): string =>
  of === undefined || of === 'none' || what === undefined
    ? ''
    : `${of === 'both' ? 'Heating and hot water' : serviceWords[of]}: ${complaintWords[what]}`

/** What is said of the heating is said of every zone, unless somebody says which. */
function saidOf(wiring: Installation, of: Service | 'both', what: Complaint, zone: string | undefined) {
  return wiring.intent.demands
    .filter(({ id }) => {
      const hot = id.startsWith('hot-water')
      if (hot) return of !== 'heating'
      return of !== 'hot-water' && (zone === undefined || id === zone)
    })
    .map(({ id }) => ({ says: { what, demand: id } }))
}

function optionsOf(when: Since | undefined, worked: readonly string[]): HuntOptions | undefined {
  if (when === 'summer') return { ...usualHuntOptions, stoodStill: true }
  return when === 'work' && worked.length > 0 ? { ...usualHuntOptions, workedOn: [...worked] } : undefined
}
