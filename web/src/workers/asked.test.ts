import { MessageChannel, type MessagePort } from 'node:worker_threads'
import { expose } from 'comlink'
import { LongAsked, WorkerEnded } from './asked'

interface Api {
  newRun(): number
  leave(run: number): void
  double(n: number): number
  states(run: number): Promise<string>
  never(): Promise<never>
}

/** A worker in this very thread: a port with an API behind it, which can be made to end. */
class NearWorker extends EventTarget {
  readonly left: number[] = []
  ended = false
  private readonly ports: [MessagePort, MessagePort]

  constructor(readonly task: string) {
    super()
    const { port1, port2 } = new MessageChannel()
    this.ports = [port1, port2]
    const api: Api = {
      newRun: () => 7,
      leave: (run) => void this.left.push(run),
      double: (n) => 2 * n,
      states: (run) => Promise.resolve(`all states of run ${run}`),
      never: () => new Promise(() => undefined),
    }
    const listeners = new Map<unknown, (data: unknown) => void>()
    expose(api, {
      postMessage: (message: unknown) => port2.postMessage(message),
      addEventListener: (_type: string, listener: EventListenerOrEventListenerObject) => {
        const hear = (data: unknown) => (listener as EventListener)({ data, origin: '' } as unknown as Event)
        listeners.set(listener, hear)
        port2.on('message', hear)
      },
      removeEventListener: (_type: string, listener: EventListenerOrEventListenerObject) =>
        void port2.off('message', listeners.get(listener)!),
    })
    port1.on('message', (data) => this.dispatchEvent(Object.assign(new Event('message'), { data })))
  }

  postMessage(message: unknown) {
    this.ports[0].postMessage(message)
  }
  terminate() {
    this.ended = true
    for (const port of this.ports) port.close()
  }
  die() {
    this.dispatchEvent(new Event('error'))
  }
}

let started: NearWorker[] = []
let workers: LongAsked<'hunt' | 'checks', Api>
beforeEach(() => {
  started = []
  workers = new LongAsked((task) => {
    const worker = new NearWorker(task)
    started.push(worker)
    return worker as unknown as Worker
  })
})
afterEach(() => started.forEach((worker) => worker.terminate()))

const doubled = (n: number) => workers.ask('hunt', (api) => api.double(n))

describe('what is asked of workers', () => {
  it('goes to one worker for each task, started once', async () => {
    expect([await doubled(2), await doubled(3)]).toEqual([4, 6])
    await expect(workers.longRun('checks', (api, run) => api.states(run))).resolves.toBe('all states of run 7')
    expect(started.map((w) => w.task)).toEqual(['hunt', 'checks'])
  })

  it('is told where the worker ends before it has answered, and is answered by another the next time', async () => {
    const waiting = workers.ask('hunt', (api) => api.never())
    started[0].die()
    await expect(waiting).rejects.toThrow(WorkerEnded)
    expect(started[0].ended).toBe(true)
    expect(await doubled(4)).toBe(8)
    expect(started).toHaveLength(2)
  })

  it('can be left while it runs, and where it was left before it began', async () => {
    const leaving = new AbortController()
    const run = workers.longRun('checks', (api) => api.never(), leaving.signal)
    void run.catch(() => undefined)
    await workers.ask('checks', (api) => api.double(1))
    leaving.abort()
    await workers.longRun('checks', (api, number) => api.states(number), AbortSignal.abort())
    await workers.ask('checks', (api) => api.double(1))
    expect(started[0].left).toEqual([7, 7])
  })
})
