import { execFileSync } from 'node:child_process'
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import type { getDocument as GetDocument } from 'pdfjs-dist/legacy/build/pdf.mjs'
import { afterAll, beforeAll, expect, test } from 'vitest'
import { Harness, measured, registered, SPEC } from '../fixtures/harness'
import { LONG, report } from './long'

/** With letters that not every font has. */
const TAG = 'Žižka 1'

let harness: Harness
let getDocument: typeof GetDocument
let folder: string
beforeAll(async () => {
  folder = mkdtempSync(join(tmpdir(), 'undercliff-paper-'))
  harness = await Harness.open()
  getDocument = (await import('pdfjs-dist/legacy/build/pdf.mjs')).getDocument
  await harness.write(registered('read-elsewhere', TAG, SPEC), measured('read-elsewhere', 6400))
})
afterAll(async () => {
  await harness.close()
  rmSync(folder, { recursive: true, force: true })
})

/** What is printed, without what stands between words: readers differ in where they see a space. */
const printed = (text: string): string => text.normalize('NFC').replaceAll(/\s+/g, '')
/** Readers go over a page in different orders. */
const inOrder = (text: string): string => text.split('').sort().join('')

async function byPdfJs(bytes: Uint8Array): Promise<string> {
  const document = await getDocument({ data: Uint8Array.from(bytes), verbosity: 0 }).promise
  const pages = Array.from({ length: document.numPages }, async (_, i) =>
    (await (await document.getPage(i + 1)).getTextContent()).items.flatMap((item) => ('str' in item ? [item.str] : [])),
  )
  return printed((await Promise.all(pages)).flat().join(''))
}

/** The same by Poppler, which is neither of Node nor of the browser. */
function byPoppler(bytes: Uint8Array): string {
  const file = join(folder, 'printed.pdf')
  writeFileSync(file, bytes)
  try {
    return printed(execFileSync('pdftotext', ['-enc', 'UTF-8', file, '-'], { encoding: 'utf8' }))
  } catch (cause) {
    throw new Error('The campaign reads paper with pdftotext: apt-get install poppler-utils', { cause })
  }
}

const PAPER = [
  { name: 'job sheet', path: '/api/loops/read-elsewhere/job-sheet.pdf', body: { action: 'file', personId: null } },
  { name: 'tags', path: '/api/tags.pdf', body: { loopIds: ['read-elsewhere'], sheet: 'a4-3x8', skip: 0 } },
]

test.skipIf(!LONG).each(PAPER)('$name: two readers of PDF find the same on it', async ({ name, path, body }) => {
  const response = await fetch(harness.address(path), {
    method: 'POST',
    headers: { ...harness.headers('sawyer'), 'content-type': 'application/json' },
    body: JSON.stringify(body),
  })
  expect(response.status).toBe(200)
  const bytes = new Uint8Array(await response.arrayBuffer())
  const [one, other] = [await byPdfJs(bytes), byPoppler(bytes)]
  expect(inOrder(other)).toBe(inOrder(one))
  for (const text of [one, other]) expect(text).toContain(printed(TAG))
  report(`${name}: ${one.length} characters, the same by pdf.js and by Poppler`)
})
