/** Common sheets of self-adhesive labels, by their paper and how many go across and down. */
export const LABEL_SHEETS = ['a4-3x8', 'a4-3x7', 'a4-2x7', 'letter-3x10'] as const
export type LabelSheet = (typeof LABEL_SHEETS)[number]
export const LABEL_SHEET_NAMES: Record<LabelSheet, string> = {
  'a4-3x8': 'A4, 3 × 8 labels of 70 × 37 mm',
  'a4-3x7': 'A4, 3 × 7 labels of 63.5 × 38.1 mm',
  'a4-2x7': 'A4, 2 × 7 labels of 99.1 × 38.1 mm',
  'letter-3x10': 'Letter, 3 × 10 labels of 2⅝ × 1 in',
}
