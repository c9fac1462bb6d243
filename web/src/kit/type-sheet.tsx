import { families, measuresOf, measureText, noticedTexts, type DeviceType, type TerminalRole } from '@nobbet/core'
import { Button } from 'react-bootstrap'
import { Link, useNavigate } from 'react-router'
import { errorText } from '../api/client'
import { Conductor } from '../drawing/conductor'
import { ContactDiagram } from './contact-diagram'
import { downloadType } from './editor/download'
import { Failures } from './failures'
import { useRemoveType } from './own-types'

const roleWords: Record<TerminalRole, string> = {
  'permanent-live': 'needs permanent live',
  neutral: 'needs neutral',
  earth: 'needs earth',
  'contact-feed': 'needs a feed',
  output: 'gives',
  input: 'takes a signal',
}

/** Volts the figures are worked out for. */
const supplyVolts = 230

/** One device type: how it works, its contacts, its terminals, how it fails, what to measure, its settings. */
export function TypeSheet({ type, own }: { type: DeviceType; own: boolean }) {
  const remove = useRemoveType()
  const go = useNavigate()
  const terminals = type.terminals.filter((t) => !t.internal)
  const noticed = noticedTexts(type)
  const measures = measuresOf(type, supplyVolts).map((m) => measureText(type, m))
  return (
    <article className="sheet kit-sheet">
      <p className="kit-back">
        <Link to="/kit">Kit</Link> · {families[type.family]}
      </p>
      <h1>{type.name}</h1>
      <p className="own-acts">
        {own && (
          <Link className="btn btn-primary btn-sm" to={`/kit/${type.id}/edit`}>
            Change it
          </Link>
        )}
        <Link className="btn btn-outline-dark btn-sm" to={`/kit/new?from=${type.id}`}>
          Make one like it
        </Link>
        <Button size="sm" variant="outline-dark" onClick={() => downloadType(type)}>
          Export
        </Button>
        {own && (
          <Button
            size="sm"
            variant="outline-dark"
            disabled={remove.isPending}
            onClick={() => remove.mutate(type, { onSuccess: () => void go('/kit') })}
          >
            Take out of Kit
          </Button>
        )}
        {remove.error && (
          <span role="alert" className="text-danger">
            Not taken out: {errorText(remove.error)}
          </span>
        )}
        {own && <span className="quiet">version {type.version}; installations keep the one they were made with</span>}
      </p>
      <p className="about">{type.about}</p>
      <p className="quiet">
        <strong>Where it usually stands:</strong> {type.stands}
      </p>

      {noticed.length > 0 && (
        <p className="quiet">
          <strong>To see, hear and feel:</strong> {noticed.join('; ')}.
        </p>
      )}

      <h2>Contacts</h2>
      <ContactDiagram type={type} />

      <h2>How it fails, and what that shows</h2>
      <Failures type={type} />

      <h2>What to measure</h2>
      {measures.length === 0 ? (
        <p>Nothing between its own terminals: read it where its conductors end.</p>
      ) : (
        <table className="kit-table">
          <thead>
            <tr>
              <th>Between</th>
              <th>How</th>
              <th>Right is</th>
            </tr>
          </thead>
          <tbody>
            {measures.map((m, i) => (
              <tr key={i}>
                <td className="mono">{m.where}</td>
                <td>{m.how}</td>
                <td>{m.expect}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      <p className="quiet small">
        Figures for {supplyVolts} V and the settings below. Dead means isolated and proved dead.
      </p>

      <h2>Terminals</h2>
      <table className="kit-table">
        <thead>
          <tr>
            <th>Terminal</th>
            <th>Legend</th>
            <th>What it does</th>
          </tr>
        </thead>
        <tbody>
          {terminals.map((t) => (
            <tr key={t.id}>
              <td className="mono">{t.id}</td>
              <td>{t.legend}</td>
              <td>
                {roleWords[t.role]}
                {t.extraLow && ', extra-low voltage: never mains'}
                {t.lead && (
                  <>
                    {' · lead '}
                    <Conductor colour={t.lead} />
                  </>
                )}
              </td>
            </tr>
          ))}
        </tbody>
      </table>

      {type.settings.length > 0 && (
        <>
          <h2>Settings</h2>
          <table className="kit-table">
            <thead>
              <tr>
                <th>Setting</th>
                <th>As it comes</th>
                <th>Can be</th>
                <th>Where the figure is from</th>
              </tr>
            </thead>
            <tbody>
              {type.settings.map((s) => (
                <tr key={s.id}>
                  <td>{s.label}</td>
                  <td>{s.choices?.find((c) => c.value === s.default)?.label ?? `${s.default} ${s.unit}`}</td>
                  <td>{s.choices ? s.choices.map((c) => c.label).join(', or ') : `${s.min} to ${s.max} ${s.unit}`}</td>
                  <td className="quiet">{s.origin}</td>
                </tr>
              ))}
            </tbody>
          </table>
        </>
      )}
    </article>
  )
}
