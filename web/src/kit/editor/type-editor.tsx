import {
  families,
  partKinds,
  type Control,
  type DeviceType,
  type Family,
  type Primitive,
  type Setting,
  type TerminalType,
  type TypeProblem,
} from '@nobbet/core'
import { useState, type ReactNode } from 'react'
import { Button, Form } from 'react-bootstrap'
import { UndoRedo } from '../../shell/undo-redo'
import { ContactDiagram } from '../contact-diagram'
import { ControlFields } from './control-fields'
import { Choice, Figure, Rows, Text } from './fields'
import { downloadType } from './download'
import { freeId, without } from './ids'
import { JsonTab } from './json-tab'
import { Parts } from './parts'
import { TryOut } from './try-out'
import type { TypeDraft } from './use-type-draft'

interface TypeEditorProps {
  draft: TypeDraft
  /** Ids that are taken: of what ships, and of one's own others. */
  taken: (id: string) => boolean
  /** May its id be changed: has it never been saved? */
  isNew: boolean
  busy: boolean
  trouble?: ReactNode
  onSave: (type: DeviceType) => void
  onLeave: () => void
}

const roles = [
  ['permanent-live', 'needs permanent live'],
  ['neutral', 'needs neutral'],
  ['earth', 'needs earth'],
  ['contact-feed', 'needs a feed'],
  ['output', 'gives'],
  ['input', 'takes a signal'],
] as const
const leads = ['brown', 'blue', 'green-yellow', 'grey', 'orange', 'white', 'red', 'yellow'] as const
const tabs = ['About', 'Terminals', 'Controls', 'Settings', 'Parts', 'JSON'] as const

/** A device type made from parts: the form on one side, what it then does on the other, at every stroke. */
export function TypeEditor({ draft, taken, isNew, busy, trouble, onSave, onLeave }: TypeEditorProps) {
  const { type, whole, problems, change } = draft
  const [tab, setTab] = useState<(typeof tabs)[number]>('About')
  const clash = isNew && taken(type.id) ? [{ field: 'id', reason: `"${type.id}" is taken: choose another id` }] : []
  const all = [...clash, ...problems]
  const under = (path: string) =>
    all.filter((p) => p.field === path || p.field.startsWith(`${path}.`)).map((p) => textOf(p, path))
  const count = (name: (typeof tabs)[number]) => {
    const paths: Record<string, string[]> = {
      About: ['id', 'name', 'family', 'about', 'stands', 'version'],
      Terminals: ['terminals'],
      Controls: ['controls'],
      Settings: ['settings'],
      Parts: ['primitives', 'inputs'],
      JSON: [],
    }
    return all.filter((p) => paths[name].some((path) => p.field === path || p.field.startsWith(`${path}.`))).length
  }
  return (
    <main className="type-editor">
      <section className="sheet edit-side">
        <header>
          <h1>{type.name || 'New device'}</h1>
          <UndoRedo canUndo={draft.canUndo} canRedo={draft.canRedo} undo={draft.undo} redo={draft.redo} />
        </header>
        {trouble}
        <div className="edit-tabs" role="tablist" aria-label="What is edited">
          {tabs.map((name) => (
            <button key={name} role="tab" aria-selected={tab === name} onClick={() => setTab(name)}>
              {name}
              {count(name) > 0 && <span className="count">{count(name)}</span>}
            </button>
          ))}
        </div>
        {tab === 'About' && (
          <div className="field-grid">
            <Text label="Name" value={type.name} onValue={(name) => change({ ...type, name })} />
            <Choice
              label="Shelf"
              value={type.family}
              options={Object.entries(families)}
              onValue={(family) => family && change({ ...type, family: family as Family })}
            />
            {isNew && <Text label="Id" mono value={type.id} onValue={(id) => change({ ...type, id })} />}
            <div className="wide">
              <Text long label="How it works" value={type.about} onValue={(about) => change({ ...type, about })} />
            </div>
            <div className="wide">
              <Text
                label="Where it usually stands"
                value={type.stands}
                onValue={(stands) => change({ ...type, stands })}
              />
            </div>
          </div>
        )}
        {tab === 'Terminals' && (
          <Rows<TerminalType>
            title="Terminal"
            rows={type.terminals}
            wrong={(i) => under(`terminals.${i}`)}
            add={{
              label: 'Add a terminal',
              make: () => ({ id: freeId('T', type.terminals), legend: '', role: 'output' }),
            }}
            onRows={(terminals) => change({ ...type, terminals })}
          >
            {(t, put) => (
              <>
                <Text label="Mark" mono value={t.id} onValue={(id) => change(renamed(type, t.id, id))} />
                <Text label="Legend" value={t.legend} onValue={(legend) => put({ ...t, legend })} />
                <Choice
                  label="What it does"
                  value={t.role}
                  options={roles}
                  onValue={(role) => role && put({ ...t, role: role as TerminalType['role'] })}
                />
                <Choice
                  label="Fixed lead"
                  optional
                  value={t.lead}
                  options={leads.map((l) => [l, l] as const)}
                  onValue={(lead) => put(without({ ...t, lead: lead as TerminalType['lead'] }))}
                />
                <Flag
                  label="Extra-low voltage"
                  on={t.extraLow}
                  onFlag={(extraLow) => put(without({ ...t, extraLow }))}
                />
                <Flag
                  label="Inside the device"
                  on={t.internal}
                  onFlag={(internal) => put(without({ ...t, internal }))}
                />
              </>
            )}
          </Rows>
        )}
        {tab === 'Controls' && (
          <Rows<Control>
            title="Control"
            rows={type.controls}
            wrong={(i) => under(`controls.${i}`)}
            add={{
              label: 'Add a switch',
              make: () => ({
                kind: 'choice',
                id: freeId('switch', type.controls),
                label: 'Switch',
                values: [
                  { id: 'off', label: 'Off' },
                  { id: 'on', label: 'On' },
                ],
                initial: 'off',
              }),
            }}
            onRows={(controls) => change({ ...type, controls })}
          >
            {(c, put) => <ControlFields control={c} onControl={put} />}
          </Rows>
        )}
        {tab === 'Controls' && (
          <Button
            variant="outline-dark"
            className="mt-2"
            onClick={() =>
              change({
                ...type,
                controls: [
                  ...type.controls,
                  {
                    kind: 'number',
                    id: freeId('dial', type.controls),
                    label: 'Dial',
                    unit: '°C',
                    min: 5,
                    max: 30,
                    step: 1,
                    initial: 20,
                  },
                ],
              })
            }
          >
            Add a dial
          </Button>
        )}
        {tab === 'Settings' && (
          <Rows<Setting>
            title="Setting"
            rows={type.settings}
            wrong={(i) => under(`settings.${i}`)}
            add={{
              label: 'Add a setting',
              make: () => ({
                id: freeId('setting', type.settings),
                label: '',
                unit: '',
                min: 0,
                max: 100,
                default: 1,
                origin: '',
              }),
            }}
            onRows={(settings) => change({ ...type, settings })}
          >
            {(s, put) => (
              <>
                <Text label="Name" value={s.label} onValue={(label) => put({ ...s, label })} />
                <Text label="Unit" value={s.unit} onValue={(unit) => put({ ...s, unit })} />
                {(['min', 'default', 'max'] as const).map((key) => (
                  <Figure
                    key={key}
                    label={{ min: 'Least', default: 'As it comes', max: 'Most' }[key]}
                    value={s[key]}
                    onValue={(v) => v !== undefined && put({ ...s, [key]: v })}
                  />
                ))}
                <Text label="Where the figure is from" value={s.origin} onValue={(origin) => put({ ...s, origin })} />
                <Text label="Id" mono value={s.id} onValue={(id) => put({ ...s, id })} />
              </>
            )}
          </Rows>
        )}
        {tab === 'Parts' && <Parts type={type} under={under} onType={change} />}
        {tab === 'JSON' && <JsonTab key={JSON.stringify(type)} type={type} onType={change} />}
      </section>
      <aside className="preview-side">
        <section className="sheet" aria-label="What is missing">
          {all.length === 0 ? (
            <p className="whole m-0">
              <strong>Whole.</strong> Everything it names is there.
            </p>
          ) : (
            <>
              <h2>
                {all.length} thing{all.length === 1 ? '' : 's'} to put right
              </h2>
              <ul className="missing">
                {all.slice(0, 12).map((p, i) => (
                  <li key={i}>
                    <b>{whereText(type, p.field)}</b> {p.reason}
                  </li>
                ))}
                {all.length > 12 && <li>and {all.length - 12} more</li>}
              </ul>
            </>
          )}
          <div className="d-flex gap-2 flex-wrap mt-2">
            <Button disabled={busy || all.length > 0 || !whole} onClick={() => whole && onSave(whole)}>
              {busy ? 'Saving' : isNew ? 'Put it on the shelf' : `Save as version ${type.version + 1}`}
            </Button>
            <Button variant="outline-dark" onClick={() => downloadType(type)}>
              Export
            </Button>
            <Button variant="outline-dark" onClick={onLeave}>
              {draft.canUndo ? 'Leave, throw changes away' : 'Leave'}
            </Button>
          </div>
        </section>
        <section className="sheet" aria-label="Contacts">
          <h2>Its contacts</h2>
          {whole ? (
            <ContactDiagram type={whole} />
          ) : (
            <p className="quiet m-0">They are drawn once nothing is missing.</p>
          )}
        </section>
        {whole && (
          <section className="sheet" aria-label="On the table">
            <h2>On the table</h2>
            <TryOut type={whole} />
          </section>
        )}
      </aside>
    </main>
  )
}

const textOf = (p: TypeProblem, path: string) =>
  p.field === path ? p.reason : `${p.field.slice(path.length + 1)}: ${p.reason}`

/** `primitives.2.from` as "motor, from". */
function whereText(type: DeviceType, field: string): string {
  const [list, index, ...rest] = field.split('.')
  const row = (type as unknown as Record<string, { label?: string; id?: string }[]>)[list]?.[Number(index)]
  if (!row) return `${field}:`
  const name = row.label || row.id || `${list} ${Number(index) + 1}`
  return `${[name, ...rest].join(', ')}:`
}

/** A terminal's mark changed wherever a part is joined to it. */
function renamed(type: DeviceType, from: string, to: string): DeviceType {
  const terminals = type.terminals.map((t) => (t.id === from ? { ...t, id: to } : t))
  const primitives = type.primitives.map((part) => {
    const next: Record<string, unknown> = { ...(part as unknown as Record<string, unknown>) }
    for (const f of partKinds[part.kind].fields) if (f.is === 'terminal' && next[f.id] === from) next[f.id] = to
    return next as unknown as Primitive
  })
  const inputs = type.inputs.map((i) => (i.terminal === from ? { ...i, terminal: to } : i))
  return { ...type, terminals, primitives, inputs }
}

function Flag({ label, on, onFlag }: { label: string; on?: boolean; onFlag: (on?: boolean) => void }) {
  return (
    <Form.Check>
      <label className="tick">
        <Form.Check.Input
          type="checkbox"
          checked={on === true}
          onChange={(e) => onFlag(e.target.checked || undefined)}
        />{' '}
        {label}
      </label>
    </Form.Check>
  )
}
