import type { Problem } from '@nobbet/contract'
import type { DocumentProblem } from '@nobbet/core'

/** Thrown by services and routes; told to the client as problem details (RFC 9457). */
export class ApiProblem extends Error {
  constructor(
    readonly status: number,
    readonly title: string,
    readonly errors?: DocumentProblem[],
    detail?: string,
  ) {
    super(detail ?? title)
  }

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
