<script setup lang="ts">
// The footfall timer while the horse goes: four fields, or four keys. Taps are moved, taken
// off and tapped anew; nothing is kept before it is asked for.
import { useEventListener, useRafFn } from '@vueuse/core'
import { computed, onMounted, ref, shallowRef, watch } from 'vue'
import { api, told } from '../api/client'
import { me } from '../api/me'
import type { Schemas } from '../api/types'
import { theRules } from '../rules/rules'
import FootfallLanes from '../parts/FootfallLanes.vue'
import FootfallVerdict from '../parts/FootfallVerdict.vue'
import { hoofSaid, hooves, mostLive } from '../parts/hooves'

type Landing = Schemas['GaitLanding']

const { kept = [] } = defineProps<{
  /** What was kept before. */
  kept?: Landing[]
}>()
const emit = defineEmits<{ keep: [landings: Landing[]] }>()

/** So long without a tap, the horse is past. */
const past = 4
/** What of the taps is in sight while it goes, s. */
const inSight = 6

const landings = shallowRef<Landing[]>(kept)
const result = shallowRef<Schemas['GaitResult']>()
const began = ref(0)
const now = ref(0)
const clock = () => (performance.now() - began.value) / 1000
const lastTap = computed(() => Math.max(0, ...landings.value.map((l) => l.at)))
const going = useRafFn(
  () => {
    now.value = clock()
    if (now.value - lastTap.value > past) going.pause()
  },
  { immediate: false },
)
const span = computed(() => {
  if (going.isActive.value) {
    const to = Math.max(now.value, inSight)
    return { from: to - inSight, to }
  }
  const first = Math.min(...landings.value.map((l) => l.at), lastTap.value)
  return { from: first - 0.2, to: Math.max(lastTap.value + 0.2, 1) }
})
const stride = computed(() => result.value?.strides.at(-1))

/** The first tap begins anew, once the horse is past. */
function tap(hoof: Landing['hoof']) {
  if (!going.isActive.value) {
    began.value = performance.now()
    landings.value = []
    going.resume()
  }
  if (landings.value.length < mostLive) landings.value = [...landings.value, { hoof, at: Math.round(clock() * 1000) / 1000 }]
}
const move = (i: number, at: number) => (landings.value = landings.value.map((l, n) => (n === i ? { ...l, at } : l)))
const drop = (i: number) => (landings.value = landings.value.filter((_, n) => n !== i))
const back = () => (landings.value = landings.value.slice(0, -1))

const rules = theRules()
const ready = ref(false)
onMounted(async () => {
  const catalog = await told(api.GET('/api/catalog')).catch(() => undefined)
  if (catalog) await rules.read(catalog.version, () => Promise.resolve(catalog.catalog))
  ready.value = true
})
watch(
  [landings, ready],
  async () => {
    const words = me.value?.words
    if (!words || !ready.value) return
    if (landings.value.length === 0) return (result.value = undefined)
    result.value = (await rules.ask('footfall', { speed: 1, landings: landings.value, words })).result
  },
  { immediate: true },
)

/** As one sees them from behind. */
const behind = ['near fore', 'off fore', 'near hind', 'off hind'].flatMap((hoof) => hooves.filter((h) => h.hoof === hoof))
const keys: Record<string, () => void> = {
  ...Object.fromEntries(hooves.map((h) => [h.key, () => tap(h.hoof)])),
  z: back,
}
// Before whatever else these keys mean on the page.
useEventListener(
  window,
  'keydown',
  (e: KeyboardEvent) => {
    const run = keys[e.key]
    if (!run || e.ctrlKey || e.metaKey || e.altKey || e.target instanceof HTMLInputElement) return
    e.preventDefault()
    e.stopImmediatePropagation()
    if (!e.repeat) run()
  },
  { capture: true },
)
const held = shallowRef(kept)
function keep() {
  held.value = landings.value
  emit('keep', landings.value)
}
</script>

<template>
  <div class="live stack">
    <div class="hooves" role="group" aria-label="Hooves">
      <button v-for="h in behind" :key="h.hoof" type="button" class="tap" @pointerdown.prevent="tap(h.hoof)">
        <span>{{ hoofSaid(h.hoof) }}</span> <kbd>{{ h.key }}</kbd>
      </button>
    </div>
    <FootfallVerdict :result="result" />
    <FootfallLanes
      plain
      :landings="landings"
      :now="going.isActive.value ? now : -1"
      :from="span.from"
      :to="span.to"
      :step="0.01"
      :stride="stride"
      :odd="result?.odd ?? []"
      :marks="[]"
      @move="move"
      @drop="drop"
    />
    <p class="quiet">
      {{
        landings.length >= mostLive
          ? 'That is enough: keep it, or begin again.'
          : going.isActive.value
            ? 'Tap a hoof, or its key, as the foot lands.'
            : landings.length
              ? 'The next tap begins again.'
              : 'Tap a hoof, or its key, as the foot lands: three strides and more.'
      }}
    </p>
    <div class="row keep">
      <button type="button" class="button" :disabled="!result?.class || landings === held" @click="keep">Keep it</button>
      <button type="button" class="button plain" :disabled="!landings.length" @click="back">Take the last tap back</button>
      <span v-if="landings.length && landings === held" role="status">kept</span>
    </div>
  </div>
</template>

<style scoped>
.hooves {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: var(--gap-2);
}
.tap {
  min-height: calc(1.3 * var(--touch));
  border: var(--stroke);
  border-radius: var(--radius);
  background: var(--ivory-2);
  font: inherit;
  font-weight: 700;
  cursor: pointer;
  touch-action: manipulation;
}
.tap:active {
  background: var(--ivory-3);
}
.keep {
  position: sticky;
  bottom: 0;
  padding: var(--gap-2) 0;
  background: var(--ivory-0);
}
@media (max-width: 600px) {
  kbd {
    display: none;
  }
}
</style>
