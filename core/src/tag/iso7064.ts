/**
 * The check value of ISO/IEC 7064 hybrid systems (MOD N+1,N): finds every single wrong character
 * and nearly every swap of neighbours.
 *
 * @param values the characters as numbers from 0 to `size` − 1, first to last
 * @param size how many characters the alphabet has; `size` + 1 should be a prime
 * @returns the check value, 0 to `size` − 1
 * @throws RangeError for a value outside the alphabet
 * @example
 * checkValue([0, 7, 9, 4], 10) // 5, the standard's MOD 11,10 example
 */
export function checkValue(values: readonly number[], size: number): number {
  let carry = size
  for (const value of values) {
    if (!Number.isInteger(value) || value < 0 || value >= size) throw new RangeError('a value is not in the alphabet')
    const sum = (carry + value) % size || size
    carry = (sum * 2) % (size + 1)
  }
  return (size + 1 - carry) % size
}
