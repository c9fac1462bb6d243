import { randomInt, timingSafeEqual } from 'node:crypto'
import { RateLimiterMemory } from 'rate-limiter-flexible'

/** Letters and digits that nobody takes for one another. */
const alphabet = 'ABCDEFGHJKLMNPQRSTUVWXYZ23456789'
const length = 8
const goodForMs = 10 * 60_000
/** So many wrong codes and the right one is good no more. */
const mostWrong = 5

export type Attempt = 'right' | 'wrong' | 'none' | 'too-many'

/**
 * The one code that lets one device in, shown on the server's own screen: good for ten minutes, for one device and for five
 * mistakes. Of 32^8 codes five are tried at most; each address may try ten times in ten minutes, all together thirty times.
 */
export class PairingCode {
  private code: string | undefined
  private until = 0
  private wrong = 0
  private readonly each = new RateLimiterMemory({ points: 10, duration: 600 })
  private readonly all = new RateLimiterMemory({ points: 30, duration: 600 })

  constructor(private readonly now: () => Date) {}

  start(): { code: string; until: Date } {
    this.code = Array.from({ length }, () => alphabet[randomInt(alphabet.length)]).join('')
    this.until = this.now().getTime() + goodForMs
    this.wrong = 0
    return { code: this.code, until: new Date(this.until) }
  }
  stop(): void {
    this.code = undefined
  }

  async attempt(code: string, address: string): Promise<Attempt> {
    try {
      await this.all.consume('all')
      await this.each.consume(address)
    } catch {
      return 'too-many'
    }
    if (this.code === undefined || this.now().getTime() > this.until) return 'none'
    if (timingSafeEqual(Buffer.from(code.padEnd(length).slice(0, length)), Buffer.from(this.code))) {
      this.stop()
      return 'right'
    }
    if (++this.wrong >= mostWrong) this.stop()
    return 'wrong'
  }
}
