<script setup lang="ts">
// The arena: another light. Hold the rope or tap a level, then tap the answer.
import { StorageSerializers, useEventListener, useIntervalFn, useLocalStorage } from '@vueuse/core'
import { computed, onUnmounted, ref } from 'vue'
import { useRouter } from 'vue-router'
import type { Schemas } from '../../api/client'
import { keptWords, outbox } from '../../offline/kept'
import AnswerKeys from '../../parts/AnswerKeys.vue'
import { type AnswerWord } from '../../parts/answers'
import BeadRope from '../../parts/BeadRope.vue'
import PageState from '../../parts/PageState.vue'
import { clock, daysAgo } from '../../words'
import AdvicePanel from './AdvicePanel.vue'
import { arenaKeys } from './arenaKeys'
import ArousalKeys from './ArousalKeys.vue'
import AskCard from './AskCard.vue'
import AskPicker from './AskPicker.vue'
import DangerPanel from './DangerPanel.vue'
import { useHold } from './hold'
import LastStrip from './LastStrip.vue'
import LevelPad from './LevelPad.vue'
import MeasureRow, { type Measured } from './MeasureRow.vue'
import MoreSheet from './MoreSheet.vue'
import RopeColumn from './RopeColumn.vue'
import SettingsSheet from './SettingsSheet.vue'
import SpellPad, { type Running } from './SpellPad.vue'
import { useArena, type Rep } from './useArena'

const { id } = defineProps<{ id: string }>()
const router = useRouter()
const box = outbox.value
if (!box) throw new Error('nobody is signed in')

const arena = useArena(id, box)
const { hold, press, build, tried, letGo, tap, take } = useHold(() => performance.now())
const measure = ref<Measured>({})
const open = ref<'more' | 'asks' | 'danger' | 'settings'>()
const left = useLocalStorage('arena-left-hand', false)
const tapping = useLocalStorage('arena-tap-levels', false)

const tick = ref(Date.now())
useIntervalFn(() => (tick.value = Date.now()), 1000)
onUnmounted(() => arena.stop())

const advice = computed(() => arena.now?.advice)
const since = computed(() => (tick.value - arena.toldAt) / 60_000)
const block = computed(() => clock(((advice.value?.numbers.block_minutes ?? 0) + since.value) * 60))
const session = computed(() => clock(((advice.value?.numbers.session_minutes ?? 0) + since.value) * 60))
const drafted = computed(() => hold.on || hold.draft.peak !== undefined)
const unsent = computed(() => arena.waiting.filter((k) => k.entry.kind === 'rep').length)
const holder = computed(() => arena.data?.handlers.find((h) => h.id === arena.handler)?.name ?? '')

// While one waits, the rules are asked again as time goes by.
useIntervalFn(() => {
  if (['wait', 'make safe'].includes(advice.value?.action ?? '') && box.state.signal === 'ok') void arena.load()
}, 30_000)

async function answer(word: AnswerWord) {
  const ask = arena.current
  if (!ask.step || places.value.length) return
  const d = take()
  const m = measure.value
  measure.value = {}
  await arena.rep({
    step: ask.step,
    variant: ask.variant,
    target: ask.target,
    answer: word,
    start: d.start,
    first: d.first,
    peak: d.peak,
    seconds: d.seconds,
    to_try: d.toTry,
    reached: m.reached,
    corrections: m.corrections || undefined,
    ended_by: m.ended_by,
    handler: arena.handler === arena.data?.handler ? undefined : arena.handler,
  })
}

/** How it is: of the rep just logged, or by itself while one waits. */
async function arousal(level: number) {
  const waits = ['wait', 'make safe', 'hold'].includes(advice.value?.action ?? '')
  if (!waits && arena.newestIsRep) await arena.correct({ arousal: level })
  else await arena.mark({ arousal: level })
}

const dangerMark = ref('')

async function danger() {
  open.value = 'danger'
  dangerMark.value = await arena.mark({ arousal: 4 })
}

const running = useLocalStorage<Running | null>(`spell-${id}`, null, { serializer: StorageSerializers.object })
const places = computed(() => arena.card?.places.map(String) ?? [])

/** Ends the spell that runs: it is kept with how long it was. */
async function endSpell() {
  const r = running.value
  if (!r) return
  running.value = null
  const d = take()
  await arena.spell({
    step: arena.current.step,
    variant: arena.current.variant,
    place: r.place as Schemas['ArenaSpell']['place'],
    rest: r.rest || undefined,
    seconds: Math.round((Date.now() - r.at) / 1000),
    level: r.rest ? undefined : d.peak,
    handler: arena.handler === arena.data?.handler ? undefined : arena.handler,
  })
}

async function beginSpell(place: string, rest: boolean) {
  await endSpell()
  running.value = { place, rest, at: Date.now() }
}

async function end() {
  letGo()
  await endSpell()
  await arena.end('')
  await router.push(`/arena/${id}/after`)
}

async function takeAdvice() {
  const a = advice.value
  if (a?.action === 'end session' && !a.easy) await end()
  else if (a?.action === 'end ask' || a?.action === 'change ask' || a?.easy) open.value = 'asks'
  else if (a?.next) arena.choose({ step: a.next.step, variant: a.next.variant, target: a.next.target })
}

async function choose(ask: { step: string; variant?: string }) {
  open.value = undefined
  await arena.changeAsk(ask)
}

function side(word: 'near' | 'off') {
  const v = arena.card?.variants.find((x) => x.side === word)
  if (v) arena.choose({ ...arena.current, variant: v.variant })
}

function release(when: Rep['release']) {
  void arena.correct({ release: arena.last?.release === when ? 'on the try' : when })
}

useEventListener(window, ['keydown', 'keyup'], (e: KeyboardEvent) => {
  if (open.value) return
  arenaKeys(e, {
    press,
    letGo,
    tap,
    tried,
    answer,
    arousal,
    side,
    release,
    undo: arena.undo,
    advice: takeAdvice,
    more: () => (open.value = arena.last ? 'more' : undefined),
    help: () => (open.value = 'settings'),
  })
})
</script>

<template>
  <div class="arena" :class="{ left }">
    <PageState :trouble="arena.trouble" :ready="arena.data !== undefined" @again="arena.load">
      <template v-if="arena.data && arena.now && advice">
        <header class="top">
          <RouterLink :to="`/horses/${arena.data.horse.id}`" class="horse">{{ arena.data.horse.name }}</RouterLink>
          <span class="facts">
            {{
              [arena.data.yard, arena.data.weather, daysAgo(arena.data.days_off), arena.data.care, holder && `rope: ${holder}`]
                .filter(Boolean)
                .join(' · ')
            }}
          </span>
          <span class="clocks">
            <span
              >block <b>{{ block }}</b> of {{ advice.numbers.block_ends }}</span
            >
            <span
              >session <b>{{ session }}</b></span
            >
            <span role="status">{{ keptWords }}</span>
          </span>
          <button type="button" class="set" @click="open = 'settings'">settings</button>
        </header>

        <div class="mid">
          <div class="card">
            <AskCard
              :card="arena.card"
              :variant="arena.current.variant ?? ''"
              :target="arena.current.target"
              @variant="arena.choose({ ...arena.current, variant: $event })"
            />
            <MeasureRow
              v-if="arena.card"
              :key="arena.card.key + arena.reps.length"
              :card="arena.card"
              :value="measure"
              @change="measure = $event"
            />
            <ArousalKeys :words="arena.data.arousals.map((a) => a.text)" :calm="arena.calm" @arousal="arousal" />
          </div>
          <LevelPad v-if="tapping" class="rope" :level="hold.level" :drafted="drafted" @tap="tap" />
          <RopeColumn
            v-else
            class="rope"
            :on="hold.on"
            :level="hold.level"
            :seconds="hold.seconds"
            :feel="arena.data.feels[hold.level]?.text ?? ''"
            :interrupted="hold.interrupted"
            :draft="drafted && !hold.on"
            :tried="hold.tryAt !== undefined"
            @press="press"
            @build="build"
            @let-go="letGo"
            @lost="hold.interrupted = true"
          />
          <div class="said">
            <AdvicePanel
              :advice="advice"
              :unsent="unsent"
              :other="arena.other"
              @take="takeAdvice"
              @otherwise="arena.otherwise"
              @change="open = 'asks'"
            />
            <BeadRope class="beads" :beads="arena.beads" :cycle="advice.numbers.cycle" :ahead="4" ink />
          </div>
        </div>

        <LastStrip
          :last="places.length ? undefined : arena.last"
          :can-undo="arena.reps.length > 0 || arena.now.recent.length > 0"
          @correct="arena.correct"
          @more="open = 'more'"
          @undo="arena.undo"
        />
        <div class="keys" :class="{ spelling: places.length }">
          <SpellPad
            v-if="places.length"
            :places="places"
            :running="running ?? undefined"
            :now="tick"
            @begin="beginSpell"
            @end="endSpell"
          />
          <AnswerKeys v-else :disabled="!arena.current.step" @answer="answer" />
          <button type="button" class="act narrow-only" @click="open = 'asks'">change ask</button>
          <button type="button" class="act danger" @click="danger">Danger <small>make safe</small></button>
          <button type="button" class="act" @click="end">End session</button>
        </div>

        <MoreSheet
          v-if="open === 'more' && arena.last"
          :session="arena.data"
          :rep="arena.last"
          @correct="arena.correct"
          @close="open = undefined"
        />
        <AskPicker
          v-if="open === 'asks'"
          :asks="arena.data.asks"
          :easy="advice.easy?.step"
          @choose="choose"
          @close="open = undefined"
        />
        <DangerPanel
          v-if="open === 'danger'"
          :session="arena.data"
          :calm="arena.calm"
          @ways="arena.mark({ arousal: 4, ways_out: $event }, undefined, dangerMark)"
          @stop="arena.mark({ stop: $event })"
          @arousal="arena.mark({ arousal: $event })"
          @note="arena.mark({ incident: true }, $event)"
          @close="open = undefined"
        />
        <SettingsSheet
          v-if="open === 'settings'"
          v-model:left="left"
          v-model:tapping="tapping"
          v-model:handler="arena.handler"
          :handlers="arena.data.handlers"
          @close="open = undefined"
        />
      </template>
    </PageState>
  </div>
</template>

<style scoped src="./arena.css"></style>
