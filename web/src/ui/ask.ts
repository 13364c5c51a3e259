import { shallowRef } from 'vue'

export interface Question {
  title: string
  text: string
  /** What the button says that does it. */
  does: string
  answered: (isYes: boolean) => void
}

/** What is asked now (AskDialog.vue); null for nothing. */
export const question = shallowRef<Question | null>(null)

/** Asks before something is done that others notice at once. One question at a time: another one answers the first with no. */
export function ask(title: string, text: string, does: string): Promise<boolean> {
  question.value?.answered(false)
  return new Promise((answered) => (question.value = { title, text, does, answered }))
}
