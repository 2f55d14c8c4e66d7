/** How long an address of a file is kept once it was handed to the browser, in ms. */
const KEPT_MS = 10_000

/** Hands a file to whoever is at the page, under a name. */
export function saveFile(file: Blob, name: string): void {
  const link = document.createElement('a')
  link.href = URL.createObjectURL(file)
  link.download = name
  link.click()
  setTimeout(() => {
    URL.revokeObjectURL(link.href)
  }, KEPT_MS)
}
