import { useEffect, useRef, useState, useSyncExternalStore } from 'react'
import { useNavigation, useSearchParams } from 'react-router'
import type { Sitting } from '../store/kept'
import { here } from '../store/stores'
import { useOnTheWay } from '../shell/on-the-way'
import { addressOf, Desk, sittingOf } from './desk'

/** The address follows what is done in the simulation at this distance, so that the picture comes first, ms; all else at once. */
const addressAfterMs = 300

/**
 * The desk of a sitting, and the one writer of its address: what is set at the desk goes into the address, and an address from
 * elsewhere (a link, back, forward) sets the desk. One that says nothing leaves it as it is. The desk of a job is kept in this
 * browser, too: `left` is how it was left there.
 */
export function useDesk(job: string | undefined, left: Sitting = {}): Desk {
  const [search, setSearch] = useSearchParams()
  const address = addressOf(sittingOf(search))
  const [desk] = useState(() => {
    const keep = (sitting: Sitting) => {
      if (job) void here.keepSitting(job, sitting).catch(() => undefined)
    }
    return new Desk(address === '' ? left : sittingOf(search), keep)
  })
  /** The address as it was written or read last. */
  const written = useRef(address)
  const stands = addressOf(useSyncExternalStore(desk.subscribe, desk.current))

  const leaving = useNavigation().state !== 'idle'
  const isOnTheWay = useOnTheWay()

  // From elsewhere.
  useEffect(() => {
    if (address === written.current) return
    written.current = address
    if (address !== '') desk.become(sittingOf(new URLSearchParams(address)))
  }, [address, desk])

  useEffect(() => {
    // On the way elsewhere: to write the address now would be to turn back.
    if (stands === written.current || leaving) return
    const did = (text: string) => new URLSearchParams(text).getAll('do').join('\n')
    const wait = did(stands) === did(written.current) ? 0 : addressAfterMs
    const timer = setTimeout(() => {
      // Somebody has just pressed a link, and this screen has not heard of it yet.
      if (isOnTheWay()) return
      written.current = stands
      setSearch(new URLSearchParams(stands), { replace: true })
    }, wait)
    return () => clearTimeout(timer)
    // `setSearch` is another one whenever the address is: what it does stays the same.
    // eslint-disable-next-line react-hooks/exhaustive-deps -- see above
  }, [stands, address, leaving])
  return desk
}

/** How Trace was left at a job; undefined while it is looked for. */
export function useLeftSitting(job: string): Sitting | undefined {
  const [left, setLeft] = useState<{ job: string; sitting: Sitting }>()
  useEffect(() => {
    let mine = true
    const found = (sitting: Sitting = {}) => mine && setLeft({ job, sitting })
    here.sitting(job).then(found, () => found())
    return () => void (mine = false)
  }, [job])
  return left?.job === job ? left.sitting : undefined
}
