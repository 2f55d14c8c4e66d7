import { mkdtempSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { tagCode } from '@undercliff/core'
import { CHROMIUM, CHROMIUM_ARGS } from './browser'
import { cameraFilm } from './cameraFilm'
import { expect, test } from './testing'

const film = join(mkdtempSync(join(tmpdir(), 'undercliff-film-')), 'tag.y4m')
writeFileSync(film, cameraFilm(tagCode('K5')))
test.use({
  permissions: ['camera'],
  launchOptions: {
    executablePath: CHROMIUM,
    args: [
      ...CHROMIUM_ARGS,
      '--use-fake-device-for-media-stream',
      '--use-fake-ui-for-media-stream',
      `--use-file-for-fake-video-capture=${film}`,
    ],
  },
})

test('the camera reads a tag and opens the loop', async ({ page, open }) => {
  await open('/scan')
  await page.getByRole('button', { name: 'Scan with the camera' }).click()
  await expect(page.getByRole('heading', { name: 'K5', exact: true })).toBeVisible()
})
