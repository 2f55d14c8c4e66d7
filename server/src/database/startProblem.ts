/** Something outside the program that keeps it from starting; its message is for the person. */
export class StartProblem extends Error {}

const codeOf = (error: unknown): string | null =>
  error instanceof Error && 'code' in error && typeof error.code === 'string' ? error.code : null

/**
 * What the system says of a data folder, as a sentence.
 *
 * @returns the error itself when the system says nothing of the folder
 */
export function ofFolder(error: unknown, dataDir: string): unknown {
  switch (codeOf(error)) {
    case 'ENOSPC':
    case 'EDQUOT':
      return new StartProblem(`The disk that holds ${dataDir} is full. Make room on it and start again.`)
    case 'EROFS':
    case 'EACCES':
    case 'EPERM':
      return new StartProblem(`${dataDir} cannot be written to. Choose another folder: ./start --data DIR`)
    case 'ENOTDIR':
    case 'EEXIST':
    case 'EISDIR':
      return new StartProblem(`${dataDir} is not a folder that can hold data. Choose another: ./start --data DIR`)
    case 'ENAMETOOLONG':
      return new StartProblem(`The name of the data folder is too long: ${dataDir.slice(0, 80)}…`)
    default:
      return error
  }
}
