import { isDeepStrictEqual } from 'node:util'
import type { EntityManager } from '@mikro-orm/libsql'
import type { OwnType } from '@nobbet/contract'
import type { DeviceType } from '@nobbet/core'
import { TypeEntity, type TypeRow } from './entities'
import { judge, type Precondition } from './preconditions'

/** Device types of users' own. A type's version is counted here: one more with every change. */
export class TypeService {
  constructor(
    private readonly em: EntityManager,
    private readonly now: () => Date,
  ) {}

  async list(): Promise<OwnType[]> {
    const rows = await this.em.find(TypeEntity, {}, { orderBy: { id: 'asc' } })
    return rows.map(typeOf).sort((x, y) => x.definition.name.localeCompare(y.definition.name))
  }

  write(id: string, type: DeviceType, precondition: Precondition): Promise<OwnType> {
    return this.em.transactional(async (em) => {
      const found = await em.findOne(TypeEntity, { id })
      const version = found?.version ?? 0
      const same = found !== null && isDeepStrictEqual(found.definition, { ...type, version })
      if (judge(precondition, found, same) === 'repeat') return typeOf(found!)
      const definition = { ...type, version: version + 1 }
      const values = { definition, version: version + 1, updatedAt: this.now() }
      if (found) return typeOf(Object.assign(found, values))
      const row = em.create(TypeEntity, { id, ...values })
      em.persist(row)
      return typeOf(row)
    })
  }

  async remove(id: string): Promise<void> {
    await this.em.nativeDelete(TypeEntity, { id })
  }
}

const typeOf = ({ id, definition, version, updatedAt }: TypeRow): OwnType => ({
  id,
  version,
  updatedAt: updatedAt.toISOString(),
  definition: definition as unknown as OwnType['definition'],
})
