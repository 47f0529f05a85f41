<script setup lang="ts">
// What is tried and what is kept: the bar stays in sight while something is
// tried.
import { computed, ref, watch } from 'vue'
import type { Trouble } from '../../api/client'
import FieldRow from '../../parts/FieldRow.vue'
import WrongNote from '../../parts/WrongNote.vue'
import type { PlanView } from './usePlan'

interface Sending {
  sending: { value: boolean }
  trouble: { value: Trouble | undefined }
}

const { view, tried, trying, making } = defineProps<{
  view: PlanView
  tried: boolean
  trying: Sending
  making: Sending
}>()
const reason = defineModel<string>('reason', { required: true })
const emit = defineEmits<{ keep: []; undo: [] }>()

const keeping = ref(false)
const first = computed(() => view.made.length === 0)
const open = computed(() => tried || first.value || view.changed.length > 0 || trying.trouble.value !== undefined)
const title = computed(() => {
  if (tried) return 'Trying, not kept yet'
  return first.value ? 'No plan made yet' : 'Since the plan was made'
})
const say = computed(() => (first.value ? 'Make the plan' : 'Make the plan anew'))
watch(
  () => view.made.length,
  () => (keeping.value = false),
)

function start() {
  if (first.value) emit('keep')
  else keeping.value = true
}
</script>

<template>
  <section v-if="open" class="bar" :class="{ tried }">
    <div aria-live="polite">
      <h2>{{ title }}</h2>
      <p v-if="first && !tried">Make it, and it is kept as it is now. Later ones are kept beside it, with what changed.</p>
      <ul class="dots">
        <li v-for="(c, i) in view.changed" :key="i">{{ c.text }}</li>
      </ul>
      <p v-if="tried && view.changed.length === 0">It changes nothing here.</p>
      <WrongNote :trouble="trying.trouble.value" />
    </div>
    <form v-if="keeping" class="row form" @submit.prevent="emit('keep')">
      <FieldRow v-slot="f" class="reason" label="Why make it anew" :wrong="making.trouble.value?.fields.reason">
        <ElInput :id="f.id" v-model="reason" maxlength="500" :aria-describedby="f.describedby" />
      </FieldRow>
      <ElButton type="primary" native-type="submit" :loading="making.sending.value" :disabled="trying.sending.value">{{
        say
      }}</ElButton>
      <ElButton @click="keeping = false">Not yet</ElButton>
    </form>
    <div v-else class="row">
      <ElButton type="primary" :loading="making.sending.value" :disabled="trying.sending.value" @click="start">{{
        say
      }}</ElButton>
      <ElButton v-if="tried" @click="emit('undo')">Undo what I tried</ElButton>
    </div>
    <WrongNote :trouble="making.trouble.value" :shown="['reason']" />
  </section>
</template>

<style scoped>
.bar {
  display: grid;
  gap: var(--gap-2);
  background: var(--ivory-2);
  border: 2px solid var(--ink-1);
  border-radius: var(--radius);
  padding: var(--gap-3) var(--gap-4);
}
.tried {
  position: sticky;
  top: 0;
  z-index: 2;
}
.form {
  align-items: end;
}
.reason {
  flex: 1 1 260px;
}
@media (max-width: 720px) {
  .bar {
    padding: var(--gap-2) var(--gap-3);
  }
}
</style>
