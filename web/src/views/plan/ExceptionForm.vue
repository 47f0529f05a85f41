<script setup lang="ts">
// Ridden problem work with a young horse: only as an exception of the lead
// trainer, with a reason and an end.
import { ref } from 'vue'
import type { Trouble } from '../../api/client'
import FieldRow from '../../parts/FieldRow.vue'
import { shortDate } from '../../words'
import type { Change, PlanView } from './usePlan'

const { view, trouble, change } = defineProps<{ view: PlanView; trouble: Trouble | undefined; change: Change }>()
const why = ref(view.choices.exception?.reason ?? '')
const until = ref(view.choices.exception?.until ?? '')

const set = () => change((c) => (c.exception = { reason: why.value, until: until.value }))
const end = () => change((c) => delete c.exception)
</script>

<template>
  <section class="sheet stack">
    <h2>A young horse</h2>
    <p>Under 3 years or 10 rides, ridden problem work waits. A lead trainer can make an exception for a time.</p>
    <p v-if="view.choices.exception">
      Until {{ shortDate(view.choices.exception.until) }}, by {{ view.choices.exception.by }}:
      {{ view.choices.exception.reason }}
    </p>
    <form v-if="view.lead" class="stack" @submit.prevent="set">
      <FieldRow v-slot="f" label="Why it is ridden all the same" :wrong="trouble?.fields['choices.exception.reason']">
        <ElInput :id="f.id" v-model="why" maxlength="500" :aria-describedby="f.describedby" />
      </FieldRow>
      <FieldRow v-slot="f" label="Until" :wrong="trouble?.fields['choices.exception.until']">
        <ElInput :id="f.id" v-model="until" type="date" :aria-describedby="f.describedby" />
      </FieldRow>
      <div class="row">
        <ElButton native-type="submit">Try the exception</ElButton>
        <ElButton v-if="view.choices.exception" @click="end">End it</ElButton>
      </div>
    </form>
    <p v-else class="quiet">Only a lead trainer can make one.</p>
  </section>
</template>
