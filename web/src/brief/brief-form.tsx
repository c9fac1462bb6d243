import { zodResolver } from '@hookform/resolvers/zod'
import { jobBriefSchema, kindsOfWork, type JobBrief, type JobBriefInput } from '@nobbet/contract'
import {
  firstsDone,
  fittingChoices,
  supplies,
  supplyIds,
  usualFittings,
  type Fittings,
  type Installation,
  type PlanBrief,
} from '@nobbet/core'
import { Button, Form } from 'react-bootstrap'
import { useForm, useWatch } from 'react-hook-form'
import { CircuitList } from './circuit-list'
import { CentreChoice, instead } from './centre-choice'
import { kindWords } from '../jobs/words'
import { firsts } from '../plan/firsts'
import { ChoiceTiles } from './choice-tiles'
import { InWall } from './in-wall'
import { OutcomePanel } from './outcome-panel'
import { SchemeChoice } from './scheme-choice'
import { useOutcome } from './use-outcome'
import { WherePlaces } from './where-places'

const fittingFields = Object.keys(fittingChoices) as (keyof Fittings)[]
const fittingLabels: Record<keyof Fittings, string> = { cylinder: 'Cylinder', control: 'Control', boiler: 'Boiler' }
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
  /** The wiring of the job as it stands, where there is one. */
  now?: Installation
  onSave: (brief: JobBrief) => void
}

export function BriefForm({ start, saveLabel, busy, failure, now, onSave }: BriefFormProps) {
  const form = useForm<JobBriefInput, unknown, JobBrief>({
    defaultValues: start,
    resolver: zodResolver(jobBriefSchema),
  })
  const { register, control, setValue, handleSubmit, formState } = form
  const { errors } = formState
  const fitted = useWatch({ control, name: 'fitted' })
  const outcome = useOutcome(fitted)
  const heatsWater = fitted.circuits.some(({ kind }) => kind === 'hot-water')

  const usual = usualFittings(fitted.scheme)
  const set = <K extends keyof typeof fitted>(field: K, value: (typeof fitted)[K]) =>
    setValue(`fitted.${field}`, value as never, { shouldDirty: true, shouldValidate: formState.isSubmitted })
  /** Another way to answer, whole. */
  const take = (brief: PlanBrief) => {
    for (const field of [...fittingFields, 'offContact', 'types', 'inWall', 'scheme', 'terminals', 'circuits'] as const)
      set(field, brief[field])
  }

  /** A hand is quicker than what is worked out beside the typing: a box that nobody has chosen gives way before the answers are read. */
  const save = (event: React.FormEvent) => {
    const smallest = formState.dirtyFields.fitted?.terminals ? undefined : instead(form.getValues('fitted'))
    if (smallest) setValue('fitted.terminals', smallest)
    void handleSubmit(onSave)(event)
  }

  return (
    <Form className="brief-form" noValidate onSubmit={save}>
      <div className="brief-questions">
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
          <CircuitList form={form} />
          <SchemeChoice chosen={fitted.scheme} suggested={outcome.schemes} onChoose={(id) => set('scheme', id)} />
          {(usual ? fittingFields : []).map((field) => (
            <ChoiceTiles
              key={field}
              legend={fittingLabels[field]}
              name={field}
              value={fitted[field] ?? ''}
              choices={[
                { id: '', name: 'As usual', about: choiceText(field, usual![field]) },
                ...Object.keys(fittingChoices[field]).map((id) => ({ id, name: choiceText(field, id) })),
              ]}
              onChoose={(id) => set(field, (id || undefined) as never)}
              problem={errors.fitted?.[field]?.message}
            />
          ))}
          {heatsWater && (
            <ChoiceTiles
              legend="Hot water OFF contact at the programmer"
              name="off-contact"
              value={fitted.offContact === false ? 'no' : 'yes'}
              choices={[
                { id: 'yes', name: 'It has one' },
                { id: 'no', name: 'It has none' },
              ]}
              onChoose={(id) => set('offContact', id === 'no' ? false : undefined)}
              problem={errors.fitted?.offContact?.message}
            />
          )}
          <ChoiceTiles
            legend="Supply"
            name="supply"
            value={fitted.supply ?? '230-50'}
            choices={supplyIds.map((id) => ({ id, name: supplies[id].name }))}
            onChoose={(id) => set('supply', id)}
          />
          <ChoiceTiles
            legend="Cables"
            name="cable"
            value={fitted.cable ?? 'five-core'}
            choices={[
              { id: 'five-core', name: 'Five-core everywhere', about: 'no core is missing later' },
              { id: 'only-needed', name: 'Only the cores needed', about: 'fewer reserves to make safe' },
            ]}
            onChoose={(id) => set('cable', id)}
          />
          <ChoiceTiles
            legend="Steps"
            name="first"
            value={fitted.first ?? 'links'}
            choices={firstsDone.map((id) => ({ id, name: firsts[id].name, about: firsts[id].why }))}
            onChoose={(id) => set('first', id === 'links' ? undefined : id)}
          />
          <InWall
            plan={outcome.plan}
            cables={fitted.inWall ?? {}}
            onChange={(cables) => set('inWall', cables as never)}
            lengths={fitted.lengths ?? {}}
            onLengths={(lengths) => set('lengths', lengths as never)}
          />
          <WherePlaces
            plan={outcome.plan}
            places={fitted.places ?? {}}
            onChange={(places) => set('places', places as never)}
          />
          <CentreChoice form={form} brief={outcome.brief} />
        </section>
      </div>
      <OutcomePanel outcome={outcome} now={now} onWay={take} />
      <div className="brief-save">
        {failure}
        <Button type="submit" size="lg" disabled={busy}>
          {busy ? 'Saving' : saveLabel}
        </Button>
      </div>
    </Form>
  )
}
