import { computed, ref, watch, type ComputedRef, type Ref } from 'vue'

type Texts = Readonly<Record<string, string>>

/** The texts of a form that begins with what is known. */
export interface HeldTexts {
  readonly texts: Ref<Record<string, string>>
  /** What is known now of the fields that somebody typed into, and somebody else changed meanwhile. */
  readonly overtaken: ComputedRef<Texts>
  /** The form is done with: it shows what is known, and nothing of it counts as typed. */
  readonly settle: () => void
}

/**
 * A form over what the shed knows: a field that nobody touched follows it, one that was typed into stays as it was
 * typed, however often the shed answers anew.
 */
export function heldTexts(known: () => Texts): HeldTexts {
  const began = ref<Texts>(known())
  const now = ref<Texts>(began.value)
  const texts = ref<Record<string, string>>({ ...began.value })
  const typed = (field: string): boolean => texts.value[field] !== began.value[field]

  function settle(): void {
    now.value = known()
    began.value = now.value
    texts.value = { ...now.value }
  }
  watch(known, (next) => {
    const held = Object.keys(texts.value).filter((field) => typed(field) && texts.value[field] !== next[field])
    now.value = next
    // A field that is held began with what it began with: what is typed back there follows again.
    began.value = { ...next, ...Object.fromEntries(held.map((field) => [field, began.value[field] ?? ''])) }
    texts.value = { ...next, ...Object.fromEntries(held.map((field) => [field, texts.value[field] ?? ''])) }
  })
  const overtaken = computed(() =>
    Object.fromEntries(
      Object.entries(now.value).filter(([field, text]) => typed(field) && text !== began.value[field]),
    ),
  )
  return { texts, overtaken, settle }
}
