/** @jest-environment jsdom */
import { compile, exampleById } from '@nobbet/core'
import { fireEvent, render, screen } from '@testing-library/react'
import { head, pump, twoAtOnce } from '../../testing/two-at-once'
import { Conclusion } from './conclusion'
import type { HuntScreen } from './hunt-screen'

jest.mock('../store/stores', () => jest.requireActual('../../testing/stores'))

const nothing = () => undefined

it('where nothing on the list is likely enough, two causes at once are a press away, under the hand', () => {
  const handle = { view: { answer: { decision: { stop: true }, suspects: [] } }, entries: [] } as unknown as HuntScreen
  const onSeveral = jest.fn()
  render(<Conclusion screen={handle} next={[]} onFurther={nothing} onNoticed={nothing} onSeveral={onSeveral} />)
  fireEvent.click(screen.getByRole('button', { name: 'Two causes at once?' }))
  expect(onSeveral).toHaveBeenCalledTimes(1)
})

describe('two causes at once', () => {
  const circuit = compile(exampleById('two-port-heating-hot-water')!.installation)
  const show = (remedy: { text?: string; done?: true; suspects?: string[] }, mended: string[] = []) => {
    const record = jest.fn()
    const told = { text: 'Replace the head', share: 0.8, suspects: [head.id], ...remedy }
    const handle = {
      view: { current: true, answer: { decision: { stop: true, remedy: told }, suspects: [twoAtOnce] } },
      entries: mended.map((id) => ({ id: `put-${id}`, mended: id })),
      job: 'job-1',
      circuit,
      labelOf: (id: string) => id,
      writer: { add: record },
    } as unknown as HuntScreen
    render(<Conclusion screen={handle} next={[]} onFurther={nothing} onNoticed={nothing} onSeveral={nothing} />)
    return record
  }

  it('are put right one after the other: the first is told with its device, and what comes after it', () => {
    const record = show({})
    expect(screen.getByRole('heading').textContent).toBe('House valve: replace the head')
    expect(document.body.textContent).toContain('after it “Pump: winding open circuit”')
    fireEvent.click(screen.getByRole('button', { name: 'It is put right' }))
    expect(record).toHaveBeenCalledWith([{ mended: head.id }])
  })

  it('of which one was put right are told by the one that is left', () => {
    show({ text: 'Replace the pump', suspects: [pump.id] }, [head.id])
    expect(screen.getByRole('heading').textContent).toBe('Pump: replace the pump')
    expect(document.body.textContent).not.toContain('after it')
  })

  it('were both the cause once both are put right', () => {
    show({ text: '', done: true, suspects: [pump.id] }, [head.id, pump.id])
    expect(screen.getByRole('heading').textContent).toBe(
      'Zone valve 1: motor open circuit; pump: winding open circuit were the causes',
    )
  })
})
