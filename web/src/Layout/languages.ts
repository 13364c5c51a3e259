const names = new Intl.DisplayNames(['en'], { type: 'language', fallback: 'code' })

/** A language as people say it: `pt` is Portuguese. */
export function languageName(tag: string): string {
  try {
    return names.of(tag) ?? tag
  } catch {
    return tag
  }
}
