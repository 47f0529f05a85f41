<script setup lang="ts">
// The plan: what is to do in which order and way, whether the date can be met,
// and what would help. Anything can be tried; nothing counts until it is made.
import { computed } from 'vue'
import BridgeDrawing from '../../parts/BridgeDrawing.vue'
import type { Schemas } from '../../api/types'
import BridgeSources from '../../parts/BridgeSources.vue'
import BridgeKey from '../../parts/BridgeKey.vue'
import BridgeStrip from '../../parts/BridgeStrip.vue'
import PageState from '../../parts/PageState.vue'
import { secure, shortDate } from '../../words'
import { useHorseFile } from '../../cases/file'
import AlternativeList from './AlternativeList.vue'
import ClearancePart from './ClearancePart.vue'
import CueCard from './CueCard.vue'
import DisagreementList from './DisagreementList.vue'
import ExceptionForm from './ExceptionForm.vue'
import ForecastSheet from './ForecastSheet.vue'
import PlanHistory from './PlanHistory.vue'
import TryBar from './TryBar.vue'
import { usePlan } from './usePlan'
import VisitSheet from './VisitSheet.vue'
import WayList from './WayList.vue'

const { file, reload } = useHorseFile()
const caseId = file.value?.case.id ?? ''
const { kept, view, tried, trying, making, reason, change, undo, make } = usePlan(caseId)

const now = computed(() => view.value?.now)
const ladderName = (key: string) => now.value?.ways.find((w) => w.ladder === key)?.name ?? key
const barred = computed(() => {
  const list = (now.value?.items ?? []).filter((i) => i.blocked)
  return [...new Set(list.map((i) => i.blocked?.text ?? ''))].map((why) => {
    const held = list.filter((i) => i.blocked?.text === why)
    return {
      why,
      lifts: held[0]?.lifts?.text,
      day: held[0]?.lift,
      names: [...new Set(held.map((i) => i.ladder))].map(
        (l) =>
          `${ladderName(l)}: ${held
            .filter((i) => i.ladder === l)
            .map((i) => i.name)
            .join(', ')}`,
      ),
    }
  })
})

/** The goal is reached at a plank; at the ladder's last, the whole of it is wanted. */
function ends(step: string, bridge: Schemas['ProgressBridge']) {
  const problem = file.value?.case.problem
  if (!problem) return
  const until = step === bridge.planks.at(-1)?.step ? '' : step
  void change((c) => {
    c.goals = { ...c.goals, [problem]: { ...c.goals?.[problem], until } }
  })
}

async function keep() {
  if (await make()) await reload()
}
</script>

<template>
  <PageState :trouble="kept.trouble.value" :ready="view !== undefined" @again="kept.load">
    <div v-if="view && now" class="stack">
      <TryBar
        v-model:reason="reason"
        :view="view"
        :tried="tried !== undefined"
        :trying="trying"
        :making="making"
        @keep="keep"
        @undo="undo"
      />
      <div class="columns">
        <div class="stack">
          <section v-if="!view.assessed" class="sheet stack">
            <h2>Look before you plan</h2>
            <p>There is no assessment yet. The plan below takes nothing as known.</p>
            <p><RouterLink :to="`/horses/${view.horse.id}/assessment`">Begin the assessment</RouterLink></p>
          </section>
          <section class="sheet stack">
            <template v-for="(b, i) in view.bridges" :key="b.ladder">
              <h2>{{ b.name }}</h2>
              <template v-if="i === 0">
                <BridgeDrawing :bridge="b" choosable @end="ends($event, b)" />
                <p class="small quiet">Tap the plank where the goal is reached. What lies beyond is not planned.</p>
                <BridgeSources :sources="b.sources" />
              </template>
              <div v-else class="row">
                <BridgeStrip :bridge="b" />
                <span class="quiet">{{ secure(b) }}{{ b.blocked ? `, ${b.blocked} barred` : '' }}</span>
              </div>
            </template>
            <BridgeKey />
            <p v-if="view.mismatch" class="strong">{{ view.mismatch.text }}</p>
            <p v-for="n in now.notes" :key="n.key" class="strong">{{ n.text }}</p>
            <div v-for="b in barred" :key="b.why">
              <p class="strong">{{ b.why }}</p>
              <p>
                {{ b.lifts }}
                <span v-if="b.day && b.day > view.today" class="quiet"> At the earliest {{ shortDate(b.day) }}.</span>
              </p>
              <p v-for="n in b.names" :key="n" class="quiet begins">{{ n }}</p>
            </div>
          </section>
          <ForecastSheet :view="view" :busy="trying.sending.value" :change="change" />
          <WayList :view="view" :change="change" />
          <ExceptionForm v-if="view.young" :view="view" :trouble="trying.trouble.value" :change="change" />
          <AlternativeList v-if="view.alternatives.length > 1" :view="view" :change="change" />
          <DisagreementList :view="view" :trouble="trying.trouble.value" :change="change" />
        </div>
        <aside class="stack">
          <VisitSheet :view="view" :change="change" />
          <ClearancePart :case-id="caseId" />
          <CueCard :view="view" :change="change" />
          <PlanHistory :view="view" />
          <p class="small quiet">{{ view.safety.text }}</p>
        </aside>
      </div>
    </div>
  </PageState>
</template>

<style scoped>
.begins::first-letter {
  text-transform: uppercase;
}
.columns {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(320px, 380px);
  gap: var(--gap-3);
  align-items: start;
}
@media (max-width: 1080px) {
  .columns {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
