import type { HuntAnswer, HuntEntry, HuntOptions, HuntStanding, Installation, Misfit, SoFar } from '@nobbet/core'
import { proxy } from 'comlink'
import { useEffect, useRef, useState } from 'react'
import { longRun } from '../workers/compute'

/** What a hunt says, as far as it has come. */
export interface HuntView {
  /** The last whole answer; it stays in view while the next one is worked out. */
  answer?: HuntAnswer
  /** How the suspects stand now, as soon as that is known. */
  standing?: HuntStanding
  /** Entries that do not fit the wiring as it is now: they are set aside. */
  aside: readonly Misfit[]
  /** The answer is that of the log as it is. */
  current: boolean
  /** How far the suspects have been taken along the log, of 1. */
  along: number
  error?: Error
  again: () => void
}

interface Known {
  key: string
  answer?: HuntAnswer
  standing?: HuntStanding
  aside: readonly Misfit[]
  error?: Error
}

/**
 * Suspects and next look, worked out in a worker of its own; while somebody goes and looks, what each answer would come to is
 * worked out ahead, so that the next card is there at once.
 */
export function useHunt(installation: Installation, log: readonly HuntEntry[], options: HuntOptions): HuntView {
  const [known, setKnown] = useState<Known>({ key: '', aside: [] })
  const [along, setAlong] = useState(0)
  const [turn, setTurn] = useState(0)
  const key = JSON.stringify([log, options, turn])
  const wiring = useRef(installation)
  const asked = useRef({ log, options })
  asked.current = { log, options }

  useEffect(() => {
    const leaving = new AbortController()
    const here = () => !leaving.signal.aborted
    const { log: entries, options: with_ } = asked.current
    // Of another wiring nothing is shown that was said of the one before.
    if (wiring.current !== installation) setKnown({ key: '', aside: [] })
    wiring.current = installation
    setAlong(0)
    const onSoFar = (soFar: SoFar) => {
      if (!here()) return
      if ('along' in soFar) setAlong(soFar.along)
      else setKnown((before) => ({ ...before, standing: soFar.standing, error: undefined }))
    }
    void (async () => {
      try {
        const told = await longRun(
          'hunt',
          (api, run) => api.hunt(run, installation, [...entries], with_, proxy(onSoFar)),
          leaving.signal,
        )
        if (!told || !here()) return
        setKnown({ key, answer: told.answer, standing: told.answer, aside: told.aside })
        await longRun('hunt', (api, run) => api.foresee(run, installation, [...entries], with_), leaving.signal)
      } catch (error) {
        if (here()) setKnown((before) => ({ ...before, key, error: error as Error }))
      }
    })()
    return () => leaving.abort()
    // The key says what log and options say.
  }, [installation, key])

  return {
    ...known,
    current: known.key === key && known.error === undefined,
    along,
    again: () => setTurn(turn + 1),
  }
}
