const LONGEST_SIDE = 1600

/** A photograph as JPEG of at most 1600 pixels a side, turned as it was held. Rejects when it is none. */
export async function shrunk(file: Blob): Promise<Blob> {
  const picture = await createImageBitmap(file, { imageOrientation: 'from-image' })
  const scale = Math.min(1, LONGEST_SIDE / Math.max(picture.width, picture.height))
  const canvas = document.createElement('canvas')
  canvas.width = Math.round(picture.width * scale)
  canvas.height = Math.round(picture.height * scale)
  canvas.getContext('2d')?.drawImage(picture, 0, 0, canvas.width, canvas.height)
  picture.close()
  return new Promise((resolve, reject) => {
    canvas.toBlob((blob) => (blob ? resolve(blob) : reject(new Error('no picture'))), 'image/jpeg', 0.82)
  })
}
