import { expect, test } from 'vitest'
import { nextTick, ref } from 'vue'
import { heldTexts } from './heldTexts'

test('what nobody touched follows what is known, and what was typed stays', async () => {
  const known = ref({ reserve: '0.30', fee: '12.00' })
  const { texts, overtaken } = heldTexts(() => known.value)
  texts.value.reserve = '0.4'
  known.value = { reserve: '0.30', fee: '15.00' }
  await nextTick()
  expect(texts.value).toEqual({ reserve: '0.4', fee: '15.00' })
  expect(overtaken.value).toEqual({})
  // The same answer again changes nothing either.
  known.value = { ...known.value }
  await nextTick()
  expect(texts.value.reserve).toBe('0.4')
})

test('what somebody else changed under a typed field is told, and neither is lost', async () => {
  const known = ref({ reserve: '0.30' })
  const { texts, overtaken, settle } = heldTexts(() => known.value)
  texts.value.reserve = '0.4'
  known.value = { reserve: '0.35' }
  await nextTick()
  expect(texts.value.reserve).toBe('0.4')
  expect(overtaken.value).toEqual({ reserve: '0.35' })
  known.value = { reserve: '0.40' }
  await nextTick()
  expect(overtaken.value).toEqual({ reserve: '0.40' })
  settle()
  expect(texts.value).toEqual({ reserve: '0.40' })
  expect(overtaken.value).toEqual({})
})

test('what one saved is no longer typed', async () => {
  const known = ref({ reserve: '0.30' })
  const { texts } = heldTexts(() => known.value)
  texts.value.reserve = '0.40'
  known.value = { reserve: '0.40' }
  await nextTick()
  known.value = { reserve: '0.50' }
  await nextTick()
  expect(texts.value.reserve).toBe('0.50')
})
