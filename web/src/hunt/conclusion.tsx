import { huntEntryText, reasonsOf, reasonText, servicesUntried, suspectText, type NextLook } from '@nobbet/core'
import { useMemo } from 'react'
import { Button } from 'react-bootstrap'
import { v4 as newId } from 'uuid'
import { storeOf } from '../store/stores'
import { conclude } from './conclude'
import type { HuntScreen } from './hunt-screen'
import { causesIn, deviceOf, numberOf, type OneCause } from './suspects'
import { Sureness } from './sureness'

interface ConclusionProps {
  screen: HuntScreen
  next: readonly NextLook[]
  onFurther: () => void
  onNoticed: () => void
  onSeveral: () => void
}

const mostCauses = 6
/** Of causes that the same remedy cures, those at least so likely as a part of the likeliest are told. */
const leastOf = 0.1

/** What it comes down to, what cures it, and, once it is cured, that it was. */
export function Conclusion({ screen, next, onFurther, onNoticed, onSeveral }: ConclusionProps) {
  const { view, writer, job, entries, circuit, labelOf } = screen
  const { answer } = view
  const remedy = answer?.decision.remedy
  const isOfIt = ({ id }: OneCause) => remedy?.suspects.includes(id) === true
  const causes = (answer?.suspects ?? []).filter((one) => causesIn(one).some(isOfIt)).slice(0, mostCauses)
  const [first] = causes.flatMap(causesIn).filter(isOfIt)
  const text = (id: string) => {
    const at = entries.findIndex((entry) => entry.id === id)
    return at < 0 ? '' : huntEntryText(circuit, entries[at], entries.slice(0, at), labelOf)
  }
  const mended = entries.flatMap((entry) => ('mended' in entry ? [entry.mended] : []))
  // Of what was put right, what it was: of two at once, both; what was put right for nothing is left out.
  const put = (answer?.suspects ?? []).filter((one) => causesIn(one).some(({ id }) => mended.includes(id)))
  const after = causes
    .slice(0, 1)
    .flatMap(causesIn)
    .filter((one) => !isOfIt(one) && !mended.includes(one.id))
  const cured = put.filter(({ share }) => share >= leastOf * put[0].share).slice(0, mostCauses)
  const evidence = [...new Set((remedy?.done ? cured : causes).slice(0, 1).flatMap(({ supported }) => supported))]
  const write = (ids: readonly string[], proved: boolean) =>
    void conclude(storeOf(job), {
      id: newId(),
      at: new Date().toISOString(),
      causes: ids.map((id) => ({ id, label: suspectText({ id, label: labelOf(id) }).slice(0, 300) })),
      share: Math.min(1, remedy?.share ?? 0),
      remedy: remedyText(screen, ids).slice(0, 300),
      evidence: evidence.map((id) => text(id).slice(0, 300)),
      proved,
    })
  const look = (
    <>
      {next.length > 0 && (
        <Button variant="outline-primary" onClick={onFurther}>
          Look on
        </Button>
      )}
      <Button variant="outline-primary" className="noticed-button" onClick={onNoticed}>
        Something else noticed
      </Button>
    </>
  )
  if (!remedy)
    return (
      <section className="sheet next-card conclusion" aria-label="Conclusion">
        <p className="step">No look pays any more</p>
        <h2 className="question">Nothing on the list is likely enough to be worth doing</h2>
        <p className="method">
          It may be two causes at once, something that is on no list, or a look was mistaken. Take the likeliest
          suspects as a start for your own search; what you notice can be entered at any time.
        </p>
        <div className="ends">
          <Button variant="outline-primary" onClick={onSeveral}>
            Two causes at once?
          </Button>
          {look}
        </div>
      </section>
    )
  if (remedy.done) {
    const untried = servicesUntried(circuit, entries).map(({ demand }) => demand.name)
    return (
      <section className="sheet next-card conclusion cured" aria-label="Conclusion">
        <p className="step">
          Mended <Sureness share={remedy.share} />
        </p>
        <h2 className="question">
          {cured.slice(0, 1).map((one) => `${suspectText(one)} ${one.causes ? 'were the causes' : 'was the cause'}`)}
        </h2>
        <p className="method">
          After it was put right the same demand was asked for again, and met.
          {untried.length > 0 && ` Not tried: ${untried.join(', ')}.`}
        </p>
        <div className="ends">
          <Button
            size="lg"
            disabled={!view.current}
            onClick={() =>
              write(
                cured.map(({ id }) => id),
                true,
              )
            }
          >
            Write the finding
          </Button>
          {look}
        </div>
      </section>
    )
  }
  const explained = remedy.text === ''
  return (
    <section
      className="sheet next-card conclusion"
      aria-label="Conclusion"
      data-cures={JSON.stringify(remedy.suspects)}
    >
      <p className="step">
        It comes down to <Sureness share={remedy.share} />
      </p>
      <h2 className="question">
        {explained ? 'Nothing to mend: say how it works' : atDevice(first && deviceOf(screen, first), remedy.text)}
      </h2>
      <ul className="left-over">
        {causes.map((one) => (
          <li key={one.id}>{suspectText(one)}</li>
        ))}
      </ul>
      {after.length > 0 && (
        <p className="method">
          Two causes at once go best with what was found. This one first; after it {after.map(theCause).join(', ')}.
        </p>
      )}
      {explained && <Reasons screen={screen} />}
      {evidence.length > 0 && (
        <details open>
          <summary>What speaks for it</summary>
          <ul className="evidence">
            {evidence.map((id) => (
              <li key={id}>
                <span className="no">{numberOf(screen, id)}</span> {text(id)}
              </li>
            ))}
          </ul>
        </details>
      )}
      <p className="quiet">
        {explained
          ? 'What is told here is what goes with everything that was found.'
          : 'Once it is put right, the same demand is asked for again: that is the proof.'}{' '}
        Something that is on no list is never ruled out.
      </p>
      <div className="ends">
        {explained ? (
          <Button
            size="lg"
            disabled={!view.current}
            onClick={() =>
              write(
                causes.map(({ id }) => id),
                false,
              )
            }
          >
            It was explained
          </Button>
        ) : (
          <Button
            size="lg"
            disabled={!view.current}
            onClick={() => void writer.add(remedy.suspects.map((id) => ({ mended: id })))}
          >
            It is put right
          </Button>
        )}
        {look}
      </div>
    </section>
  )
}

/** What was done about causes, in a sentence. */
function remedyText(screen: HuntScreen, ids: readonly string[]): string {
  const { suspects = [], ruledOut = [] } = screen.view.answer ?? {}
  const one = [...suspects, ...ruledOut].find(({ id }) => ids.includes(id))
  const each = one ? causesIn(one).filter(({ remedy }) => remedy !== '') : []
  return each.map((cause) => atDevice(deviceOf(screen, cause), cause.remedy)).join('; ')
}

/** A cause in the middle of a sentence. */
const theCause = (cause: OneCause): string => `“${suspectText(cause)}”`

/** "Mid-position valve: replace the head." */
const atDevice = (device: string | undefined, text: string): string =>
  device ? `${device}: ${text.slice(0, 1).toLowerCase()}${text.slice(1)}` : text

/** What the installation does by itself, in order, that may be what was complained of; to be told to whoever complained. */
function Reasons({ screen }: { screen: HuntScreen }) {
  const { circuit, entries } = screen
  const reasons = useMemo(() => reasonsOf(circuit, entries), [circuit, entries])
  if (reasons.length === 0) return null
  return (
    <div className="reasons">
      <h3>When it was looked at, with nothing wrong</h3>
      <ul>
        {reasons.map(({ reason, findings }) => (
          <li key={JSON.stringify(reason)}>
            {reasonText(circuit, reason)}.{' '}
            <span className="quiet">
              {findings.length === 1 ? 'Line' : 'Lines'} {findings.map((id) => numberOf(screen, id)).join(', ')}
            </span>
          </li>
        ))}
      </ul>
    </div>
  )
}
