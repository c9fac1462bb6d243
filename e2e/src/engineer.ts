import {
  compile,
  Course,
  edited,
  lookAt,
  parseAction,
  Rig,
  rewiringOf,
  settle,
  waitOf,
  wordOf,
  type Hypothesis,
  type Installation,
  type Simulation,
  type WrittenLook,
} from '@nobbet/core'
import type { Page } from 'puppeteer-core'

/** A look as its card has it: what is set first, and what is looked at. */
interface Asked {
  acts: string[]
  see: WrittenLook
}

/**
 * Somebody on site who does what the card says, presses what the installation shows, and is never wrong. The installation is a
 * simulation with faults in it; it stands where the card's acts have left it. Every press is counted.
 */
export class SiteEngineer {
  rig: Rig
  presses = 0
  looks = 0
  /** What was put right, as the hunt said it. */
  readonly mended: string[][] = []

  /** What was done, so that it stands so when the wiring is put right. */
  private readonly done: string[] = []
  /** What is disturbed for a test, and not put back yet. */
  private readonly disturbances = new Map<string, string>()
  /** Lines of the log when the card was read. */
  private lines = 0

  /** `altered`: how the wiring departs from the document, by the hypothesis that says so. */
  constructor(
    private readonly page: Page,
    private readonly wiring: Installation,
    faults: readonly string[] = [],
    private altered?: Hypothesis,
  ) {
    this.rig = new Rig(compile(altered?.variant.change ? edited(wiring, altered.variant.change).doc : wiring))
    for (const fault of faults) this.rig.perform({ do: 'fault', fault })
    this.rig.simulation.settle()
  }

  async press(selector: string): Promise<void> {
    this.presses++
    const element = await this.page.waitForSelector(selector, { visible: true })
    // What is under the thumb may still come into sight; the press itself is what counts here.
    await element!.evaluate((e) => {
      e.scrollIntoView({ block: 'center' })
      ;(e as HTMLElement).click()
    })
  }

  /** The card, once it is the one of the log as it is: a look, or what it comes down to. */
  async card(): Promise<{ look?: Asked; cures?: string[]; cured: boolean }> {
    const card = await this.page.waitForSelector('.next-card[data-look], .next-card.conclusion')
    this.lines = (await this.page.$$('.finding-log ol > li')).length
    const { look, cures, cured } = await card!.evaluate((e) => ({
      look: (e as HTMLElement).dataset.look,
      cures: (e as HTMLElement).dataset.cures,
      cured: e.classList.contains('cured'),
    }))
    return {
      ...(look !== undefined && { look: JSON.parse(look) as Asked }),
      ...(cures !== undefined && { cures: JSON.parse(cures) as string[] }),
      cured,
    }
  }

  /** Does what one card says, with one press for its answer. */
  async answer({ acts, see }: Asked): Promise<void> {
    const { simulation } = this.rig
    const disturbed = this.disturbedAfter(acts)
    let touched = simulation.time
    const others = acts.filter((act) => !rewiringOf(act))
    this.done.push(...others)
    for (const act of others) {
      if (act === settle) simulation.settle()
      else this.rig.perform(parseAction(act))
      if (act !== settle && waitOf(act) === undefined) touched = simulation.time
    }
    const at = disturbed ?? simulation
    const shown = lookAt(at, see.at === 'clicks' ? { ...see, at: 'clicks', since: touched } : see, this.wiring)
    this.looks++
    const answers = await this.page.$$eval('.next-card .answers .answer', (all) =>
      all.map((e) => (e as HTMLElement).dataset.answer),
    )
    // What may or may not have left its marks has left none.
    const unseen = 'chances' in shown ? Object.keys(shown.chances)[0] : undefined
    const word = unseen ?? wordOf(shown) ?? ('value' in shown && shown.unit === 'V' ? 'between' : undefined)
    for (const place of 'at' in shown ? (shown.at ?? []) : [])
      await this.press(`.next-card .drawn-place[data-place="${place}"]`)
    if (word !== undefined && answers.includes(word)) await this.press(`.next-card .answers [data-answer="${word}"]`)
    else if ('value' in shown && shown.value !== null && shown.unit !== 'V') await this.type(shown.value, shown.unit)
    else if ('value' in shown) await this.press(`.next-card .answers [data-answer^="null"]`)
    else await this.press('.cannot .answer:nth-of-type(2)')
    return this.next()
  }

  /** The installation with links in and conductors lifted as the acts leave them, where any still are. */
  private disturbedAfter(acts: readonly string[]): Simulation | undefined {
    if (this.disturbances.size === 0 && !acts.some(rewiringOf)) return undefined
    const course = new Course(this.rig.simulation.fork())
    for (const act of [...this.disturbances.values(), ...acts]) course.act(act)
    for (const act of acts) {
      const { what, of, back } = rewiringOf(act) ?? {}
      if (back) this.disturbances.delete(`${what} ${of}`)
      else if (what) this.disturbances.set(`${what} ${of}`, act)
    }
    return this.disturbances.size > 0 ? course.sim : undefined
  }

  private async type(value: number, unit: string): Promise<void> {
    await this.press('.next-card .answer.typed')
    const kilo = unit === 'Ω' && value >= 1000
    if (kilo) await this.press('.pad-foot [aria-pressed]')
    const field = await this.page.waitForSelector('.readout input')
    await field!.type(String(Math.round((kilo ? value / 1000 : value) * 100) / 100))
    await this.press('.pad-foot [type=submit]')
  }

  /** Waits until what was pressed is written down, and the next card is there. */
  private async next(): Promise<void> {
    await this.page.waitForFunction((n) => document.querySelectorAll('.finding-log ol > li').length > n, {}, this.lines)
    await this.page.waitForSelector('.suspects[aria-busy="false"]')
    await this.page.waitForSelector('.next-card[data-look], .next-card.conclusion')
  }

  /** Puts right what the hunt says, and says so. */
  async putRight(cures: readonly string[]): Promise<void> {
    this.mended.push([...cures])
    if (this.altered && cures.includes(this.altered.id)) {
      this.altered = undefined
      const faults = this.rig.faultsIn.map(({ name }) => name)
      this.rig = new Rig(compile(this.wiring))
      for (const fault of faults) this.rig.perform({ do: 'fault', fault })
      for (const act of this.done.filter((one) => one !== settle)) this.rig.perform(parseAction(act))
    }
    for (const fault of cures) if (this.rig.faults.has(fault)) this.rig.perform({ do: 'mend', fault })
    this.rig.simulation.settle()
    await this.press('.conclusion .btn-lg')
    await this.page.waitForFunction(() => !document.querySelector('.conclusion[data-cures]'))
    return this.next()
  }

  /** Does what the hunt says until it has come to its end: it is cured, or there is nothing to mend. */
  async follow(most = 40): Promise<'cured' | 'explained'> {
    for (let turn = 0; turn < most; turn++) {
      const { look, cures, cured } = await this.card()
      if (cured) return 'cured'
      if (look) await this.answer(look)
      else if (cures && (await this.page.$('.conclusion .btn-lg ::-p-text(explained)'))) return 'explained'
      else if (cures) await this.putRight(cures)
      else throw new Error('the hunt proposes nothing any more')
    }
    throw new Error(`no end after ${most} cards`)
  }

  /** Writes the finding, then puts everything back that stands on the list. */
  async close(): Promise<void> {
    await this.press('.conclusion .btn-lg')
    await this.page.waitForSelector('.finding-sheet')
    while (await this.page.$('.put-back .buttons .btn-outline-primary')) {
      const left = await this.page.$$eval('.put-back li', (all) => all.length)
      await this.press('.put-back .buttons .btn-outline-primary')
      await this.page.waitForFunction((n) => document.querySelectorAll('.put-back li').length < n, {}, left)
    }
    await this.page.waitForSelector('.finding-sheet .closed')
  }
}
