import {
  dayNames,
  houseIds,
  houses,
  timeText,
  weatherIds,
  weathers,
  type HouseId,
  type Simulation,
  type WeatherId,
} from '@nobbet/core'
import { useState } from 'react'
import { Button, Form, Modal } from 'react-bootstrap'
import type { SessionHandle } from './use-session'

/** Whether temperatures are set by hand or go their own way, in the words of its button. */
export const heatText = ({ heat }: Simulation): string =>
  heat ? `${houses[heat.scenario.house].name}, ${weathers[heat.scenario.weather].name.toLowerCase()}` : 'Heat'

/** Lets rooms, cylinder and water warm and cool by themselves: in which house, weather, and from what time of the week. */
export function HeatDialog({ handle, onClose }: { handle: SessionHandle; onClose: () => void }) {
  const { simulation } = handle.session.rig
  const { heat, minuteOfWeek } = simulation
  const [house, setHouse] = useState<HouseId>(heat?.scenario.house ?? 'semi')
  const [weather, setWeather] = useState<WeatherId>(heat?.scenario.weather ?? 'winter')
  const [day, setDay] = useState(minuteOfWeek === undefined ? 0 : Math.floor(minuteOfWeek / 1440))
  const [time, setTime] = useState(minuteOfWeek === undefined ? '06:00' : timeText(minuteOfWeek % 1440))
  const [hour, minute] = time.split(':').map(Number)
  const valid = /^\d{2}:\d{2}$/.test(time)
  return (
    <Modal show onHide={onClose} aria-labelledby="heat-title">
      <Modal.Header closeButton>
        <Modal.Title as="h2" id="heat-title">
          Let temperatures go their own way
        </Modal.Title>
      </Modal.Header>
      <Form
        onSubmit={(event) => {
          event.preventDefault()
          handle.act(
            { do: 'clock', minuteOfWeek: (day * 24 + hour) * 60 + minute },
            { do: 'heat', scenario: { house, weather } },
          )
          onClose()
        }}
      >
        <Modal.Body className="heat-form">
          <Form.Group controlId="heat-house">
            <Form.Label>House</Form.Label>
            <Form.Select value={house} onChange={(e) => setHouse(e.target.value as HouseId)} autoFocus>
              {houseIds.map((id) => (
                <option key={id} value={id}>
                  {houses[id].name}: loses {houses[id].lossWPerK} W/K, cylinder {houses[id].cylinderLitres} l
                </option>
              ))}
            </Form.Select>
          </Form.Group>
          <Form.Group controlId="heat-weather">
            <Form.Label>Outdoors</Form.Label>
            <Form.Select value={weather} onChange={(e) => setWeather(e.target.value as WeatherId)}>
              {weatherIds.map((id) => (
                <option key={id} value={id}>
                  {weathers[id].name}: {weathers[id].mean - weathers[id].swing} to{' '}
                  {weathers[id].mean + weathers[id].swing} °C
                </option>
              ))}
            </Form.Select>
          </Form.Group>
          <div className="two">
            <Form.Group controlId="heat-day">
              <Form.Label>Day</Form.Label>
              <Form.Select value={day} onChange={(e) => setDay(Number(e.target.value))}>
                {dayNames.map((name, i) => (
                  <option key={name} value={i}>
                    {name}
                  </option>
                ))}
              </Form.Select>
            </Form.Group>
            <Form.Group controlId="heat-time">
              <Form.Label>Time</Form.Label>
              <Form.Control type="time" value={time} onChange={(e) => setTime(e.target.value)} isInvalid={!valid} />
            </Form.Group>
          </div>
          <p className="quiet m-0">
            Rooms begin at 17 °C, the cylinder at 45 °C. What the document says of a room or a radiator goes before the
            house chosen here. Set a programmer to Timed to have it follow its week.
          </p>
        </Modal.Body>
        <Modal.Footer>
          {heat && (
            <Button
              variant="outline-dark"
              onClick={() => {
                handle.act({ do: 'heat', scenario: null })
                onClose()
              }}
            >
              Set temperatures by hand again
            </Button>
          )}
          <Button type="submit" disabled={!valid}>
            {heat ? 'Start anew' : 'Start'}
          </Button>
        </Modal.Footer>
      </Form>
    </Modal>
  )
}
