import { wrap, type Remote } from 'comlink'
import type { ComputeApi } from './compute.worker'

let worker: Remote<ComputeApi> | undefined

/** The one worker that does what takes longer than a frame. */
export function compute(): Remote<ComputeApi> {
  worker ??= wrap<ComputeApi>(new Worker(new URL('./compute.worker.ts', import.meta.url), { type: 'module' }))
  return worker
}
