import { lookText, type WrittenLook } from '@nobbet/core'
import { Answers } from './answers'
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
      <Answers
        screen={screen}
        see={see}
        folded
        onAnswer={(answer) => {
          void screen.writer.add([{ see, found: answer }])
          onDone()
        }}
      />
    </div>
  )
}
