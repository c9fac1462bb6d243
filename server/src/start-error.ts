/** A reason not to start that the user can put right: told in one line. */
export class StartError extends Error {
  override name = 'StartError'
}
