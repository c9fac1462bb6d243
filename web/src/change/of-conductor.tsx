/** Which cable a conductor is of: its colour stands beside it already. */
export function OfConductor({ what }: { what: string }) {
  const at = what.indexOf(' of ')
  return <>{at < 0 ? what : what.slice(at + 1)}</>
}
