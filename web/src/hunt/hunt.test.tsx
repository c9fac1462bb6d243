/** @jest-environment jsdom */
import type { Finding } from '@nobbet/contract'
import {
  compile,
  diagnose,
  exampleById,
  Hunt,
  type ControlState,
  type FindingResult,
  type Observable,
} from '@nobbet/core'
import { fireEvent, screen, within } from '@testing-library/react'
import { showAt } from '../../testing/page'
import { NextCard } from './next-card'
import { Suspects } from './suspects'

const circuit = compile(exampleById('two-port-heating-hot-water')!.installation)
const hunt = new Hunt(circuit)
const heating = ['programmer.heating', 'stat-1.contact']
const boiler: Observable = { kind: 'boiler', device: 'boiler' }
const terminal = (ref: string): Observable => ({ kind: 'terminal', terminal: ref })

/** The card and the suspects beside it, after some findings. */
function shown(...told: [ControlState, Observable, FindingResult][]) {
  const findings = told.map(([asking, observable, result], i): Finding => ({
    id: `f${i + 1}`,
    asking,
    observable,
    result,
    note: '',
    at: '',
  }))
  const diagnosis = diagnose(circuit, findings, hunt)
  const [onLog, onOwn] = [jest.fn(), jest.fn()]
  showAt(
    '/jobs/:job/hunt',
    '/jobs/mill/hunt',
    <>
      <NextCard job="mill" {...{ circuit, diagnosis, onLog, onOwn }} working={false} />
      <Suspects job="mill" {...{ diagnosis, findings }} working={false} />
    </>,
  )
  return { diagnosis, onLog, onOwn, suspects: screen.getByLabelText('Suspects') }
}
const programmer: Parameters<typeof shown> = [
  [heating, boiler, 'not-called'],
  [['programmer.hot-water', 'cyl-stat.contact'], boiler, 'called'],
  [heating, terminal('programmer.HTG-ON'), 'dead'],
  [heating, terminal('programmer.L'), 'live'],
  [heating, terminal('wc.19'), 'dead'],
  [heating, terminal('stat-1.L'), 'dead'],
]

describe('Hunt', () => {
  it('asks one question, takes its answer, by key as well, and "can’t tell" for one', () => {
    const { diagnosis, onLog } = shown()
    const [{ asking, observable, outcomes }] = diagnosis.next
    fireEvent.click(screen.getByText('Not called'))
    expect(onLog).toHaveBeenLastCalledWith(asking, observable, 'not-called')
    fireEvent.click(screen.getByText("Can't tell"))
    expect(onLog).toHaveBeenLastCalledWith(asking, observable, 'cannot-tell')
    fireEvent.keyDown(document.body, { key: '1', code: 'Digit1' })
    expect(onLog).toHaveBeenLastCalledWith(asking, observable, outcomes[0].answer)
    screen.getByText(`leaves ${outcomes[1].remaining} above 1 %`)
  })

  it('offers the other readings, and shows the one that is taken', () => {
    const { diagnosis } = shown()
    const before = screen.getByLabelText('Next reading').querySelector('.question')!.textContent
    fireEvent.click(screen.getByLabelText('Next reading').querySelector('li .btn-link')!)
    expect(diagnosis.next.length).toBeGreaterThan(1)
    expect(screen.getByLabelText('Next reading').querySelector('.question')!.textContent).not.toBe(before)
  })

  it('says when it is enough: what it is, how sure, what cures it; and looks on where somebody wants to', () => {
    const { onOwn, diagnosis } = shown(...programmer)
    const conclusion = screen.getByLabelText('Conclusion')
    within(conclusion).getByText('Programmer: heating channel does not make')
    within(conclusion).getByText('Replace the programmer.')
    expect(conclusion.textContent).toMatch(/9\d % sure/)
    fireEvent.click(screen.getByText('Log another finding'))
    expect(onOwn).toHaveBeenCalled()
    expect(diagnosis.next.length).toBeGreaterThan(0)
    fireEvent.click(screen.getByText('Look on'))
    screen.getByLabelText('Next reading')
  })

  it('names who is unlikely and why, and leads to Trace where a suspect can be watched', () => {
    const { suspects } = shown(...programmer)
    expect(within(suspects).getByText('Fused spur: fuse blown').textContent).toContain(
      'by finding 2: would have shown “not called”',
    )
    const watch = within(suspects).getByLabelText('Watch in Trace: Programmer: heating channel does not make')
    expect(decodeURIComponent(watch.getAttribute('href')!)).toContain('fault=programmer.heating.never-operates')
  })

  it('names the finding that does not go with the rest', () => {
    const { suspects } = shown(
      [heating, { kind: 'valve', device: 'zv-1' }, 'open'],
      [heating, terminal('zv-1.M'), 'live'],
      [heating, terminal('stat-1.SL'), 'dead'],
    )
    within(suspects).getByText(/Finding 3 does not go with the rest/)
  })
})
