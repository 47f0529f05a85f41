<script setup lang="ts">
// The arena: another light. Hold the rope or tap a level, then tap the answer.
import { useEventListener, useIntervalFn, useLocalStorage } from '@vueuse/core'
import { computed, defineAsyncComponent, onUnmounted, ref, watch } from 'vue'
import { useRouter } from 'vue-router'
import { api, told } from '../../api/client'
import { isLead } from '../../api/me'
import type { Schemas } from '../../api/types'
import { useSend } from '../../api/use'
import { outbox } from '../../offline/kept'
import BeadRope from '../../parts/BeadRope.vue'
import PageState from '../../parts/PageState.vue'
import AdvicePanel from './AdvicePanel.vue'
import { arenaKeys } from './arenaKeys'
import ArenaTop from './ArenaTop.vue'
import ArousalKeys from './ArousalKeys.vue'
import AskCard from './AskCard.vue'
import AskPicker from './AskPicker.vue'
import DangerPanel from './DangerPanel.vue'
import { useHold } from './hold'
import LastStrip from './LastStrip.vue'
import LevelPad from './LevelPad.vue'
import MeasureRow from './MeasureRow.vue'
import MoreSheet from './MoreSheet.vue'
import MeansRow from './MeansRow.vue'
import HowLongSheet from './HowLongSheet.vue'
import EmptySheet from './EmptySheet.vue'
import InterruptionSheet from './pads/InterruptionSheet.vue'
import SchoolPad from './pads/SchoolPad.vue'
import PlaceSheet from './PlaceSheet.vue'
import RopeColumn from './RopeColumn.vue'
import SettingsSheet from './SettingsSheet.vue'
import SpotRow from './SpotRow.vue'
import ThingRow from './ThingRow.vue'
import { useArena, type Rep } from './useArena'
import { felt, mind, useAwake } from './useDevice'
import { usePads } from './usePads'

/** Seldom needed, and with a signal only. */
const FootfallSheet = defineAsyncComponent(() => import('./FootfallSheet.vue'))
const RehearseSheet = defineAsyncComponent(() => import('./RehearseSheet.vue'))

const { id } = defineProps<{ id: string }>()
const router = useRouter()
const box = outbox.value
if (!box) throw new Error('nobody is signed in')

const arena = useArena(id, box)
const { hold, press, build, tried, letGo, tap, take } = useHold(`hold-${id}`, () => Date.now())
const dropping = useSend()
const pads = usePads(arena, id, take)
const { thing, place, passed, measure, untimed, running, places, pad } = pads
const open = ref<'more' | 'asks' | 'danger' | 'settings' | 'rehearse' | 'unasked' | 'empty' | 'place' | 'footfall'>()
const left = useLocalStorage('arena-left-hand', false)
const tapping = useLocalStorage('arena-tap-levels', false)
useAwake()

const tick = ref(Date.now())
useIntervalFn(() => (tick.value = Date.now()), 1000)
onUnmounted(() => arena.stop())
// As time goes by what is said may change: a wait is over, a cap has come.
useIntervalFn(() => void arena.lookAgain(), 15_000)
// Somebody else may be logging on another device.
useIntervalFn(() => box.state.signal === 'ok' && box.state.waiting === 0 && void arena.load(), 60_000)

const advice = computed(() => arena.now?.advice)
const drafted = computed(() => hold.on || hold.draft.peak !== undefined)
const holder = computed(() => arena.data?.handlers.find((h) => h.id === arena.holder)?.name ?? '')

watch(
  () => arena.now?.count,
  () => (advice.value?.stops ? mind() : felt()),
)

/** How it is: of the answer just logged, or by itself while one waits. */
async function arousal(level: number) {
  if (!advice.value?.waits && arena.newestAnswers) await arena.correct({ arousal: level })
  else await arena.mark({ arousal: level })
}

/** Advice that would now be another, as it was read and put away. */
const dismissed = useLocalStorage<string[]>(`would-${id}`, [])
const dangerMark = ref('')

async function danger() {
  open.value = 'danger'
  dangerMark.value = await arena.mark({ arousal: 4 })
}

const unaskedAt = ref(0)

function unasked() {
  unaskedAt.value = Date.now()
  open.value = 'unasked'
}

/** Nothing was logged: it can be thrown away. */
function finish() {
  if (arena.now?.count === 0 && !running.value) open.value = 'empty'
  else void end()
}

async function drop() {
  const gone = await dropping.send(() => told(api.DELETE('/api/sessions/{id}', { params: { path: { id } } })))
  if (gone) await router.replace(`/horses/${gone.horse_id}`)
}

async function end() {
  letGo()
  await pads.endSpell()
  await arena.end('')
  await router.push(`/arena/${id}/after`)
}

async function takeAdvice() {
  const a = advice.value
  if (a?.action === 'end session' && !a.easy) await end()
  else if (a?.action === 'end ask' || a?.action === 'change ask' || a?.easy) await pick()
  else if (a?.next) arena.choose({ step: a.next.step, variant: a.next.variant, target: a.next.target })
}

/** Opens the picker on what stands against each ask now. */
async function pick() {
  await arena.lookAround()
  open.value = 'asks'
}

async function timed(landings: Schemas['GaitLanding'][]) {
  open.value = undefined
  await arena.footfall(landings)
}

async function otherwise() {
  await arena.otherwise()
  await pick()
}

async function choose(ask: Schemas['HorseAsk'], despite?: Schemas['TrackDespite']) {
  open.value = undefined
  await arena.changeAsk(ask, despite)
}

function side(word: 'near' | 'off') {
  const v = arena.card?.variants.find((x) => x.side === word)
  if (v) arena.choose({ ...arena.current, variant: v.variant })
}

/** The ladder at work is worked otherwise from here on. */
async function otherSchool(school: Schemas['ArenaCard']['school']) {
  const { step, variant } = arena.current
  await arena.mark({ ask: { step, variant }, school })
  await arena.lookAround()
}

/** The place on the body, with the side it is on. */
function touched(where: string, on: 'near' | 'off') {
  place.value = where
  side(on)
  open.value = undefined
}

function release(when: Rep['release']) {
  void arena.correct({ release: arena.last?.release === when ? 'on the try' : when })
}

useEventListener(window, ['keydown', 'keyup'], (e: KeyboardEvent) => {
  if (open.value || untimed.value) return
  arenaKeys(e, {
    press,
    letGo,
    tap,
    tried,
    answer: pads.answer,
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
  <div class="arena" :class="{ left }" :data-entries="arena.now?.count">
    <PageState :trouble="arena.trouble" :ready="arena.data !== undefined" @again="arena.load">
      <template v-if="arena.data && arena.now && advice">
        <ArenaTop
          :session="arena.data"
          :numbers="advice.numbers"
          :since="(tick - arena.toldAt) / 60_000"
          :holder="holder"
          @settings="open = 'settings'"
        />
        <div class="mid" :class="{ slack: ['dose', 'offer', 'burst', 'review'].includes(pad) }">
          <div class="card">
            <AskCard
              :card="arena.card"
              :variant="arena.current.variant ?? ''"
              :target="arena.current.target"
              :against="arena.against"
              :at="arena.data.beginning.readiness.trailer"
              :from="arena.from && arena.cardOf(arena.from.step)?.name"
              @back="arena.back"
              @because="arena.because"
              @time="open = 'footfall'"
              @eye="arena.footfall()"
              @variant="arena.choose({ ...arena.current, variant: $event })"
            />
            <template v-if="arena.card && (pad === 'answers' || pad === 'tries')">
              <MeasureRow :card="arena.card" :value="measure" :now="tick" @change="measure = $event" />
              <MeansRow
                v-if="arena.card.means.length"
                :card="arena.card"
                :value="measure"
                :level="hold.level"
                @change="measure = $event"
                @tap="tap"
              />
            </template>
            <ThingRow v-if="arena.card?.about_thing" v-model="thing" :met="arena.data.brief.met ?? []" />
            <SpotRow v-if="arena.card?.spots" v-model="passed" :before="arena.data.brief.input.spots ?? []" />
            <button v-if="arena.card?.bumps" type="button" class="set bump" @click="arena.mark({ bump: true }, 'bit on teeth')">
              bit on teeth
            </button>
          </div>
          <ArousalKeys class="how" :words="arena.data.arousals.map((a) => a.text)" :calm="arena.calm" @arousal="arousal" />
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
            :stays="pad === 'tries'"
            @press="press"
            @build="build"
            @let-go="letGo"
            @lost="hold.interrupted = true"
          />
          <div class="said">
            <div v-if="arena.data.planned" class="row" role="status">
              <b>The plan was changed since this session began.</b>
              <button type="button" class="set" @click="arena.takePlan(arena.data.planned)">work by it from now on</button>
            </div>
            <AdvicePanel
              :advice="advice"
              :would="arena.now.would.filter((w) => !dismissed.includes(w.id))"
              :other="arena.other"
              :elsewhere="arena.elsewhere && arena.cardOf(arena.elsewhere.step)?.name"
              @take="takeAdvice"
              @otherwise="otherwise"
              @change="pick"
              @dismiss="dismissed = [...dismissed, ...(arena.now?.would ?? []).map((w) => w.id)]"
            />
            <BeadRope
              class="beads"
              :beads="arena.beads"
              :cycle="['places', 'review'].includes(pad) ? 0 : advice.numbers.cycle"
              :ahead="4"
              ink
            />
          </div>
        </div>

        <LastStrip
          :last="arena.last"
          :newest="arena.newest"
          :can-undo="arena.now.recent.length > 0"
          @correct="arena.correct"
          @more="open = 'more'"
          @settings="open = 'settings'"
          @undo="arena.undo"
        />
        <div class="keys">
          <SchoolPad
            class="by-school"
            :pad="pad"
            :hold="hold"
            :card="arena.card"
            :target="arena.current.target ?? 0"
            :places="places"
            :running="running ?? undefined"
            :session="id"
            :now="tick"
            :live="arena.now.live"
            :tried="arena.told.flatMap((b) => b.trial ?? [])"
            :place="place"
            @running="running = $event"
            @place="open = 'place'"
            @trial="pads.trial"
            @down="arena.correct({ let_down: $event })"
            @stopped="pads.stopped"
            @answer="pads.answer"
            @tried="tried"
            @dose="pads.dose"
            @offer="pads.offer"
            @burst="pads.burst"
            @begin="pads.beginSpell"
            @end="pads.endSpell"
            @choose="pads.choosePad"
          />
          <div class="acts">
            <button type="button" class="act narrow-only" @click="pick">change ask</button>
            <button type="button" class="act" @click="unasked">it did something</button>
            <button type="button" class="act danger" @click="danger">Danger <small>make safe</small></button>
            <button type="button" class="act" @click="finish">End session</button>
          </div>
        </div>

        <MoreSheet
          v-if="open === 'more' && arena.last"
          :session="arena.data"
          :card="arena.cardOf(arena.last.step)"
          :rep="arena.last"
          @correct="arena.correct"
          @close="open = undefined"
        />
        <AskPicker
          v-if="open === 'asks'"
          :asks="arena.choices"
          :lead="isLead"
          :incident="advice.incident ?? false"
          @choose="choose"
          @own="arena.addOwn($event).then(() => (open = undefined))"
          @danger="open = 'danger'"
          @close="open = undefined"
        />
        <PlaceSheet v-if="open === 'place'" :chosen="place" @place="touched" @close="open = undefined" />
        <HowLongSheet
          v-if="untimed && arena.card"
          :card="arena.card"
          @long="untimed && pads.answer(untimed, $event ?? null)"
          @close="untimed = undefined"
        />
        <EmptySheet
          v-if="open === 'empty'"
          :trouble="dropping.trouble.value"
          :busy="dropping.sending.value"
          @drop="drop"
          @end="end"
          @close="open = undefined"
        />
        <InterruptionSheet
          v-if="open === 'unasked'"
          :ways="arena.data.ways_out"
          :began="unaskedAt"
          :live="arena.now.live"
          :now="tick"
          @stopped="pads.stopped($event).then(() => (open = undefined))"
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
        <FootfallSheet v-if="open === 'footfall' && arena.card" :name="arena.card.name" @keep="timed" @close="open = undefined" />
        <RehearseSheet
          v-if="open === 'rehearse'"
          :kase="arena.data.case_id"
          :person="arena.holder"
          :name="arena.data.handlers.find((h) => h.id === arena.holder)?.name ?? ''"
          :step="arena.current.step"
          :ask="arena.card?.name ?? ''"
          @close="open = undefined"
        />
        <SettingsSheet
          v-if="open === 'settings'"
          v-model:left="left"
          v-model:tapping="tapping"
          :holder="arena.holder"
          :handlers="arena.data.handlers"
          :card="arena.card"
          @turn="arena.mark({ turn: $event })"
          @rehearse="open = 'rehearse'"
          @time="open = 'footfall'"
          @school="otherSchool"
          @mark="(mark, note) => arena.mark(mark, note)"
          @close="open = undefined"
        />
      </template>
    </PageState>
  </div>
</template>

<style scoped src="./arena.css"></style>
