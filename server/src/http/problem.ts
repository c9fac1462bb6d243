import { daysInBin, type Problem } from '@nobbet/contract'
import { firstProblems, type DocumentProblem } from '@nobbet/core'

/** Thrown by services and routes; told to the client as problem details (RFC 9457). */
export class ApiProblem extends Error {
  constructor(
    readonly status: number,
    readonly title: string,
    errors?: readonly DocumentProblem[],
    detail?: string,
    readonly headers: Record<string, string> = {},
  ) {
    super(detail ?? title)
    this.errors = errors && firstProblems(errors)
  }
  readonly errors: DocumentProblem[] | undefined

  toJSON(): Problem {
    return {
      type: 'about:blank',
      title: this.title,
      status: this.status,
      ...(this.message !== this.title && { detail: this.message }),
      ...(this.errors && { errors: this.errors }),
    }
  }
}

export const notFound = (what: string) => new ApiProblem(404, `There is no such ${what}`)
export const changedMeanwhile = (field?: string) =>
  new ApiProblem(
    412,
    'Somebody has changed this meanwhile',
    field === undefined ? undefined : [{ field, reason: 'is not as it was when you changed it' }],
    'Read it again, then repeat your change on what is there now.',
  )
/** The job is in the bin: it can be brought back, and takes nothing in until then. */
export const inBin = () =>
  new ApiProblem(
    410,
    'This job is in the bin',
    undefined,
    `Somebody has deleted this job. It can be brought back from the bin for ${daysInBin} days.`,
  )
