import { z } from 'zod'
import { clientIdSchema, line, stamp } from './basics'
import { troubleSchema } from './schemas'

/** What a caller may know of the server it speaks to. */
export const serverSchema = z.object({
  /** Whether the caller sits at the server’s own machine, from which alone it is managed. */
  host: z.boolean(),
  /** The name under which this device was paired. */
  device: z.string().optional(),
  /** Addresses on the network; empty where only the machine itself is served. */
  addresses: z.array(z.string()),
  /** Whether what goes over the network is encrypted. */
  encrypted: z.boolean(),
  /** Where the data are; told at the machine itself only. */
  folder: z.string().optional(),
  trouble: troubleSchema.optional(),
})
export type ServerState = z.infer<typeof serverSchema>

/** A code with which one device can be let in, once. */
export const pairingSchema = z.object({
  code: z.string(),
  until: stamp,
  /** Addresses that open the pairing page with the code filled in. */
  addresses: z.array(z.string()),
})
export type Pairing = z.infer<typeof pairingSchema>

export const pairRequestSchema = z.strictObject({
  code: z
    .string({ error: 'the code is missing' })
    .transform((code) => code.toUpperCase().replace(/[^A-Z0-9]/g, ''))
    .pipe(z.string().length(8, 'the code has eight letters and digits')),
  name: line('the device’s name', 40),
})

export const deviceSchema = z.object({
  id: clientIdSchema,
  name: z.string(),
  pairedAt: stamp,
  seenAt: stamp,
})
export type PairedDevice = z.infer<typeof deviceSchema>

export const backupSchema = z.object({
  name: z.string(),
  at: stamp,
  bytes: z.number().int().min(0),
})
export const backupListSchema = z.object({
  /** Newest first. */
  backups: z.array(backupSchema),
  /** Why the last daily one was not made. */
  problem: z.string().optional(),
})
export type Backup = z.infer<typeof backupSchema>
export type BackupList = z.infer<typeof backupListSchema>

/** What is in a backup that was read from end to end. */
export const contentSchema = z.object({
  jobs: z.number().int(),
  findings: z.number().int(),
  photos: z.number().int(),
  entries: z.number().int(),
})
export const checkedSchema = z.object({ sound: z.boolean(), detail: z.string() })
/** `kept`: the backup in which what was there before stands. */
export const restoredSchema = contentSchema.extend({ kept: z.string().optional() })
export type Restored = z.infer<typeof restoredSchema>
