import {
  fittingTypes,
  isShipped,
  newerTypes,
  replaceWith,
  typeIn,
  withNewer,
  withType,
  type Installation,
} from '@nobbet/core'
import { Button, Form } from 'react-bootstrap'
import { Link } from 'react-router'
import { asType, useOwnTypes } from '../kit/own-types'
import { WiringTools } from '../wiring/saving-note'
import { useWiring } from '../wiring/use-wiring'

/** What every device is, with what could stand in its place; and newer versions of types that users have made. */
export function DeviceTypes({ job }: { job: string }) {
  const wiring = useWiring(job)
  const { doc: installation } = wiring
  const { data = [] } = useOwnTypes()
  const kit = data.map(asType)
  if (!installation) return null
  const put = (wanted: Installation, label: string) => {
    const changes = replaceWith(installation, wanted)
    if (changes.length > 0) wiring.perform({ label, changes })
  }
  const newer = newerTypes(installation, kit)
  return (
    <section className="sheet device-types" aria-label="Devices">
      <header>
        <h2>Devices</h2>
        <div className="work-tools m-0">
          <WiringTools {...wiring} />
        </div>
      </header>
      {newer.map(({ type, has, devices }) => (
        <p key={type.id} className="newer">
          <strong>
            Kit has version {type.version} of {type.name}.
          </strong>{' '}
          This installation keeps version {has} in {devices.join(', ')}.{' '}
          <Button
            size="sm"
            onClick={() => put(withNewer(installation, type), `Version ${type.version} of ${type.name}`)}
          >
            Use the newer one
          </Button>
        </p>
      ))}
      <table className="kit-table">
        <tbody>
          {installation.devices.map((device) => {
            const own = typeIn(installation, device.type)
            const fitting = fittingTypes(installation, device.id, kit)
            return (
              <tr key={device.id} data-device={device.id}>
                <th scope="row">{device.name}</th>
                <td>
                  {fitting.length > 1 ? (
                    <Form.Select
                      aria-label={`Type of ${device.name}`}
                      value={own.id}
                      onChange={(e) => {
                        const type = fitting.find((t) => t.id === e.target.value)
                        if (type) put(withType(installation, device.id, type), `${device.name}: ${type.name}`)
                      }}
                    >
                      {fitting.map((t) => (
                        <option key={t.id} value={t.id}>
                          {t.name}
                          {isShipped(t.id) ? '' : ', yours'}
                        </option>
                      ))}
                    </Form.Select>
                  ) : (
                    <Link to={`/kit/${own.id}`}>{own.name}</Link>
                  )}
                </td>
              </tr>
            )
          })}
        </tbody>
      </table>
    </section>
  )
}
