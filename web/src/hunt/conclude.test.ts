import { compile, edited, hypothesesOf } from '@nobbet/core'
import { documentOf } from '../../testing'
import { storeOf } from '../../testing/stores'
import { asFound, conclude } from './conclude'

jest.mock('../store/stores', () => jest.requireActual('../../testing/stores'))

const finding = (id: string) => ({
  id: 'finding-1',
  at: '2026-11-27T07:00:00.000Z',
  causes: [{ id, label: id }],
  share: 0.9,
  remedy: '',
  evidence: [],
  proved: true,
})
const { wiring } = documentOf()
const moved = hypothesesOf(compile(wiring)).find(({ id }) => id.startsWith('exchanged'))!

describe('a hunt that is concluded', () => {
  it('keeps the wiring as found where a conductor was not where it was taken to be, once', async () => {
    const store = storeOf('job-concluded-1')
    await store.load()
    await conclude(store, finding(moved.id))
    const { hunt, revisions } = store.current().state!
    expect(hunt.finding).toEqual(finding(moved.id))
    expect(revisions).toMatchObject([{ kind: 'as-found', installation: edited(wiring, moved.variant.change!).doc }])
    await conclude(store, finding(moved.id))
    expect(store.current().state!.revisions).toHaveLength(1)
  })

  it('keeps it so where the conductor was one of two causes', async () => {
    const store = storeOf('job-concluded-3')
    await store.load()
    const { state } = store.current()
    const both = finding(`zv-1.motor.open + ${moved.id}`)
    expect(asFound(state!, both)).toEqual(edited(wiring, moved.variant.change!).doc)
  })

  it('keeps nothing as found of wiring that was as it was taken to be; what was seen at the Bench it does', async () => {
    const store = storeOf('job-concluded-2')
    await store.load()
    const state = store.current().state!
    expect(asFound(state, finding('zv-1.motor.open'))).toBeUndefined()
    const seen = edited(wiring, moved.variant.change!).doc
    expect(asFound({ ...state, document: { ...state.document, wiring: seen } }, finding('pump.motor.open'))).toEqual(
      seen,
    )
  })
})
