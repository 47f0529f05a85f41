<script setup lang="ts">
// What the taps say of the gait, beside what the rider calls it: on clips, in earlier
// assessments, and timed here while it goes.
import { computed, defineAsyncComponent, ref } from 'vue'
import type { Schemas } from '../../api/types'
import { localDate, shortDate } from '../../words'

/** Seldom needed. */
const FootfallLive = defineAsyncComponent(() => import('../../cases/FootfallLive.vue'))

const { timed, now } = defineProps<{
  timed: Schemas['TimedGait'][]
  /** What was tapped in this assessment. */
  now?: Schemas['GaitTaps']
}>()
const emit = defineEmits<{ keep: [landings: Schemas['GaitLanding'][]]; clear: [] }>()
const open = ref(false)
function clear() {
  open.value = false
  emit('clear')
}
/** What was timed today stands in the timer itself. */
const before = computed(() => timed.filter((t) => t.clip || t.on !== localDate(Date.now())).slice(0, 3))
</script>

<template>
  <div class="timed">
    <ul v-if="before.length" aria-label="Timed before">
      <li v-for="t in before" :key="t.clip ?? t.on">
        <template v-if="t.clip"
          >Timed on the clip of <RouterLink :to="`/clips/${t.clip}`">{{ shortDate(t.on) }}</RouterLink></template
        ><template v-else>Timed on {{ shortDate(t.on) }}</template
        >: {{ t.says.text }}
        <template v-if="t.rider">The rider calls it {{ t.rider }}.</template>
        <b v-if="t.vet">{{ t.vet.text }}</b>
      </li>
    </ul>
    <FootfallLive v-if="open || now" :kept="now?.landings" @keep="emit('keep', $event)" />
    <div class="row">
      <button v-if="!open && !now" type="button" class="button plain" @click="open = true">Time it while it goes</button>
      <button v-if="now" type="button" class="as-link" @click="clear">Take the timing off</button>
    </div>
  </div>
</template>

<style scoped>
.timed {
  padding-bottom: var(--gap-2);
}
ul {
  margin: 0;
  padding: 0 0 var(--gap-2);
  list-style: none;
}
</style>
