/**
 * The version of what is stored of a loop besides its log: the state that the log folds to, and the
 * card that the lists show. Raise it whenever the same log may come to another state, or the same
 * state to another card; what an older version wrote is then worked out again at the next start.
 * `demo/src/stored.test.ts` fails until that is done.
 */
export const STORED_VERSION = 19
