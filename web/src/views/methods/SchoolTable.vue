<script setup lang="ts">
// Two schools side by side.
import { computed, ref } from 'vue'
import type { Schemas } from '../../api/types'
import ChipRow from '../../parts/ChipRow.vue'

const { schools } = defineProps<{ schools: Schemas['CatalogMethod'][] }>()
const chosen = ref<string[]>(['build and release', 'relief place'])

/** The older of the two goes when a third is tapped. */
function toggle(name: string) {
  chosen.value = chosen.value.includes(name) ? chosen.value.filter((c) => c !== name) : [...chosen.value, name].slice(-2)
}
const shown = computed(() => chosen.value.map((c) => schools.find((s) => s.school === c)).filter((s) => s !== undefined))
const rows = [
  { name: 'How it works', of: 'works' },
  { name: 'Choose when', of: 'choose' },
  { name: 'Avoid when', of: 'avoid' },
  { name: 'Earns the release', of: 'earns' },
  { name: 'How long one waits', of: 'waits' },
] as const
</script>

<template>
  <section class="sheet stack">
    <h2>Schools, side by side</h2>
    <ChipRow
      label="Two schools to compare"
      :choices="schools.map((s) => ({ value: String(s.school), text: s.school }))"
      :chosen="chosen"
      @toggle="toggle"
    />
    <p v-if="shown.length === 0" class="quiet">Tap one or two.</p>
    <div v-else class="compare">
      <article v-for="s in shown" :key="s.school" class="stack">
        <h3>{{ s.school }}</h3>
        <dl>
          <template v-for="r in rows" :key="r.of">
            <dt class="quiet small">{{ r.name }}</dt>
            <dd>{{ s[r.of] }}</dd>
          </template>
        </dl>
      </article>
    </div>
  </section>
</template>

<style scoped>
.compare {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(min(260px, 100%), 1fr));
  gap: var(--gap-4);
}
dl {
  margin: 0;
}
dd {
  margin: 0 0 var(--gap-2);
}
</style>
