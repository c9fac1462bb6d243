import type { Example } from '@nobbet/core'
import { NavLink } from 'react-router'

/** The name of an example, and what can be done with it. */
export function ExampleHead({ example }: { example: Example }) {
  return (
    <div className="example-head">
      <strong>{example.name}</strong> <span className="quiet">an example from Kit: nothing here is kept</span>
      <nav aria-label="Views of this example">
        <NavLink to={`/examples/${example.id}`} end>
          Trace
        </NavLink>
        <NavLink to={`/examples/${example.id}/week`}>Week</NavLink>
      </nav>
    </div>
  )
}
