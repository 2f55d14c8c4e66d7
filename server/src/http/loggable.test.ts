import { expect, test } from 'vitest'
import { loggable } from './loggable'

test('an error is logged by what and where, without the row it quotes', () => {
  const cause = Object.assign(new Error("Duplicate entry 'Ottoline Vane'"), { code: 'ER_DUP_ENTRY' })
  const said = loggable(new Error('Failed query: insert … params: Ottoline Vane', { cause }))
  expect(said).toMatchObject({ type: 'Error', code: 'ER_DUP_ENTRY' })
  expect(said.at.length).toBeGreaterThan(0)
  expect(JSON.stringify(said)).not.toContain('Ottoline')
  expect(loggable('text')).toEqual({ type: 'string', at: [] })
})
