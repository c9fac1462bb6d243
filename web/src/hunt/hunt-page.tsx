import {
  compile,
  fitsCircuit,
  type ControlState,
  type FindingResult,
  type Installation,
  type Observable,
} from '@nobbet/core'
import type { Finding } from '@nobbet/contract'
import { useMemo, useState } from 'react'
import { useParams } from 'react-router'
import { v4 as newId } from 'uuid'
import { errorText } from '../api/client'
import { useDraft, useFindingChange, useFindings, useJob } from '../api/hooks'
import { Failed, Loading } from '../shell/notes'
import { FindingLog } from './finding-log'
import { OwnFinding } from './own-finding'
import { NextCard } from './next-card'
import { Suspects } from './suspects'
import { useDiagnosis } from './use-diagnosis'

export function HuntPage() {
  const { job = '' } = useParams()
  const draft = useDraft(job)
  const findings = useFindings(job)
  const failed = draft.error ?? findings.error
  if (failed) return <Failed error={failed} retry={() => void Promise.all([draft.refetch(), findings.refetch()])} />
  if (!draft.data || !findings.data) return <Loading what="the findings" />
  return <Hunt job={job} installation={draft.data.installation} findings={findings.data} />
}

interface HuntProps {
  job: string
  installation: Installation
  findings: Finding[]
}

/** One card: what to do next. The suspects beside it, shrinking. Below, what has been found. */
function Hunt({ job, installation, findings }: HuntProps) {
  const circuit = useMemo(() => compile(installation), [installation])
  const { data } = useJob(job)
  const change = useFindingChange(job)
  const [own, setOwn] = useState(false)
  const [taken, setTaken] = useState<Finding>()
  const fitting = useMemo(() => findings.filter((f) => fitsCircuit(circuit, f)), [circuit, findings])
  const { diagnosis, error, working } = useDiagnosis(installation, fitting)

  const log = (asking: ControlState, observable: Observable, result: FindingResult) => {
    setOwn(false)
    setTaken(undefined)
    change.mutate({ put: { id: newId(), asking, observable, result, note: '', at: new Date().toISOString() } })
  }

  return (
    <main className="page hunt">
      <h1 className="visually-hidden">Hunt</h1>
      {data?.brief.symptom && <p className="reported">Reported: “{data.brief.symptom}”</p>}
      {change.isPaused && (
        <p className="reported" role="status">
          Not sent yet: it goes out when the connection is back.
        </p>
      )}
      {change.error && (
        <p className="alarm" role="alert">
          <strong>Not logged.</strong> {errorText(change.error)}{' '}
          <button className="btn btn-link btn-sm" onClick={() => change.mutate(change.variables)}>
            Send it again
          </button>
        </p>
      )}
      <div className="hunt-grid">
        <div className="hunt-main">
          {error ? (
            <section className="sheet next-card" role="alert">
              <h2>The suspects could not be worked out</h2>
              <p>{errorText(error)}</p>
            </section>
          ) : own ? (
            <OwnFinding circuit={circuit} onLog={log} onCancel={() => setOwn(false)} />
          ) : diagnosis ? (
            <NextCard
              job={job}
              circuit={circuit}
              diagnosis={diagnosis}
              working={working}
              onLog={log}
              onOwn={() => setOwn(true)}
            />
          ) : (
            <section className="sheet next-card" role="status">
              Working out the first reading
            </section>
          )}
          <FindingLog
            circuit={circuit}
            findings={findings}
            fits={(finding) => fitting.includes(finding)}
            onTakeBack={(finding) => {
              setTaken(finding)
              change.mutate({ remove: finding.id })
            }}
            taken={taken}
            onPutBack={() => {
              if (taken) change.mutate({ put: taken })
              setTaken(undefined)
            }}
          />
        </div>
        {diagnosis && (
          <Suspects job={job} circuit={circuit} diagnosis={diagnosis} findings={fitting} working={working} />
        )}
      </div>
    </main>
  )
}
