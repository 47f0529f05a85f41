<script setup lang="ts">
// What stops us: the gap drawn, the fact, and the act that lifts it. The page shows
// the gravest; the rest stand behind it.
import { computed } from 'vue'
import type { Schemas } from '../../api/types'
import { useHorseFile } from '../../cases/file'
import SnagMark from '../../parts/SnagMark.vue'
import type { PlanView } from './usePlan'

const { view, most = Infinity } = defineProps<{ view: PlanView; most?: number }>()
type Snag = Schemas['SnagSnag']
const { file } = useHorseFile()

const shown = computed(() => view.snags.slice(0, most))
const behind = computed(() => view.snags.length - shown.value.length)
const to = (s: Snag) => {
  const kase = file.value?.case.id ?? ''
  switch (s.act) {
    case 'look':
      return `/horses/${view.horse.id}/assess/${kase}?at=${s.of}`
    case 'result':
      return `/horses/${view.horse.id}/assessment`
    case 'letter':
      return `/horses/${view.horse.id}/letter/${encodeURIComponent(s.of ?? '')}`
    case 'arena':
      return `/arena/ready/${kase}`
    default:
      return { query: { see: 'clearance' } }
  }
}
</script>

<template>
  <section class="part" aria-labelledby="snags">
    <h2 id="snags">What stops us</h2>
    <p v-if="shown.length === 0">Of what was seen, nothing stops us.</p>
    <ul>
      <li v-for="s in shown" :key="s.kind + s.what.text">
        <SnagMark :kind="s.kind" />
        <div>
          <b class="what">{{ s.what.text }}</b>
          <p>
            {{ s.fact.text }} <RouterLink v-if="s.does" :to="to(s)" class="no-print">{{ s.does.text }}</RouterLink>
          </p>
        </div>
      </li>
    </ul>
    <p v-if="behind > 0">
      <RouterLink :to="{ query: { see: 'stops' } }" aria-current-value="false">{{ behind }} more that stop us</RouterLink>
    </p>
    <slot />
  </section>
</template>

<style scoped>
li {
  display: grid;
  grid-template-columns: 30px minmax(0, 1fr);
  gap: 0 var(--gap-2);
  padding: 6px 0 7px;
  border-bottom: var(--line);
  line-height: 1.35;
}
.what {
  display: block;
}
.what::first-letter {
  text-transform: uppercase;
}
p {
  font-size: 0.9063rem;
}
</style>
