import type { Directive } from 'vue'

/**
 * The value of a field that is told only when it is left: put in when the value changes, and never because something around the field
 * is drawn anew, so that what is half typed stays.
 */
export const vKept: Directive<HTMLInputElement | HTMLTextAreaElement, string | number | null | undefined> = {
  mounted: (field, { value }) => {
    field.value = String(value ?? '')
  },
  updated: (field, { value, oldValue }) => {
    if (value !== oldValue) field.value = String(value ?? '')
  },
}
