export interface Face {
  family: string
  weight: number
  url: string
}

const loaded = new Map<string, Promise<unknown>>()

/**
 * Loads type faces for drawing; each once. `urlOf` lets the player take them from its own store.
 *
 * @returns those that cannot be used; words are set in another face then
 */
export async function loadFaces(faces: Face[], urlOf: (face: Face) => string = (face) => face.url): Promise<Face[]> {
  const failed: Face[] = []
  await Promise.all(
    faces.map(async (face) => {
      const key = `${face.family}|${face.weight}|${face.url}`
      let promise = loaded.get(key)
      if (!promise) {
        const font = new FontFace(face.family, `url("${urlOf(face)}")`, { weight: String(face.weight) })
        promise = font.load().then(
          (ready) => document.fonts.add(ready),
          () => loaded.delete(key),
        )
        loaded.set(key, promise)
      }
      await promise
      if (!loaded.has(key)) failed.push(face)
    }),
  )
  return failed
}
