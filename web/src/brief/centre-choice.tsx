import {
  briefShapeSchema,
  centreKind,
  centreKindIds,
  inCentres,
  type CentreKindId,
  type InCentre,
  type PlanBrief,
} from '@nobbet/core'
import type { JobBrief, JobBriefInput } from '@nobbet/contract'
import { useEffect, useMemo } from 'react'
import type { UseFormReturn } from 'react-hook-form'
import { CentreDrawing } from './centre-drawing'

/** What the wiring takes there, in few words. */
function takes({ kind, fits, terminals, links, cuts, boxes }: InCentre): string {
  const own = centreKind(kind).terminals
  const has = own === undefined ? undefined : own * boxes
  if (!fits) return `Too small: it takes ${terminals}`
  const linked = links === 0 ? 'no link to fit' : links === 1 ? '1 link to fit' : `${links} links to fit`
  const several = boxes > 1 ? ` in ${boxes} boxes` : ''
  return `${terminals}${has === undefined ? '' : ` of ${has}`} terminals${several}, ${linked}${cuts > 0 ? `, ${cuts} to cut` : ''}`
}

interface CentreChoiceProps {
  form: UseFormReturn<JobBriefInput, unknown, JobBrief>
  /** The answers as they stand; left out while one of them is none. */
  brief?: PlanBrief
}

/** The smallest kind that takes the wiring of some answers, where the one in them has become too small. */
export function instead(answers: unknown): CentreKindId | undefined {
  const { data: brief } = briefShapeSchema.safeParse(answers)
  const told = brief ? inCentres(brief) : []
  return told.find(({ kind }) => kind === brief?.terminals)?.fits === false
    ? told.find(({ fits }) => fits)?.kind
    : undefined
}

/**
 * The kinds of wiring centre, each with what this wiring would take there. Until somebody has chosen, one that has become too small
 * gives way to the smallest that does.
 */
export function CentreChoice({ form, brief }: CentreChoiceProps) {
  const { register, setValue, formState } = form
  const chosen = brief?.terminals ?? 'separate'
  const told = useMemo(() => new Map((brief ? inCentres(brief) : []).map((one) => [one.kind, one])), [brief])
  const smallest = [...told.values()].find(({ fits }) => fits)?.kind
  const isChosen = formState.dirtyFields.fitted?.terminals === true
  useEffect(() => {
    if (!isChosen && smallest && told.get(chosen)?.fits === false) setValue('fitted.terminals', smallest)
  }, [isChosen, smallest, told, chosen, setValue])
  const problem = formState.errors.fitted?.terminals?.message
  return (
    <fieldset className="mt-3">
      <legend className="fs-6 fw-bold mb-1">Wiring centre</legend>
      <div className="centre-tiles">
        {centreKindIds.map((kind) => (
          <Tile key={kind} kind={kind} told={told.get(kind)} smallest={kind === smallest}>
            <input
              type="radio"
              className="visually-hidden"
              id={`centre-${kind}`}
              value={kind}
              {...register('fitted.terminals')}
            />
          </Tile>
        ))}
      </div>
      <p className="quiet mt-2 mb-0">{centreKind(chosen).about}</p>
      {problem && (
        <p className="text-danger" role="alert">
          {problem}
        </p>
      )}
    </fieldset>
  )
}

interface TileProps {
  kind: CentreKindId
  told?: InCentre
  smallest: boolean
  children: React.ReactNode
}

function Tile({ kind, told, smallest, children }: TileProps) {
  return (
    <label className={`centre-tile ${told?.fits === false ? 'too-small' : ''}`} htmlFor={`centre-${kind}`}>
      {children}
      <CentreDrawing kind={kind} />
      <strong>{centreKind(kind).name}</strong>
      <span className="takes">{told ? takes(told) : ''}</span>
      {smallest && <span className="smallest">Smallest that does</span>}
    </label>
  )
}
