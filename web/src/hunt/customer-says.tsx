import { complaints, complaintWords, type Complaint } from '@nobbet/core'
import type { HuntScreen } from './hunt-screen'

interface CustomerSaysProps {
  screen: HuntScreen
  onSaid: () => void
  children?: React.ReactNode
}

/** What the customer says of each service, in one press. */
export function CustomerSays({ screen, onSaid, children }: CustomerSaysProps) {
  const { circuit, writer, entries } = screen
  const { demands } = circuit.installation.intent
  const said = (demand: string, what: Complaint) =>
    entries.some((entry) => 'says' in entry && entry.says.demand === demand && entry.says.what === what)
  return (
    <>
      <div className="says-head">
        <h2>What does the customer say?</h2>
        {children}
      </div>
      <p className="quiet mb-0">Customers are right three times in four: it is weighed so.</p>
      {demands.map(({ id, name }) => (
        <fieldset key={id}>
          <legend>{name}</legend>
          <div className="things">
            {complaints
              .filter((what) => demands.length > 1 || !needsAnother.has(what))
              .map((what) => (
                <button
                  key={what}
                  type="button"
                  className="thing"
                  data-says={`${id} ${what}`}
                  disabled={said(id, what)}
                  onClick={() => {
                    void writer.add([{ says: { what, demand: id } }])
                    onSaid()
                  }}
                >
                  {complaintWords[what]}
                </button>
              ))}
          </div>
        </fieldset>
      ))}
    </>
  )
}

const needsAnother: ReadonlySet<Complaint> = new Set([
  'only-with-another',
  'goes-off-when-another-is-done',
  'warms-with-another',
])
