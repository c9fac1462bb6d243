import { compile, edited, netAt, type Command, type Installation, type Step } from '@nobbet/core'
import { QueryClient, QueryClientProvider } from '@tanstack/react-query'
import { render } from '@testing-library/react'
import { useState, type ReactNode } from 'react'
import { HandContext, type Picked } from '../src/bench/hand'

/** Shows a part of the Bench with a wiring under its hand; gives what was done to that, and how it stands. */
export function onBench(start: Installation, part: ReactNode, held?: Picked) {
  const done: (Step | Command)[] = []
  let now = start
  function Bench() {
    const [doc, setDoc] = useState(start)
    const [picked, pick] = useState(held)
    const [linking, setLinking] = useState(false)
    const alter = (step: Step | Command | undefined) => {
      if (!step) return
      done.push(step)
      now = edited(doc, step).doc
      setDoc(now)
    }
    const at = picked?.kind === 'terminal' ? picked.ref : undefined
    const net = at === undefined ? undefined : netAt(compile(doc), at)
    return (
      <HandContext value={{ doc, picked, pick, net, tap: () => undefined, alter, linking, setLinking }}>
        {part}
      </HandContext>
    )
  }
  render(
    <QueryClientProvider client={new QueryClient({ defaultOptions: { queries: { retry: false } } })}>
      <Bench />
    </QueryClientProvider>,
  )
  return { done, doc: () => now }
}
