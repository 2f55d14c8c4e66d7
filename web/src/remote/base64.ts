/** The bytes of a file in Base64 (RFC 4648). */
export const base64Of = (file: Blob): Promise<string> =>
  new Promise((resolve, reject) => {
    const reader = new FileReader()
    reader.onload = () => {
      resolve((reader.result as string).replace(/^data:[^,]*,/, ''))
    }
    reader.onerror = () => {
      reject(new Error('That file cannot be read.'))
    }
    reader.readAsDataURL(file)
  })
