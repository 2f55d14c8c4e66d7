import { customType } from 'drizzle-orm/mysql-core'

/** A UTC instant: `DATETIME(3)` in the database, ISO text with milliseconds and `Z` in code. */
export const instant = customType<{ data: string; driverData: string | Date }>({
  dataType: () => 'datetime(3)',
  toDriver: (value) => value.replace('T', ' ').replace('Z', ''),
  fromDriver: (value) =>
    value instanceof Date ? value.toISOString() : `${value.replace(' ', 'T').padEnd(23, '.000')}Z`,
})

/** JSON that MariaDB checks on writing and hands back as text. */
export const jsonText = customType<{ data: unknown; driverData: string }>({
  dataType: () => 'json',
  toDriver: (value) => JSON.stringify(value),
  fromDriver: (value) => (typeof value === 'string' ? (JSON.parse(value) as unknown) : value),
})

/** An id made on a device: 8 to 36 plain characters, compared byte for byte. */
export const identifier = customType<{ data: string; driverData: string }>({
  dataType: () => 'varchar(36) character set ascii collate ascii_bin',
})

/** Bytes of up to 16 MB. */
export const mediumBlob = customType<{ data: Buffer }>({
  dataType: () => 'mediumblob',
})
