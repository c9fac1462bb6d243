import { resolve } from 'node:path'
import { start } from './start'
import { StartError } from './start-error'

const root = resolve(import.meta.dirname, '../..')

try {
  const port = Number(process.env.NOBBET_PORT ?? 4630)
  if (!Number.isInteger(port) || port < 0 || port > 65535)
    throw new StartError(`NOBBET_PORT is "${process.env.NOBBET_PORT}": it must be a number from 0 to 65535`)
  const { NOBBET_TLS_KEY: key, NOBBET_TLS_CERT: cert, NOBBET_PHOTO_MB = '2000' } = process.env
  if (!key !== !cert) throw new StartError('set NOBBET_TLS_KEY and NOBBET_TLS_CERT, or neither')
  const photoMb = Number(NOBBET_PHOTO_MB)
  if (!(photoMb >= 1 && photoMb <= 1e6))
    throw new StartError(`NOBBET_PHOTO_MB is "${NOBBET_PHOTO_MB}": it must be a number of megabytes from 1`)
  const running = await start({
    data: resolve(process.env.NOBBET_DATA ?? `${root}/data`),
    port,
    host: process.env.NOBBET_HOST ?? '127.0.0.1',
    names: (process.env.NOBBET_NAMES ?? '')
      .split(',')
      .map((name) => name.trim())
      .filter(Boolean),
    ...(key && cert && { tls: { key, cert } }),
    photoMb,
    web: `${root}/web/dist`,
    demo: process.argv.includes('--demo'),
    fresh: process.argv.includes('--fresh'),
  })
  if (running.aside) process.stdout.write(`What was there before is kept as the backup ${running.aside}\n`)
  for (const address of running.addresses) process.stdout.write(`Paired devices find it at ${address}\n`)
  process.stdout.write(`Nobbet is at ${running.url}\n`)
  for (const signal of ['SIGINT', 'SIGTERM'] as const)
    process.once(signal, () => {
      void running.stop().then(
        () => process.exit(0),
        () => process.exit(1),
      )
    })
} catch (error) {
  if (!(error instanceof StartError)) throw error
  process.stderr.write(`nobbet: ${error.message}\n`)
  process.exitCode = 1
}
