/** One thing wrong with a document: where, and why. */
export interface DocumentProblem {
  /** Path of the field, for example `cables.3.cores.0.ends.1.terminal`. */
  field: string
  reason: string
}
