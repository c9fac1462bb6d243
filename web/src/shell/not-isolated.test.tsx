/** @jest-environment jsdom */
import { exampleById, installationSchema, typeIn, type Installation } from '@nobbet/core'
import { act, screen, waitFor } from '@testing-library/react'
import { CommissionPage } from '../commission/commission-page'
import { HuntPage } from '../hunt/hunt-page'
import { showAt } from '../../testing/page'
import { storeOf } from '../../testing/stores'

jest.mock('../store/stores', () => jest.requireActual('../../testing/stores'))
jest.mock('../workers/compute', () => jest.requireActual('../../testing/compute'))

const whole = exampleById('two-port-heating')!.installation
/** The same on a supply whose neutral goes straight through. */
function onUnswitchedNeutral(): Installation {
  const spur = typeIn(whole, 'fused-spur')
  const primitives = spur.primitives.map((part) =>
    part.kind === 'contact' && part.id === 'pole-N'
      ? { kind: 'strap', id: part.id, label: 'neutral', a: part.a, b: part.b }
      : part,
  )
  const types = whole.types.filter(({ id }) => id !== 'fused-spur')
  const definition = { ...spur, id: 'own-spur', version: 1, primitives }
  return installationSchema.parse({
    ...whole,
    types: [...types, { id: 'own-spur', version: 1, definition }],
    devices: whole.devices.map((one) => (one.type === 'fused-spur' ? { ...one, type: 'own-spur' } : one)),
  })
}

describe('an installation that nothing drawn isolates', () => {
  it.each([
    ['hunt', <HuntPage key="hunt" />],
    ['commission', <CommissionPage key="commission" />],
  ])(
    '%s says so, and names the supply, as soon as its switch is no longer one; before, nothing is said',
    async (page, element) => {
      const job = `job-unswitched-${page}`
      const { container } = showAt(`/jobs/:job/${page}`, `/jobs/${job}/${page}`, element)
      await waitFor(() => expect(container.querySelector('.hunt-card, .run-begin')).not.toBeNull())
      expect(screen.queryByRole('note')).toBeNull()
      const wiring = onUnswitchedNeutral()
      await act(() => storeOf(job).edit('Another supply', (document) => ({ ...document, wiring })))
      const note = await screen.findByRole('note')
      const spur = wiring.devices.find(({ type }) => type === 'own-spur')!
      expect(note.textContent).toContain(`nothing drawn at ${spur.name} parts both line and neutral`)
    },
  )
})
