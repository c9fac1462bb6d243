import { ApiError, call, errorText, UnreadableAnswer } from './client'

/** A network that answers just this, whatever is asked. */
const answering = (body: string, status = 200, type = 'application/json') => {
  globalThis.fetch = () => Promise.resolve(new Response(body, { status, headers: { 'content-type': type } }))
}
const failure = async (): Promise<Error> => {
  try {
    await call('readJob', { params: { job: 'job-1' } })
  } catch (error) {
    return error as Error
  }
  throw new Error('it did not fail')
}
const real = globalThis.fetch
afterAll(() => void (globalThis.fetch = real))

describe('what went wrong with a request', () => {
  it('is the reason the server gives, with every field', async () => {
    const problem = {
      type: 'about:blank',
      title: 'The request does not fit',
      status: 422,
      errors: [{ field: 'brief.site', reason: 'the site is missing' }],
    }
    answering(JSON.stringify(problem), 422, 'application/problem+json')
    const error = await failure()
    expect(error).toBeInstanceOf(ApiError)
    expect(errorText(error)).toBe('The request does not fit brief.site: the site is missing')
  })

  it.each([
    ['an answer of another shape', '{"id": 7}'],
    ['an answer that is not JSON', '<html>proxy</html>'],
    ['an empty answer', ''],
  ])('is told of %s in a sentence, not as validation text', async (_, body) => {
    answering(body)
    const error = await failure()
    expect(error).toBeInstanceOf(UnreadableAnswer)
    expect(errorText(error)).toMatch(/^The server answered something this page cannot read\./)
  })

  it('is that the server cannot be reached where nothing came back', async () => {
    globalThis.fetch = () => Promise.reject(new TypeError('NetworkError when attempting to fetch resource.'))
    expect(errorText(await failure())).toBe('The server cannot be reached. Is Nobbet still running?')
  })

  it('is never blank', () => {
    const blank = new ApiError({ type: 'about:blank', title: '', status: 500 })
    for (const error of [blank, new Error(''), new Error('  ')]) expect(errorText(error).length).toBeGreaterThan(20)
  })
})
