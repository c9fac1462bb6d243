import { claimText, failedIn, type Cause, type Circuit, type Claim } from '@nobbet/core'
import { Link } from 'react-router'
import { departedPlace } from '../wiring/departed-place'
import { conductorRef } from './picked'

interface CausesProps {
  circuit: Circuit
  causes: readonly Cause[]
  /** The job it is of: what departs from its plan is put right at its Bench. */
  job?: string
  onPick: (ref: string) => void
}

/** A chain of causes; each link leads to its place. */
export function Causes({ causes, ...props }: CausesProps) {
  if (causes.length === 0) return null
  return (
    <ul className="causes">
      {failedFirst(causes).map((cause, i) => (
        <li key={i}>
          <ClaimLine {...props} cause={cause} />
          <Causes {...props} causes={cause.because} />
        </li>
      ))}
    </ul>
  )
}

/** One link of the chain: what is wrong is marked and named in bold. */
export function ClaimLine({ circuit, cause, job, onPick }: Omit<CausesProps, 'causes'> & { cause: Cause }) {
  const text = claimText(circuit, cause.claim, cause.failed)
  const ref = placeOf(circuit, cause.claim)
  const bench = job && cause.claim.is === 'departure' ? departedPlace(cause.claim.what) : undefined
  return (
    <>
      {ref ? (
        <button className={cause.failed ? 'claim failed' : 'claim'} onClick={() => onPick(ref)}>
          {cause.failed && '✕ '}
          {text}
        </button>
      ) : (
        <span className={cause.failed ? 'failed' : ''}>
          {cause.failed && '✕ '}
          {text}
        </span>
      )}
      {cause.claim.is === 'departure' && cause.claim.tried && (
        <span className="quiet"> Tried: put right by itself, this is gone.</span>
      )}
      {bench && (
        <>
          {' '}
          <Link to={`/jobs/${job}/bench?at=${encodeURIComponent(bench)}`}>Show it on the Bench</Link>
        </>
      )}
    </>
  )
}

/** What has failed is read first. */
const failedFirst = (causes: readonly Cause[]) =>
  [...causes].sort((x, y) => Number(failedIn(y).length > 0) - Number(failedIn(x).length > 0))

/** Where on this screen a claim is looked at: a terminal, or a conductor. */
function placeOf(circuit: Circuit, claim: Claim): string | undefined {
  switch (claim.is) {
    case 'terminal':
    case 'unconnected':
    case 'induced':
      return inside(circuit, claim.ref) ? undefined : claim.ref
    case 'conductor':
      return conductorRef(claim.cable, claim.core)
    case 'departure': {
      const { what } = claim
      if (what.kind === 'core') return conductorRef(what.core.cable, what.core.core)
      if (what.kind === 'exchanged') return conductorRef(what.cores[0].cable, what.cores[0].core)
      return 'between' in what ? what.between[0] : undefined
    }
    case 'short':
    case 'thrown':
      return undefined
    default:
      return ownTerminal(circuit, claim.device)
  }
}

const inside = (circuit: Circuit, ref: string) => circuit.atoms[circuit.atomIndex.get(ref)!]?.kind === 'internal'

/** The first terminal of a device that a conductor can be on: looked at, it tells the rest. */
const ownTerminal = (circuit: Circuit, device: string) =>
  circuit.atoms.find((atom) => atom.owner === device && atom.kind === 'device')?.ref
