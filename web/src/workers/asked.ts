import { wrap, type Remote } from 'comlink'

/** A worker that has ended by itself, out of memory or by a defect; the next question starts it anew. */
export class WorkerEnded extends Error {
  constructor() {
    super('the calculation stopped by itself, perhaps for want of memory; it starts anew when it is asked again')
    this.name = 'WorkerEnded'
  }
}

interface Running<Api> {
  api: Remote<Api>
  /** Never resolves; rejects when the worker has ended. */
  ended: Promise<never>
}

/** Long runs get a number, by which they can be left. */
export interface LongRuns {
  newRun(): number
  leave(run: number): void
}

/** Workers by their task, each started when it is first asked, and again where it has ended by itself. */
export class Asked<Task extends string, Api> {
  private readonly running = new Map<Task, Running<Api>>()

  constructor(private readonly spawn: (task: Task) => Worker) {}

  /**
   * Asks a worker. Rejects with {@link WorkerEnded} where it ends before it has answered, which no promise of its own would ever
   * say.
   */
  ask<T>(task: Task, question: (api: Remote<Api>) => Promise<T>): Promise<T> {
    const { api, ended } = this.running.get(task) ?? this.start(task)
    return Promise.race([question(api), ended])
  }

  private start(task: Task): Running<Api> {
    const worker = this.spawn(task)
    const ended = new Promise<never>((_, reject) => {
      const end = () => {
        this.running.delete(task)
        worker.terminate()
        reject(new WorkerEnded())
      }
      worker.addEventListener('error', end)
      worker.addEventListener('messageerror', end)
    })
    // Where nobody waits just now, nobody need hear of it.
    ended.catch(() => undefined)
    const started = { api: wrap<Api>(worker), ended }
    this.running.set(task, started)
    return started
  }
}

/** Workers that are asked for long runs as well. */
export class LongAsked<Task extends string, Api extends LongRuns> extends Asked<Task, Api> {
  /** A long run, which can be left before its end. */
  async longRun<T>(
    task: Task,
    run: (api: Remote<Api>, number: number) => Promise<T>,
    signal?: AbortSignal,
  ): Promise<T> {
    const number = await this.ask(task, (api) => (api as unknown as Remote<LongRuns>).newRun())
    const leave = () =>
      void this.ask(task, (api) => (api as unknown as Remote<LongRuns>).leave(number)).catch(() => undefined)
    if (signal?.aborted) leave()
    signal?.addEventListener('abort', leave)
    return this.ask(task, (api) => run(api, number))
  }
}
