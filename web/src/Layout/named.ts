import type { Media, NamedMark, Style } from '../formats/layout'

/** A media as far as its document says it: of a mark of the house style its name alone. */
export const mediaOf = (media: Media | NamedMark): Media => ('mark' in media ? { name: media.mark, width: 1, height: 1 } : media)

/** The size of type, px; null where it is one that the house style names. */
export const typePx = (style: Style): number | null => (typeof style.size_px === 'number' ? style.size_px : null)
