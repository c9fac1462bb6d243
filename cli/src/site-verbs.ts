import {
  asFoundOf,
  carriedOut,
  commissioningRun,
  compile,
  Rig,
  surveyed,
  usualRun,
  type Action,
  type RowFound,
} from '@nobbet/core'
import type { Command } from 'commander'
import { commissionText } from './commission-text'
import { loadInstallation, loadSurvey } from './installation-file'
import { surveyText } from './survey-text'

interface CommissionOptions {
  hotWaterFirst: boolean
  short: boolean
  helper: boolean
  coversOn: boolean
  insulation: boolean
  carryOut: boolean
  fault: string[]
  json: boolean
}

interface Verbs {
  fileArgument: string
  collect(value: string, before: string[]): string[]
  out(line: string): void
  /** Something was not as it should be: the command ends with 1. */
  fail(): void
}

/** What is done on site: a box surveyed, an installation commissioned. */
export function siteVerbs(program: Command, { fileArgument, collect, out, fail }: Verbs): void {
  program
    .command('survey')
    .description('which cable is which, of what was seen in a box: certain, likely or open, and what to look at next')
    .argument('<file>', 'a survey (JSON), or "-" for standard input')
    .option('--as-found', 'the installation as found, as JSON', false)
    .option('--json', 'JSON instead of text', false)
    .action((file: string, options: { asFound: boolean; json: boolean }) => {
      const { installation, survey } = loadSurvey(file)
      const result = surveyed(survey, installation)
      if (options.asFound) out(JSON.stringify(asFoundOf(survey, result, installation), null, 2))
      else if (options.json) out(JSON.stringify(result, null, 2))
      else surveyText(installation, survey, result).forEach(out)
    })

  program
    .command('commission')
    .description('the commissioning run of an installation, step by step: what to do, what to expect')
    .argument('<file>', fileArgument)
    .option('--hot-water-first', 'hot water before heating', false)
    .option('--short', 'only each demand alone: what has stood still all summer is moved', false)
    .option('--helper', 'somebody else is at the controls: setting them costs no walk', false)
    .option('--covers-on', 'before anything is touched: nothing behind a cover', false)
    .option('--insulation', 'insulation is measured as well', false)
    .option('--fault <name>', 'carried out with this fault in; may stand many times', collect, [])
    .option('--carry-out', 'carried out on the installation as it is', false)
    .option('--json', 'JSON instead of text', false)
    .action((file: string, options: CommissionOptions) => {
      const circuit = compile(loadInstallation(file))
      const first = options.hotWaterFirst ? 'hot-water' : 'heating'
      const { short, helper, coversOn, insulation } = options
      const rows = commissioningRun(circuit, { ...usualRun, first, short, helper, coversOn, insulation })
      const carried = options.carryOut || options.fault.length > 0
      const rig = Rig.after(
        circuit,
        options.fault.map((fault): Action => ({ do: 'fault', fault })),
      )
      const found = carried
        ? [...carriedOut(rig, rows)]
        : rows.map((row): RowFound => ({ row, looks: [], otherwise: [] }))
      if (options.json) out(JSON.stringify(carried ? found : rows, null, 2))
      else commissionText(circuit, found, carried).forEach(out)
      if (found.some(({ otherwise }) => otherwise.length > 0)) fail()
    })
}
