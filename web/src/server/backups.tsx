import type { Restored } from '@nobbet/contract'
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { Button, Form, Modal } from 'react-bootstrap'
import { addressOf, call, errorText } from '../api/client'
import { momentText } from '../drawing/dates'

const sizeText = (bytes: number) => (bytes < 1e6 ? `${Math.ceil(bytes / 1000)} kB` : `${(bytes / 1e6).toFixed(1)} MB`)
const stampNow = () => new Date().toISOString().slice(0, 19).replace(/[:T]/g, '-')

/** What a backup's name tells of how it came about. */
function kindOf(name: string): string {
  if (name.startsWith('day-')) return 'made by itself'
  if (name.startsWith('before-restore-')) return 'what was there before one was brought back'
  if (name.startsWith('before-fresh-')) return 'what was there before a fresh start'
  if (name.startsWith('before-')) return 'before Nobbet was renewed'
  if (name.startsWith('not-restored-')) return 'could not be brought back'
  return name.startsWith('from-') ? 'brought from elsewhere' : 'made by hand'
}

/** Everything to one file and back. */
export function Backups() {
  const queries = useQueryClient()
  const [asked, setAsked] = useState<string>()
  const list = useQuery({ queryKey: ['backups'], queryFn: () => call('listBackups'), refetchInterval: 30_000 })
  const again = () => queries.invalidateQueries({ queryKey: ['backups'] })
  const make = useMutation({
    mutationFn: () => call('makeBackup', { params: { backup: `made-${stampNow()}` }, body: {} }),
    onSettled: again,
  })
  const take = useMutation({
    mutationFn: (file: File) => call('takeBackup', { params: { backup: `from-elsewhere-${stampNow()}` }, body: file }),
    onSettled: again,
  })
  const restore = useMutation({
    mutationFn: (backup: string) => call('restoreBackup', { params: { backup }, body: {} }),
    // All that is shown may be otherwise now.
    onSettled: () => queries.invalidateQueries(),
  })
  const busy = make.isPending || take.isPending || restore.isPending
  const problem = make.error ?? take.error ?? restore.error ?? list.error
  return (
    <section className="sheet server-part" aria-label="Backups">
      <h2>Backups</h2>
      <p>
        On each day that Nobbet is used it makes one by itself, and keeps the last seven. A disk can die: download one
        now and then and keep it elsewhere.
      </p>
      <div className="server-acts">
        <Button disabled={busy} onClick={() => make.mutate()}>
          {make.isPending ? 'Making it' : 'Make a backup now'}
        </Button>
        <label className="btn btn-outline-dark mb-0">
          {take.isPending ? 'Reading it' : 'Bring one from elsewhere'}
          <Form.Control
            type="file"
            className="visually-hidden"
            accept=".sqlite"
            disabled={busy}
            aria-label="Bring a backup from elsewhere"
            onChange={(event) => {
              const input = event.target as HTMLInputElement
              const [file] = input.files ?? []
              if (file) take.mutate(file)
              input.value = ''
            }}
          />
        </label>
      </div>
      {problem && (
        <p role="alert" className="text-danger">
          {errorText(problem)}
        </p>
      )}
      {list.data?.problem && (
        <p role="alert" className="text-danger">
          {list.data.problem}.
        </p>
      )}
      {restore.data && <p role="status">{restoredText(restore.data)}</p>}
      {list.data && (
        <ul className="server-list">
          {list.data.backups.map(({ name, at, bytes }) => (
            <li key={name}>
              <strong>{momentText(at)}</strong>
              <span className="meta">
                {sizeText(bytes)} · {kindOf(name)}
              </span>
              <a className="btn btn-sm btn-outline-dark" href={addressOf('readBackup', { backup: name })} download>
                Download
              </a>
              <Button size="sm" variant="outline-dark" disabled={busy} onClick={() => setAsked(name)}>
                Bring back
              </Button>
            </li>
          ))}
        </ul>
      )}
      {list.data?.backups.length === 0 && <p className="meta">There is none yet.</p>}
      <Modal show={asked !== undefined} onHide={() => setAsked(undefined)} centered>
        <Modal.Body>
          <h2>Put this backup in the place of everything?</h2>
          <p>
            It is read from end to end first. What is there now is kept as a backup of its own, and can be brought back
            the same way. What was recorded since is then not shown any more.
          </p>
          <div className="server-acts">
            <Button
              onClick={() => {
                restore.mutate(asked!)
                setAsked(undefined)
              }}
            >
              Bring it back
            </Button>
            <Button variant="outline-dark" onClick={() => setAsked(undefined)}>
              Leave everything as it is
            </Button>
          </div>
        </Modal.Body>
      </Modal>
    </section>
  )
}

const count = (n: number, one: string) => `${n} ${one}${n === 1 ? '' : 's'}`
const restoredText = ({ jobs, findings, photos, kept }: Restored) =>
  `Brought back: ${count(jobs, 'job')}, ${count(findings, 'finding')}, ${count(photos, 'photo')}.${kept ? ' What was there before is kept in the list below.' : ''}`
