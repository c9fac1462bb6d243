import { answerOf, atOnceOf, compile, Hunt } from '@nobbet/core'
import type { Command } from 'commander'
import { atOnceText, huntText } from './hunt-text'
import { loadHuntCase } from './installation-file'
import { UsageError } from './usage-error'

interface HuntFlags {
  json: boolean
  pairs?: string
  threes?: string
}

/** `hunt CASE`: ranking, next looks and decision; on request several causes at once. */
export function huntVerb(program: Command, { out }: { out(line: string): void }): void {
  program
    .command('hunt')
    .description('what may be wrong after what was done and seen, what to look at next, and whether to look any more')
    .argument('<case>', 'a case (JSON), or "-" for standard input')
    .option('--json', 'JSON instead of text', false)
    .option('--pairs <number>', 'so many pairs of causes as well, the likeliest first')
    .option('--threes <number>', 'so many threes of causes besides, made of the best pairs')
    .action((file: string, { json, ...flags }: HuntFlags) => {
      const [most, threes] = [countOf(flags.pairs, 'pairs'), countOf(flags.threes, 'threes')]
      if (threes !== undefined && most === undefined)
        throw new UsageError('--threes goes with --pairs: threes are made of pairs')
      const { installation, log, options } = loadHuntCase(file)
      const circuit = compile(installation)
      const hunt = new Hunt(circuit, options)
      hunt.follow(log)
      const answer = answerOf(hunt, log)
      const several = most === undefined ? undefined : [...atOnceOf(hunt, log, { most, threes })].at(-1)
      if (json) out(JSON.stringify({ ...answer, ...(several && { atOnce: several }) }, null, 2))
      else [...huntText(circuit, log, answer), ...(several ? atOnceText(several) : [])].forEach(out)
    })
}

function countOf(text: string | undefined, what: string): number | undefined {
  if (text !== undefined && !/^[1-9]\d{0,5}$/.test(text))
    throw new UsageError(`"${text}" is no number of ${what}: it is a whole number from 1`)
  return text === undefined ? undefined : Number(text)
}
