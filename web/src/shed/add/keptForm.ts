import { useSessionStorage } from '@vueuse/core'
import { ref, type Ref } from 'vue'

/** A form of a page that is kept while its tab is open, through a reload and through leaving it. */
export interface KeptForm<T> {
  readonly form: Ref<T>
  /** Whether it stands as somebody left it, and not empty. */
  readonly returned: Ref<boolean>
  /** Empties it: nothing of the last thing that was added is a fact of the next. */
  readonly beginAgain: () => void
}

/** @param empty the form before anybody said anything; it holds plain data */
export function useKeptForm<T extends object>(key: string, empty: T): KeptForm<T> {
  const form = useSessionStorage<T>(key, { ...empty }, { mergeDefaults: true })
  const returned = ref(JSON.stringify(form.value) !== JSON.stringify(empty))
  const beginAgain = (): void => {
    form.value = { ...empty }
    returned.value = false
  }
  return { form, returned, beginAgain }
}
