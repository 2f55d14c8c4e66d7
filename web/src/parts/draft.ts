import { forget, keep, keptJson } from '../remote/device'
import { inject, onScopeDispose, provide, ref, watch, type InjectionKey, type Ref } from 'vue'

/** The drafts of a page. */
export interface Drafts {
  /** Throw away what was kept; those that are told to begin again, with what each began with. */
  readonly ends: Set<(again: boolean) => void>
  /** Whether anything on the page was kept from before. */
  readonly restored: Ref<boolean>
}

const DRAFTS: InjectionKey<Drafts> = Symbol('drafts')

/** The drafts of the page that this is on; those of its own where it is the page. */
export function usePageDrafts(): Drafts {
  const found = inject(DRAFTS, null)
  if (found !== null) return found
  const drafts: Drafts = { ends: new Set(), restored: ref(false) }
  provide(DRAFTS, drafts)
  return drafts
}

const put = (key: string, text: string | null): void => {
  if (text === null) forget(key)
  else void keep(key, text)
}

/** Somebody did something: what a form holds from then on is theirs. */
const HANDS = ['pointerdown', 'keydown', 'input'] as const

/**
 * Keeps what a form holds on the device, so that a reload, a link, Back or a phone that goes dark lose nothing. It ends
 * when the form is logged or left by Cancel; a form that nobody touched keeps nothing.
 *
 * @param key of the form and of what it is about, such as `struck:K9`
 * @param fields what is kept; each holds plain data
 * @returns whether something was kept from before
 */
export function useDraft(key: string, fields: Readonly<Record<string, Ref>>): boolean {
  const drafts = usePageDrafts()
  const name = `undercliff:draft:${key}`
  const now = (): string =>
    JSON.stringify(Object.entries(fields).map(([field, { value }]) => [field, value as unknown]))
  const fill = (values: readonly (readonly [string, unknown])[]): void => {
    for (const [field, value] of values) if (fields[field] !== undefined) fields[field].value = value
  }
  /** What it held when somebody first laid hand on it; null before. */
  let began: string | null = null
  const fresh = now()
  const before = keptJson<[string, unknown][]>(name)
  if (before !== null) {
    fill(before)
    began = fresh
    drafts.restored.value = true
  }
  const touched = (): void => {
    began ??= now()
  }
  for (const hand of HANDS) window.addEventListener(hand, touched, { capture: true })
  const stop = watch(now, (text) => {
    if (began !== null) put(name, text === began ? null : text)
  })
  const end = (again: boolean): void => {
    if (again) fill(JSON.parse(fresh) as [string, unknown][])
    else stop()
    put(name, null)
  }
  drafts.ends.add(end)
  onScopeDispose(() => {
    for (const hand of HANDS) window.removeEventListener(hand, touched, { capture: true })
    drafts.ends.delete(end)
  })
  return before !== null
}
