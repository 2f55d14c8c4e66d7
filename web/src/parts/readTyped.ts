import { readLength, sayRefusal, type Um } from '@undercliff/core'

/**
 * A length as it was typed into a field.
 *
 * @param name of the field, for saying what is wrong
 * @param bare unit of a number that names none
 * @returns micrometres, null for an empty field, or the sentence that says why it cannot be read
 */
export function readTyped(text: string, name: string, bare: 'mm' | 'inch'): Um | string | null {
  if (text.trim() === '') return null
  const reading = readLength(text, bare)
  return reading.ok ? reading.um : `${name}: ${sayRefusal(reading)}`
}
