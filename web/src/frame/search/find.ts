import {
  ACTION_WORDS,
  CUTTER_TYPE_NAMES,
  QUESTION_WORDS,
  QUESTIONS,
  SCHOOL_WORDS,
  sayPlace,
  sayWaitingSide,
  type DateOrder,
  specLine,
  type LoopCard,
} from '@undercliff/core'
import type { Person, Saw } from '@undercliff/contract'
import MiniSearch from 'minisearch'
import type { RouteLocationRaw } from 'vue-router'
import { GLOSSARY } from '../../parts/glossary'
import { SCREENS, type ScreenName } from '../places'

/** What kinds of thing can be found, in the order in which they are shown where they match alike. */
type FoundKind = 'loop' | 'saw' | 'person' | 'screen' | 'rule' | 'word'

/** One thing that can be found, with what it is and where it is. */
export interface Found {
  readonly kind: FoundKind
  readonly name: string
  readonly about: string
  readonly to: RouteLocationRaw
}

/** What there is to be found in. */
export interface Sought {
  readonly loops: readonly LoopCard[]
  readonly saws: readonly Saw[]
  readonly people: readonly Person[]
  readonly isLead: boolean
  readonly dates: DateOrder
}

interface Document extends Found {
  readonly id: number
  /** Further words that it is found by. */
  readonly words: string
}
type Unnumbered = Omit<Document, 'id'>

const loopsOf = ({ loops, saws, dates }: Sought): Unnumbered[] => {
  const sawNames = new Map(saws.map(({ id, nickname }) => [id, nickname]))
  return loops.map((loop) => ({
    kind: 'loop',
    name: loop.tag,
    about: loop.retired
      ? 'retired'
      : [
          ...(loop.fitForUse ? [] : ['not fit']),
          sayWaitingSide(loop.reason) ?? ACTION_WORDS[loop.action],
          sayPlace(loop.place, (id) => sawNames.get(id) ?? '', dates),
        ].join(' · '),
    to: { name: 'loop', params: { tag: loop.tag } },
    words: [specLine(loop.spec), CUTTER_TYPE_NAMES[loop.spec.cutterType], 'loop chain'].join(' '),
  }))
}

const sawsOf = ({ saws }: Sought): Unnumbered[] =>
  saws.map(({ nickname }) => ({
    kind: 'saw',
    name: nickname,
    about: 'saw',
    to: { name: 'saw', params: { nickname } },
    words: 'saw bar sprocket',
  }))

const peopleOf = ({ people }: Sought): Unnumbered[] =>
  people.map(({ name, role }) => ({ kind: 'person', name, about: role, to: { name: 'crew' }, words: 'person people' }))

const screensOf = ({ isLead }: Sought): Unnumbered[] =>
  (Object.keys(SCREENS) as ScreenName[])
    .filter((name) => name !== 'nowhere' && SCREENS[name].of === undefined && (isLead || SCREENS[name].lead !== true))
    .map((name) => ({
      kind: 'screen',
      name: SCREENS[name].name,
      about: 'screen',
      to: { name } as RouteLocationRaw,
      words: SCREENS[name].words ?? '',
    }))

const rulesOf = (): Unnumbered[] =>
  QUESTIONS.map((question) => ({
    kind: 'rule',
    name: QUESTION_WORDS[question],
    about: 'house rule',
    to: { name: 'house', hash: `#q-${question}` },
    words: Object.values(SCHOOL_WORDS[question] as Record<string, { name: string }>)
      .map(({ name }) => name)
      .join(' '),
  }))

const wordsOf = (): Unnumbered[] =>
  GLOSSARY.flatMap(({ words }) =>
    words.map(({ word, meaning, id }) => ({
      kind: 'word',
      name: word,
      about: meaning,
      to: { name: 'glossary', hash: `#${id}` },
      words: '',
    })),
  )

const KINDS: readonly FoundKind[] = ['loop', 'saw', 'person', 'screen', 'rule', 'word']

/** 0 where it is the name, 1 where it begins it, 2 where it stands elsewhere. */
function nearness({ name }: Found, text: string): number {
  const [whole, begun] = [name.toLowerCase(), text.toLowerCase()]
  return whole === begun ? 0 : whole.startsWith(begun) ? 1 : 2
}
/** Names that begin alike: kind by kind, K2 before K10. What only mentions it stays in the order of its worth. */
const inOrder = (one: Found, other: Found, text: string): number =>
  nearness(one, text) === 2
    ? 0
    : KINDS.indexOf(one.kind) - KINDS.indexOf(other.kind) || one.name.localeCompare(other.name, 'en', { numeric: true })

/** Finds loops (retired ones too), saws, people, screens, house rules and words, by the beginnings of what is typed. */
export class Finder {
  private readonly documents: readonly Document[]
  private readonly index = new MiniSearch<Document>({
    fields: ['name', 'words', 'about'],
    searchOptions: {
      prefix: true,
      fuzzy: (term) => (term.length > 4 ? 0.2 : false),
      boost: { name: 6, words: 2 },
      combineWith: 'AND',
    },
  })

  constructor(sought: Sought) {
    this.documents = [
      ...loopsOf(sought),
      ...sawsOf(sought),
      ...peopleOf(sought),
      ...screensOf(sought),
      ...rulesOf(),
      ...wordsOf(),
    ].map((document, id) => ({ ...document, id }))
    this.index.addAll(this.documents)
  }

  /**
   * What matches, the best first: for `k3` the loop of that tag. The screens where nothing is typed.
   */
  find(typed: string, most = 12): readonly Found[] {
    const text = typed.trim()
    if (text === '') return this.documents.filter(({ kind }) => kind === 'screen').slice(0, most)
    // The first letters of a tag or a name are no word of a meaning.
    const fields = text.length < 3 ? ['name', 'words'] : ['name', 'words', 'about']
    return this.index
      .search(text, { fields })
      .flatMap(({ id }) => this.documents[id as number] ?? [])
      .sort((one, other) => nearness(one, text) - nearness(other, text) || inOrder(one, other, text))
      .slice(0, most)
  }
}
