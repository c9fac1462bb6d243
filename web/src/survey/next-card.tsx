import { surveyLookText, type Installation, type SurveyLook, type SurveyNext } from '@nobbet/core'
import { Button } from 'react-bootstrap'
import { IsolationStep } from '../shell/isolation-step'
import { PlateSheet } from './plate-sheet'
import type { Writing } from './use-writing'

interface NextCardProps {
  job: string
  doc: Installation
  writing: Writing
  next: SurveyNext
  onSkip: () => void
}

/** The one further look that settles most: what to do, what is asked, and its answers, each a press. */
export function NextCard({ job, doc, writing, next, onSkip }: NextCardProps) {
  const { what, minutes, settles } = next
  const { act, ask } = surveyLookText(doc, writing.survey, what)
  const opens = what.look === 'plate' || what.look === 'ring' || what.look === 'through'
  return (
    <section className="sheet survey-next no-print" aria-label="Look next" data-look={JSON.stringify(what)}>
      <p className="next-act">{act}</p>
      <p className="next-ask">{ask}</p>
      {opens && <IsolationStep job={job} before="a plate comes off" />}
      {what.look === 'read' && (
        <p className="next-live">Live reading: only for people competent to take it. Fingers behind the guard.</p>
      )}
      <Answers key={JSON.stringify(what)} doc={doc} writing={writing} what={what} />
      <div className="next-foot">
        <span className="quiet">
          About {minutes} min; settles {settles < 0.5 ? 'which is likelier' : `about ${Math.round(settles)} conductors`}
        </span>
        <Button size="sm" variant="outline-dark" onClick={onSkip}>
          Can’t do that
        </Button>
      </div>
    </section>
  )
}

function Answers({ doc, writing, what }: { doc: Installation; writing: Writing; what: SurveyLook }) {
  const { survey, found } = writing
  const yesNo = (yes: string, no: string, answer: (is: boolean) => void) => (
    <div className="survey-answers">
      <Button size="lg" onClick={() => answer(true)}>
        {yes}
      </Button>
      <Button size="lg" variant="outline-primary" onClick={() => answer(false)}>
        {no}
      </Button>
    </div>
  )
  switch (what.look) {
    case 'follow': {
      const cable = survey.cables.find(({ id }) => id === what.cable)
      const devices = doc.devices.filter(({ type }) => cable?.leadOf === undefined || type === cable.leadOf)
      return (
        <div className="survey-answers many">
          {devices.map(({ id, name }) => (
            <Button
              key={id}
              variant="outline-primary"
              onClick={() => found({ see: 'follows', cable: what.cable, device: id })}
            >
              {name}
            </Button>
          ))}
          <Button variant="outline-dark" onClick={() => found({ see: 'leaves', cable: what.cable })}>
            Somewhere else
          </Button>
          <Button variant="outline-dark" onClick={() => found({ see: 'not-found', cable: what.cable })}>
            Not found
          </Button>
        </div>
      )
    }
    case 'plate':
      return (
        <PlateSheet
          doc={doc}
          survey={survey}
          device={what.device}
          onSave={(sheaths) => found({ see: 'plate', device: what.device, sheaths })}
        />
      )
    case 'ring':
      return yesNo('Joined', 'Not joined', (joined) =>
        found({ see: 'rung', cable: what.cable, core: what.core, to: what.to, joined }),
      )
    case 'feel':
      return yesNo('It moves', 'Still', (moved) =>
        found({ see: 'felt', cable: what.cable, device: what.device, moved }),
      )
    case 'read':
      return yesNo('Live', 'Dead', (live) =>
        found({ see: 'reads', terminal: what.terminal, wanted: what.wanted, live }),
      )
    case 'through':
      return yesNo('Joined', 'Not joined', (joined) => found({ see: 'through', between: what.between, joined }))
  }
}
