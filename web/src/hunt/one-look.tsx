import { lookText, type WrittenLook } from '@nobbet/core'
import { Answers } from './answers'
import { AsDrawn } from './as-drawn'
import type { HuntScreen } from './hunt-screen'

interface OneLookProps {
  screen: HuntScreen
  /** What it is of, as the head above says already. */
  of: string
  see: WrittenLook
  /** It is written down. */
  onDone: () => void
}

/** A look that somebody made of themselves, with its answers. */
export function OneLook({ screen, of, see, onDone }: OneLookProps) {
  return (
    <div className="one-look" data-look={JSON.stringify(see)}>
      <h3>{lookText(screen.circuit, see).replace(`${of}: `, '')}</h3>
      {see.at === 'wiring' && (
        <details>
          <summary>As it is drawn</summary>
          <AsDrawn screen={screen} thing={see.thing} />
        </details>
      )}
      <Answers
        screen={screen}
        see={see}
        onAnswer={(answer) => {
          void screen.writer.add([{ see, found: answer }])
          onDone()
        }}
      />
    </div>
  )
}
