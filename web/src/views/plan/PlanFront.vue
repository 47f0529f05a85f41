<script setup lang="ts">
// The plan on one screen: what is next and where that stands, the next visit, the
// chance by the date with what would help, and what stops us.
import { computed } from 'vue'
import { useHorseFile } from '../../cases/file'
import HeadLine from '../../parts/HeadLine.vue'
import BridgeDrawing from '../../parts/BridgeDrawing.vue'
import { dayMonth, count } from '../../words'
import NextVisit from './NextVisit.vue'
import SnagList from './SnagList.vue'
import TimeLine from './TimeLine.vue'
import { problemWord } from './words'
import { pull, type Change, type PlanView } from './usePlan'

const { view, kept, busy, change } = defineProps<{ view: PlanView; kept: PlanView; busy: boolean; change: Change }>()
const emit = defineEmits<{ end: [step: string] }>()
const { file } = useHorseFile()

const bridge = computed(() => view.bridges.find((b) => b.ladder === file.value?.bridge.ladder) ?? view.bridges[0])
const goal = computed(() => view.now.forecast.find((g) => g.ladder === bridge.value?.ladder) ?? view.now.forecast[0])
const was = computed(() => kept.now.forecast.find((g) => g.problem === goal.value?.problem) ?? goal.value)
const others = computed(() => view.now.forecast.filter((g) => g !== goal.value))
const title = computed(() => {
  const by = goal.value?.by
  if (!by) return 'When will it be ready'
  return goal.value?.help.length ? `Ready by ${dayMonth(by)}? What would help` : `Ready by ${dayMonth(by)}`
})
const pace = computed(() => {
  const c = view.choices
  const home = c.homework_per_week ? ` and ${count(c.homework_per_week, 'homework session', 'homework sessions')}` : ''
  return `${count(c.visits_per_week ?? 2, 'visit', 'visits')}${home} a week`
})
</script>

<template>
  <div class="front">
    <HeadLine :headline="view.headline">
      <RouterLink v-if="!view.assessed" :to="`/horses/${view.horse.id}/assessment`">Begin the assessment</RouterLink>
      <RouterLink v-else :to="{ query: { see: 'steps' } }" aria-current-value="false" class="no-print">I do otherwise</RouterLink>
    </HeadLine>
    <BridgeDrawing v-if="bridge" :bridge="bridge" :before="file?.before" :by="goal?.by" choosable @end="emit('end', $event)" />
    <div class="parts columns">
      <NextVisit :view="view" />
      <section class="part" aria-labelledby="ready">
        <h2 id="ready">{{ title }}</h2>
        <TimeLine
          v-if="goal && was"
          :goal="goal"
          :kept="kept === view ? goal : was"
          :today="view.today"
          :busy="busy"
          :pace="pace"
          @pull="(h) => pull(change, goal!.problem, h)"
        />
        <p v-for="g in others" :key="g.problem" class="small other">
          <b>{{ problemWord(view, g.problem) }}:</b> {{ g.word ? `${Math.round(g.p * 100)} %, ${g.word}. ` : ''
          }}{{ g.short.text }}
        </p>
      </section>
      <SnagList :view="view" :most="3">
        <p class="small quiet safety">{{ view.safety.text }}</p>
      </SnagList>
    </div>
  </div>
</template>

<style scoped>
.front {
  display: flex;
  flex-direction: column;
}
.columns {
  --beside: 226px minmax(0, 540px) minmax(0, 1fr);
}
.safety {
  margin-top: var(--gap-2);
  line-height: 1.3;
}
.other::first-letter {
  text-transform: uppercase;
}
.other {
  padding-top: 3px;
}
@media (max-width: 1180px) {
  .columns {
    --beside: minmax(0, 1fr) minmax(0, 1.6fr);
  }
}
</style>
