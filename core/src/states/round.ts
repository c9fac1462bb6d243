/** A state from which steps that nobody makes lead back to itself; undefined where there is none. */
export function roundIn(onward: readonly (readonly number[])[]): number | undefined {
  const UNSEEN = 0
  const OPEN = 1
  const DONE = 2
  const mark = new Uint8Array(onward.length)
  for (let start = 0; start < onward.length; start++) {
    if (mark[start] !== UNSEEN) continue
    const stack = [{ state: start, next: 0 }]
    mark[start] = OPEN
    while (stack.length > 0) {
      const top = stack[stack.length - 1]
      const to = onward[top.state][top.next++]
      if (to === undefined) {
        mark[top.state] = DONE
        stack.pop()
      } else if (mark[to] === OPEN) return to
      else if (mark[to] === UNSEEN) {
        mark[to] = OPEN
        stack.push({ state: to, next: 0 })
      }
    }
  }
  return undefined
}
