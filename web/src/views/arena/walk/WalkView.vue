<script setup lang="ts">
// Walking home slowly, one hand on the phone: one huge clock of what is still owed, the
// road, and the largest key for what most likely comes next.
import { useLocalStorage } from '@vueuse/core'
import { computed, onUnmounted, ref, watch } from 'vue'
import { useRouter } from 'vue-router'
import type { Schemas } from '../../../api/types'
import { keptWords, outbox } from '../../../offline/kept'
import PageState from '../../../parts/PageState.vue'
import RoadLine from '../../../parts/RoadLine.vue'
import { clock, clockTime } from '../../../words'
import ArousalKeys from '../ArousalKeys.vue'
import { useArena } from '../useArena'
import { useAwake } from '../useDevice'
import { useWalk } from './useWalk'
import WalkSpot from './WalkSpot.vue'
import WalkTrouble from './WalkTrouble.vue'

const { id } = defineProps<{ id: string }>()
const router = useRouter()
const box = outbox.value
if (!box) throw new Error('nobody is signed in')

const arena = useArena(id, box)
onUnmounted(() => arena.stop())
useAwake()
const left = useLocalStorage('arena-left-hand', false)
const laid = ref<{ road: Schemas['TrackRoad']; before: number }>()
const { state, swapped, next, owed, standing, toStand, outFor, press, home } = useWalk(arena, () => laid.value?.before ?? 0)
const open = ref<'trouble' | 'spot'>()
const trouble = ref('')

// The road as it was planned before the gate; a walk that runs has its own.
watch(
  () => arena.data?.case_id,
  async (kase) => {
    if (kase) laid.value = await box.setting(`road ${kase}`)
  },
  { immediate: true },
)

const phase = computed(() => state.value?.phase)
const over = computed(() => standing.value && toStand.value === 0)
const at = computed(() => {
  const s = state.value
  if (!s || s.phase === 'home') return undefined
  return s.phase === 'out' ? Math.min(1, outFor.value / Math.max(1, s.plan.out)) : s.share
})
const shares = computed(() => {
  const s = state.value
  if (!s || s.phase === 'out') return (s?.plan.stops ?? []).map((x) => x.share)
  return Array.from({ length: s.left }, (_, i) => (s.share * (s.left - i)) / (s.left + 1))
})
const by = computed(() => {
  const s = state.value
  if (!s || s.phase === 'home' || s.phase === 'out') return ''
  return clockTime(Date.now() + (owed.value + s.share * s.plan.moving) * 1000)
})
const fill = computed(() => {
  const s = state.value
  return s?.of ? `${Math.min(100, (100 * (s.of - toStand.value)) / s.of)}%` : '0%'
})

async function setOff() {
  if (laid.value) await press('set off', { road: laid.value.road })
}

async function sayTrouble() {
  open.value = 'trouble'
  trouble.value = await press('trouble', { heading: phase.value === 'out' ? 'away' : 'home' })
}

async function end() {
  await arena.end('')
  await router.push(`/arena/${id}/after`)
}
</script>

<template>
  <div class="walk" :class="{ left, swapped }">
    <PageState :trouble="arena.trouble" :ready="arena.data !== undefined && arena.now !== undefined" @again="arena.load">
      <template v-if="arena.data && arena.now">
        <header class="top">
          <b>{{ arena.data.horse.name }}, {{ phase === 'out' ? 'walking out' : phase === 'home' ? 'home' : 'walking home' }}</b>
          <span role="status">{{ keptWords }}</span>
        </header>

        <section v-if="!state" class="begin">
          <p v-if="laid" class="says">The road is planned. Set off when you leave the yard.</p>
          <p v-else class="says">No road is planned here. Plan it first, under Outings.</p>
          <button v-if="laid" type="button" class="key main" @click="setOff">Set off</button>
          <RouterLink :to="`/outings/${arena.data.horse.id}/plan`" class="key">Plan the road</RouterLink>
          <RouterLink :to="`/arena/${id}`" class="key">To the arena</RouterLink>
        </section>

        <template v-else>
          <div class="clock" aria-live="off">
            <b>{{ phase === 'out' ? clock(outFor) : clock(Math.ceil(owed)) }}</b>
            <p v-if="phase === 'out'">
              out so far,<br /><strong>{{ Math.round(state.plan.out / 60) }} min planned</strong>
            </p>
            <p v-else-if="phase === 'home'">still owed,<br /><strong>the outing is over</strong></p>
            <p v-else>still owed,<br /><strong>standing still</strong><br />yard by {{ by }}</p>
          </div>

          <div v-if="standing" class="stand">
            <p class="row between">
              <b>Stop {{ state.stop }}: {{ state.back_up ? 'stand, two back, stand' : 'stand' }}</b>
              <span>{{ over ? 'stood' : `${Math.ceil(toStand)} s more of ${state.of}` }}</span>
            </p>
            <div class="rope" :style="{ '--fill': fill }"></div>
          </div>

          <RoadLine
            v-if="phase !== 'home'"
            :stops="state.stops ?? []"
            :ahead="shares"
            :at="at"
            :standing="standing ? state.stop : undefined"
            :label="`The road home. ${(state.stops ?? []).length} stops made, ${state.left} to come.`"
          />
          <p class="says" role="status">{{ (state.says ?? []).map((m) => m.text).join(' ') }}</p>

          <div v-if="phase === 'home'" class="begin">
            <p v-if="next" class="says">{{ next.why.text }}</p>
            <RouterLink :to="`/outings/${arena.data.horse.id}`" class="key main">See the road</RouterLink>
            <button type="button" class="key" @click="end">End session</button>
            <button type="button" class="key" @click="arena.undo">
              Undo <small>{{ state.undoes.text }}</small>
            </button>
          </div>
          <div v-else class="keys">
            <button v-if="phase === 'out'" type="button" class="key main tall" @click="press('turned')">
              Turned <small>we go home</small>
            </button>
            <button v-else-if="phase === 'moving'" type="button" class="key main tall" @click="press('stopped')">
              Stopped <small>stand on a slack rope</small>
            </button>
            <template v-else-if="standing">
              <button type="button" class="key main tall" @click="press('stood')">
                Stood <small>rope slack, mind here</small>
              </button>
              <button type="button" class="key" @click="press('broke')">Broke <small>put back, again</small></button>
              <button type="button" class="key" @click="press('stood, mind elsewhere')">
                Stood <small>mind elsewhere</small>
              </button>
            </template>
            <button v-else type="button" class="key main tall" @click="press('moving')">Moving <small>we walk on</small></button>
            <button type="button" class="key thick" @click="sayTrouble">Trouble <small>a way out, danger</small></button>
            <button v-if="standing" type="button" class="key" @click="press('moving')">Moving <small>we walk on</small></button>
            <button type="button" class="key" @click="open = 'spot'">Named spot</button>
            <button v-if="phase !== 'out'" type="button" class="key" @click="home">Home</button>
            <button type="button" class="key" @click="arena.undo">
              Undo <small>{{ state.undoes.text }}</small>
            </button>
          </div>
          <ArousalKeys
            v-if="phase !== 'home'"
            :words="arena.data.arousals.map((a) => a.text)"
            :calm="arena.calm"
            @arousal="arena.mark({ arousal: $event })"
          />
        </template>
        <p v-if="arena.now.advice.stops" class="says alarm" role="alert">{{ arena.now.advice.say.text }}</p>

        <WalkTrouble
          v-if="open === 'trouble'"
          :session="arena.data"
          @ways="arena.mark({ walk: { button: 'trouble' }, ways_out: $event }, undefined, trouble)"
          @arousal="arena.mark({ arousal: $event })"
          @note="arena.mark({ incident: true }, $event)"
          @spooked="arena.mark({ spooked: true }, 'spooked')"
          @close="open = undefined"
        />
        <WalkSpot
          v-if="open === 'spot'"
          :before="arena.data.brief.input.spots ?? []"
          :out="phase === 'out'"
          @spot="(spot) => press('spot', spot).then(() => (open = undefined))"
          @close="open = undefined"
        />
      </template>
    </PageState>
  </div>
</template>

<style scoped src="./walk.css"></style>
