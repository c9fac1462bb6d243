import type { Sitting } from '../store/kept'

const nothing: readonly string[] = []

/** What is set up at Trace: everything done, the meter and its leads, what is followed, looked at and folded away; by name. */
export class Desk {
  private readonly listeners = new Set<() => void>()

  constructor(
    private values: Sitting,
    /** Told of every state of the desk, to keep it. */
    private readonly keep: (values: Sitting) => void = () => undefined,
  ) {}

  readonly subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener)
    return () => void this.listeners.delete(listener)
  }
  readonly current = (): Sitting => this.values

  all(name: string): readonly string[] {
    return this.values[name] ?? nothing
  }
  one(name: string): string | undefined {
    return this.values[name]?.[0]
  }

  /** Sets values by name; one without any is no longer there. */
  set(changes: Record<string, readonly string[] | undefined>): void {
    const next = { ...this.values }
    for (const [name, values] of Object.entries(changes)) {
      if (values && values.length > 0) next[name] = [...values]
      else delete next[name]
    }
    this.become(next)
  }

  /** Sets one value, or takes it away. */
  put(name: string, value: string | undefined): void {
    this.set({ [name]: value === undefined ? undefined : [value] })
  }

  become(values: Sitting): void {
    if (addressOf(values) === addressOf(this.values)) return
    this.values = values
    this.keep(values)
    for (const listener of this.listeners) listener()
  }
}

/** A sitting as an address writes it. */
export const addressOf = (sitting: Sitting): string =>
  new URLSearchParams(Object.entries(sitting).flatMap(([name, values]) => values.map((v) => [name, v]))).toString()

export function sittingOf(search: URLSearchParams): Sitting {
  return Object.fromEntries([...new Set(search.keys())].map((name) => [name, search.getAll(name)]))
}
