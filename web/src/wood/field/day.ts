import { CONDITION_WORDS, type Conditions, type Wood } from '@undercliff/core'
import { keptRef } from '../../remote/keptRef'

/** What the work is in today: said once, and it stays until somebody says otherwise. */
export interface Day {
  readonly conditions: Conditions
  readonly wood: Wood
}

/** The day that it is in the wood, kept on the device. */
export const useDay = () => keptRef<Day>('undercliff:day', { conditions: 'clean', wood: 'ordinary' })

/** The day in a few words. `sayDayOf({ conditions: 'gritty', wood: 'hard' }) // 'gritty bark, hard'` */
export const sayDayOf = ({ conditions, wood }: Day): string =>
  wood === 'ordinary' ? CONDITION_WORDS[conditions] : `${CONDITION_WORDS[conditions]}, ${wood}`
