import { onKeyStroke } from '@vueuse/core'
import { useMoves } from './moveStore'

/**
 * Keys between the first of a move and the panel that hears the second: whoever is quick loses none. The panel takes
 * them once it is there.
 */
export function useEarlyMoveKeys(): void {
  const moves = useMoves()
  onKeyStroke(
    (event) => moves.asked !== null && !moves.isHeard && !event.ctrlKey && !event.metaKey && !event.altKey,
    (event) => {
      event.preventDefault()
      event.stopImmediatePropagation()
      if (event.key === 'Escape') moves.close()
      else moves.early.push(event)
    },
  )
}
