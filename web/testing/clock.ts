/** Time stands still but for what a test lets pass; the store of the browser goes on by itself. */
export function stopTheClock(): void {
  jest.useFakeTimers({
    doNotFake: ['setImmediate', 'clearImmediate', 'nextTick', 'queueMicrotask', 'Date', 'performance'],
  })
}

/** Lets everything that is under way come to its end, without any time passing. */
export async function quiet(rounds = 30): Promise<void> {
  for (let i = 0; i < rounds; i++) await new Promise((done) => setImmediate(done))
}

/** Lets time pass, a piece at a time, everything that falls due coming to its end. */
export async function pass(ms: number, piece = 500): Promise<void> {
  await quiet()
  for (let left = ms; left > 0; left -= piece) {
    jest.advanceTimersByTime(Math.min(piece, left))
    await quiet(8)
  }
}
