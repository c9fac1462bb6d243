const fields: Record<string, string> = {
  site: 'Site',
  kind: 'Kind of work',
  symptom: 'Reported symptom',
  earlier: 'What an earlier visit said',
  engineer: 'Who attends',
  scheme: 'Scheme',
  circuits: 'Circuits',
  supply: 'Supply',
  cable: 'Cables',
  terminals: 'Terminals',
  cylinder: 'Cylinder',
  control: 'Control',
  boiler: 'Boiler',
  status: 'Open or closed',
}

/** What a field of the brief is called on the screen. */
export const briefThing = (path: readonly string[]): string => fields[path[path.length - 1]] ?? path[path.length - 1]
