/** @jest-environment jsdom */
import { fireEvent, screen, waitFor } from '@testing-library/react'
import '../../testing/patience'
import { showAt } from '../../testing/page'
import { openStores } from '../../testing/stores'
import { foundKinds, moreKinds } from './kinds'
import { StartPage } from './start-page'

jest.mock('../store/stores', () => jest.requireActual('../../testing/stores'))

const tap = (name: string) => fireEvent.click(document.querySelector(`[data-name="${name}"]`)!)
const go = () => screen.getByRole<HTMLButtonElement>('button', { name: 'To the first look' })
/** Presses some tiles, then on to the hunt; what the job then has. */
async function started(...tiles: string[]) {
  const before = new Set(openStores())
  const page = showAt('/jobs/start', '/jobs/start', <StartPage />)
  tiles.forEach(tap)
  fireEvent.click(go())
  await waitFor(() => expect(page.at().pathname).toMatch(/\/hunt$/))
  const store = openStores().find((one) => !before.has(one))!
  page.unmount()
  return store.current().state!
}

describe('the start of a hunt', () => {
  it('says what is still to be said before it goes on', () => {
    showAt('/jobs/start', '/jobs/start', <StartPage />)
    const says = (text: string) => expect(screen.getByText(text)).toBeTruthy()
    says('Say what it is about.')
    tap('of-hot-water')
    says('Say what it does.')
    tap('what-does-not-come-on')
    says('Say what is there.')
    expect(go().disabled).toBe(true)
    tap('kind-two-port')
    expect(go().disabled).toBe(false)
  })

  it('in four presses makes a job whose wiring is assumed, with what the customer says in its log', async () => {
    const { document, hunt } = await started('of-heating', 'what-never-goes-off', 'kind-mid-position')
    expect(document.wiring.provenance).toBe('assumed')
    expect(document.brief).toMatchObject({
      kind: 'fault',
      symptom: 'Heating: never goes off',
      fitted: { scheme: 'mid-position' },
    })
    expect(document.brief.site).toMatch(/^Call of /)
    expect(hunt.lines.map(({ entry }) => entry)).toMatchObject([
      { says: { what: 'never-goes-off', demand: 'heating-1' } },
    ])
  })

  it('keeps since when and what was worked on, and what is said of each service it is about', async () => {
    const { hunt, document } = await started(
      'of-both',
      'what-does-not-come-on',
      'kind-two-port',
      'since-work',
      'device-stat-1',
      'device-pump',
    )
    expect(hunt.options.workedOn).toEqual(['stat-1', 'pump'])
    expect(hunt.lines).toHaveLength(2)
    expect(document.brief.symptom).toBe('Heating and hot water: does not come on')
    const radio = await started('of-heating', 'what-does-not-come-on', 'kind-two-port', 'control-smart-receiver')
    expect(radio.document.wiring.devices.map(({ id }) => id)).toContain('receiver')
    const summer = await started('of-heating', 'what-does-not-come-on', 'kind-two-port', 'since-summer')
    expect(summer.hunt.options.stoodStill).toBe(true)
  })

  it('lays out every kind that it offers', () => {
    showAt('/jobs/start', '/jobs/start', <StartPage />)
    tap('of-none')
    for (const { scheme } of [...foundKinds, ...moreKinds]) {
      tap(`kind-${scheme}`)
      expect([scheme, go().disabled]).toEqual([scheme, false])
    }
    tap('kind-two-port')
    fireEvent.click(screen.getByRole('button', { name: 'One zone more' }))
    tap('of-heating')
    tap('what-does-not-come-on')
    expect(document.querySelector('[data-name="zone-heating-2"]')).not.toBeNull()
  })
})
