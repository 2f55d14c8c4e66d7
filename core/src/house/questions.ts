import { FILE_SCHOOLS } from '../geometry'
import type { HouseRules } from './rules'
import { BENCH_SCHOOLS, GUIDE_SCHOOLS, SIDE_PLATE_SCHOOLS, UNEVEN_SCHOOLS, type Schools } from './schools'

/** The questions on which crews disagree, and the schools of each by their ids. Common practice. */
export const SCHOOL_IDS = {
  uneven: UNEVEN_SCHOOLS,
  gauges: ['constant', 'progressive'],
  file: FILE_SCHOOLS,
  chisel: ['thirtyFlat', 'twentyFiveFlat', 'thirtyDown', 'twentyFiveDown'],
  sidePlate: SIDE_PLATE_SCHOOLS,
  guide: GUIDE_SCHOOLS,
  when: ['everyTank', 'everySecondTank', 'onSigns', 'sparesToBench'],
  bench: BENCH_SCHOOLS,
} as const

/** A question on which crews disagree. */
export type Question = keyof typeof SCHOOL_IDS
export const QUESTIONS = Object.keys(SCHOOL_IDS) as readonly Question[]

/** Something for every question. `byQuestion((question) => question.length).when // 4` */
export const byQuestion = <T>(of: (question: Question) => T): Record<Question, T> =>
  Object.fromEntries(QUESTIONS.map((question) => [question, of(question)])) as Record<Question, T>

/** A school of one question. */
export type SchoolId<Q extends Question = Question> = (typeof SCHOOL_IDS)[Q][number]

/** What following a school sets. */
export type SchoolSets = Partial<Schools> & { readonly touchUpTanks?: number }

/** What each school sets: an answer to its question, and nothing that another question is about. */
export const SCHOOL_SETS: { readonly [Q in Question]: Readonly<Record<SchoolId<Q>, SchoolSets>> } = {
  uneven: {
    matchShortest: { unevenSchool: 'matchShortest' },
    sameStrokes: { unevenSchool: 'sameStrokes' },
    worstSetsCount: { unevenSchool: 'worstSetsCount' },
    extraOnBad: { unevenSchool: 'extraOnBad' },
    ownGauges: { unevenSchool: 'ownGauges' },
  },
  gauges: {
    constant: { gaugeSchool: 'constant' },
    progressive: { gaugeSchool: 'progressive' },
  },
  file: { oneSize: { fileSchool: 'oneSize' }, largerThenSmaller: { fileSchool: 'largerThenSmaller' } },
  chisel: {
    thirtyFlat: { chiselAngleDeg: 30, chiselDownAngleDeg: 0 },
    twentyFiveFlat: { chiselAngleDeg: 25, chiselDownAngleDeg: 0 },
    thirtyDown: { chiselAngleDeg: 30, chiselDownAngleDeg: 10 },
    twentyFiveDown: { chiselAngleDeg: 25, chiselDownAngleDeg: 10 },
  },
  sidePlate: {
    moreHook: { sidePlate: 'moreHook' },
    neutral: { sidePlate: 'neutral' },
    lessHook: { sidePlate: 'lessHook' },
    third: { sidePlate: 'third' },
  },
  guide: {
    topPlate: { guide: 'topPlate' },
    chassis: { guide: 'chassis' },
    twoInOne: { guide: 'twoInOne' },
    jig: { guide: 'jig' },
    freehand: { guide: 'freehand' },
  },
  when: {
    everyTank: { when: 'byTanks', where: 'field', touchUpTanks: 1 },
    everySecondTank: { when: 'byTanks', where: 'field', touchUpTanks: 2 },
    onSigns: { when: 'onSigns', where: 'field' },
    sparesToBench: { when: 'byTanks', where: 'bench', touchUpTanks: 2 },
  },
  bench: {
    fileForRoutine: { bench: 'fileForRoutine' },
    wheelAtBench: { bench: 'wheelAtBench' },
    cheapest: { bench: 'cheapest' },
  },
}

/** One school: which it is and what it sets. */
export interface School {
  readonly id: SchoolId
  readonly sets: SchoolSets
}

/** The schools of a question, in the order in which they are shown. */
export const schoolsOf = (question: Question): readonly School[] =>
  SCHOOL_IDS[question].map((id) => ({ id, sets: (SCHOOL_SETS[question] as Record<SchoolId, SchoolSets>)[id] }))

/** Whether a school is the one that a crew follows. */
export const followsSchool = (rules: HouseRules, { sets }: Pick<School, 'sets'>): boolean =>
  (Object.keys(sets) as (keyof SchoolSets)[]).every((field) => rules[field] === sets[field])
