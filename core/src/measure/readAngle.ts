/** No top plate is filed to a greater angle, degrees. */
export const MOST_TOP_PLATE_DEG = 50

const ANGLE = /^(\d{1,2}(?:[.,]\d)?)\s*(°|degrees?|deg|d)?$/i

/**
 * A top plate angle that somebody read, in degrees; null where a text says none. A bare number is one only where an
 * angle was asked for: elsewhere it is a length.
 *
 * @param asked whether an angle was asked for
 * @example
 * readAngle('32°') // 32
 * readAngle('32') // null
 * readAngle('32', true) // 32
 */
export function readAngle(text: string, asked = false): number | null {
  const [, figure, sign] = ANGLE.exec(text.trim()) ?? []
  if (figure === undefined || (sign === undefined && !asked)) return null
  const deg = Number(figure.replace(',', '.'))
  return deg <= MOST_TOP_PLATE_DEG ? deg : null
}
