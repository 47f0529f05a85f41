// Keys of the desk: each page names its own while it is shown, and one listener
// asks them. They rest while a field has the focus, and can be put off for good,
// since a single letter may be said by somebody who dictates.
import { computed, onBeforeUnmount, ref, shallowReactive, watch } from 'vue'

export interface Key {
  /** What is pressed: one key, or two after one another. */
  press: string
  /** What it does, in a few words. */
  does: string
  run: () => void
}

const layers = shallowReactive<{ keys: Key[] }[]>([])

const kept = 'ivory-keys'
export const keysAreOn = ref(localStorage.getItem(kept) !== 'off')
watch(keysAreOn, (on) => localStorage.setItem(kept, on ? 'on' : 'off'))

/** All keys that mean something now, the page's own first. */
export const allKeys = computed(() => [...layers].reverse().flatMap((l) => l.keys))

/** The keys of a page or part, while it is shown. */
export function useKeys(keys: Key[]) {
  const layer = { keys }
  layers.push(layer)
  onBeforeUnmount(() => layers.splice(layers.indexOf(layer), 1))
}

let before = ''

const typing = (e: Element | null) =>
  e instanceof HTMLElement && (e.isContentEditable || !!e.closest('input, textarea, select, [role=combobox], dialog'))

/** Takes a key from the keyboard; true where it meant something. */
export function pressed(e: KeyboardEvent): boolean {
  if (e.ctrlKey || e.metaKey || e.altKey || e.defaultPrevented || typing(document.activeElement)) return false
  const chain = before + e.key
  before = ''
  if (!keysAreOn.value && e.key !== '?') return false
  const found = allKeys.value.find((k) => k.press === chain) ?? allKeys.value.find((k) => k.press === e.key)
  if (found) {
    e.preventDefault()
    found.run()
    return true
  }
  if (allKeys.value.some((k) => k.press.length > 1 && k.press.startsWith(e.key) && k.press !== e.key)) before = e.key
  return false
}
