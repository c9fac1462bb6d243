/** @jest-environment jsdom */
import { fireEvent, render, screen } from '@testing-library/react'
import { Conclusion } from './conclusion'
import type { HuntScreen } from './hunt-screen'

jest.mock('../store/stores', () => jest.requireActual('../../testing/stores'))

it('where nothing on the list is likely enough, two causes at once are a press away, under the hand', () => {
  const handle = { view: { answer: { decision: { stop: true }, suspects: [] } }, entries: [] } as unknown as HuntScreen
  render(
    <>
      <Conclusion screen={handle} next={[]} onFurther={() => undefined} onNoticed={() => undefined} />
      <details id="several-at-once">
        <summary>More than one cause at once?</summary>
      </details>
    </>,
  )
  const several = document.querySelector('details')!
  expect(several.open).toBe(false)
  fireEvent.click(screen.getByRole('button', { name: 'Two causes at once?' }))
  expect(several.open).toBe(true)
  expect(document.activeElement?.textContent).toBe('More than one cause at once?')
})
