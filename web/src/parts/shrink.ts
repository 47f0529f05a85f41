// A photograph is made smaller before it is sent: a weak signal carries it, and what
// the camera wrote into its file stays on the phone. The server does the same with
// what comes as it is.

const longSide = 2048
const quality = 0.85

/** The picture, no larger than is kept; as it came, where the browser can't. */
export async function shrink(file: File): Promise<Blob> {
  try {
    const picture = await createImageBitmap(file)
    const f = Math.min(1, longSide / Math.max(picture.width, picture.height))
    const canvas = new OffscreenCanvas(Math.max(1, Math.round(picture.width * f)), Math.max(1, Math.round(picture.height * f)))
    const paper = canvas.getContext('2d')
    if (!paper) return file
    paper.fillStyle = 'white'
    paper.fillRect(0, 0, canvas.width, canvas.height)
    paper.drawImage(picture, 0, 0, canvas.width, canvas.height)
    picture.close()
    return await canvas.convertToBlob({ type: 'image/jpeg', quality })
  } catch {
    return file
  }
}
