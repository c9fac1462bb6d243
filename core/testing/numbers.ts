/** Numbers from a seed (a linear congruential generator), 0 to 1. */
export function numbers(seed: number): () => number {
  let at = seed >>> 0
  return () => {
    at = (Math.imul(at, 1664525) + 1013904223) >>> 0
    return at / 2 ** 32
  }
}
