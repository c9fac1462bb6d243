import { resolve } from 'node:path'
import { start } from './start'
import { StartError } from './start-error'

const root = resolve(import.meta.dirname, '../..')

try {
  const port = Number(process.env.NOBBET_PORT ?? 4630)
  if (!Number.isInteger(port) || port < 0 || port > 65535)
    throw new StartError(`NOBBET_PORT is "${process.env.NOBBET_PORT}": it must be a number from 0 to 65535`)
  const running = await start({
    data: resolve(process.env.NOBBET_DATA ?? `${root}/data`),
    port,
    host: process.env.NOBBET_HOST ?? '127.0.0.1',
    web: `${root}/web/dist`,
    demo: process.argv.includes('--demo'),
    fresh: process.argv.includes('--fresh'),
  })
  process.stdout.write(`Nobbet is at ${running.url}\n`)
  for (const signal of ['SIGINT', 'SIGTERM'] as const)
    process.once(signal, () => {
      void running.stop().then(() => process.exit(0))
    })
} catch (error) {
  if (!(error instanceof StartError)) throw error
  process.stderr.write(`nobbet: ${error.message}\n`)
  process.exitCode = 1
}
