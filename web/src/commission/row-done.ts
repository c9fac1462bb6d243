import type { LookDone, RowDone } from '@nobbet/contract'
import {
  formatAction,
  lookText,
  meets,
  satisfied,
  type Circuit,
  type Found,
  type RowLook,
  type RunRow,
} from '@nobbet/core'

/** Outcomes of a row that was not done as it stands. */
export type NotSo = Extract<RowDone['how'], 'another-way' | 'deferred' | 'left-out'>
export interface NotSoDone {
  how: NotSo
  reason: string
  until?: string
  looks: readonly { look: RowLook; found: Found | 'as-expected' }[]
}

type Written = Omit<RowDone, 'at' | 'visit'>

export const placesOf = (circuit: Circuit, looks: readonly RowLook[]): string[] =>
  looks.map(({ see }) => lookText(circuit, see))

interface Pressed {
  circuit: Circuit
  row: RunRow
  title: string
  /** What was seen to, in words; undefined of what nobody looked at. */
  byHand: readonly (string | undefined)[]
}

const base = ({ row, title }: Pressed): Written => ({
  row: row.id,
  title,
  how: 'as-expected',
  acts: row.acts.map(formatAction),
  waitMs: row.waitMs,
  looks: [],
  byHand: [],
  reason: '',
  note: '',
})

const lookDone = (circuit: Circuit, { see, expect, full }: RowLook, found: LookDone['found']): LookDone => ({
  at: lookText(circuit, see),
  see,
  expect,
  ...(full !== undefined && { full }),
  ...(found !== undefined && { found }),
})

/** A row that was done: every look as expected, but those of which something else is said. `rest`: were the others looked at? */
export function doneRow(
  pressed: Pressed,
  found: ReadonlyMap<number, Found>,
  wrong: ReadonlyMap<number, string>,
  how: 'as-expected' | 'otherwise',
  rest: boolean,
  note: string,
): Written {
  const { circuit, row, byHand } = pressed
  return {
    ...base(pressed),
    how,
    note,
    looks: row.looks.map((look, i) => lookDone(circuit, look, found.get(i) ?? (rest ? 'as-expected' : undefined))),
    byHand: byHand.flatMap((what, i) =>
      what !== undefined && (rest || wrong.has(i))
        ? [{ what, right: !wrong.has(i), note: wrong.get(i)?.trim() ?? '' }]
        : [],
    ),
  }
}

/**
 * A row that was not done as it stands. Where its thermostat was read instead, that stays satisfied whatever its dial says; what was read
 * otherwise than it has to be shows nothing, and is not as expected. Told in words alone, nothing is known of how the controls were set.
 */
export function notSoRow(pressed: Pressed, { how, reason, until, looks }: NotSoDone): Written {
  const { circuit, row } = pressed
  const isRead = looks.length > 0
  const isWrong = looks.some(({ look, found }) => found !== 'as-expected' && !meets(look, found))
  return {
    ...base(pressed),
    how: isWrong ? 'otherwise' : how,
    reason,
    ...(until !== undefined && { until }),
    acts: isRead ? [...row.acts, ...satisfied(circuit, row)].map(formatAction) : [],
    waitMs: isRead ? row.waitMs : 0,
    looks: looks.map(({ look, found }) => lookDone(circuit, look, found)),
  }
}
