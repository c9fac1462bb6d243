import { notIsolatedText, type Circuit } from '@nobbet/core'

/** Said where dead tests would be asked for and are not, since nothing here can be called isolated. */
export function NotIsolated({ circuit }: { circuit: Circuit }) {
  const text = notIsolatedText(circuit)
  return text === undefined ? null : (
    <p className="not-isolated" role="note">
      {text}
    </p>
  )
}
