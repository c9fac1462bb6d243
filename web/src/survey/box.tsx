import { farEndText, type Installation, type SeenCable, type SeenCore, type Surveyed } from '@nobbet/core'
import { Conductor } from '../drawing/conductor'
import { SureMark } from './sure-mark'
import type { CoreName, Writing } from './use-writing'

interface BoxProps {
  doc: Installation
  writing: Writing
  result?: Surveyed
  /** The terminal from which a link is being written down. */
  linkFrom?: string
  picked?: CoreName
  onTerminal: (id: string) => void
  onCore: (core: CoreName) => void
}

/** The box as it was seen: each terminal with what sits in it, and where that goes as far as is known. */
export function Box({ doc, writing, result, linkFrom, picked, onTerminal, onCore }: BoxProps) {
  const { survey, waits } = writing
  const elsewhere = survey.cables.flatMap((cable) =>
    cable.cores.filter(({ at }) => at.at !== 'terminal').map((core) => ({ cable, core })),
  )
  const chip = (cable: SeenCable, core: SeenCore) => (
    <Chip
      key={`${cable.id}.${core.id}`}
      doc={doc}
      cable={cable}
      core={core}
      result={result}
      isPicked={picked?.cable === cable.id && picked.core === core.id}
      onPick={() => onCore({ cable: cable.id, core: core.id })}
    />
  )
  return (
    <section className="survey-box" aria-label="The box as seen">
      <div className="seen-terminals">
        {survey.terminals.map(({ id, legend }) => {
          const links = survey.links.filter(({ between }) => between.includes(id))
          const linked = links.map(({ between: [a, b] }) => (a === id ? b : a))
          return (
            <div key={id} className="seen-terminal" data-terminal={id}>
              <button
                type="button"
                className={waits ? 'seen-number target' : 'seen-number'}
                aria-label={waits ? `It sits in ${id}` : `Terminal ${id}`}
                aria-pressed={linkFrom === id}
                onClick={() => onTerminal(id)}
              >
                {id}
              </button>
              <div className="seen-in">
                {(legend !== '' || linked.length > 0) && (
                  <span className="seen-links">
                    {legend} {linked.length > 0 && `linked to ${linked.join(', ')}`}
                  </span>
                )}
                {survey.cables.flatMap((cable) =>
                  cable.cores
                    .filter(({ at }) => at.at === 'terminal' && at.terminal === id)
                    .map((core) => chip(cable, core)),
                )}
              </div>
            </div>
          )
        })}
      </div>
      {elsewhere.length > 0 && (
        <div className="seen-elsewhere">
          <h3>In no terminal</h3>
          {elsewhere.map(({ cable, core }) => chip(cable, core))}
        </div>
      )}
    </section>
  )
}

const nearWords = {
  parked: 'parked',
  connector: 'in a connector',
  'cut-back': 'cut back here',
  loose: 'loose here',
  unseen: 'not looked at here',
  terminal: '',
} as const

interface ChipProps {
  doc: Installation
  cable: SeenCable
  core: SeenCore
  result?: Surveyed
  isPicked: boolean
  onPick: () => void
}

function Chip({ doc, cable, core, result, isPicked, onPick }: ChipProps) {
  const standing = result?.cores.find((one) => one.cable === cable.id && one.core === core.id)
  const near = nearWords[core.at.at]
  return (
    <button type="button" className="seen-core" aria-pressed={isPicked} onClick={onPick}>
      <Conductor colour={core.colour} sleeve={core.sleeve} />
      <span className="of">
        {cable.label}
        {near && `, ${near}${'terminal' in core.at ? ` in ${core.at.terminal}` : ''}`}
      </span>
      <span className="goes">
        {standing && <SureMark sure={standing.sure} share={standing.share} brief />}
        {standing?.to ? farEndText(doc, standing.to) : standing ? 'nothing fits' : ''}
      </span>
    </button>
  )
}
