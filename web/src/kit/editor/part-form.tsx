import {
  partKinds,
  type Amount,
  type Condition,
  type DeviceType,
  type Failure,
  type Field,
  type Primitive,
} from '@nobbet/core'
import { Form } from 'react-bootstrap'
import { AmountField } from './amount-field'
import { ConditionForm } from './condition-form'
import { Choice, Figure, Rows, Text } from './fields'

type Loose = Record<string, unknown>

interface PartFormProps {
  type: DeviceType
  part: Primitive
  onPart: (part: Primitive) => void
}

/** A part's fields, as the table of parts has them, and how it can fail. */
export function PartForm({ type, part, onPart }: PartFormProps) {
  const { fields, fails, about } = partKinds[part.kind]
  const values = part as unknown as Loose
  const put = (id: string, value: unknown) => {
    const next: Loose = { ...values, [id]: value }
    if (value === undefined) delete next[id]
    onPart(next as unknown as Primitive)
  }
  const built = fields.filter((f) => typeof f.is === 'object' && 'built' in f.is && values[f.id] !== undefined)
  return (
    <div className="part-form">
      <p className="quiet m-0">{about}</p>
      <div className="field-grid">
        <Text label="Name in the trade’s words" value={part.label} onValue={(v) => put('label', v)} />
        <Text label="Id" mono value={part.id} onValue={(v) => put('id', v)} />
        {fields.map((field) => (
          <FieldForm
            key={field.id}
            field={field}
            type={type}
            value={values[field.id]}
            onValue={(v) => put(field.id, v)}
          />
        ))}
      </div>
      {built.length > 0 && (
        <p className="quiet m-0">Also set, and edited as JSON: {built.map((f) => f.label.toLowerCase()).join(', ')}.</p>
      )}
      {fails.length > 0 && (
        <>
          <h4>How it fails</h4>
          <Rows<Failure>
            title="Failure"
            rows={part.failures ?? []}
            wrong={() => []}
            add={{
              label: 'Add a failure',
              make: () => ({
                id: `fails-${(part.failures ?? []).length + 1}`,
                mode: fails[0],
                label: '',
                prior: 1,
                remedy: '',
              }),
            }}
            onRows={(rows) => put('failures', rows.length > 0 ? rows : undefined)}
          >
            {(failure, change) => (
              <>
                <Text
                  label="What has failed"
                  value={failure.label}
                  onValue={(label) => change({ ...failure, label })}
                />
                <Choice
                  label="What it does then"
                  value={failure.mode}
                  options={fails.map((m) => [m, m.replaceAll('-', ' ')] as const)}
                  onValue={(mode) => mode && change({ ...failure, mode: mode as Failure['mode'] })}
                />
                <Text
                  label="What cures it"
                  value={failure.remedy}
                  onValue={(remedy) => change({ ...failure, remedy })}
                />
                <Figure
                  label="Weight among failures"
                  value={failure.prior}
                  onValue={(prior) => prior !== undefined && change({ ...failure, prior })}
                />
                <Text label="Id" mono value={failure.id} onValue={(id) => change({ ...failure, id })} />
              </>
            )}
          </Rows>
        </>
      )}
    </div>
  )
}

interface FieldFormProps {
  field: Field
  type: DeviceType
  value: unknown
  onValue: (value: unknown) => void
}

function FieldForm({ field: { label, unit, is }, type, value, onValue }: FieldFormProps) {
  if (typeof is === 'object') {
    if ('built' in is) return null
    if ('oneOf' in is)
      return (
        <Choice
          label={label}
          value={value as string | undefined}
          options={is.oneOf.map((o) => [o, o] as const)}
          optional={is.optional}
          onValue={onValue}
        />
      )
    const options =
      'part' in is
        ? type.primitives.filter((p) => p.kind === is.part).map((p) => [p.id, p.label] as const)
        : type.controls.filter((c) => c.kind === 'number').map((c) => [c.id, c.label] as const)
    return (
      <Choice
        label={label}
        value={value as string | undefined}
        options={options}
        optional={'part' in is && is.optional}
        onValue={onValue}
      />
    )
  }
  switch (is) {
    case 'terminal':
      return (
        <Choice
          label={label}
          value={value as string | undefined}
          options={type.terminals.map((t) => [t.id, `${t.id}: ${t.legend}`] as const)}
          onValue={onValue}
        />
      )
    case 'connection':
      return <Text label={label} mono value={(value as string | undefined) ?? ''} onValue={onValue} />
    case 'amount':
    case 'optional-amount':
      return (
        <AmountField
          label={label}
          unit={unit}
          type={type}
          amount={value as Amount | undefined}
          optional={is === 'optional-amount'}
          onAmount={onValue}
        />
      )
    case 'fraction':
      return <Figure label={label} unit={unit} value={value as number} onValue={(v) => v !== undefined && onValue(v)} />
    case 'flag':
      return (
        <Form.Check
          type="checkbox"
          id={`${label}`}
          label={label}
          checked={value === true}
          onChange={(e) => onValue(e.target.checked ? true : undefined)}
        />
      )
    case 'condition':
    case 'optional-condition':
      return value === undefined ? (
        <button className="btn btn-outline-dark btn-sm" onClick={() => onValue({ not: { setting: '', is: 1 } })}>
          {label}: add a condition
        </button>
      ) : (
        <div className="wide">
          <ConditionForm label={label} type={type} condition={value as Condition} onCondition={onValue} />
        </div>
      )
  }
}

/** A new part of a kind, on the first terminals there are. */
export function newPart(kind: Primitive['kind'], type: DeviceType): Primitive {
  const { fields, name } = partKinds[kind]
  const ids = new Set(type.primitives.map((p) => p.id))
  let id: string = kind
  for (let n = 2; ids.has(id); n++) id = `${kind}-${n}`
  let next = 0
  const terminal = () => type.terminals[Math.min(next++, type.terminals.length - 1)]?.id ?? ''
  const [first] = type.controls.filter((c) => c.kind === 'choice')
  const part: Loose = { kind, id, label: name.toLowerCase() }
  for (const { id: field, is } of fields) {
    if (is === 'terminal') part[field] = terminal()
    else if (is === 'amount') part[field] = 1
    else if (is === 'fraction') part[field] = field === 'openTo' ? 1 : 0.05
    else if (is === 'connection') part[field] = field === 'to' ? 'out' : 'in'
    else if (is === 'condition')
      part[field] = first
        ? { control: first.id, is: [first.values[first.values.length - 1].id] }
        : { setting: '', is: 1 }
    else if (typeof is === 'object' && 'part' in is && !is.optional)
      part[field] = type.primitives.find((p) => p.kind === is.part)?.id ?? ''
    else if (typeof is === 'object' && 'control' in is)
      part[field] = type.controls.find((c) => c.kind === 'number')?.id ?? ''
    else if (typeof is === 'object' && 'oneOf' in is && !is.optional) part[field] = is.oneOf[0]
  }
  if (kind === 'load') part.watts = 5
  return part as unknown as Primitive
}
