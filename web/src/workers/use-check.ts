import type { CheckResult, Installation } from '@nobbet/core'
import { useQuery } from '@tanstack/react-query'
import { compute } from './compute'

/** The check's verdict on an installation, worked out off the main thread and remembered for its content. */
export function useCheck(installation: Installation | undefined): {
  result: CheckResult | undefined
  error: Error | null
} {
  const { data, error } = useQuery({
    queryKey: ['check', installation],
    queryFn: () => compute().check(installation!),
    enabled: installation !== undefined,
    staleTime: Infinity,
    networkMode: 'always',
  })
  return { result: data, error }
}
