import type { Entry, HouseRules, LoopCard, LengthPreference, SawFit } from '@undercliff/core'

export interface Saw extends SawFit {
  readonly id: string
  readonly nickname: string
}

export type NewSaw = Saw

export interface Person {
  readonly id: string
  readonly name: string
}

export interface Crew {
  readonly id: string
  readonly name: string
  readonly lengths: LengthPreference
  readonly rules: HouseRules
}

/** Answer of `GET /api/shed`: everything the whole-shed screen draws. */
export interface ShedAnswer {
  readonly crew: Crew
  readonly people: readonly Person[]
  readonly saws: readonly Saw[]
  readonly loops: readonly LoopCard[]
}

/** Answer of `GET /api/loops/:id`: the loop's whole log, from which the device folds its state. */
export interface LoopAnswer {
  readonly loopId: string
  readonly entries: readonly Entry[]
}

/** Answer of `POST /api/entries`: the entries as they stand in the log now. */
export interface EntriesAnswer {
  readonly entries: readonly Entry[]
}
