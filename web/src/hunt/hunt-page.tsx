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
import { useJob } from '../store/use-job'
import { Failed, Loading } from '../shell/notes'
import type { JobStore } from '../store/job-store'
import { FindingLog } from './finding-log'
import { OwnFinding } from './own-finding'
import { NextCard } from './next-card'
import { Suspects } from './suspects'
import { useDiagnosis } from './use-diagnosis'

export function HuntPage() {
  const { job = '' } = useParams()
  const { state, error, store } = useJob(job)
  if (error) return <Failed error={error} retry={store.again} />
  if (!state) return <Loading what="the findings" />
  const { document, findings } = state
  return (
    <Hunt job={job} store={store} installation={document.wiring} symptom={document.brief.symptom} findings={findings} />
  )
}

interface HuntProps {
  job: string
  store: JobStore
  symptom: string
  installation: Installation
  findings: Finding[]
}

/** One card: what to do next. The suspects beside it, shrinking. Below, what has been found. */
function Hunt({ job, store, symptom, installation, findings }: HuntProps) {
  const circuit = useMemo(() => compile(installation), [installation])
  const [own, setOwn] = useState(false)
  const [taken, setTaken] = useState<Finding>()
  const fitting = useMemo(() => findings.filter((f) => fitsCircuit(circuit, f)), [circuit, findings])
  const { diagnosis, error, working } = useDiagnosis(installation, fitting)

  const log = (asking: ControlState, observable: Observable, result: FindingResult) => {
    setOwn(false)
    setTaken(undefined)
    const finding = { id: newId(), asking, observable, result, note: '', at: new Date().toISOString() }
    void store.record({ do: 'observe', finding })
  }

  return (
    <main className="page hunt">
      <h1 className="visually-hidden">Hunt</h1>
      {symptom && <p className="reported">Reported: “{symptom}”</p>}
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
              void store.record({ do: 'retract', finding: finding.id })
            }}
            taken={taken}
            onPutBack={() => {
              if (taken) void store.record({ do: 'observe', finding: taken })
              setTaken(undefined)
            }}
          />
        </div>
        {diagnosis && <Suspects job={job} diagnosis={diagnosis} findings={fitting} working={working} />}
      </div>
    </main>
  )
}
