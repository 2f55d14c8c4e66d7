/** A lead may do everything; a sawyer logs work. */
export const ROLES = ['lead', 'sawyer'] as const
export type Role = (typeof ROLES)[number]
