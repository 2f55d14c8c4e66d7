import { create } from 'qrcode'

const WIDTH = 640
const HEIGHT = 480
const QR_PX = 360

/**
 * A film of a QR code for Chromium's stand-in camera: one frame of YUV4MPEG2, black on white.
 *
 * @param text what the code says
 */
export function cameraFilm(text: string): Buffer {
  const { modules } = create(text, { errorCorrectionLevel: 'M' })
  const unit = Math.floor(QR_PX / modules.size)
  const [left, top] = [Math.floor((WIDTH - unit * modules.size) / 2), Math.floor((HEIGHT - unit * modules.size) / 2)]
  const luma = Buffer.alloc(WIDTH * HEIGHT, 235)
  for (let y = 0; y < HEIGHT; y += 1) {
    for (let x = 0; x < WIDTH; x += 1) {
      const [row, column] = [Math.floor((y - top) / unit), Math.floor((x - left) / unit)]
      const inside = row >= 0 && column >= 0 && row < modules.size && column < modules.size
      if (inside && modules.get(row, column) !== 0) luma[y * WIDTH + x] = 16
    }
  }
  const chroma = Buffer.alloc((WIDTH * HEIGHT) / 2, 128)
  const frame = Buffer.concat([Buffer.from('FRAME\n'), luma, chroma])
  return Buffer.concat([
    Buffer.from(`YUV4MPEG2 W${WIDTH} H${HEIGHT} F10:1 Ip A1:1 C420mpeg2\n`),
    ...Array.from({ length: 5 }, () => frame),
  ])
}
