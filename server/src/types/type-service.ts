import { isDeepStrictEqual } from 'node:util'
import type { EntityManager } from '@mikro-orm/libsql'
import type { OwnType } from '@nobbet/contract'
import type { DeviceType } from '@nobbet/core'
import { TypeEntity, type TypeRow } from '../data/entities'
import { judge, type Precondition } from '../http/preconditions'

/** Device types of users' own. A type's version is counted here: one more with every change. */
export class TypeService {
  constructor(
    private readonly em: EntityManager,
    private readonly now: () => Date,
  ) {}

  async list(): Promise<OwnType[]> {
    const rows = await this.em.find(TypeEntity, { deletedAt: null }, { orderBy: { id: 'asc' } })
    return rows.map(typeOf).sort((x, y) => x.definition.name.localeCompare(y.definition.name))
  }

  write(id: string, type: DeviceType, precondition: Precondition): Promise<OwnType> {
    return this.em.transactional(async (em) => {
      const row = await em.findOne(TypeEntity, { id })
      // One that was taken away counts on from where it was: no version means two things.
      const found = row && row.deletedAt === null ? row : null
      const version = row?.version ?? 0
      const same = found !== null && isDeepStrictEqual(found.definition, { ...type, version })
      if (judge(precondition, found, same) === 'repeat') return typeOf(found!)
      const definition = { ...type, version: version + 1 }
      const values = { definition, version: version + 1, updatedAt: this.now(), deletedAt: null }
      if (row) return typeOf(Object.assign(row, values))
      const made = em.create(TypeEntity, { id, ...values })
      em.persist(made)
      return typeOf(made)
    })
  }

  remove(id: string, precondition: Precondition): Promise<void> {
    return this.em.transactional(async (em) => {
      const row = await em.findOne(TypeEntity, { id })
      if (!row || row.deletedAt !== null) return
      if (judge(precondition, row, false) === 'write') row.deletedAt = this.now()
    })
  }
}

const typeOf = ({ id, definition, version, updatedAt }: TypeRow): OwnType => ({
  id,
  version,
  updatedAt: updatedAt.toISOString(),
  definition: definition as unknown as OwnType['definition'],
})
