import { typeIn, type BehindPlate, type Installation, type Sheath, type Survey } from '@nobbet/core'
import { useState } from 'react'
import { Button, Form } from 'react-bootstrap'
import { Conductor } from '../drawing/conductor'

interface PlateSheetProps {
  doc: Installation
  survey: Survey
  device: string
  onSave: (sheaths: Sheath[]) => void
}

const jointOf = (value: string): BehindPlate =>
  value === 'cut-back'
    ? { at: 'cut-back' }
    : value.startsWith('joint ')
      ? { at: 'joint', joint: Number(value.slice(6)) }
      : { at: 'terminal', terminal: value }
const valueOf = (at: BehindPlate): string =>
  at.at === 'terminal' ? at.terminal : at.at === 'joint' ? `joint ${at.joint}` : 'cut-back'

/** What is seen behind a plate: each cable that comes out there, and which colour is on which terminal. */
export function PlateSheet({ doc, survey, device, onSave }: PlateSheetProps) {
  const [sheaths, setSheaths] = useState<{ colour: Sheath['cores'][number]['colour']; at?: BehindPlate }[][]>([])
  const own = doc.devices.find(({ id }) => id === device)!
  const terminals = typeIn(doc, own.type).terminals.filter(({ internal, lead }) => !internal && !lead)
  const kinds = [
    ...new Map(
      survey.cables
        .filter(({ leadOf }) => leadOf === undefined)
        .map(({ cores }) => cores.map(({ colour }) => colour))
        .map((colours) => [[...colours].sort().join(), colours] as const),
    ).values(),
  ]
  const open = sheaths.flat().filter(({ at }) => !at).length
  const set = (s: number, k: number, at: BehindPlate | undefined) =>
    setSheaths(
      sheaths.map((cores, i) => (i === s ? cores.map((core, j) => (j === k ? { ...core, at } : core)) : cores)),
    )
  return (
    <div className="plate-sheet">
      <p className="quiet mb-1">Each cable that comes out there, as it is seen:</p>
      {sheaths.map((cores, s) => (
        <fieldset key={s}>
          <legend>Cable {s + 1} behind it</legend>
          {cores.map(({ colour, at }, k) => (
            <label key={k} className="behind">
              <Conductor colour={colour} />
              <Form.Select
                value={at ? valueOf(at) : ''}
                onChange={(event) => set(s, k, event.target.value === '' ? undefined : jointOf(event.target.value))}
              >
                <option value="">on …</option>
                {terminals.map(({ id, legend }) => (
                  <option key={id} value={id}>
                    {legend === id ? id : `${id}: ${legend}`}
                  </option>
                ))}
                <option value="cut-back">cut back</option>
                <option value="joint 1">in a joint</option>
                <option value="joint 2">in another joint</option>
              </Form.Select>
            </label>
          ))}
          <Button size="sm" variant="outline-dark" onClick={() => setSheaths(sheaths.filter((_, i) => i !== s))}>
            No such cable
          </Button>
        </fieldset>
      ))}
      <div className="write-acts" role="group" aria-label="A cable comes out there">
        {kinds.map((colours) => (
          <Button
            key={colours.join()}
            variant="outline-primary"
            onClick={() => setSheaths([...sheaths, colours.map((colour) => ({ colour }))])}
          >
            {colours.length} cores: {colours.join(', ')}
          </Button>
        ))}
      </div>
      <Button
        size="lg"
        variant={sheaths.length === 0 ? 'outline-dark' : 'primary'}
        disabled={open > 0}
        onClick={() =>
          onSave(sheaths.map((cores) => ({ cores: cores.map(({ colour, at }) => ({ colour, at: at! })) })))
        }
      >
        {sheaths.length === 0
          ? 'Nothing comes out there'
          : open > 0
            ? `${open} still to write down`
            : 'That is all there is'}
      </Button>
    </div>
  )
}
