import type { Amount, DeviceType } from '@nobbet/core'
import { Choice, Figure } from './fields'

interface AmountFieldProps {
  label: string
  unit?: string
  type: DeviceType
  amount: Amount | undefined
  optional?: boolean
  onAmount: (amount: Amount | undefined) => void
}

/** A figure: written here, or one of the type's settings, which an installation may set otherwise. */
export function AmountField({ label, unit, type, amount, optional, onAmount }: AmountFieldProps) {
  const setting = typeof amount === 'object' ? amount.setting : undefined
  const [first] = type.settings
  return (
    <div className="amount">
      {setting === undefined ? (
        <Figure
          label={label}
          unit={unit}
          value={typeof amount === 'number' ? amount : undefined}
          optional={optional}
          onValue={onAmount}
        />
      ) : (
        <Choice
          label={`${label}: setting`}
          value={setting}
          options={type.settings.map((s) => [s.id, `${s.label}, ${s.unit}`] as const)}
          onValue={(id) => onAmount({ setting: id ?? '' })}
        />
      )}
      {first && (
        <button
          className="btn btn-link btn-sm"
          onClick={() => onAmount(setting === undefined ? { setting: first.id } : optional ? undefined : 1)}
        >
          {setting === undefined ? 'use a setting' : 'use a figure'}
        </button>
      )}
    </div>
  )
}
