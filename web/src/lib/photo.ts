// Photographs from the phone's camera, made small before they are sent.
const SIDE = 1600
const QUALITY = 0.8

/** A photograph no larger than the record needs. The camera's turn is kept. */
export async function shrunk(file: Blob): Promise<Blob> {
  const image = await createImageBitmap(file, { imageOrientation: 'from-image' })
  const by = Math.min(1, SIDE / Math.max(image.width, image.height))
  const canvas = document.createElement('canvas')
  canvas.width = Math.max(1, Math.round(image.width * by))
  canvas.height = Math.max(1, Math.round(image.height * by))
  canvas.getContext('2d')!.drawImage(image, 0, 0, canvas.width, canvas.height)
  image.close()
  return new Promise((done, fail) =>
    canvas.toBlob((b) => (b ? done(b) : fail(new Error())), 'image/jpeg', QUALITY),
  )
}

export const photoAt = (job: string, id: string) => `/api/jobs/${job}/photos/${encodeURIComponent(id)}`
