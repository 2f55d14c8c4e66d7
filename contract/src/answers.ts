import type {
  CrewProfile,
  CrewWear,
  DateOrder,
  Entry,
  Hand,
  HouseRules,
  KitItem,
  LengthPreference,
  LoopCard,
  Role,
  Gone,
  SawDue,
  SawEntry,
  SawFit,
  SawState,
  TankHours,
  Tension,
  Um,
} from '@undercliff/core'
import type { PhotoAbout } from './photos'

/** A saw as it is added. */
export interface NewSaw extends SawFit {
  readonly id: string
  readonly nickname: string
}

/** A saw in the shed: what its present bar and sprocket take, and what is due on them. */
export interface Saw extends NewSaw {
  readonly due: readonly SawDue[]
  readonly grooveWidthUm: Um | null
  /** Not here to be worked with; null while it is. */
  readonly gone: Gone | null
  /** When the tension was last looked at; null where nobody has. */
  readonly tension: Tension | null
  /** What a tank comes to in hours. */
  readonly tankHours: TankHours
  /** Loops that went on since its bar was last turned. */
  readonly unturned: number
}

export interface Person {
  readonly id: string
  readonly name: string
  readonly role: Role
  /** The side on which they say that their hand bites less. */
  readonly weakSide?: Hand | null
  /** They left the crew: what they did stays theirs. */
  readonly gone?: boolean
}

export interface Crew {
  readonly id: string
  readonly name: string
  readonly lengths: LengthPreference
  readonly dates: DateOrder
  readonly rules: HouseRules
  /** Whether it is the crew that ships for trying things out; its screens offer the stand-in scanner. */
  readonly demo: boolean
}

/** Answer of `GET /api/shed`: everything the whole-shed screen draws. */
export interface ShedAnswer {
  /** Where to ask on from; null where it was put together from a backup or on a device. */
  readonly place: string | null
  readonly crew: Crew
  readonly people: readonly Person[]
  readonly saws: readonly Saw[]
  readonly profiles: readonly CrewProfile[]
  /** What the crew sharpens and measures with. */
  readonly kit: readonly KitItem[]
  /** What is known of the crew's photographs; each picture is asked for by itself. */
  readonly photos: readonly PhotoAbout[]
  readonly loops: readonly LoopCard[]
}

/** Answer of `GET /api/loops/:id`: the loop's whole log, from which the device folds its state. */
export interface LoopAnswer {
  readonly loopId: string
  readonly entries: readonly Entry[]
}

/** Answer of `GET /api/logs?since=…`: what was written since a place, for devices that keep every log. */
export interface LogsAnswer {
  readonly entries: readonly Entry[]
  /** Where to go on from. */
  readonly place: string
  /** Whether there is more to read at once. */
  readonly more: boolean
}

/** Answer of `POST /api/entries`: the entries as they stand in their logs now, and what they changed. */
export interface EntriesAnswer {
  readonly entries: readonly (Entry | SawEntry)[]
  /** Of every loop that the entries are of, so that the whole shed need not be asked for anew. */
  readonly cards: readonly LoopCard[]
  /** Saws on which something may have changed: by their own entries, or by the loops that run on them. */
  readonly saws: readonly Saw[]
}

/** Answer of `GET /api/saws/:id`: a saw as it stands and its log. */
export interface SawAnswer {
  readonly saw: NewSaw
  readonly state: SawState
  readonly entries: readonly SawEntry[]
}

/** What an import wrote. */
export interface ImportAnswer {
  readonly loops: number
  readonly saws: number
  readonly entries: number
}

/** Answer of `GET /api/wear`: what all of a crew's loops have shown. */
export type WearAnswer = CrewWear
