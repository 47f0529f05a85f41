<script setup lang="ts">
// What a change would do, before it is kept: what differs, and what becomes of horses in work.
import type { Schemas } from '../../api/types'
import type { Trouble } from '../../api/client'
import FieldRow from '../../parts/FieldRow.vue'
import WrongNote from '../../parts/WrongNote.vue'
import { count } from '../../words'

const { trial, trying, wrong, trouble, sending } = defineProps<{
  trial?: Schemas['HouseTrial']
  trying: boolean
  wrong: Record<string, string>
  trouble?: Trouble
  sending: boolean
}>()
const reason = defineModel<string>({ required: true })
const emit = defineEmits<{ keep: []; leave: []; again: [] }>()
</script>

<template>
  <section class="sheet stack trial" aria-label="Before it is kept" aria-live="polite">
    <h2>Before it is kept</h2>
    <p v-if="trying" class="quiet">Looking at the horses in work.</p>
    <template v-if="trial">
      <p v-if="trial.differs.length === 0">All is put back as it ships.</p>
      <p v-for="d in trial.differs" :key="d">{{ d }}</p>
      <p v-if="trial.effects.length === 0" class="strong">
        Nothing changes for {{ count(trial.looked, 'horse', 'horses') }} in work: no judgement, no plan.
      </p>
      <details v-else open>
        <summary class="strong">
          It changes {{ count(trial.effects.length, 'horse', 'horses') }} of {{ trial.looked }} in work<template
            v-if="trial.looked < trial.all"
          >
            ({{ trial.all - trial.looked }} were not looked at)</template
          >
        </summary>
        <ul>
          <li v-for="e in trial.effects" :key="e.horse.id" class="line">
            <RouterLink :to="`/horses/${e.horse.id}/plan`">{{ e.horse.name }}</RouterLink>: {{ e.says.join(' ') }}
          </li>
        </ul>
      </details>
      <p class="quiet small">Sessions that were begun keep the rules they were begun with.</p>
    </template>
    <FieldRow v-slot="f" label="Why" :wrong="wrong['reason']">
      <ElInput :id="f.id" v-model="reason" maxlength="1000" :aria-describedby="f.describedby" />
    </FieldRow>
    <div class="row">
      <ElButton type="primary" :loading="sending" :disabled="!trial" @click="emit('keep')">Keep it</ElButton>
      <ElButton @click="emit('leave')">Leave it as it was</ElButton>
    </div>
    <p v-if="trouble?.status === 409" role="alert">
      Somebody changed the house rules meanwhile. <ElButton size="small" @click="emit('again')">Show theirs</ElButton>
    </p>
    <WrongNote v-else :trouble="trouble" :shown="Object.keys(wrong)" />
  </section>
</template>

<style scoped>
.trial {
  border-left: 3px solid var(--ink-1);
  padding-left: var(--gap-3);
}
.line {
  border-top: var(--line);
  padding: var(--gap-1) 0;
}
</style>
