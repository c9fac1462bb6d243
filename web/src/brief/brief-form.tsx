import { zodResolver } from '@hookform/resolvers/zod'
import { jobBriefSchema, kindsOfWork, type JobBrief, type JobBriefInput } from '@nobbet/contract'
import {
  circuitKindIds,
  circuitKinds,
  circuitsTaken,
  fittingChoices,
  schemeIds,
  schemes,
  supplies,
  supplyIds,
  usualFittings,
  type Fittings,
  type SchemeId,
} from '@nobbet/core'
import type { ChangeEvent } from 'react'
import { Button, Form } from 'react-bootstrap'
import { useFieldArray, useForm, useWatch } from 'react-hook-form'
import { CentreChoice } from './centre-choice'
import { kindWords } from '../jobs/words'

const upperFirst = (text: string) => text[0].toUpperCase() + text.slice(1)

const fittingFields = Object.keys(fittingChoices) as (keyof Fittings)[]
const fittingLabels: Record<keyof Fittings, string> = { cylinder: 'Cylinder', control: 'Control', boiler: 'Boiler' }
const fittingWidths: Record<keyof Fittings, string> = { cylinder: 'col-sm-3', control: 'col-sm-4', boiler: 'col-sm-5' }
const choiceText = (field: keyof Fittings, id: string): string => (fittingChoices[field] as Record<string, string>)[id]

export const emptyBrief: JobBriefInput = {
  site: '',
  kind: 'fault',
  symptom: '',
  earlier: '',
  engineer: '',
  fitted: {
    scheme: 'two-port',
    circuits: [
      { kind: 'heating', name: 'House' },
      { kind: 'hot-water', name: 'Hot water' },
    ],
    supply: '230-50',
    cable: 'five-core',
    terminals: 'strip-12',
  },
}

interface BriefFormProps {
  start: JobBriefInput
  saveLabel: string
  busy: boolean
  /** What went wrong with the last save. */
  failure?: React.ReactNode
  onSave: (brief: JobBrief) => void
}

export function BriefForm({ start, saveLabel, busy, failure, onSave }: BriefFormProps) {
  const form = useForm<JobBriefInput, unknown, JobBrief>({
    defaultValues: start,
    resolver: zodResolver(jobBriefSchema),
  })
  const { register, control, getValues, setValue, handleSubmit, formState } = form
  const circuits = useFieldArray({ control, name: 'fitted.circuits' })
  const { errors } = formState
  const scheme = useWatch({ control, name: 'fitted.scheme' })
  const kinds = circuitKindIds.filter((kind) => circuitsTaken(scheme, kind)[1] > 0)
  const most = kinds.reduce((sum, kind) => sum + circuitsTaken(scheme, kind)[1], 0)
  const circuitErrors = errors.fitted?.circuits

  /** Circuits a scheme has no place for go, and the ones it cannot do without come. */
  const fitCircuits = (id: SchemeId) => {
    const now = getValues('fitted.circuits')
    const kept = circuitKindIds.flatMap((kind) => {
      const [least, allowed] = circuitsTaken(id, kind)
      const have = now.filter((c) => c.kind === kind).slice(0, allowed)
      const name = kind === 'heating' ? 'House' : upperFirst(circuitKinds[kind])
      return have.length < least ? [...have, { kind, name }] : have
    })
    circuits.replace(kept)
    // What is fitted follows the scheme until somebody chooses otherwise.
    for (const field of fittingFields) setValue(`fitted.${field}`, undefined)
  }
  const usual = usualFittings(scheme)

  return (
    <Form className="brief-form" noValidate onSubmit={(event) => void handleSubmit(onSave)(event)}>
      <section className="sheet">
        <Form.Group className="mb-3" controlId="site">
          <Form.Label className="fw-bold">Site</Form.Label>
          <Form.Control {...register('site')} isInvalid={!!errors.site} placeholder="Address, or what you call it" />
          <Form.Control.Feedback type="invalid">{errors.site?.message}</Form.Control.Feedback>
        </Form.Group>
        <fieldset className="mb-3">
          <legend className="fs-6 fw-bold mb-1">Kind of work</legend>
          <div className="choices">
            {kindsOfWork.map((kind) => (
              <span key={kind}>
                <input type="radio" className="btn-check" id={`kind-${kind}`} value={kind} {...register('kind')} />
                <label className="btn btn-outline-primary" htmlFor={`kind-${kind}`}>
                  {kindWords[kind]}
                </label>
              </span>
            ))}
          </div>
        </fieldset>
        <Form.Group className="mb-3" controlId="symptom">
          <Form.Label className="fw-bold">Reported symptom</Form.Label>
          <Form.Control as="textarea" rows={2} {...register('symptom')} placeholder="In the customer’s words" />
        </Form.Group>
        <div className="row g-3">
          <Form.Group className="col-sm-8" controlId="earlier">
            <Form.Label className="fw-bold">What an earlier visit said</Form.Label>
            <Form.Control {...register('earlier')} placeholder="Evidence, not truth" />
          </Form.Group>
          <Form.Group className="col-sm-4" controlId="engineer">
            <Form.Label className="fw-bold">Who attends</Form.Label>
            <Form.Control {...register('engineer')} />
          </Form.Group>
        </div>
      </section>

      <section className="sheet" aria-labelledby="fitted-heading">
        <h2 id="fitted-heading">What is fitted</h2>
        <Form.Group className="mb-3" controlId="scheme">
          <Form.Label className="fw-bold">Scheme</Form.Label>
          <Form.Select
            {...register('fitted.scheme', {
              onChange: (event: ChangeEvent<HTMLSelectElement>) => fitCircuits(event.target.value as SchemeId),
            })}
          >
            {schemeIds.map((id) => (
              <option key={id} value={id}>
                {schemes[id].name}: {schemes[id].about}
              </option>
            ))}
          </Form.Select>
        </Form.Group>
        {circuits.fields.map((field, i) => (
          <div key={field.id}>
            <div className="circuit-row">
              <Form.Select aria-label={`Circuit ${i + 1} kind`} {...register(`fitted.circuits.${i}.kind`)}>
                {kinds.map((kind) => (
                  <option key={kind} value={kind}>
                    {upperFirst(circuitKinds[kind])}
                  </option>
                ))}
              </Form.Select>
              <Form.Control
                aria-label={`Circuit ${i + 1} name`}
                placeholder="Its name, for example Upstairs"
                isInvalid={!!circuitErrors?.[i]?.name}
                {...register(`fitted.circuits.${i}.name`)}
              />
              <Button
                variant="outline-primary"
                aria-label={`Remove circuit ${i + 1}`}
                disabled={circuits.fields.length === 1}
                onClick={() => circuits.remove(i)}
              >
                Remove
              </Button>
            </div>
            {circuitErrors?.[i]?.name && <p className="text-danger">{circuitErrors[i].name.message}</p>}
          </div>
        ))}
        {(circuitErrors?.message ?? circuitErrors?.root?.message) && (
          <p className="text-danger" role="alert">
            {circuitErrors?.message ?? circuitErrors?.root?.message}
          </p>
        )}
        {circuits.fields.length < most && (
          <Button variant="outline-primary" onClick={() => circuits.append({ kind: 'heating', name: '' })}>
            Add a circuit
          </Button>
        )}
        {usual && (
          <div className="row g-3 mt-1">
            {fittingFields.map((field) => (
              <Form.Group className={fittingWidths[field]} controlId={field} key={field}>
                <Form.Label className="fw-bold">{fittingLabels[field]}</Form.Label>
                <Form.Select
                  {...register(`fitted.${field}`, { setValueAs: (value: string) => value || undefined })}
                  isInvalid={!!errors.fitted?.[field]}
                >
                  <option value="">As usual: {choiceText(field, usual[field])}</option>
                  {Object.keys(fittingChoices[field]).map((id) => (
                    <option key={id} value={id}>
                      {choiceText(field, id)}
                    </option>
                  ))}
                </Form.Select>
                <Form.Control.Feedback type="invalid">{errors.fitted?.[field]?.message}</Form.Control.Feedback>
              </Form.Group>
            ))}
          </div>
        )}
        <Form.Group className="mt-3" controlId="supply">
          <Form.Label className="fw-bold">Supply</Form.Label>
          <Form.Select {...register('fitted.supply')}>
            {supplyIds.map((id) => (
              <option key={id} value={id}>
                {supplies[id].name}
              </option>
            ))}
          </Form.Select>
        </Form.Group>
        <Form.Group className="mt-3" controlId="cable">
          <Form.Label className="fw-bold">Cables</Form.Label>
          <Form.Select {...register('fitted.cable')}>
            <option value="five-core">Five-core everywhere: no core is missing later</option>
            <option value="only-needed">Only the cores needed</option>
          </Form.Select>
        </Form.Group>
        <CentreChoice form={form} />
      </section>

      {failure}
      <Button type="submit" size="lg" disabled={busy}>
        {busy ? 'Saving' : saveLabel}
      </Button>
    </Form>
  )
}
