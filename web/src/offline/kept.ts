// What waits on this device, in words, and as a file to be saved.
import { computed, watch } from 'vue'
import { me } from '../api/me'
import { copiesOf } from '../device/copies'
import { saveFile } from '../device/saveFile'
import { outboxOf, shut, type Outbox } from './outbox'

export const outbox = computed<Outbox | undefined>(() => (me.value ? outboxOf(me.value.id, me.value.practice) : undefined))

watch(
  outbox,
  (box) => {
    copiesOf(box?.shelf)
    if (!box) shut()
  },
  { immediate: true, flush: 'sync' },
)

/** The state of sending, in words; it is always on show. */
export const keptWords = computed(() => {
  const state = outbox.value?.state
  if (!state?.counted) return ''
  if (state.full) return 'not kept: this device has no room. Write it down.'
  const here = `${state.waiting} kept here`
  switch (true) {
    case state.waiting === 0 && state.refused > 0:
      return `${state.refused} not taken by the server`
    case state.waiting === 0:
      return 'all sent'
    case state.signal === 'none':
      return `no signal, ${here}`
    case state.signal === 'signed out':
      return `signed out, ${here}`
    case state.signal === 'trouble':
      return `${state.said || 'trouble at the server'}, ${here}`
  }
  return `sending, ${here}`
})

/** Saves what waits to a file, for when it can't be sent for long. */
export async function saveToFile() {
  const all = (await outbox.value?.all()) ?? []
  saveFile('ivory-bridge-kept.json', JSON.stringify(all, null, 1), 'application/json')
}
