import { errorText } from '../api/client'
import { propertyWords, type FaultEnd, type Installation } from '@nobbet/core'
import { proxy } from 'comlink'
import { useEffect, useRef, useState } from 'react'
import { Button } from 'react-bootstrap'
import { Link } from 'react-router'
import { Running } from '../shell/progress'
import { longRun } from '../workers/compute'

/** The deeper run: each single device fault in turn, and which of them end in danger. */
export function FaultEnds({ job, installation }: { job: string; installation: Installation }) {
  const [at, setAt] = useState<{ done: number; of: number }>()
  const [ends, setEnds] = useState<{ of: Installation; list: FaultEnd[] }>()
  const [error, setError] = useState<Error>()
  const run = useRef<AbortController>(undefined)
  const leave = () => {
    run.current?.abort()
    setAt(undefined)
  }
  useEffect(() => () => run.current?.abort(), [])
  const begin = async () => {
    setError(undefined)
    setAt({ done: 0, of: 0 })
    try {
      run.current = new AbortController()
      const { signal } = run.current
      const list = await longRun('checks', (api, number) => api.faults(number, installation, proxy(setAt)), signal)
      if (list) setEnds({ of: installation, list })
    } catch (e) {
      setError(e as Error)
    }
    setAt(undefined)
  }
  const list = ends?.of === installation ? ends.list : undefined
  const dangers = list?.filter((e) => e.danger) ?? []
  return (
    <section className="sheet fault-ends" aria-label="With one fault each">
      <h2>With one part failed</h2>
      {!list && !at && (
        <p>
          Looks at every state again with each part failed in turn, and lists the failures that end in danger.{' '}
          <Button variant="outline-primary" onClick={() => void begin()}>
            Run it
          </Button>
        </p>
      )}
      {at && (
        <Running label="Faults done" share={at.of ? at.done / at.of : 0} onStop={leave}>
          {at.done} of {at.of} faults
        </Running>
      )}
      {error && <p className="text-danger">It could not be run: {errorText(error)}</p>}
      {list && (
        <>
          <p className="says">
            {dangers.length} of {list.length} single faults end in danger
            {list.some((e) => !e.complete) && '; some were not looked at to their end'}
          </p>
          <table className="plain">
            <thead>
              <tr>
                <th scope="col">Fault</th>
                <th scope="col">What then no longer holds</th>
                <th scope="col" className="no-print" />
              </tr>
            </thead>
            <tbody>
              {dangers.map(({ fault, danger }) => (
                <tr key={fault.name} data-fault={fault.name}>
                  <td>{fault.label}</td>
                  <td>{propertyWords[danger!.property]}</td>
                  <td className="no-print">
                    <Link to={`/jobs/${job}/trace?${new URLSearchParams([['do', `fault=${fault.name}`]])}`}>Trace</Link>
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </>
      )}
    </section>
  )
}
