// What is in the truck on a day: ticked on this device, and kept here for that day.
import { computed, ref, watch } from 'vue'

const kept = (on: string) => `ivory-kit-${on}`

function read(on: string): string[] {
  try {
    const list: unknown = JSON.parse(localStorage.getItem(kept(on)) ?? '[]')
    return Array.isArray(list) ? list.filter((x) => typeof x === 'string') : []
  } catch {
    return [] // what is kept was of another kind
  }
}

/** Days that are over leave nothing behind. */
function forget(before: string) {
  for (const key of Object.keys(localStorage))
    if (key.startsWith('ivory-kit-') && key < kept(before)) localStorage.removeItem(key)
}

export function useKit(on: () => string, today: string) {
  const ticked = ref<string[]>(read(on()))
  forget(today)
  watch(on, (day) => (ticked.value = read(day)))
  const has = (name: string) => ticked.value.includes(name)
  function tick(name: string) {
    ticked.value = has(name) ? ticked.value.filter((t) => t !== name) : [...ticked.value, name]
    localStorage.setItem(kept(on()), JSON.stringify(ticked.value))
  }
  return { ticked: computed(() => ticked.value), has, tick }
}
