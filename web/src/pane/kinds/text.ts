import type { TextPart } from '../sheet'
import type { Kind } from './kind'
import { words } from './words'

export const text: Kind<TextPart> = () => {
  const element = document.createElement('div')
  return { element, look: (part) => void words(element, part.text, part.style, part.marks) }
}
