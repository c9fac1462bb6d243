import { endpoints, problemSchema, type Operation, type Problem } from '@nobbet/contract'
import type { z } from 'zod'

/** The server's answer that it will not, with the reason. */
export class ApiError extends Error {
  constructor(readonly problem: Problem) {
    super([problem.detail ?? problem.title, ...(problem.errors ?? []).map((e) => `${e.field}: ${e.reason}`)].join(' '))
    this.name = 'ApiError'
  }
  get status(): number {
    return this.problem.status
  }
}

/** An answer that came and is not what it should be: another version of the server, or something between. */
export class UnreadableAnswer extends Error {
  constructor() {
    super(
      'The server answered something this page cannot read. Reload the page; if that does not help, restart Nobbet.',
    )
    this.name = 'UnreadableAnswer'
  }
}

/** What went wrong, in a sentence: the server's reason, or that it cannot be reached. Never blank. */
export function errorText(error: Error): string {
  if (error instanceof ApiError || error instanceof UnreadableAnswer)
    return error.message.trim() || 'The server refused, without a reason.'
  // What a browser says of a connection that failed is different in each, and of no help.
  if (error instanceof TypeError) return 'The server cannot be reached. Is Nobbet still running?'
  return error.message.trim() || 'Something failed without saying why. Reload the page.'
}

type Response<O extends Operation> = (typeof endpoints)[O] extends { response: infer S extends z.ZodType }
  ? z.output<S>
  : void

interface CallOptions {
  params?: Record<string, string>
  query?: Record<string, string | number>
  /** JSON, or the bytes of a file. */
  body?: unknown
  /** The version that is written over; `new` where nothing may be there yet. */
  over?: number | 'new'
}

/** The address of an endpoint, for a picture or a file that the browser fetches by itself. */
export const addressOf = (operation: Operation, params: Record<string, string>): string =>
  endpoints[operation].path.replace(/\{(\w+)\}/g, (_, name: string) => encodeURIComponent(params[name]))

/** Calls an endpoint of the contract; what comes back is parsed before anything uses it. */
export async function call<O extends Operation>(
  operation: O,
  { params = {}, query, body, over }: CallOptions = {},
): Promise<Response<O>> {
  const endpoint = endpoints[operation]
  const named = addressOf(operation, params)
  const path = query ? `${named}?${new URLSearchParams(Object.entries(query).map(([k, v]) => [k, String(v)]))}` : named
  const headers: Record<string, string> = {}
  if (body !== undefined)
    headers['content-type'] = body instanceof Blob ? 'application/octet-stream' : 'application/json'
  if (over === 'new') headers['if-none-match'] = '*'
  else if (over !== undefined) headers['if-match'] = `"${over}"`
  const response = await fetch(path, {
    method: endpoint.method.toUpperCase(),
    headers,
    body: body === undefined || body instanceof Blob ? body : JSON.stringify(body),
  })
  if (!response.ok) {
    const problem = problemSchema.safeParse(await response.json().catch(() => undefined))
    throw new ApiError(
      problem.data ?? { type: 'about:blank', title: 'The server did not answer as it should', status: response.status },
    )
  }
  if (!('response' in endpoint)) return undefined as Response<O>
  const answer = endpoint.response.safeParse(await response.json().catch(() => undefined))
  if (!answer.success) throw new UnreadableAnswer()
  return answer.data as Response<O>
}
