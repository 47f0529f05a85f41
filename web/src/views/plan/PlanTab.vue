<script setup lang="ts">
// The plan: its front on one screen, and behind it the steps, the visits, who is
// cleared, cues, numbers and the plans before. Anything can be tried; nothing
// counts until it is kept.
import { computed, ref } from 'vue'
import BridgeSources from '../../parts/BridgeSources.vue'
import BridgeKey from '../../parts/BridgeKey.vue'
import { useLeaf } from '../../parts/leaf'
import OneTap from '../../parts/OneTap.vue'
import PageState from '../../parts/PageState.vue'
import { useHorseFile } from '../../cases/file'
import { useKeys } from '../../keys/keys'
import AlternativeList from './AlternativeList.vue'
import BarredList from './BarredList.vue'
import ClearancePart from './ClearancePart.vue'
import CueCard from './CueCard.vue'
import DisagreementList from './DisagreementList.vue'
import ExceptionForm from './ExceptionForm.vue'
import ForecastSheet from './ForecastSheet.vue'
import PlanFront from './PlanFront.vue'
import PlanHistory from './PlanHistory.vue'
import PracticePart from './PracticePart.vue'
import SnagList from './SnagList.vue'
import TryBar from './TryBar.vue'
import { pull, usePlan } from './usePlan'
import VisitSheet from './VisitSheet.vue'
import WayList from './WayList.vue'

const { file, reload } = useHorseFile()
const caseId = file.value?.case.id ?? ''
const { kept, view, tried, trying, making, reason, change, undo, make } = usePlan(caseId)
const { open, turn } = useLeaf()

const leaves = computed(() => [
  { key: 'steps', name: 'all steps and schools' },
  { key: 'visits', name: `visits ahead, ${view.value?.now.visits.length || 'none'}` },
  { key: 'clearance', name: 'homework and clearance' },
  { key: 'cues', name: 'cue card' },
  { key: 'numbers', name: 'the numbers' },
  { key: 'made', name: view.value?.made.length ? `plans made, ${view.value.made.length}` : 'plans made' },
])

/** The goal is reached at a plank; at the ladder's last, the whole of it is wanted. */
function ends(step: string) {
  const problem = file.value?.case.problem
  const bridge = view.value?.bridges.find((b) => b.planks.some((p) => p.step === step))
  if (!problem || !bridge) return
  const until = step === bridge.planks.at(-1)?.step ? '' : step
  void change((c) => {
    c.goals = { ...c.goals, [problem]: { ...c.goals?.[problem], until } }
  })
}

const again = ref(0)
async function resumed() {
  again.value++
  await Promise.all([kept.load(), reload()])
}

async function keep() {
  if (await make()) await reload()
}

function lever(n: number) {
  const goal = view.value?.now.forecast.find((g) => g.help.length)
  const help = goal?.help.filter((h) => h.best)[n]
  if (goal && help) pull(change, goal.problem, help)
}
useKeys([
  ...[0, 1, 2, 3].map((n) => ({ press: String(n + 1), does: `try lever ${n + 1}`, run: () => lever(n) })),
  { press: 'Escape', does: 'leave what is tried', run: undo },
  { press: 'v', does: 'the visits', run: () => turn('visits') },
  { press: 'b', does: 'the steps as a list', run: () => turn('steps') },
  { press: '.', does: 'I do otherwise', run: () => turn('steps') },
])
</script>

<template>
  <PageState :trouble="kept.trouble.value" :ready="view !== undefined" :at="kept.at.value" @again="kept.load">
    <div v-if="view && kept.data.value" class="leafpage plan-leaves">
      <TryBar
        v-model:reason="reason"
        :view="view"
        :tried="tried !== undefined"
        :trying="trying"
        :making="making"
        @keep="keep"
        @undo="undo"
      />
      <PlanFront v-if="!open" :view="view" :kept="kept.data.value" :busy="trying.sending.value" :change="change" @end="ends" />
      <template v-else-if="open === 'steps'">
        <p v-if="view.mismatch" class="strong gap">{{ view.mismatch.text }}</p>
        <p v-for="n in view.now.notes" :key="n.key" class="strong gap">{{ n.text }}</p>
        <BarredList :view="view" />
        <WayList :view="view" :change="change" />
        <ExceptionForm v-if="view.young" :view="view" :trouble="trying.trouble.value" :change="change" />
        <AlternativeList v-if="view.alternatives.length > 1" :view="view" :change="change" />
        <DisagreementList :view="view" :trouble="trying.trouble.value" :change="change" />
        <section class="sheet stack">
          <h2>What the planks mean</h2>
          <BridgeKey />
          <BridgeSources v-for="b in view.bridges" :key="b.ladder" :sources="b.sources" />
          <p class="quiet">Tap a plank of the bridge to make it the one where the goal is reached.</p>
        </section>
      </template>
      <VisitSheet v-else-if="open === 'visits'" :view="view" :change="change" />
      <template v-else-if="open === 'clearance'">
        <PracticePart v-if="file" :horse="file.id" @resumed="resumed" />
        <ClearancePart :key="again" :case-id="caseId" />
      </template>
      <CueCard v-else-if="open === 'cues'" :view="view" :change="change" />
      <ForecastSheet v-else-if="open === 'numbers'" :view="view" :busy="trying.sending.value" :change="change" />
      <SnagList v-else-if="open === 'stops'" :view="view" class="gap" />
      <PlanHistory v-else :view="view" />
      <OneTap :leaves="leaves" front="the plan" />
    </div>
  </PageState>
</template>

<style scoped>
.plan-leaves > .sheet {
  max-width: 1000px;
}
.plan-leaves > .bar + .sheet {
  border-top: 0; /* the bar's own line is above it */
}
.gap {
  padding-top: var(--gap-3);
}
</style>
