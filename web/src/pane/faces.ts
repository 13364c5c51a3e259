export interface Face {
  family: string
  weight: number
  url: string
}

const loaded = new Map<string, Promise<unknown>>()

/** Loads type faces for drawing; each once. `urlOf` lets the player take them from its own store. */
export function loadFaces(faces: Face[], urlOf: (face: Face) => string = (face) => face.url): Promise<unknown> {
  return Promise.all(
    faces.map((face) => {
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
      return promise
    }),
  )
}
