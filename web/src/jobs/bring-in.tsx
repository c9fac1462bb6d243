import { useRef, useState } from 'react'
import { Button, Modal, ProgressBar } from 'react-bootstrap'
import { Link } from 'react-router'
import { v4 as newId } from 'uuid'
import type { Held, OpenedJob } from './job-file'

const heldWords: Record<Held, string> = {
  new: '',
  begun: 'Part of it is here already: it goes on where it was broken off.',
  here: 'This job is here already, with everything that is in the file.',
  other:
    'This job is here, and is not what the file has. What is here stays; the file can come in beside it, as a copy.',
  deleted: 'This job is in the bin. Bring it back from there, or let the file come in as a copy.',
}

/** A job's file, brought in: what it is, how it stands to what is here, and then as itself or as a copy. */
export function BringIn({ onDone }: { onDone: () => void }) {
  const input = useRef<HTMLInputElement>(null)
  const [picked, setPicked] = useState<{ job: OpenedJob; held: Held }>()
  const [share, setShare] = useState<number>()
  const [problem, setProblem] = useState<string>()
  const [arrived, setArrived] = useState<{ id: string; site: string }>()
  const leave = () => {
    setPicked(undefined)
    setShare(undefined)
    setProblem(undefined)
  }
  const open = async (file: File) => {
    leave()
    setArrived(undefined)
    try {
      const { heldOf, opened } = await import('./job-file')
      const job = await opened(file)
      setPicked({ job, held: await heldOf(job) })
    } catch (failure) {
      setProblem(`“${file.name}” was not brought in: ${(failure as Error).message}.`)
    }
  }
  const bring = async (copy: boolean) => {
    if (!picked) return
    const { asCopy, sent } = await import('./job-file')
    // The same copy again goes on where it was broken off: its ids follow from its own.
    const one = copy ? asCopy(picked.job, newId()) : picked.job
    if (copy) setPicked({ job: one, held: 'begun' })
    setShare(0)
    setProblem(undefined)
    try {
      await sent(one, setShare)
      setArrived({ id: one.file.job, site: one.site })
      leave()
      onDone()
    } catch (failure) {
      setShare(undefined)
      setProblem(`It did not come in whole: ${(failure as Error).message} What arrived stays; press again to go on.`)
    }
  }
  return (
    <>
      <input
        ref={input}
        type="file"
        accept=".zip,application/zip"
        hidden
        aria-label="A job’s file"
        onChange={(event) => {
          const [file] = event.target.files ?? []
          if (file) void open(file)
          event.target.value = ''
        }}
      />
      <Button variant="link" className="px-0 mt-3 me-3" onClick={() => input.current?.click()}>
        Bring a job in
      </Button>
      {arrived && (
        <p className="condition age" role="status">
          <Link to={`/jobs/${arrived.id}/visit`}>“{arrived.site}” is here</Link>
        </p>
      )}
      {problem && !picked && (
        <p className="condition stopped" role="alert">
          {problem}
        </p>
      )}
      {picked && (
        <Modal show onHide={share === undefined ? leave : undefined} centered aria-labelledby="bring-in">
          <Modal.Header closeButton={share === undefined}>
            <Modal.Title id="bring-in">{picked.job.site}</Modal.Title>
          </Modal.Header>
          <Modal.Body>
            <p>
              {picked.job.file.entries.length} log lines, {picked.job.file.photos.length} photos.{' '}
              {heldWords[picked.held]}
            </p>
            {problem && <p role="alert">{problem}</p>}
            {share !== undefined && <ProgressBar now={share * 100} label={`${Math.round(share * 100)} %`} />}
          </Modal.Body>
          <Modal.Footer>
            <Button variant="link" disabled={share !== undefined} onClick={leave}>
              Leave it
            </Button>
            {(picked.held === 'new' || picked.held === 'begun') && (
              <Button disabled={share !== undefined} onClick={() => void bring(false)}>
                Bring it in
              </Button>
            )}
            {picked.held !== 'new' && picked.held !== 'begun' && (
              <Button disabled={share !== undefined} onClick={() => void bring(true)}>
                Bring it in as a copy
              </Button>
            )}
          </Modal.Footer>
        </Modal>
      )}
    </>
  )
}
