import type { Item } from '@nobbet/contract'
import { ClipboardPen } from 'lucide-react'
import { Button } from 'react-bootstrap'
import { Link } from 'react-router'
import { v4 as newId } from 'uuid'
import { stampOf, useRecord } from './use-record'

/** Writes what was found elsewhere into the job's record with one press; once it is there, leads to it. */
export function IntoRecord({
  job,
  ...said
}: { job: string } & Pick<Item, 'kind' | 'severity' | 'text' | 'part' | 'evidence'>) {
  const { record, store, visit } = useRecord(job)
  const text = said.text.slice(0, 1000)
  if (record?.items.some((item) => item.text === text))
    return (
      <Link className="btn btn-sm btn-link" to={`/jobs/${job}/visit`}>
        In the record
      </Link>
    )
  const item: Item = {
    ...said,
    text,
    evidence: said.evidence.map((line) => line.slice(0, 300)).slice(0, 60),
    ...stampOf(visit),
  }
  return (
    <Button
      size="sm"
      variant="outline-dark"
      className="d-inline-flex align-items-center gap-1"
      onClick={() => void store.record({ do: 'item', id: newId(), item })}
    >
      <ClipboardPen size={16} aria-hidden /> Into the record
    </Button>
  )
}
