import { exampleById } from '@nobbet/core'
import { endpoints, entrySchema, findingSchema, jobBriefSchema, jobDocumentSchema, logWriteSchema, openApi } from '.'

const fitted = { scheme: 'two-port', circuits: [{ kind: 'heating', name: 'House' }] }
const brief = { site: ' Mill Lane 2 ', kind: 'fault', fitted }
const reasons = (result: { error?: { issues: { path: PropertyKey[]; message: string }[] } }) =>
  (result.error?.issues ?? []).map((i) => `${i.path.join('.')}: ${i.message}`)

describe('a brief', () => {
  it('needs a site, the kind of work and what is fitted; the rest may be left out', () => {
    expect(jobBriefSchema.parse(brief)).toEqual({
      site: 'Mill Lane 2',
      kind: 'fault',
      symptom: '',
      earlier: '',
      engineer: '',
      fitted: { ...fitted, cable: 'five-core', terminals: 'separate', supply: '230-50' },
    })
  })

  it.each([
    [{ ...brief, site: '' }, 'site: the site is missing'],
    [{ kind: 'fault', fitted }, 'site: the site is missing'],
    [{ ...brief, site: 'x'.repeat(121) }, 'site: the site is longer than 120 characters'],
    [{ ...brief, kind: 'visit' }, 'kind: choose the kind of work'],
    [{ ...brief, symptom: 'x'.repeat(2001) }, 'symptom: at most 2000 characters'],
    [{ ...brief, fitted: { ...fitted, circuits: [] } }, 'fitted.circuits: a system needs at least one circuit'],
  ])('is refused by field and reason: %#', (input, reason) => {
    expect(reasons(jobBriefSchema.safeParse(input))).toContain(reason)
  })
})

describe('writes', () => {
  const { installation } = exampleById('two-port-heating')!

  it('a job is open unless it says otherwise', () => {
    expect(jobDocumentSchema.parse({ brief, wiring: installation }).status).toBe('open')
  })

  it('a kept state of the wiring has a name and is of a kind', () => {
    const keep = { do: 'keep', revision: 'revision-1', kind: 'planned', name: 'As planned' }
    expect(entrySchema.safeParse(keep).success).toBe(true)
    expect(reasons(entrySchema.safeParse({ ...keep, name: ' ' }))).toEqual(['name: the name is missing'])
  })

  it('a change names the way to what it changes, and nothing that is no field', () => {
    const edit = (path: string[]) => ({ do: 'edit', label: 'x', changes: [{ do: 'set', path, was: 'a', now: 'b' }] })
    expect(entrySchema.safeParse(edit(['brief', 'site'])).success).toBe(true)
    expect(entrySchema.safeParse(edit([])).success).toBe(false)
    expect(reasons(entrySchema.safeParse(edit(['wiring', '__proto__'])))).toEqual([
      'changes.0.path.1: is no name of a field',
    ])
  })

  it('a write to the log brings at least one entry and at most a hundred', () => {
    expect(reasons(logWriteSchema.safeParse({ after: 0, entries: [] }))).toEqual([
      'entries: there is nothing to record',
    ])
  })

  it.each([
    [{ kind: 'terminal', terminal: 'wc.7' }, 'live', true],
    [{ kind: 'terminal', terminal: 'wc.7' }, 'cannot-tell', true],
    [{ kind: 'terminal', terminal: 'wc.7' }, 'open', false],
    [{ kind: 'valve', device: 'zv-1' }, 'shut', true],
    [{ kind: 'pump', device: 'pump' }, 'called', false],
  ])('a finding on %j may be "%s": %s', (observable, result, fits) => {
    const finding = { id: 'finding-1', asking: [], observable, result, at: '2026-11-24T09:00:00.000Z' }
    expect(findingSchema.safeParse(finding).success).toBe(fits)
  })
})

describe('the OpenAPI document', () => {
  const document = openApi('1')

  it('has every endpoint with its parameters, and says what a write must carry', () => {
    for (const [operation, { method, path }] of Object.entries(endpoints)) {
      const entry = document.paths[path][method] as { operationId: string; parameters: { name: string; in: string }[] }
      expect(entry.operationId).toBe(operation)
      const names = [...path.matchAll(/\{(\w+)\}/g)].map((m) => m[1])
      expect(entry.parameters.filter((p) => p.in === 'path').map((p) => p.name)).toEqual(names)
    }
    const write = document.paths['/api/types/{type}'].put as { parameters: { name: string }[] }
    expect(write.parameters.map((p) => p.name)).toEqual(['type', 'If-Match', 'If-None-Match'])
  })

  it('is plain JSON: what is printed reads back the same', () => {
    expect(JSON.parse(JSON.stringify(document))).toEqual(document)
  })
})
