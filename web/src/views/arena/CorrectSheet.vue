<script setup lang="ts">
// A slip of the thumb, put right: the answer, the level, or not at all.
import { ref } from 'vue'
import type { Schemas } from '../../api/types'
import { answers, type AnswerWord } from '../../parts/answers'
import AnswerRow from '../../parts/AnswerRow.vue'
import ChipRow from '../../parts/ChipRow.vue'
import ArenaSheet from './ArenaSheet.vue'

const { bead } = defineProps<{ bead: Schemas['ArenaTold'] }>()
const emit = defineEmits<{ correct: [to: { answer: AnswerWord; peak?: number }]; out: []; close: [] }>()

const answer = ref(bead.answer as AnswerWord)
const peak = ref(bead.peak ?? undefined)
const levels = Array.from({ length: 11 }, (_, i) => ({ value: i, text: String(i) }))
</script>

<template>
  <ArenaSheet title="Put it right" @close="emit('close')">
    <p>What was tapped stays on record; the correction stands in its place.</p>
    <template v-if="bead.kind === 'rep'">
      <AnswerRow :answers="answers.map((a) => a.answer)" :given="answer" label="Answer" @tap="answer = $event as AnswerWord" />
      <ChipRow big label="Level" :choices="levels" :chosen="[peak ?? -1]" @toggle="peak = Number($event)" />
    </template>
    <div class="row">
      <button v-if="bead.kind === 'rep'" type="button" class="button" @click="emit('correct', { answer, peak })">
        Keep the correction
      </button>
      <button type="button" class="button plain" @click="emit('out')">It did not happen: take it out</button>
    </div>
  </ArenaSheet>
</template>
