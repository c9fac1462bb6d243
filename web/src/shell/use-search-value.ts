import { useSearchParams } from 'react-router'

/** One value of the address, beside whatever else stands there; set to undefined it goes. Adds nothing to the history. */
export function useSearchValue(name: string): [string | undefined, (value: string | undefined) => void] {
  const [search, setSearch] = useSearchParams()
  const write = (value: string | undefined) =>
    setSearch(
      (before) => {
        const after = new URLSearchParams(before)
        if (value === undefined) after.delete(name)
        else after.set(name, value)
        return after
      },
      { replace: true },
    )
  return [search.get(name) ?? undefined, write]
}
