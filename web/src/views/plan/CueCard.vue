<script setup lang="ts">
// How each ask is given to this horse: body, word and aid, in hand and ridden
// alike. Any of it can be put in the trainer's own words.
import { ref } from 'vue'
import type { Schemas } from '../../api/types'
import FieldRow from '../../parts/FieldRow.vue'
import type { Change, PlanView } from './usePlan'

const { view, change } = defineProps<{ view: PlanView; change: Change }>()

const editing = ref('')
const text = ref<Schemas['PlanCueText']>({})

function edit(cue: Schemas['CatalogCue']) {
  editing.value = cue.key
  text.value = { body: cue.body, word: cue.word, in_hand: cue.in_hand, ridden: cue.ridden }
}

async function put(key: string) {
  await change((c) => {
    c.cues = { ...c.cues, [key]: { ...text.value } }
  })
  editing.value = ''
}
</script>

<template>
  <section class="sheet stack">
    <h2>Cue card</h2>
    <p class="quiet small">The same in hand and ridden, whoever asks. It goes with the homework.</p>
    <details v-for="c in view.now.cues" :key="c.key" class="cue">
      <summary>
        <b>{{ c.name }}</b> <span class="quiet">“{{ c.word }}”</span>
      </summary>
      <form v-if="editing === c.key" class="stack" @submit.prevent="put(c.key)">
        <FieldRow v-slot="f" label="Body"><ElInput :id="f.id" v-model="text.body" maxlength="200" /></FieldRow>
        <FieldRow v-slot="f" label="Word"><ElInput :id="f.id" v-model="text.word" maxlength="60" /></FieldRow>
        <FieldRow v-slot="f" label="In hand"><ElInput :id="f.id" v-model="text.in_hand" maxlength="200" /></FieldRow>
        <FieldRow v-slot="f" label="Ridden"><ElInput :id="f.id" v-model="text.ridden" maxlength="200" /></FieldRow>
        <div class="row">
          <ElButton native-type="submit">Put it so</ElButton>
          <ElButton link @click="editing = ''">Leave it</ElButton>
        </div>
      </form>
      <div v-else class="stack said">
        <p><span class="quiet small">Body</span> {{ c.body }}</p>
        <p><span class="quiet small">In hand</span> {{ c.in_hand }}</p>
        <p v-if="c.ridden"><span class="quiet small">Ridden</span> {{ c.ridden }}</p>
        <div>
          <ElButton link @click="edit(c)"
            >In your own words<span class="visually-hidden">: {{ c.name }}</span></ElButton
          >
        </div>
      </div>
    </details>
  </section>
</template>

<style scoped>
.cue {
  border-top: var(--line);
}
summary {
  cursor: pointer;
  min-height: var(--control);
  align-content: center;
}
.said {
  gap: var(--gap-1);
  padding-bottom: var(--gap-2);
}
</style>
