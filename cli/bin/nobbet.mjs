// Committed launcher: needs no build, and no lookup of a linked binary that might not be there.
import { register } from 'tsx/esm/api'

// A reader that has seen enough (head, less) is no fault.
process.stdout.on('error', (error) => process.exit(error.code === 'EPIPE' ? 0 : 1))

register()
const { main } = await import('../src/main.ts')
process.exitCode = await main(process.argv.slice(2))
