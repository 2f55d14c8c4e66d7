import { PHOTO_BYTES, PHOTO_SIDE_PX } from '@undercliff/contract'
import sharp, { type Metadata } from 'sharp'
import { Turns } from '../work/turns'
import { Refusal } from './refusal'

/** Most pixels that are read, so that no small file fills the memory; devices send a fifth of it. */
const MOST_PIXELS = 8_000_000
/** The first that comes to no more bytes than a photograph may have. */
const QUALITIES = [78, 60, 40, 20]
/** The longest that one picture takes, in s. */
const LONGEST_S = 10
// One picture is one thread's work: the others are for sign-ins and files.
sharp.concurrency(1)
/** One at a time, people in turn. */
const turns = new Turns(1, 1)

/** How files of the kinds that are taken begin; what begins otherwise is not given to a reader at all. */
const isTaken = (bytes: Buffer): boolean =>
  bytes.subarray(0, 3).equals(Buffer.from([0xff, 0xd8, 0xff])) ||
  bytes.subarray(0, 8).equals(Buffer.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a])) ||
  (bytes.toString('latin1', 0, 4) === 'RIFF' && bytes.toString('latin1', 8, 12) === 'WEBP')

const notAPicture = (why: string): Refusal => new Refusal('not-a-picture', why)

/**
 * The picture alone, as a JPEG: upright, at most {@link PHOTO_SIDE_PX} on its longer side, and written anew from its
 * pixels, so that nothing else that a file carried (place, time, device, thumbnail, text) is in it.
 *
 * @param who sends it
 * @param sent a JPEG, PNG or WebP
 * @throws Refusal when it is none, cannot be read to its end, or has too many pixels
 */
export async function cleanPicture(who: string, sent: Buffer): Promise<Buffer> {
  if (!isTaken(sent)) throw notAPicture('Send a photograph: a JPEG, a PNG or a WebP.')
  return turns.run(who, async () => {
    try {
      return await asJpeg(sent)
    } catch {
      throw notAPicture(
        'That file cannot be read as a picture: it is damaged, cut short, ' +
          `or has more than ${MOST_PIXELS / 1e6} million pixels.`,
      )
    }
  })
}

async function asJpeg(sent: Buffer): Promise<Buffer> {
  const upright = await sharp(sent, { limitInputPixels: MOST_PIXELS, failOn: 'truncated' })
    .timeout({ seconds: LONGEST_S })
    .autoOrient()
    .resize({ width: PHOTO_SIDE_PX, height: PHOTO_SIDE_PX, fit: 'inside', withoutEnlargement: true })
    .flatten({ background: '#ffffff' })
    .raw()
    .toBuffer({ resolveWithObject: true })
  const { width, height, channels } = upright.info
  for (const quality of QUALITIES) {
    const written = await sharp(upright.data, { raw: { width, height, channels } }).jpeg({ quality }).toBuffer()
    if (written.length <= PHOTO_BYTES) return written
  }
  throw new Error('a picture of this size fits at the lowest quality')
}

const carriesMore = ({ exif, iptc, xmp, orientation }: Metadata): boolean =>
  exif !== undefined || iptc !== undefined || xmp !== undefined || orientation !== undefined

/**
 * A picture of a backup as it stands in it, once it is known to be one that {@link cleanPicture} may have made: what
 * is read back is what was written, byte for byte.
 *
 * @throws Refusal when it is not
 */
export async function keptPicture(bytes: Buffer): Promise<Buffer> {
  try {
    const image = sharp(bytes, { limitInputPixels: PHOTO_SIDE_PX * PHOTO_SIDE_PX, failOn: 'truncated' })
    const about = await image.metadata()
    if (about.format === 'jpeg' && !carriesMore(about)) {
      await image.stats()
      return bytes
    }
  } catch {
    // Said below.
  }
  throw new Refusal('backup-damaged', 'A photograph in it is not one that Undercliff wrote. Nothing was read.')
}
