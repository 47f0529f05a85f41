<script setup lang="ts">
// The visits to come, as a sheet: parts with their minutes, the kit, and who
// must be there.
import { computed, ref } from 'vue'
import FieldRow from '../../parts/FieldRow.vue'
import type { Change, PlanView } from './usePlan'

const { view, change } = defineProps<{ view: PlanView; change: Change }>()

const visits = computed(() => view.now.visits)
const trailer = computed(() => view.now.ways.some((w) => w.ladder === 'load'))
const vehicle = ref(view.choices.vehicle ?? '')
const keepVehicle = () => change((c) => (c.vehicle = vehicle.value))
</script>

<template>
  <section class="sheet stack">
    <h2>The next visits</h2>
    <p v-if="visits.length === 0">Nothing is open to be worked. See what is barred, and what lifts it.</p>
    <details v-for="v in visits" :key="v.n" class="visit" :open="v.n === 1">
      <summary>
        Visit {{ v.n }} <span class="quiet">about {{ v.minutes }} min</span>
      </summary>
      <ol class="parts">
        <li v-for="(p, i) in v.parts" :key="i" class="part">
          <span class="bar" aria-hidden="true"><i v-for="m in Math.ceil(p.minutes / 5)" :key="m" /></span>
          <span>
            {{ p.kind }} <b class="names">{{ p.names?.join(', ') }}</b>
            <span v-if="p.school" class="quiet small"> {{ p.school }}</span>
            <span v-if="p.warns?.length" class="small"> missing: {{ p.warns.join(', ') }}</span>
          </span>
          <span class="quiet">{{ p.minutes }} min</span>
        </li>
      </ol>
      <p class="small"><span class="strong">Bring: </span>{{ v.kit.join(', ') }}</p>
      <p v-for="h in v.helpers" :key="h" class="small"><span class="strong">Not alone: </span>{{ h }}.</p>
    </details>
    <form v-if="trailer" class="stack" @submit.prevent="keepVehicle">
      <FieldRow v-slot="f" label="Trailer, and who brings it">
        <ElInput :id="f.id" v-model="vehicle" maxlength="200" @change="keepVehicle" />
      </FieldRow>
      <p><RouterLink to="/cards/trailer">The sequence card of the trailer</RouterLink></p>
    </form>
  </section>
</template>

<style scoped>
.names {
  margin-right: var(--gap-2);
}
.visit + .visit {
  border-top: var(--line);
  padding-top: var(--gap-2);
}
summary {
  font-weight: 700;
  cursor: pointer;
  min-height: 28px;
}
summary .quiet {
  font-weight: 400;
}
.parts {
  margin: var(--gap-2) 0;
  display: grid;
  gap: var(--gap-1);
}
.part {
  display: grid;
  grid-template-columns: 34px minmax(0, 1fr) auto;
  gap: var(--gap-2);
}
.bar {
  display: flex;
  gap: 2px;
  align-items: center;
}
.bar i {
  width: 6px;
  height: 14px;
  background: var(--leather);
}
</style>
