import type { OwnType } from '@nobbet/contract'
import { isShipped, type DeviceType } from '@nobbet/core'
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { call } from '../api/client'

const key = ['types'] as const

/** A type of one's own as the core knows it: what the server keeps was found whole when it came in. */
export const asType = (own: OwnType): DeviceType => own.definition

/** Device types that users have made, by name. */
export const useOwnTypes = () => useQuery({ queryKey: key, queryFn: () => call('listTypes') })

export function useSaveType() {
  const queries = useQueryClient()
  return useMutation({
    mutationFn: ({ type, over }: { type: DeviceType; over: number | 'new' }) =>
      call('writeType', { params: { type: type.id }, body: { definition: type }, over }),
    onSettled: () => queries.invalidateQueries({ queryKey: key }),
  })
}

export function useRemoveType() {
  const queries = useQueryClient()
  return useMutation({
    mutationFn: ({ id, version }: Pick<DeviceType, 'id' | 'version'>) =>
      call('deleteType', { params: { type: id }, over: version }),
    onSettled: () => queries.invalidateQueries({ queryKey: key }),
  })
}

/** An id for a copy that neither ships nor is among one's own. */
export function freeTypeId(wish: string, own: readonly OwnType[]): string {
  const taken = (id: string) => isShipped(id) || own.some((t) => t.id === id)
  const base = wish.startsWith('own-') ? wish : `own-${wish}`.slice(0, 34)
  let id = base
  for (let n = 2; taken(id); n++) id = `${base}-${n}`
  return id
}
