import { fittingTypes, isShipped, newerTypes, typeIn, withNewer, withType, type Installation } from '@nobbet/core'
import { useState } from 'react'
import { Button, Form } from 'react-bootstrap'
import { Link } from 'react-router'
import { ApiError } from '../api/client'
import { useSaveDraft } from '../api/hooks'
import { asType, useOwnTypes } from '../kit/own-types'

interface DeviceTypesProps {
  job: string
  installation: Installation
  version: number
}

/** What every device is, with what could stand in its place; and newer versions of types that users have made. */
export function DeviceTypes({ job, installation, version }: DeviceTypesProps) {
  const save = useSaveDraft(job)
  const { data = [] } = useOwnTypes()
  const [before, setBefore] = useState<Installation>()
  const kit = data.map(asType)
  const put = (wanted: Installation) => {
    setBefore(installation)
    save.mutate({ installation: wanted, over: version })
  }
  const newer = newerTypes(installation, kit)
  const changed = save.error instanceof ApiError && save.error.status === 412
  return (
    <section className="sheet device-types" aria-label="Devices">
      <header>
        <h2>Devices</h2>
        {before && !save.isPending && (
          <Button
            size="sm"
            variant="outline-dark"
            onClick={() => {
              save.mutate({ installation: before, over: version })
              setBefore(undefined)
            }}
          >
            Undo the last exchange
          </Button>
        )}
      </header>
      {newer.map(({ type, has, devices }) => (
        <p key={type.id} className="newer">
          <strong>
            Kit has version {type.version} of {type.name}.
          </strong>{' '}
          This installation keeps version {has} in {devices.join(', ')}.{' '}
          <Button size="sm" disabled={save.isPending} onClick={() => put(withNewer(installation, type))}>
            Use the newer one
          </Button>
        </p>
      ))}
      {save.error && (
        <p className="alarm" role="alert">
          <strong>Not exchanged.</strong>{' '}
          {changed
            ? 'Somebody has changed this installation meanwhile. Look at it again, then choose anew.'
            : save.error.message}
        </p>
      )}
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
                      disabled={save.isPending}
                      onChange={(e) => {
                        const type = fitting.find((t) => t.id === e.target.value)
                        if (type) put(withType(installation, device.id, type))
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
