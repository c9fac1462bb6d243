import { z } from 'zod'

/** How a run is wanted. */
export const runOptionsSchema = z.strictObject({
  /** Which of both goes first. */
  first: z.enum(['heating', 'hot-water']).default('heating'),
  /** Only each demand alone: what has stood still all summer is moved. */
  short: z.boolean().default(false),
  /** Somebody else is at the controls: setting them costs no walk. */
  helper: z.boolean().default(false),
  /** Before anything is touched: no cover comes off, so nothing behind one is measured or counted. */
  coversOn: z.boolean().default(false),
  /** Insulation is measured as well, where it may be. */
  insulation: z.boolean().default(false),
  /** How controls stood before the run, by `device.control`: they are put back so at its end. */
  stood: z.record(z.string().min(3).max(90), z.string().min(1).max(60)).default({}),
})
export type RunOptions = z.infer<typeof runOptionsSchema>
export const usualRun: RunOptions = runOptionsSchema.parse({})
