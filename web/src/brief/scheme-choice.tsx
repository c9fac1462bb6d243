import { schemes, type SchemeId, type Suggestion } from '@nobbet/core'
import { SchemeDrawing } from './scheme-drawing'

interface SchemeChoiceProps {
  chosen: SchemeId
  suggested: readonly Suggestion[]
  onChoose: (scheme: SchemeId) => void
}

/** Schemes that are shown at once; the others that would serve are one press away. */
const shownAtOnce = 4

/** The schemes that serve these circuits, with what speaks for and against each; and why the others do not. */
export function SchemeChoice({ chosen, suggested, onChoose }: SchemeChoiceProps) {
  const serve = suggested.filter(({ whyNot }) => whyNot === undefined)
  const others = suggested.filter(({ whyNot }) => whyNot !== undefined)
  const first = serve.slice(0, shownAtOnce)
  const own = suggested.find(({ scheme }) => scheme === chosen)
  // What is chosen is always in sight.
  const shown = own && !first.includes(own) ? [own, ...first.slice(0, shownAtOnce - 1)] : first
  const rest = serve.filter((one) => !shown.includes(one))
  const tile = (one: Suggestion) => (
    <SchemeTile key={one.scheme} one={one} checked={one.scheme === chosen} onChoose={() => onChoose(one.scheme)} />
  )
  return (
    <fieldset className="mt-3">
      <legend className="fs-6 fw-bold mb-1">
        Scheme:{' '}
        {serve.length === 0
          ? 'none serves these answers'
          : serve.length === 1
            ? 'one serves'
            : `${serve.length} would serve`}
      </legend>
      <div className="scheme-tiles">{shown.map(tile)}</div>
      {rest.length > 0 && (
        <details className="mt-2">
          <summary>{rest.length === 1 ? 'One more' : `${rest.length} more`} that would serve</summary>
          <div className="scheme-tiles mt-2">{rest.map(tile)}</div>
        </details>
      )}
      {others.length > 0 && (
        <details className="mt-2">
          <summary>{others.length === 1 ? 'One does not serve' : `${others.length} do not serve`}, and why</summary>
          <div className="scheme-tiles mt-2">{others.filter((one) => !shown.includes(one)).map(tile)}</div>
        </details>
      )}
    </fieldset>
  )
}

interface SchemeTileProps {
  one: Suggestion
  checked: boolean
  onChoose: () => void
}

function SchemeTile({ one, checked, onChoose }: SchemeTileProps) {
  const { scheme, whyNot, wants, takes } = one
  return (
    <label className={`scheme-tile ${whyNot === undefined ? '' : 'serves-not'}`}>
      <input
        type="radio"
        className="visually-hidden"
        name="scheme"
        value={scheme}
        checked={checked}
        onChange={onChoose}
      />
      <SchemeDrawing scheme={scheme} />
      <strong>{schemes[scheme].name}</strong>
      {wants && <span className="wants">For {wants}</span>}
      {whyNot !== undefined ? (
        <span className="why-not">{whyNot}</span>
      ) : (
        <ul>
          {one.for.map((text) => (
            <li key={text} className="speaks-for">
              {text}
            </li>
          ))}
          {one.against.map((text) => (
            <li key={text} className="speaks-against">
              {text}
            </li>
          ))}
        </ul>
      )}
      {takes && (
        <span className="takes">
          {takes.valves === 1 ? '1 driven valve' : `${takes.valves} driven valves`}, {takes.cables} cables,{' '}
          {takes.cores} cores
        </span>
      )}
    </label>
  )
}
