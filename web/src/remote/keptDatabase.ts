import { openDB, type DBSchema, type IDBPDatabase, type OpenDBCallbacks } from 'idb'

/** A database of this device's for what is too large to be held in memory. */
export interface KeptDatabase<S extends DBSchema> {
  /** It, opened when it is first asked for and again after it was taken away; null where the browser has none. */
  readonly get: () => Promise<IDBPDatabase<S> | null>
  /** For tests: as if the page had just been opened. */
  readonly close: () => Promise<void>
}

/**
 * A database under a name, as a version of the application lays it out.
 *
 * @param upgrade makes what this version has and the one before had not
 * @param takenAway called when it was taken from under an open page: wiped, or wanted by a later version
 */
export function keptDatabase<S extends DBSchema>(
  name: string,
  version: number,
  upgrade: NonNullable<OpenDBCallbacks<S>['upgrade']>,
  takenAway: () => void = () => undefined,
): KeptDatabase<S> {
  let opened: Promise<IDBPDatabase<S> | null> | null = null
  const gone = (): void => {
    opened = null
    takenAway()
  }
  const open = async (): Promise<IDBPDatabase<S>> =>
    openDB<S>(name, version, {
      upgrade,
      blocking: (_now, _wanted, event) => {
        // A later version in another tab wants to change it, or somebody wipes it.
        ;(event.target as IDBDatabase).close()
        gone()
      },
      terminated: gone,
    })
  return {
    get: () =>
      (opened ??= open().catch(() => {
        // Another time it may open.
        opened = null
        return null
      })),
    close: async () => {
      ;(await opened)?.close()
      opened = null
    },
  }
}
