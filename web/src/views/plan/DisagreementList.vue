<script setup lang="ts">
// Where practitioners disagree: what this plan does, why it does so unless told
// otherwise, and the other ways.
import type { Trouble } from '../../api/client'
import ChipRow from '../../parts/ChipRow.vue'
import AidForm from './AidForm.vue'
import type { Change, PlanView } from './usePlan'

const { view, trouble, change } = defineProps<{ view: PlanView; trouble: Trouble | undefined; change: Change }>()

const undone = (key: string) => view.now.undone?.filter((u) => u.choice === key) ?? []

function choose(key: string, option: string) {
  void change((c) => {
    c.settings = { ...c.settings, [key]: option }
  })
}
</script>

<template>
  <section class="sheet stack">
    <h2>Where practitioners disagree</h2>
    <details v-for="s in view.settings" :key="s.key" class="one">
      <summary>
        <b>{{ s.asks }}</b> <span :class="{ quiet: s.chosen === s.default }">{{ s.chosen }}</span>
      </summary>
      <div class="stack">
        <p class="quiet">{{ s.why }}</p>
        <AidForm v-if="s.key === 'head aids'" :view="view" :trouble="trouble" :change="change" />
        <p v-else-if="s.record">
          It stands on <RouterLink :to="`/horses/${view.horse.id}/record`">the horse's record</RouterLink>.
        </p>
        <ChipRow
          v-else
          :label="s.asks"
          :choices="s.options.map((o) => ({ value: o.key, text: o.key }))"
          :chosen="[s.chosen]"
          @toggle="(o) => choose(s.key, o)"
        />
        <p>{{ s.options.find((o) => o.key === s.chosen)?.says }}</p>
        <p v-for="u in undone(s.key)" :key="u.choice" class="strong">{{ u.why.text }}</p>
      </div>
    </details>
  </section>
</template>

<style scoped>
.one {
  border-top: var(--line);
}
summary {
  cursor: pointer;
  min-height: var(--control);
  align-content: center;
}
.one .stack {
  padding-bottom: var(--gap-3);
}
</style>
