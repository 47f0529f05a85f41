<script setup lang="ts">
// A review: one thing of tack or aids is looked over; it is right, or one change of
// it is tried for some minutes and judged. What runs is kept by its instant.
import { StorageSerializers, useLocalStorage } from '@vueuse/core'
import { computed, ref, useId } from 'vue'
import type { Schemas } from '../../../api/types'
import { clock } from '../../../words'

type Trial = Schemas['TrackTrial']

const { store, now, tried } = defineProps<{
  /** Where the running trial is kept on this device. */
  store: string
  now: number
  /** The trials of today, in their order. */
  tried: Trial[]
}>()
const emit = defineEmits<{ trial: [trial: Trial] }>()

const items = ['mouthpiece', 'bit', 'noseband', 'reins', 'running aid', 'curb', 'saddle', 'spurs', 'stick', 'leg'] as const
const run = useLocalStorage<(Trial & { at: number }) | null>(store, null, { serializer: StorageSerializers.object })
const what = ref<(typeof items)[number]>('mouthpiece')
const was = ref('')
const changed = ref('')
const saw = ref('')
const id = useId()
/** What is on of a thing: as the last trial left it. */
const on = computed(() => {
  const last = tried.filter((t) => t.what === what.value).at(-1)
  return last ? (last.verdict === 'worse' ? last.was : last.changed || last.was) : undefined
})
const worn = computed(() => was.value || on.value || undefined)

function log(trial: Trial) {
  emit('trial', trial)
  was.value = changed.value = saw.value = ''
}
const right = () => log({ what: what.value, was: worn.value, saw: saw.value || undefined })

function begin(milder: boolean) {
  run.value = { what: what.value, was: worn.value, changed: changed.value.trim(), milder: milder || undefined, at: Date.now() }
}
function judge(verdict: Trial['verdict']) {
  if (!run.value) return
  const { at, ...trial } = run.value
  run.value = null
  log({ ...trial, seconds: Math.round((Date.now() - at) / 1000), saw: saw.value || undefined, verdict })
}
</script>

<template>
  <div v-if="run" class="pad" role="group" aria-label="Trial running">
    <p class="runs">
      <span class="count">{{ clock(Math.max(0, (now - run.at) / 1000)) }}</span><small>{{ run.what }}: {{ run.changed }}</small>
    </p>
    <input v-model="saw" class="text" maxlength="300" aria-label="What was seen" placeholder="what was seen" />
    <button type="button" class="main" @click="judge('better')">better</button>
    <button type="button" @click="judge('the same')">the same</button>
    <button type="button" @click="judge('worse')">worse</button>
  </div>
  <div v-else class="review">
    <div class="items" role="group" aria-label="What is looked at">
      <button v-for="i in items" :key="i" type="button" class="item" :aria-pressed="what === i" @click="what = i">{{ i }}</button>
    </div>
    <div class="pad">
      <input
        :id="`${id}-was`"
        v-model="was"
        class="text"
        maxlength="120"
        aria-label="What is on"
        :placeholder="on ? `on: ${on}` : 'what is on'"
      />
      <button type="button" :class="{ main: !changed.trim() }" @click="right">right as it is</button>
      <input v-model="changed" class="text" maxlength="120" aria-label="Changed to" placeholder="changed to" />
      <button type="button" :disabled="!changed.trim()" @click="begin(true)">try it<small>milder</small></button>
      <button type="button" :disabled="!changed.trim()" @click="begin(false)">try it<small>not milder</small></button>
    </div>
  </div>
</template>

<style scoped src="./pad.css"></style>
<style scoped>
.review {
  display: grid;
  gap: var(--gap-2);
}
.items {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(96px, 1fr));
  gap: var(--gap-1);
}
.item {
  min-height: var(--touch);
  border: 2px solid var(--arena-ink);
  border-radius: var(--radius);
  background: var(--ivory-0);
  color: var(--arena-ink);
  font-weight: 600;
  padding: 0 var(--gap-1);
  cursor: pointer;
}
.item[aria-pressed='true'] {
  background: var(--arena-ink);
  color: var(--ivory-0);
}
.text {
  min-height: var(--touch);
  min-width: 0;
  border: var(--stroke);
  border-radius: var(--radius);
  background: var(--ivory-0);
  color: var(--arena-ink);
  font: inherit;
  padding: 0 var(--gap-2);
}
</style>
