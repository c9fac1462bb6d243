/**
 * What is looked at is a terminal; or a conductor, its cable and core behind a mark no terminal begins with; or a demand or boiler of
 * which is asked why it is as it is.
 */
export const conductorRef = (cable: string, core: string): string => `~${cable}.${core}`

export const isConductor = (ref: string): boolean => ref.startsWith('~')

export function conductorOf(ref: string): { cable: string; core: string } {
  const [cable, core] = ref.slice(1).split('.')
  return { cable, core }
}

export const whyRef = (of: string): string => `?${of}`

/** The demand or boiler that is asked about; undefined where it is something else that is looked at. */
export const askedOf = (ref: string | undefined): string | undefined =>
  ref?.startsWith('?') ? ref.slice(1) : undefined
