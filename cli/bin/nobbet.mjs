// Committed launcher: needs no build, and no lookup of a linked binary that might not be there.
import { register } from 'tsx/esm/api'

register()
const { main } = await import('../src/main.ts')
process.exitCode = await main(process.argv.slice(2))
