import { useQuery } from '@tanstack/react-query'
import { TriangleAlert } from 'lucide-react'
import { call } from '../api/client'

const words = {
  damaged: 'The server’s data are damaged.',
  full: 'The server’s disk is full.',
  'read-only': 'The server’s data folder cannot be written.',
}

/** Over every view where the server cannot keep what is done: what is recorded stays in this browser until it can. */
export function DataBanner() {
  const { data } = useQuery({
    queryKey: ['health'],
    queryFn: () => call('health'),
    refetchInterval: 20_000,
    retry: false,
  })
  if (!data || data.status === 'ok') return null
  return (
    <div className="offline" role="alert">
      <TriangleAlert size={18} aria-hidden /> <strong>{words[data.status]}</strong> {data.detail} What you do is kept in
      this browser.
    </div>
  )
}
