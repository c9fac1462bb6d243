import { randomUUID } from 'node:crypto'
import type { EntityManager } from '@mikro-orm/libsql'
import type { PairedDevice } from '@nobbet/contract'
import { DeviceEntity, type DeviceRow } from '../data/entities'

/** How often it is noted that a device is about. */
const seenEveryMs = 10 * 60_000

/** Devices that may come in from the network. */
export class DeviceService {
  constructor(
    private readonly em: EntityManager,
    private readonly now: () => Date,
  ) {}

  async list(): Promise<PairedDevice[]> {
    const rows = await this.em.find(DeviceEntity, { revokedAt: null }, { orderBy: { pairedAt: 'asc' } })
    return rows.map(deviceOf)
  }

  async add(name: string): Promise<PairedDevice> {
    const at = this.now()
    const row = this.em.create(DeviceEntity, { id: randomUUID(), name, pairedAt: at, seenAt: at, revokedAt: null })
    this.em.persist(row)
    await this.em.flush()
    return deviceOf(row)
  }

  /** The device of that id, if it may come in; that it was here is noted. */
  async known(id: string): Promise<PairedDevice | undefined> {
    const row = await this.em.findOne(DeviceEntity, { id, revokedAt: null })
    if (!row) return undefined
    if (this.now().getTime() - row.seenAt.getTime() > seenEveryMs) {
      row.seenAt = this.now()
      // That it cannot be noted, on a full disk, shuts nobody out.
      await this.em.flush().catch(() => undefined)
    }
    return deviceOf(row)
  }

  async revoke(id: string): Promise<void> {
    const row = await this.em.findOne(DeviceEntity, { id, revokedAt: null })
    if (!row) return
    row.revokedAt = this.now()
    await this.em.flush()
  }
}

const deviceOf = ({ id, name, pairedAt, seenAt }: DeviceRow): PairedDevice => ({
  id,
  name,
  pairedAt: pairedAt.toISOString(),
  seenAt: seenAt.toISOString(),
})
