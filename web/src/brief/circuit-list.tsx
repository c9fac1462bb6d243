import type { JobBrief, JobBriefInput } from '@nobbet/contract'
import { circuitKindIds, circuitKinds, zonesBehindChannel, type CircuitKind } from '@nobbet/core'
import { Button, Form } from 'react-bootstrap'
import { useFieldArray, useWatch, type UseFormReturn } from 'react-hook-form'
import { CircuitDrawing } from './circuit-drawing'
import { ZoneThermostat } from './zone-thermostat'

const mostCircuits = 12
/** Of these a house has one. */
const single: readonly CircuitKind[] = ['hot-water', 'towel-rails']
const named: Partial<Record<CircuitKind, string>> = { 'hot-water': 'Hot water', 'towel-rails': 'Towel rails' }
const upperFirst = (text: string) => text[0].toUpperCase() + text.slice(1)

/** The circuits: each with what it is and its name; one more is one press. */
export function CircuitList({ form }: { form: UseFormReturn<JobBriefInput, unknown, JobBrief> }) {
  const { register, control, setValue, formState } = form
  const { fields, append, remove } = useFieldArray({ control, name: 'fitted.circuits' })
  const { scheme, circuits } = useWatch({ control, name: 'fitted' })
  const problems = formState.errors.fitted?.circuits
  const heatsWater = circuits.some(({ kind }) => kind === 'hot-water')
  const set = <K extends 'alongside' | 'thermostat' | 'timed'>(i: number, what: K, value: unknown) =>
    setValue(`fitted.circuits.${i}.${what}`, value as never, { shouldDirty: true })
  const offered = circuitKindIds.filter((kind) => !(single.includes(kind) && circuits.some((one) => one.kind === kind)))
  return (
    <>
      {fields.map((field, i) => {
        const { kind, alongside, thermostat, timed } = circuits[i] ?? field
        return (
          <div key={field.id}>
            <div className="circuit-row">
              <span className="circuit-kind">
                <CircuitDrawing kind={kind} />
                {upperFirst(circuitKinds[kind])}
              </span>
              <Form.Control
                aria-label={`Circuit ${i + 1} name`}
                placeholder="Its name, for example Upstairs"
                isInvalid={!!problems?.[i]?.name}
                {...register(`fitted.circuits.${i}.name`)}
              />
              {heatsWater && kind !== 'hot-water' && (
                <Form.Check
                  id={`alongside-${i}`}
                  className="alongside"
                  label="heats while hot water does"
                  checked={alongside === true}
                  onChange={({ target }) => set(i, 'alongside', target.checked || undefined)}
                />
              )}
              <Button
                variant="outline-primary"
                aria-label={`Remove circuit ${i + 1}`}
                disabled={fields.length === 1}
                onClick={() => remove(i)}
              >
                Remove
              </Button>
            </div>
            {kind === 'heating' && zonesBehindChannel(scheme) && (
              <ZoneThermostat
                zone={i + 1}
                thermostat={thermostat}
                timed={timed}
                onThermostat={(is) => set(i, 'thermostat', is)}
                onTimed={(is) => set(i, 'timed', is)}
              />
            )}
            {problems?.[i]?.name && <p className="text-danger">{problems[i].name.message}</p>}
          </div>
        )
      })}
      {(problems?.message ?? problems?.root?.message) && (
        <p className="text-danger" role="alert">
          {problems?.message ?? problems?.root?.message}
        </p>
      )}
      {fields.length < mostCircuits && (
        <div className="add-circuit" role="group" aria-label="Add a circuit">
          {offered.map((kind) => (
            <button key={kind} type="button" onClick={() => append({ kind, name: named[kind] ?? '' })}>
              <CircuitDrawing kind={kind} />
              <span>
                <span className="visually-hidden">Add: </span>
                {upperFirst(circuitKinds[kind])}
              </span>
            </button>
          ))}
        </div>
      )}
    </>
  )
}
