import type { Component } from 'vue'
import type { Element } from '../designs'
import type { Slot } from '../filling'
import { kindOf } from '../kinds/kinds'
import ChoiceSettings from './ChoiceSettings.vue'
import FillChoice from './FillChoice.vue'
import FillDate from './FillDate.vue'
import FillList from './FillList.vue'
import FillNumber from './FillNumber.vue'
import FillPicture from './FillPicture.vue'
import FillSwitch from './FillSwitch.vue'
import FillText from './FillText.vue'
import ListSettings from './ListSettings.vue'
import RangeSettings from './RangeSettings.vue'
import TextSettings from './TextSettings.vue'

/** What a kind of slot is in the desk. A new one is an entry here. */
export interface SlotKind {
  /** What is opened, as designers say it. */
  name: string
  /** Whether it can open this element. */
  opens: (element: Element) => boolean
  /** As it is opened first, of an element whose message tells these names; null where nothing of it is left to be opened so. */
  begin: (element: Element, slots: Slot[], names: string[]) => object | null
  /** What is filled in: `one`, `value`, `room`, and an event `change`. */
  Fill: Component
  /** What a designer says of it beside what every slot has: `one`, and an event `change` with the fields that change. */
  Settings: Component | null
  /** Whether somebody fills it in, and never a row of data. */
  byHand?: boolean
  /** Whether it is typed onto the picture. */
  isTypedOver?: boolean
}

const isText = (e: Element) => kindOf(e).leavesOpen === 'words'
const isMessage = (e: Element) => isText(e) && 'message' in e && e.message === true
/** The first argument of its message that no slot opens yet. */
function ofArgument(e: Element, slots: Slot[], names: string[]) {
  const argument = names.find((name) => !slots.some((s) => 'argument' in s && s.element === e.id && s.argument === name))
  return argument === undefined ? null : { element: e.id, argument }
}
const alone =
  (kind: Slot['kind']) =>
  (e: Element, slots: Slot[]): object | null =>
    slots.some((s) => s.kind === kind && 'element' in s && s.element === e.id) ? null : { element: e.id }

export const SLOTS: Record<Slot['kind'], SlotKind> = {
  text: { name: 'its words', opens: isText, begin: alone('text'), Fill: FillText, Settings: TextSettings, isTypedOver: true },
  picture: {
    name: 'its picture',
    opens: (e) => kindOf(e).leavesOpen === 'picture',
    begin: alone('picture'),
    Fill: FillPicture,
    Settings: null,
    byHand: true,
  },
  number: { name: 'a number in it', opens: isMessage, begin: ofArgument, Fill: FillNumber, Settings: RangeSettings },
  date: { name: 'a day in it', opens: isMessage, begin: ofArgument, Fill: FillDate, Settings: RangeSettings },
  switch: {
    name: 'whether it is there',
    opens: () => true,
    begin: (e, slots) => (slots.some((s) => s.kind === 'switch' && s.elements.includes(e.id)) ? null : { elements: [e.id], default: true }),
    Fill: FillSwitch,
    Settings: null,
  },
  choice: {
    name: 'one of its colours',
    opens: (e) => colourField(e) !== null,
    begin: (e) => {
      const field = colourField(e)
      if (field === null) return null
      const value = field.split('/').reduce<unknown>((at, name) => (at as Record<string, unknown> | undefined)?.[name], e)
      const set = (color: unknown) => [{ element: e.id, field, value: color }]
      return {
        options: [
          { id: 'calm', name: 'Calm', set: set(value ?? '#000000') },
          { id: 'loud', name: 'Loud', set: set('#a3262a') },
        ],
        default: 'calm',
      }
    },
    Fill: FillChoice,
    Settings: ChoiceSettings,
  },
  list: {
    name: 'what plays in it',
    opens: (e) => kindOf(e).leavesOpen === 'items',
    begin: alone('list'),
    Fill: FillList,
    Settings: ListSettings,
    byHand: true,
  },
}
/** Which of its fields is the colour that one sees first. */
function colourField(e: Element): string | null {
  return kindOf(e).colourIn ?? ('style' in e && e.style ? 'style/color' : null)
}

/** The elements that a slot opens, each once. */
export const elementsOf = (slot: Slot): string[] => {
  if ('element' in slot) return [slot.element]
  return slot.kind === 'switch' ? slot.elements : [...new Set(slot.options.flatMap((option) => option.set.map((set) => set.element)))]
}

/** In which languages it may say something each; none where it has one text for all, or says none. */
export const languagesOf = (slot: Slot): string[] => ('languages' in slot ? (slot.languages ?? []) : [])
export const fillOf = (slot: Slot): Component => SLOTS[slot.kind].Fill
