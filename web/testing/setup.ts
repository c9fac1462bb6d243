import { TextDecoder, TextEncoder } from 'node:util'

// What every browser has and the page that tests are run in has not.
Object.assign(globalThis, { TextEncoder, TextDecoder })
globalThis.structuredClone ??= (value: unknown) => JSON.parse(JSON.stringify(value)) as never
