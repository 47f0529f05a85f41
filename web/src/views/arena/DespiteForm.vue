<script setup lang="ts">
// What a fact or a danger forbids: a lead trainer says why it is asked all the same,
// and who answers for it.
import { computed, ref } from 'vue'
import type { Schemas } from '../../api/types'
import ChipRow from '../../parts/ChipRow.vue'
import { choices } from '../../parts/choices'

const { against, lead, incident } = defineProps<{ against: Schemas['ArenaAgainst']; lead: boolean; incident: boolean }>()
const emit = defineEmits<{ ask: [despite: Schemas['TrackDespite']]; danger: [] }>()

const who = choices(['the vet released it', 'seen by somebody', 'my decision'] as const)
const answers = ref('')
const reason = ref('')
const wrong = ref('')
const first = computed(() => against.kind === 'closed' && incident)

function ask() {
  const missing = [!answers.value && 'who answers for it', !reason.value.trim() && 'a reason'].filter(Boolean)
  wrong.value = missing.length ? `Still missing: ${missing.join(' and ')}.` : ''
  if (!missing.length) emit('ask', { reason: reason.value.trim(), answers: answers.value })
}
</script>

<template>
  <div class="despite asked">
    <p v-if="against.lifts">{{ against.lifts.text }}</p>
    <p v-if="!lead">Only a lead trainer chooses this. What was done all the same can be written down from memory.</p>
    <template v-else-if="first">
      <p>It was dangerous here. Write down what happened first.</p>
      <button type="button" class="pressed" @click="emit('danger')">Open the danger panel</button>
    </template>
    <form v-else class="asked" @submit.prevent="ask">
      <p id="who"><b>Who answers for it?</b></p>
      <ChipRow big label="Who answers for it?" :choices="who" :chosen="[answers]" @toggle="answers = $event" />
      <label for="reason"><b>Why is it asked all the same?</b></label>
      <input id="reason" v-model="reason" class="typed" maxlength="200" autocomplete="off" />
      <p v-if="wrong" class="wrong" role="alert">{{ wrong }}</p>
      <button type="submit" class="pressed">Ask it all the same</button>
    </form>
  </div>
</template>

<style scoped src="./sheet.css"></style>
<style scoped>
.despite {
  border: var(--stroke);
  border-top: 0;
  padding: var(--gap-2) var(--gap-3);
}
</style>
