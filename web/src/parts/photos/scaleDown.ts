import { PHOTO_SIDE_PX } from '@undercliff/contract'
import { base64Of } from '../../remote/base64'

/** Largest file that is opened, in bytes: no telephone writes a larger photograph. */
const LARGEST_FILE = 60_000_000
const QUALITY = 0.8

/** Width and height at most so large, in the same proportion. */
function within(width: number, height: number, most: number): { width: number; height: number } {
  const scale = Math.min(1, most / Math.max(width, height, 1))
  return { width: Math.max(1, Math.round(width * scale)), height: Math.max(1, Math.round(height * scale)) }
}

/**
 * A photograph as it is sent: upright and at most {@link PHOTO_SIDE_PX} on its longer side, drawn anew, so that the
 * place where it was taken does not leave the device.
 *
 * @returns a JPEG in Base64
 * @throws Error whose message says why the file cannot be used
 */
export async function scaleDown(file: File): Promise<string> {
  if (file.size > LARGEST_FILE) throw new Error('That file is too large for a photograph.')
  const image = await createImageBitmap(file, { imageOrientation: 'from-image' }).catch(() => null)
  if (image === null) throw new Error('This browser cannot read that file as a picture. Take a photograph, or a JPEG.')
  const canvas = document.createElement('canvas')
  Object.assign(canvas, within(image.width, image.height, PHOTO_SIDE_PX))
  const context = canvas.getContext('2d')
  if (context === null) throw new Error('This browser cannot draw pictures.')
  context.fillStyle = '#fff'
  context.fillRect(0, 0, canvas.width, canvas.height)
  context.drawImage(image, 0, 0, canvas.width, canvas.height)
  image.close()
  const drawn = await new Promise<Blob | null>((resolve) => {
    canvas.toBlob(resolve, 'image/jpeg', QUALITY)
  })
  if (drawn === null) throw new Error('That picture cannot be scaled down.')
  return base64Of(drawn)
}
