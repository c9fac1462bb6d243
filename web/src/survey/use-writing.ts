import type { Colour, NearEnd, SeenCable, Survey, SurveyFact } from '@nobbet/core'
import { useState, useSyncExternalStore } from 'react'
import type { JobStore } from '../store/job-store'
import { OnTheWay, withDeeds } from './on-the-way'
import { newCable, ownId, withTerminal } from './typed'

/** A conductor, by the ids of its cable and its own. */
export interface CoreName {
  cable: string
  core: string
}

/** A fact without its name and who found it out. */
export type Found = SurveyFact extends infer F ? (F extends SurveyFact ? Omit<F, 'id' | 'by'> : never) : never

/** What the hand does with a survey: each thing is recorded as it is seen, so that nothing waits to be saved. */
export interface Writing {
  survey: Survey
  /** The conductor that waits for where it sits. */
  waits?: CoreName
  wait(core: CoreName | undefined): void
  add(colours: readonly Colour[], leadOf?: string): void
  sits(at: NearEnd): void
  put(cable: SeenCable): void
  drop(cable: string): void
  /** The cable that was taken out last, with what was found out of it, until it is brought back or another is written down. */
  dropped?: SeenCable
  bringBack(): void
  link(links: readonly [string, string][]): void
  unlink(id: string): void
  terminals(count: number): void
  /** What is printed beside a terminal; null where there is no such terminal. */
  terminal(id: string, legend: string | null): void
  found(fact: Found): void
  take(fact: string): void
  complete(is: boolean): void
}

export function useWriting(recorded: Survey, store: JobStore, who: string): Writing {
  const [waits, wait] = useState<CoreName>()
  const [gone, setGone] = useState<{ cable: SeenCable; facts: SurveyFact[] }>()
  const [way] = useState(() => new OnTheWay(store))
  const survey = withDeeds(recorded, useSyncExternalStore(way.subscribe, way.current))
  const put = (cable: SeenCable) => way.record({ do: 'survey-cable', id: cable.id, cable })
  const known = (...terminals: string[]) => {
    const before = way.survey()
    const now = terminals.reduce((at, id) => ({ ...at, terminals: withTerminal(at, id) ?? at.terminals }), before)
    if (now.terminals !== before.terminals) way.record({ do: 'survey-terminals', terminals: now.terminals })
  }
  return {
    survey,
    waits: waits && survey.cables.some(({ id }) => id === waits.cable) ? waits : undefined,
    wait,
    put,
    add(colours, leadOf) {
      setGone(undefined)
      const cable = { ...newCable(way.survey(), colours, leadOf), by: who }
      put(cable)
      wait({ cable: cable.id, core: cable.cores[0].id })
    },
    sits(at) {
      const cable = way.survey().cables.find(({ id }) => id === waits?.cable)
      if (!cable || !waits) return
      if ('terminal' in at) known(at.terminal)
      const i = cable.cores.findIndex(({ id }) => id === waits.core)
      put({ ...cable, cores: cable.cores.map((core, k) => (k === i ? { ...core, at } : core)) })
      const next = cable.cores.slice(i + 1).find((core) => core.at.at === 'unseen')
      wait(next && { cable: cable.id, core: next.id })
    },
    drop(id) {
      const now = way.survey()
      const cable = now.cables.find((one) => one.id === id)
      const facts = now.facts.filter((fact) => 'cable' in fact && fact.cable === id)
      for (const fact of facts) way.record({ do: 'survey-fact', id: fact.id, fact: null })
      way.record({ do: 'survey-cable', id, cable: null })
      if (waits?.cable === id) wait(undefined)
      if (cable) setGone({ cable, facts })
    },
    dropped: gone?.cable,
    bringBack() {
      if (!gone) return
      put(gone.cable)
      for (const fact of gone.facts) way.record({ do: 'survey-fact', id: fact.id, fact })
      setGone(undefined)
    },
    link(links) {
      known(...links.flat())
      for (const between of links) {
        const taken = way.survey().links
        const same = (other: readonly string[]) => [...other].sort().join() === [...between].sort().join()
        if (between[0] === between[1] || taken.some((one) => same(one.between))) continue
        const link = { id: ownId('link'), between }
        way.record({ do: 'survey-link', id: link.id, link })
      }
    },
    unlink: (id) => way.record({ do: 'survey-link', id, link: null }),
    terminals: (count) => known(`${count}`),
    terminal(id, legend) {
      const { terminals } = way.survey()
      const next =
        legend === null
          ? terminals.filter((one) => one.id !== id)
          : terminals.map((one) => (one.id === id ? { ...one, legend } : one))
      way.record({ do: 'survey-terminals', terminals: next })
    },
    found(fact) {
      const id = ownId('seen')
      way.record({ do: 'survey-fact', id, fact: { ...fact, id, by: who } })
    },
    complete: (complete) => way.record({ do: 'survey-complete', complete }),
    take: (fact) => way.record({ do: 'survey-fact', id: fact, fact: null }),
  }
}
