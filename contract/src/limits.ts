/** Most entries in one request. They are written all together or not at all. */
export const MOST_ENTRIES = 50

/** Most rows of a spreadsheet in one import. */
export const MOST_IMPORT_ROWS = 20_000

/** Longest text people may write into a note. */
export const NOTE_LENGTH = 2000

export const PASSWORD_LENGTH = { least: 10, most: 200 } as const
export const PIN_LENGTH = { least: 4, most: 8 } as const
