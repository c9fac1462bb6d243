// Committed launcher: needs no build, and no lookup of a linked binary that might not be there.
import { register } from 'tsx/esm/api'

// A reader that has seen enough (head, less) is no fault.
process.stdout.on('error', (error) => process.exit(error.code === 'EPIPE' ? 0 : 70))
// 1 says that an installation is dangerous: a fault of the program must never end with it.
process.on('uncaughtException', (error) => {
  process.stderr.write(`nobbet: this is a fault of Nobbet’s own: ${error.stack}\n`)
  process.exit(70)
})

register()
const { main } = await import('../src/main.ts')
process.exitCode = await main(process.argv.slice(2))
