<script setup lang="ts">
// A jog or pace in place of a walk: one key is held while it lasts.
import { StorageSerializers, useLocalStorage } from '@vueuse/core'
import { computed } from 'vue'
import type { Schemas } from '../../../api/types'

type Stopped = Schemas['TrackInterruption']

const { session, now } = defineProps<{ session: string; now: number }>()
const emit = defineEmits<{ stopped: [i: Stopped] }>()

const hurries = ['jog', 'pace'] as const
const slopes = ['flat', 'uphill', 'downhill'] as const
const hurry = useLocalStorage<(typeof hurries)[number]>(`hurry-${session}`, 'jog')
const slope = useLocalStorage<(typeof slopes)[number]>(`slope-${session}`, 'flat')
/** Kept by its instant, so that a locked phone loses nothing. */
const since = useLocalStorage<number | null>(`hurrying-${session}`, null, { serializer: StorageSerializers.object })
const lasts = computed(() => (since.value ? Math.max(0, Math.round((now - since.value) / 1000)) : 0))

const after = <T,>(list: readonly T[], one: T) => list[(list.indexOf(one) + 1) % list.length] ?? one

function begin(e: Event) {
  if (e instanceof PointerEvent) (e.currentTarget as Element).setPointerCapture(e.pointerId)
  since.value ??= Date.now()
}
function end() {
  if (!since.value) return
  const seconds = Math.max(1, Math.round((Date.now() - since.value) / 1000))
  since.value = null
  emit('stopped', { hurry: hurry.value, slope: slope.value, seconds })
}
</script>

<template>
  <div class="pad hurry" role="group" aria-label="Unasked pace">
    <button type="button" :disabled="!!since" @click="hurry = after(hurries, hurry)">
      {{ hurry }}<small>or {{ after(hurries, hurry) }}</small>
    </button>
    <button type="button" :disabled="!!since" @click="slope = after(slopes, slope)">{{ slope }}<small>slope</small></button>
    <button
      type="button"
      class="hold"
      :aria-pressed="!!since"
      @pointerdown="begin"
      @pointerup="end"
      @pointercancel="end"
      @keydown.space.prevent="begin"
      @keyup.space.prevent="end"
      @contextmenu.prevent
    >
      {{ since ? `${lasts} s` : `it ${hurry}s` }}<small>{{ since ? 'let go when it walks' : 'hold while it lasts' }}</small>
    </button>
  </div>
</template>

<style scoped src="./pad.css"></style>
<style scoped>
.hurry {
  grid-template-columns: max-content max-content minmax(120px, 1fr);
}
.hold {
  touch-action: none;
  user-select: none;
}
</style>
