/**
 * What was worked out, under its key, in at most so many bytes. What was asked for longest ago is forgotten first: entries
 * live in a young and an old half; the old half goes when the young one is full, and what is asked for grows young again.
 *
 * @example
 * const squares = new Remembered<number>(1000, () => 8)
 * squares.get('7', () => 49) // 49, worked out once
 */
export class Remembered<V> {
  private young = new Map<string, V>()
  private old = new Map<string, V>()
  private youngBytes = 0
  private oldBytes = 0

  /** `bytesOf` tells about how much memory an entry takes; its key and its place in the map are counted as well. */
  constructor(
    private readonly mostBytes: number,
    private readonly bytesOf: (value: V) => number,
  ) {}

  /** About how many bytes are held just now. */
  get bytes(): number {
    return this.youngBytes + this.oldBytes
  }

  get(key: string, make: () => V): V {
    let value = this.young.get(key)
    if (value !== undefined) return value
    value = this.old.get(key) ?? make()
    const bytes = this.bytesOf(value) + 2 * key.length + 80
    if (this.youngBytes + bytes > this.mostBytes / 2) {
      this.old = this.young
      this.oldBytes = this.youngBytes
      this.young = new Map()
      this.youngBytes = 0
    }
    this.young.set(key, value)
    this.youngBytes += bytes
    return value
  }
}
