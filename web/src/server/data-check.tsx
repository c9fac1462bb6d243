import { CircleCheck, TriangleAlert } from 'lucide-react'
import { useMutation, useQueryClient } from '@tanstack/react-query'
import { Button } from 'react-bootstrap'
import { call, errorText } from '../api/client'

/** Reads everything, on request, and says whether it is sound. */
export function DataCheck() {
  const queries = useQueryClient()
  const check = useMutation({
    mutationFn: () => call('checkData'),
    onSettled: () => queries.invalidateQueries({ queryKey: ['health'] }),
  })
  return (
    <section className="sheet server-part" aria-label="Data">
      <h2>Data</h2>
      <div className="server-acts">
        <Button variant="outline-dark" disabled={check.isPending} onClick={() => check.mutate()}>
          {check.isPending ? 'Reading everything' : 'Check all data'}
        </Button>
        {check.data && (
          <span role="status">
            {check.data.sound ? <CircleCheck size={18} aria-hidden /> : <TriangleAlert size={18} aria-hidden />}{' '}
            <strong>{check.data.sound ? 'Sound.' : 'Damaged.'}</strong> {check.data.detail}
          </span>
        )}
        {check.error && <span role="alert">{errorText(check.error)}</span>}
      </div>
    </section>
  )
}
