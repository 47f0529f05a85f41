<script setup lang="ts">
// A clip: stepped frame by frame, its hooves tapped, its moments marked.
import { useDebounceFn } from '@vueuse/core'
import { computed, ref, shallowRef, useTemplateRef, watch } from 'vue'
import { api, told } from '../../api/client'
import { me } from '../../api/me'
import type { Schemas } from '../../api/types'
import { useLoad, useSend } from '../../api/use'
import { useKeys } from '../../keys/keys'
import FieldRow from '../../parts/FieldRow.vue'
import { hooves } from '../../parts/hooves'
import PageState from '../../parts/PageState.vue'
import WrongNote from '../../parts/WrongNote.vue'
import { theRules } from '../../rules/rules'
import { shortDate } from '../../words'
import ClipBeside from './ClipBeside.vue'
import ClipCounts from './ClipCounts.vue'
import ClipMarks from './ClipMarks.vue'
import ClipScreen from './ClipScreen.vue'
import FootfallLanes from '../../parts/FootfallLanes.vue'
import FootfallVerdict from '../../parts/FootfallVerdict.vue'
import { useFrames } from './useFrames'

type Landing = Schemas['GaitLanding']

const { id } = defineProps<{ id: string }>()
const rules = theRules()
const { data, trouble, at, load } = useLoad(async () => {
  const catalog = await told(api.GET('/api/catalog'))
  await rules.read(catalog.version, () => Promise.resolve(catalog.catalog))
  return told(api.GET('/api/clips/{id}', { params: { path: { id } } }))
})
const saving = useSend()
const landings = shallowRef<Landing[]>([])
const speed = ref(1)
const gait = ref('')
const result = shallowRef<Schemas['GaitResult']>()
const wrong = ref('')
const version = ref(0)
const unsent = ref(false)

watch(data, (d) => {
  if (!d) return
  version.value = d.version
  if (unsent.value) return
  landings.value = d.landings
  speed.value = d.speed
  gait.value = d.gait ?? ''
})

// What the taps come to is reckoned on this device, at each tap.
watch([landings, speed], async () => {
  const words = me.value?.words
  if (!words) return
  if (landings.value.length === 0) return (result.value = undefined)
  const said = await rules.ask('footfall', { speed: speed.value, landings: landings.value, words })
  result.value = said.result
  wrong.value = said.wrong ?? ''
})

const screen = useTemplateRef<{ video: HTMLVideoElement | null }>('screen')
const video = computed(() => screen.value?.video ?? null)
const film = useFrames(video, () => data.value?.frames ?? [])

const stride = computed(() => result.value?.strides.find((s) => film.now.value >= s.from && film.now.value < s.to))
const span = computed(() => {
  const end = Math.max(film.length.value, 1)
  if (end <= 12) return { from: 0, to: end }
  const from = Math.min(Math.max(0, film.now.value - 3), end - 8)
  return { from, to: from + 8 }
})

const keep = useDebounceFn(async () => {
  const d = data.value
  if (!d || saving.sending.value) return
  const sent = landings.value
  const body = {
    name: d.name,
    view: d.view,
    on: d.on,
    speed: speed.value,
    gait: gait.value,
    landings: sent,
    version: version.value,
  }
  const now = await saving.send(() => told(api.PUT('/api/clips/{id}', { params: { path: { id } }, body })))
  if (!now) return
  version.value = now.version
  unsent.value = landings.value !== sent
  if (unsent.value) void keep()
}, 700)

function change(to: Landing[]) {
  landings.value = to
  unsent.value = true
  void keep()
}
const tap = (hoof: Landing['hoof']) => change([...landings.value, { hoof, at: film.moment() }])
const move = (i: number, at: number) => change(landings.value.map((l, n) => (n === i ? { ...l, at } : l)))
const drop = (i: number) => change(landings.value.filter((_, n) => n !== i))
const back = () => change(landings.value.slice(0, -1))
function written() {
  unsent.value = true
  void keep()
}

async function mine() {
  version.value = (saving.trouble.value?.current as Schemas['Clip'] | undefined)?.version ?? version.value
  await keep()
}
function theirs() {
  unsent.value = false
  saving.trouble.value = undefined
  void load()
}

function hop(by: number) {
  const list = result.value?.strides.filter((s) => s.side === 'near') ?? []
  const next = by > 0 ? list.find((s) => s.from > film.now.value + 0.01) : list.findLast((s) => s.from < film.now.value - 0.01)
  if (next) film.to(next.from)
}

const marking = ref(false)
const beside = ref('')
useKeys([
  { press: ',', does: 'one frame back', run: () => film.go(-1) },
  { press: '.', does: 'one frame on', run: () => film.go(1) },
  { press: '<', does: 'ten frames back', run: () => film.go(-10) },
  { press: '>', does: 'ten frames on', run: () => film.go(10) },
  { press: ' ', does: 'play or stop', run: () => film.play() },
  ...hooves.map((h) => ({ press: h.key, does: `${h.hoof} lands`, run: () => tap(h.hoof) })),
  { press: 'z', does: 'take the last tap back', run: back },
  { press: 'm', does: 'mark this moment', run: () => (marking.value = true) },
  { press: '[', does: 'the stride before', run: () => hop(-1) },
  { press: ']', does: 'the next stride', run: () => hop(1) },
])

const title = computed(() => (gait.value ? `Is it a ${gait.value}?` : data.value?.name || 'A clip'))
const position = computed(
  () =>
    ({
      none: '',
      removed: 'The place where it was filmed was taken out of it.',
      'not looked': 'Where it was filmed could not be looked for in such a film: it may tell.',
    })[data.value?.position ?? 'none'],
)
</script>

<template>
  <div class="page">
    <header class="page-head">
      <h1>{{ title }}</h1>
      <p v-if="data" class="facts">
        <RouterLink :to="`/horses/${data.horse}`">{{ data.horse_name }}</RouterLink>, {{ shortDate(data.on)
        }}{{ data.name && gait ? `, ${data.name}` : '' }},
        {{ data.sent_by ? `from ${data.sent_by}` : `by ${data.added_by}` }}
      </p>
      <div class="acts">
        <span v-if="data && data.others.length" class="row">
          <label for="beside">Beside it</label>
          <select id="beside" v-model="beside" class="plain-field">
            <option value="">none</option>
            <option v-for="o in data.others" :key="o.id" :value="o.id">
              {{ shortDate(o.on) }}, {{ o.name || 'a clip' }}{{ o.same ? ', the same view' : '' }}
            </option>
          </select>
        </span>
        <RouterLink v-if="data" :to="`/horses/${data.horse}/clips`" class="button plain">All clips</RouterLink>
      </div>
    </header>
    <PageState :trouble="trouble" :ready="data !== undefined" :at="at" @again="load">
      <div v-if="data" class="clip">
        <div class="above" :class="{ two: beside }">
          <div class="stack">
            <ClipScreen ref="screen" :clip="data" :film="film" :rate="film.rate.value" />
            <div class="fields">
              <FieldRow v-slot="f" label="The rider calls it" :wrong="saving.trouble.value?.fields['gait']">
                <ElInput :id="f.id" v-model="gait" maxlength="120" :aria-describedby="f.describedby" @change="written" />
              </FieldRow>
              <FieldRow v-slot="f" label="The film's speed" :wrong="saving.trouble.value?.fields['speed']">
                <select :id="f.id" v-model.number="speed" class="plain-field" :aria-describedby="f.describedby" @change="written">
                  <option :value="1">true speed</option>
                  <option :value="0.5">slowed to a half</option>
                  <option :value="0.25">slowed to a quarter</option>
                  <option :value="0.125">slowed to an eighth</option>
                </select>
              </FieldRow>
            </div>
          </div>
          <ClipBeside v-if="beside" :clip="data" :film="film" :other="beside" />
          <FootfallVerdict v-else :result="result" />
        </div>
        <FootfallVerdict v-if="beside" :result="result" />
        <FootfallLanes
          :landings="landings"
          :now="film.now.value"
          :from="span.from"
          :to="span.to"
          :step="1 / 60"
          :stride="stride"
          :odd="result?.odd ?? []"
          :marks="data.marks"
          @tap="tap"
          @move="move"
          @drop="drop"
          @seek="film.to"
        />
        <div class="row foot">
          <span>Tap a hoof, or its key, as the foot lands.</span>
          <ElButton size="small" :disabled="landings.length === 0" @click="back">Take the last tap back</ElButton>
          <ElButton size="small" :disabled="landings.length === 0" @click="change([])">Clear all taps</ElButton>
          <span class="quiet" role="status">{{ unsent ? 'not kept yet' : landings.length ? 'kept' : '' }}</span>
          <span v-if="wrong" class="short">{{ wrong }}</span>
        </div>
        <ClipCounts v-if="result?.class" :clip="data" :landings="landings" :speed="speed" @logged="load" />
        <p v-if="saving.trouble.value?.current" role="alert" class="row">
          This clip was changed on another device meanwhile.
          <ElButton size="small" @click="mine">Keep mine</ElButton> <ElButton size="small" @click="theirs">Take theirs</ElButton>
        </p>
        <WrongNote v-else :trouble="saving.trouble.value" :shown="['gait', 'speed']" />
        <ClipMarks
          :clip="data"
          :at="film.now.value"
          :open="marking"
          @changed="data = $event"
          @seek="film.to"
          @closed="marking = false"
        />
        <p v-if="position" class="quiet small">{{ position }}</p>
      </div>
    </PageState>
  </div>
</template>

<style scoped>
.clip {
  display: grid;
  gap: var(--gap-3);
}
.above {
  display: grid;
  grid-template-columns: minmax(0, 2fr) minmax(280px, 1fr);
  gap: var(--gap-4);
  align-items: start;
}
.fields {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(140px, 1fr));
  gap: var(--gap-3);
}
#beside {
  max-width: min(100%, 30ch);
  min-width: 0;
}
.foot {
  border-top: var(--line);
  padding-top: var(--gap-2);
}
.above.two {
  grid-template-columns: repeat(2, minmax(0, 1fr));
}
@media (max-width: 900px) {
  .above,
  .above.two {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
