import type { RouteLocationNormalizedLoaded, TypesConfig } from 'vue-router'

/** Names of the screens, as the router has them. */
export type ScreenName = keyof TypesConfig['RouteNamedMap']

/** The places of the working day, in its order. Rooms that are still to be built are not among them. */
export const PLACES = [
  { id: 'shed', name: 'Shed', key: 'S', opens: 'shed' },
  { id: 'wood', name: 'Wood', key: 'W', opens: 'wood' },
  { id: 'bench', name: 'Bench', key: 'B', opens: 'triage' },
  { id: 'learn', name: 'Learn', key: 'L', opens: 'wear' },
  { id: 'house', name: 'House', key: 'H', opens: 'crew' },
] as const satisfies readonly { id: string; name: string; key: string; opens: ScreenName }[]

type PlaceId = (typeof PLACES)[number]['id']

/** What a screen is for whoever looks for it. */
export interface ScreenOf {
  readonly place: PlaceId
  readonly name: string
  /** One that belongs to a loop or a saw is reached from there; the others can be opened from anywhere. */
  readonly of?: 'loop' | 'saw'
  readonly lead?: true
  /** Other words that people look for it by. */
  readonly words?: string
}

export const SCREENS: Readonly<Record<ScreenName, ScreenOf>> = {
  shed: { place: 'shed', name: 'Shed', words: 'overview saws loops chains list' },
  loop: { place: 'shed', name: 'Loop', of: 'loop' },
  spec: { place: 'shed', name: 'What it is', of: 'loop' },
  saw: { place: 'shed', name: 'Saw', of: 'saw' },
  addLoop: { place: 'shed', name: 'Add a loop', lead: true, words: 'new chain register' },
  addSaw: { place: 'shed', name: 'Add a saw', lead: true, words: 'new bar register' },
  identify: { place: 'shed', name: 'Which chain is this?', words: 'identify pitch gauge unknown measure rivets' },
  scan: { place: 'shed', name: 'Scan a tag', words: 'camera code QR' },
  tags: { place: 'shed', name: 'Print tags', words: 'labels QR code sheet paper' },
  wood: { place: 'wood', name: 'In the wood', words: 'field out there tank touched up struck swap gloves' },
  signs: { place: 'wood', name: 'What it tells', of: 'loop' },
  card: { place: 'wood', name: 'How to touch up', of: 'loop' },
  triage: { place: 'bench', name: 'Triage', words: 'queue due work tonight verdicts accept' },
  tools: { place: 'bench', name: 'Tools', words: 'files wheels grinder plates caliper vise stock packs kit' },
  caliper: { place: 'bench', name: 'Caliper stand-in', words: 'simulator serial cable demo' },
  jobSheet: { place: 'bench', name: 'Job sheet', of: 'loop' },
  decide: { place: 'bench', name: 'Decide', of: 'loop' },
  measure: { place: 'bench', name: 'Measure', of: 'loop' },
  sharpened: { place: 'bench', name: 'Log a sharpening', of: 'loop' },
  sharpen: { place: 'bench', name: 'Sharpen step by step', of: 'loop' },
  ran: { place: 'bench', name: 'Log tanks', of: 'loop' },
  struck: { place: 'bench', name: 'Log a strike', of: 'loop' },
  inspected: { place: 'bench', name: 'Log an inspection', of: 'loop' },
  gaugesLowered: { place: 'bench', name: 'Log gauges lowered', of: 'loop' },
  retire: { place: 'bench', name: 'Retire', of: 'loop', lead: true },
  wear: { place: 'learn', name: 'What wears', words: 'statistics strokes metal people survival curves' },
  glossary: { place: 'learn', name: 'Words', words: 'glossary terms meaning dictionary' },
  crew: { place: 'house', name: 'House', words: 'crew people sign-in units backup export profiles millimetres inches' },
  phones: {
    place: 'house',
    name: 'Phones',
    words: 'device certificate QR code install home screen https secure address',
  },
  house: { place: 'house', name: 'House rules', words: 'settings limits prices currency files gauges guides schools' },
  import: { place: 'house', name: 'Bring in a spreadsheet', lead: true, words: 'import CSV XLSX table list' },
  me: { place: 'house', name: 'My page', words: 'password PIN sessions sign out account' },
  nowhere: { place: 'shed', name: 'Nothing here' },
}

/** The screen that a name is of; null where it is none, as before the first page. */
export const screenOf = (name: unknown): ScreenOf | null =>
  typeof name === 'string' && name in SCREENS ? SCREENS[name as ScreenName] : null

/** What a page is called, in the browser's tab and when it is announced. */
export function titleOf({ name, params }: Pick<RouteLocationNormalizedLoaded, 'name' | 'params'>): string {
  const screen = screenOf(name)
  if (screen === null) return ''
  const { tag, nickname } = params as Partial<Record<string, string>>
  const subject = tag ?? nickname ?? ''
  if (subject === '') return screen.name
  return name === 'loop' || name === 'saw' ? subject : `${subject} · ${screen.name}`
}
