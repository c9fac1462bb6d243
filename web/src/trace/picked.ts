/** What is looked at is a terminal, or a conductor: its cable and core behind a mark no terminal begins with. */
export const conductorRef = (cable: string, core: string): string => `~${cable}.${core}`

export const isConductor = (ref: string): boolean => ref.startsWith('~')

export function conductorOf(ref: string): { cable: string; core: string } {
  const [cable, core] = ref.slice(1).split('.')
  return { cable, core }
}
