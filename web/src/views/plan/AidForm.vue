<script setup lang="ts">
// A tack aid for head position, for a while: which, why, and when it comes off.
import { ref } from 'vue'
import type { Trouble } from '../../api/client'
import FieldRow from '../../parts/FieldRow.vue'
import type { Change, PlanView } from './usePlan'

const { view, trouble, change } = defineProps<{ view: PlanView; trouble: Trouble | undefined; change: Change }>()
const what = ref(view.choices.aid?.what ?? '')
const why = ref(view.choices.aid?.reason ?? '')
const until = ref(view.choices.aid?.until ?? '')

const set = () =>
  change((c) => {
    c.aid = { what: what.value, reason: why.value, until: until.value }
    c.settings = { ...c.settings, 'head aids': 'for a while' }
  })
const end = () =>
  change((c) => {
    delete c.aid
    c.settings = { ...c.settings, 'head aids': 'none' }
  })
</script>

<template>
  <form class="stack" @submit.prevent="set">
    <FieldRow v-slot="f" label="Which aid"><ElInput :id="f.id" v-model="what" maxlength="120" /></FieldRow>
    <FieldRow v-slot="f" label="Why, for now" :wrong="trouble?.fields['choices.aid.reason']">
      <ElInput :id="f.id" v-model="why" maxlength="500" :aria-describedby="f.describedby" />
    </FieldRow>
    <FieldRow
      v-slot="f"
      label="Comes off on"
      hint="not before 30 to 60 days of riding as a rule"
      :wrong="trouble?.fields['choices.aid.until']"
    >
      <ElInput :id="f.id" v-model="until" type="date" :aria-describedby="f.describedby" />
    </FieldRow>
    <div class="row">
      <ElButton native-type="submit">Try it with the aid</ElButton>
      <ElButton v-if="view.choices.aid" @click="end">Without it again</ElButton>
    </div>
  </form>
</template>
