import { deviceTypes, examples, families, isShipped, type DeviceType, type Family } from '@nobbet/core'
import { useEffect, useState } from 'react'
import { Form } from 'react-bootstrap'
import { Link, NavLink, useParams } from 'react-router'
import { Loading } from '../shell/notes'
import { OwnShelf } from './own-shelf'
import { asType, useOwnTypes } from './own-types'
import { TypeSheet } from './type-sheet'

/** The catalogue as shelves to browse, and what is known of the type that was taken down. */
export function KitPage() {
  const { type } = useParams()
  const { data: own, isPending } = useOwnTypes()
  const mine = own?.find((t) => t.id === type)
  const taken = deviceTypes.find((t) => t.id === type) ?? (mine && asType(mine))
  useEffect(() => {
    document.title = taken ? `${taken.name} · Kit · Nobbet` : 'Kit · Nobbet'
  }, [taken])
  return (
    <main className={taken || type ? 'kit with-type' : 'kit'}>
      <Shelves />
      {taken ? (
        <TypeSheet key={`${taken.id} ${taken.version}`} type={taken} own={!isShipped(taken.id)} />
      ) : type && isPending ? (
        <Loading what="device types" />
      ) : type ? (
        <section className="sheet kit-sheet">
          <h1>No such device type</h1>
          <p>
            “{type}” is not in the catalogue. <Link to="/kit">Look on the shelves</Link>.
          </p>
        </section>
      ) : (
        <Systems />
      )}
    </main>
  )
}

const matches = (type: DeviceType, words: readonly string[]) => {
  const text = `${type.name} ${type.about} ${type.terminals.map((t) => t.legend).join(' ')}`.toLowerCase()
  return words.every((word) => text.includes(word))
}

function Shelves() {
  const [find, setFind] = useState('')
  const words = find.toLowerCase().split(/\s+/).filter(Boolean)
  const shown = deviceTypes.filter((type) => matches(type, words))
  return (
    <nav className="shelves" aria-label="Device types">
      <Form.Control
        type="search"
        placeholder="Find: valve, bus, 24 V"
        aria-label="Find a device type"
        value={find}
        onChange={(event) => setFind(event.target.value)}
      />
      <OwnShelf words={words} />
      {(Object.keys(families) as Family[]).map((family) => {
        const types = shown.filter((t) => t.family === family)
        if (types.length === 0) return null
        return (
          <section key={family}>
            <h2>{families[family]}</h2>
            <ul>
              {types.map((t) => (
                <li key={t.id}>
                  <NavLink to={`/kit/${t.id}`}>{t.name}</NavLink>
                </li>
              ))}
            </ul>
          </section>
        )
      })}
      {shown.length === 0 && <p className="quiet">Nothing of that name. Try fewer letters.</p>}
    </nav>
  )
}

/** With nothing taken down: every complete system that ships, to trace. */
function Systems() {
  return (
    <section className="sheet kit-sheet">
      <h1>Kit</h1>
      <p>
        {deviceTypes.length} device types: how each works, its contacts, how it fails and what that shows, what to
        measure. Take one from the shelves.
      </p>
      <h2>Complete systems</h2>
      <p>Correctly wired, one of each scheme. Put a fault in and watch.</p>
      <ul className="systems">
        {examples.map((example) => (
          <li key={example.id}>
            <Link to={`/examples/${example.id}`}>{example.name}</Link>
          </li>
        ))}
      </ul>
    </section>
  )
}
