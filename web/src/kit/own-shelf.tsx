import { errorText } from '../api/client'
import { readDeviceType, type TypeProblem } from '@nobbet/core'
import { useRef, useState } from 'react'
import { Button } from 'react-bootstrap'
import { Link, NavLink, useNavigate } from 'react-router'
import { asType, freeTypeId, useOwnTypes, useSaveType } from './own-types'

/** The shelf of types that users have made, and the ways to put one on it: made here, or read from a file. */
export function OwnShelf({ words }: { words: readonly string[] }) {
  const { data = [], error } = useOwnTypes()
  const save = useSaveType()
  const go = useNavigate()
  const file = useRef<HTMLInputElement>(null)
  const [problems, setProblems] = useState<TypeProblem[]>()
  const shown = data.filter((t) => words.every((w) => t.definition.name.toLowerCase().includes(w)))
  const read = async (given: File) => {
    let json: unknown
    try {
      json = JSON.parse(await given.text())
    } catch (e) {
      setProblems([{ field: given.name, reason: `is not JSON: ${(e as Error).message}` }])
      return
    }
    const answer = readDeviceType(json)
    if ('problems' in answer) return setProblems(answer.problems)
    setProblems(undefined)
    const { type } = answer
    const there = data.find((t) => t.id === type.id)
    // A file of a type that is here is its newer version; what ships keeps its name to itself.
    const id = there ? type.id : freeTypeId(type.id, data)
    save.mutate(
      { type: { ...type, id }, over: there ? there.version : 'new' },
      { onSuccess: () => void go(`/kit/${id}`) },
    )
  }
  return (
    <section className="own-shelf">
      <h2>Yours</h2>
      {error && <p className="quiet">Your own types cannot be read just now.</p>}
      <ul>
        {shown.map((t) => (
          <li key={t.id}>
            <NavLink to={`/kit/${t.id}`}>{asType(t).name}</NavLink>
          </li>
        ))}
      </ul>
      <div className="own-acts">
        <Link className="btn btn-outline-dark btn-sm" to="/kit/new">
          New device type
        </Link>
        <Button size="sm" variant="outline-dark" onClick={() => file.current?.click()}>
          Import
        </Button>
        <input
          ref={file}
          type="file"
          accept="application/json,.json"
          className="visually-hidden"
          aria-label="File of a device type"
          onChange={(e) => {
            const [given] = e.target.files ?? []
            if (given) void read(given)
            e.target.value = ''
          }}
        />
      </div>
      {(problems || save.error) && (
        <div className="alarm" role="alert">
          <strong>Not imported.</strong>
          <ul className="missing">
            {problems?.slice(0, 8).map((p, i) => (
              <li key={i}>
                {p.field}: {p.reason}
              </li>
            ))}
            {save.error && <li>{errorText(save.error)}</li>}
          </ul>
        </div>
      )}
    </section>
  )
}
