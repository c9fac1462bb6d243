import { Measures } from '../visit/measures'
import { PutBackList } from '../visit/put-back-list'
import { useRecord } from '../visit/use-record'
import type { HuntScreen } from './hunt-screen'

/** What tests have disturbed and nobody has put back yet; each is put back, or left with the day on which that ends. */
export function PutBack({ screen }: { screen: HuntScreen }) {
  const handle = useRecord(screen.job)
  const { finding } = screen.record
  return (
    <>
      {handle.left.length > 0 && (
        <section className="sheet put-back" aria-label="To put back">
          {/* While the hunt goes on the next look matters more. */}
          <details key={String(finding !== undefined)} open={finding !== undefined}>
            <summary>
              <h2>
                To put back: <span className="count">{handle.left.length}</span>
              </h2>
            </summary>
            <PutBackList handle={handle} />
          </details>
        </section>
      )}
      <Measures handle={handle} />
    </>
  )
}
