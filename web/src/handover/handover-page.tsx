import { basisText, nobodyLooked, verdictText } from '@nobbet/core'
import { FileText, Printer } from 'lucide-react'
import { useMemo, useState } from 'react'
import { Button, Form } from 'react-bootstrap'
import { Link, useParams, useSearchParams } from 'react-router'
import { errorText } from '../api/client'
import { dayText, momentText } from '../drawing/dates'
import { download, fileStem } from '../shell/download'
import { Failed, Loading } from '../shell/notes'
import { usePhotosOf } from '../shell/use-photos-of'
import { useJob } from '../store/use-job'
import { ownName } from '../store/who'
import { useRecord } from '../visit/use-record'
import { useVerdict } from '../workers/use-verdict'
import { customerReport } from './customer-report'
import { engineerReport } from './engineer-report'
import { paperPhoto } from './paper-photo'
import type { Block, ReportPhoto } from './report'
import { ReportView } from './report-view'
import { Signature } from './signature'

const kinds = { customer: 'For the customer', engineer: 'For the next engineer' } as const
type Kind = keyof typeof kinds

/** What is handed over: one report for who lives there, one for who comes next; on the page, printed, or as PDF. */
export function HandoverPage() {
  const { job = '' } = useParams()
  const { state, error, store } = useJob(job)
  if (error) return <Failed error={error} retry={store.again} />
  if (!state) return <Loading what="the report" />
  return <Handover job={job} />
}

function Handover({ job }: { job: string }) {
  const [search, setSearch] = useSearchParams()
  const kind: Kind = search.get('for') === 'engineer' ? 'engineer' : 'customer'
  const { state, record, store } = useRecord(job)
  const { photos: all } = usePhotosOf(job)
  const asked = search.get('visit') ?? ''
  const visits = useMemo(() => record?.visits ?? [], [record])
  const last = visits.at(-1)?.id
  const visit = asked === 'all' ? undefined : visits.some(({ id }) => id === asked) ? asked : last
  const verdict = useVerdict(kind === 'engineer' ? state?.document.wiring : undefined)
  const [busy, setBusy] = useState(false)
  const [problem, setProblem] = useState<string>()
  const [signing, setSigning] = useState(false)
  const { findings, known, states } = verdict
  const photos = useMemo(
    () =>
      all
        .filter((photo) => kind === 'engineer' || visit === undefined || !photo.visit || photo.visit === visit)
        .map(({ id, image, caption, spot }): ReportPhoto => ({ id, image, caption, ...(spot && { spot }) })),
    [all, kind, visit],
  )
  const blocks = useMemo((): Block[] => {
    if (!state || !record) return []
    if (kind === 'customer')
      return customerReport({ state, record, photos, dayOf: (iso) => dayText(new Date(iso)) }, visit)
    const words = findings &&
      known &&
      states && {
        text: nobodyLooked(known)
          ? `Assumed wiring. ${verdictText({ findings, known, states })}`
          : verdictText({ findings, known, states }),
        basis: basisText(known, states),
      }
    return engineerReport({ state, record, photos, dayOf: dayOrMoment }, words)
  }, [state, record, photos, kind, visit, findings, known, states])
  if (!state || !record) return null
  const { site, engineer } = state.document.brief
  const set = (change: Record<string, string | undefined>) => {
    const next = new URLSearchParams(search)
    for (const [key, value] of Object.entries(change)) {
      if (value === undefined) next.delete(key)
      else next.set(key, value)
    }
    setSearch(next, { replace: true })
  }
  const ready = kind === 'customer' || states !== undefined || verdict.error !== null || verdict.stopped
  const pdf = async () => {
    setBusy(true)
    setProblem(undefined)
    try {
      const withPhotos = await Promise.all(
        blocks.map(async (block) =>
          block.is === 'photos' ? { ...block, photos: await Promise.all(block.photos.map(paperPhoto)) } : block,
        ),
      )
      const { reportPaper } = await import('../paper/paper')
      const heading = {
        job: site,
        revision: 'The wiring as left',
        date: dayText(new Date()),
        by: ownName() || engineer || 'somebody who has given no name',
      }
      const made = await reportPaper(withPhotos, heading, kinds[kind])
      download(`${fileStem(site)}-${kind}.pdf`, new Uint8Array(made), 'application/pdf')
    } catch (failure) {
      setProblem(`The PDF was not made. ${errorText(failure as Error)}`)
    } finally {
      setBusy(false)
    }
  }
  const signed = visits.find(({ id }) => id === (visit ?? last))
  return (
    <main className="page handover">
      <h1 className="visually-hidden">Handover</h1>
      <div className="handover-head no-print">
        <div className="knob" role="group" aria-label="For whom">
          {(Object.keys(kinds) as Kind[]).map((one) => (
            <button
              key={one}
              className={one === kind ? 'on' : ''}
              aria-pressed={one === kind}
              onClick={() => set({ for: one === 'customer' ? undefined : one })}
            >
              {kinds[one]}
            </button>
          ))}
        </div>
        {kind === 'customer' && visits.length > 1 && (
          <Form.Select
            aria-label="Of which visit"
            value={visit ?? 'all'}
            onChange={(event) => set({ visit: event.target.value })}
          >
            {visits.map(({ id, at, why }) => (
              <option key={id} value={id}>
                {momentText(at)} {why}
              </option>
            ))}
            <option value="all">All visits</option>
          </Form.Select>
        )}
        <span className="buttons">
          <Button disabled={busy || !ready} onClick={() => void pdf()}>
            <FileText size={18} aria-hidden /> {busy ? 'Making it' : ready ? 'As PDF' : 'Going through all states'}
          </Button>
          <Button variant="outline-primary" onClick={() => window.print()}>
            <Printer size={18} aria-hidden /> Print
          </Button>
          <Link className="btn btn-link" to={`/jobs/${job}/visit`}>
            Back to the visit
          </Link>
        </span>
      </div>
      {problem && (
        <p role="alert" className="refused">
          {problem}
        </p>
      )}
      {visits.length === 0 && (
        <p className="sheet panel-note no-print">
          No visit was recorded, so the report has little to say. What is written under Visit stands here by itself.
        </p>
      )}
      <ReportView blocks={blocks} />
      {signed && (
        <div className="no-print handover-sign">
          {signing ? (
            <Signature
              name={signed.signed?.name ?? ''}
              onSign={(name, strokes) => {
                setSigning(false)
                void store.record({ do: 'sign', visit: signed.id, signed: { name, strokes } })
              }}
            />
          ) : (
            <Button variant="outline-dark" onClick={() => setSigning(true)}>
              {signed.signed ? 'Sign again' : 'Sign on the screen'}
            </Button>
          )}
          {signed.signed && !signing && (
            <Button variant="link" onClick={() => void store.record({ do: 'sign', visit: signed.id, signed: null })}>
              Take the signature out
            </Button>
          )}
        </div>
      )}
    </main>
  )
}

/** A day alone, as temporary measures have it; a moment with its time. */
const dayOrMoment = (iso: string): string => (iso.length === 10 ? dayText(new Date(iso)) : momentText(iso))
