<script setup lang="ts">
// To judge a result otherwise: what, and why. Both judgements are kept.
import { ref } from 'vue'
import type { Schemas } from '../../api/types'
import ChipRow from '../../parts/ChipRow.vue'
import FieldRow from '../../parts/FieldRow.vue'
import { shortDate } from '../../words'
import type { Put } from '../../cases/useAssessment'

const {
  what,
  choices,
  overruled = undefined,
  mark = undefined,
  note = '',
} = defineProps<{
  what: string
  choices: { value: string; text: string }[]
  overruled?: Schemas['Overruled']
  mark?: Put
  note?: string
}>()

const to = ref('')
const reason = ref('')
const wrong = ref('')
const open = ref(false)

function keep() {
  if (!to.value || !reason.value.trim()) {
    wrong.value = 'Choose what you judge, and say in a few words why. Both judgements are kept.'
    return
  }
  mark?.(`overruled/${what}`, { to: to.value, reason: reason.value.trim() })
  open.value = false
  wrong.value = ''
}
const day = (ms: number) => shortDate(new Date(ms).toISOString().slice(0, 10))
const text = (value: string) => choices.find((c) => c.value === value)?.text ?? value
</script>

<template>
  <div v-if="overruled" class="row">
    <p>
      Judged otherwise by {{ overruled.by }}<template v-if="overruled.at"> on {{ day(overruled.at) }}</template
      >: <b>{{ text(overruled.to) }}</b>. {{ overruled.reason }}
    </p>
    <ElButton v-if="mark" @click="mark(`overruled/${what}`, null)">Back to the computed one</ElButton>
  </div>
  <details v-else-if="mark" :open="open" class="no-print" @toggle="open = ($event.target as HTMLDetailsElement).open">
    <summary>I judge otherwise</summary>
    <div v-if="open" class="stack">
      <ChipRow label="My judgement" :choices="choices" :chosen="[to]" @toggle="to = $event" />
      <FieldRow v-slot="f" label="Why" :wrong="wrong">
        <ElInput :id="f.id" v-model="reason" maxlength="500" />
      </FieldRow>
      <p v-if="note" class="quiet small">{{ note }}</p>
      <div><ElButton type="primary" @click="keep">Keep both</ElButton></div>
    </div>
  </details>
</template>

<style scoped>
summary {
  cursor: pointer;
  color: var(--slate);
  text-decoration: underline;
  min-height: var(--control);
  align-content: center;
}
</style>
