import type { Amount, Condition, DeviceType } from '@nobbet/core'
import { AmountField } from './amount-field'
import { Choice } from './fields'

interface ConditionFormProps {
  label: string
  type: DeviceType
  condition: Condition
  onCondition: (condition: Condition) => void
}

const kinds = [
  ['control', 'a switch stands at'],
  ['sensor', 'a sensor asks'],
  ['actuator', 'travel has reached'],
  ['energised', 'a load has its supply'],
  ['works', 'a load works'],
  ['setting', 'a setting stands at'],
  ['timed', 'a clock says on'],
  ['all', 'all of these'],
  ['any', 'any of these'],
  ['not', 'not this'],
] as const
type Kind = (typeof kinds)[number][0]

const kindOf = (condition: Condition): Kind | undefined => kinds.find(([k]) => k in condition)?.[0]

const partsOf = (type: DeviceType, kind: string) =>
  type.primitives.filter((p) => p.kind === kind).map((p) => [p.id, p.label] as const)
const switches = (type: DeviceType) => type.controls.filter((c) => c.kind === 'choice')

/** A first condition of a kind, with what the type has. */
function begun(kind: Kind, type: DeviceType, before: Condition): Condition {
  const [first] = switches(type)
  switch (kind) {
    case 'control':
      return { control: first?.id ?? '', is: first ? [first.values[first.values.length - 1].id] : [''] }
    case 'sensor':
      return { sensor: partsOf(type, 'sensor')[0]?.[0] ?? '' }
    case 'actuator':
      return { actuator: partsOf(type, 'actuator')[0]?.[0] ?? '', reached: 0.85 }
    case 'energised':
    case 'works':
      return { [kind]: partsOf(type, 'load')[0]?.[0] ?? '' } as Condition
    case 'setting':
      return { setting: type.settings[0]?.id ?? '', is: 1 }
    case 'timed':
      return { timed: type.controls.find((c) => c.timed)?.id ?? '' }
    case 'all':
    case 'any':
      return kind === 'all' ? { all: [before] } : { any: [before] }
    case 'not':
      return { not: before }
  }
}

/** When something holds: one thing to look at, or several put together. */
export function ConditionForm({ label, type, condition, onCondition }: ConditionFormProps) {
  const kind = kindOf(condition)
  return (
    <fieldset className="condition">
      <div className="condition-line">
        <Choice
          label={label}
          value={kind ?? 'other'}
          options={kind ? kinds : [...kinds, ['other', 'something edited as JSON']]}
          onValue={(k) => k && k !== 'other' && onCondition(begun(k as Kind, type, condition))}
        />
        <Leaf type={type} condition={condition} onCondition={onCondition} />
      </div>
      {'not' in condition && (
        <ConditionForm
          label="Not while"
          type={type}
          condition={condition.not}
          onCondition={(not) => onCondition({ not })}
        />
      )}
      {('all' in condition || 'any' in condition) && (
        <Several type={type} condition={condition} onCondition={onCondition} />
      )}
    </fieldset>
  )
}

function Several({
  type,
  condition,
  onCondition,
}: Omit<ConditionFormProps, 'label' | 'condition'> & {
  condition: { all: readonly Condition[] } | { any: readonly Condition[] }
}) {
  const key = 'all' in condition ? 'all' : 'any'
  const parts = 'all' in condition ? condition.all : condition.any
  const put = (next: Condition[]) => onCondition({ [key]: next } as unknown as Condition)
  return (
    <div className="several">
      {parts.map((part, i) => (
        <div key={i} className="one">
          <ConditionForm
            label={i === 0 ? 'While' : key === 'all' ? 'and while' : 'or while'}
            type={type}
            condition={part}
            onCondition={(next) => put(parts.map((p, k) => (k === i ? next : p)))}
          />
          {parts.length > 1 && (
            <button className="btn btn-sm btn-outline-dark" onClick={() => put(parts.filter((_, k) => k !== i))}>
              Take out
            </button>
          )}
        </div>
      ))}
      <button
        className="btn btn-sm btn-outline-dark"
        onClick={() =>
          put([...parts, begun(partsOf(type, 'load').length > 0 ? 'energised' : 'control', type, parts[0])])
        }
      >
        {key === 'all' ? 'And one more' : 'Or one more'}
      </button>
    </div>
  )
}

/** The fields of a condition that looks at one thing. */
function Leaf({ type, condition, onCondition }: Omit<ConditionFormProps, 'label'>) {
  if ('control' in condition) {
    const control = switches(type).find((c) => c.id === condition.control)
    return (
      <>
        <Choice
          label="Switch"
          value={condition.control}
          options={switches(type).map((c) => [c.id, c.label] as const)}
          onValue={(id) => {
            const next = switches(type).find((c) => c.id === id)
            onCondition({ control: id ?? '', is: next ? [next.values[next.values.length - 1].id] : condition.is })
          }}
        />
        <div className="positions" role="group" aria-label="Positions">
          {control?.kind === 'choice' &&
            control.values.map((v) => {
              const on = condition.is.includes(v.id)
              return (
                <button
                  key={v.id}
                  className={on ? 'on' : ''}
                  aria-pressed={on}
                  onClick={() => {
                    const is = on ? condition.is.filter((x) => x !== v.id) : [...condition.is, v.id]
                    if (is.length > 0) onCondition({ ...condition, is })
                  }}
                >
                  {v.label}
                </button>
              )
            })}
        </div>
      </>
    )
  }
  if ('sensor' in condition)
    return (
      <Choice
        label="Sensor"
        value={condition.sensor}
        options={partsOf(type, 'sensor')}
        onValue={(id) => onCondition({ sensor: id ?? '' })}
      />
    )
  if ('actuator' in condition)
    return (
      <>
        <Choice
          label="Travel of"
          value={condition.actuator}
          options={partsOf(type, 'actuator')}
          onValue={(id) => onCondition({ ...condition, actuator: id ?? '' })}
        />
        <AmountField
          label="Fraction"
          type={type}
          amount={condition.reached}
          onAmount={(reached) => onCondition({ ...condition, reached: reached as Amount })}
        />
      </>
    )
  if ('energised' in condition || 'works' in condition) {
    const key = 'energised' in condition ? 'energised' : 'works'
    return (
      <Choice
        label="Load"
        value={'energised' in condition ? condition.energised : condition.works}
        options={partsOf(type, 'load')}
        onValue={(id) => onCondition({ [key]: id ?? '' } as Condition)}
      />
    )
  }
  if ('setting' in condition) {
    const setting = type.settings.find((s) => s.id === condition.setting)
    return (
      <>
        <Choice
          label="Setting"
          value={condition.setting}
          options={type.settings.map((s) => [s.id, s.label] as const)}
          onValue={(id) => onCondition({ ...condition, setting: id ?? '' })}
        />
        <Choice
          label="Stands at"
          value={String(condition.is)}
          options={(
            setting?.choices ?? [
              { value: 0, label: '0' },
              { value: 1, label: '1' },
            ]
          ).map((c) => [String(c.value), c.label] as const)}
          onValue={(v) => onCondition({ ...condition, is: Number(v) })}
        />
      </>
    )
  }
  if ('timed' in condition)
    return (
      <Choice
        label="Clock"
        value={condition.timed}
        options={type.controls.filter((c) => c.timed).map((c) => [c.id, c.label] as const)}
        onValue={(id) => onCondition({ timed: id ?? '' })}
      />
    )
  return null
}
