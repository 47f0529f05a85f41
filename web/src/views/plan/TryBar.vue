<script setup lang="ts">
// What is tried and what is kept, in one ruled line over the plan: it stays in sight
// while something is tried.
import { computed, ref, watch } from 'vue'
import type { Trouble } from '../../api/client'
import FieldRow from '../../parts/FieldRow.vue'
import WrongNote from '../../parts/WrongNote.vue'
import { count } from '../../words'
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
const say = computed(() => (first.value ? 'Make the plan' : 'Make the plan anew'))
watch(
  () => [view.made.length, tried],
  () => (keeping.value = false),
)

function start() {
  if (first.value) emit('keep')
  else keeping.value = true
}
</script>

<template>
  <section v-if="open" class="bar no-print" :class="{ tried }" aria-label="What is tried, and what is kept">
    <div class="says" aria-live="polite">
      <p v-if="first && !tried"><b>No plan made yet.</b> Make it, and it is kept as it is now.</p>
      <p v-else-if="tried" class="trial clamp">
        <b>Trying, not kept yet.</b>
        {{ view.changed.map((c) => c.text).join(' ') || 'It changes nothing here.' }}
      </p>
      <details v-else-if="view.changed.length">
        <summary>
          <b>Since the plan was made: {{ count(view.changed.length, 'change', 'changes') }}</b>
        </summary>
        <ul class="dots">
          <li v-for="(c, i) in view.changed" :key="i">{{ c.text }}</li>
        </ul>
      </details>
      <WrongNote :trouble="trying.trouble.value" />
    </div>
    <form v-if="keeping" class="form" @submit.prevent="emit('keep')">
      <FieldRow v-slot="f" class="reason" label="Why make it anew" :wrong="making.trouble.value?.fields.reason">
        <ElInput :id="f.id" v-model="reason" maxlength="500" :aria-describedby="f.describedby" />
      </FieldRow>
      <ElButton type="primary" native-type="submit" :loading="making.sending.value" :disabled="trying.sending.value">{{
        say
      }}</ElButton>
      <ElButton @click="keeping = false">Not yet</ElButton>
    </form>
    <div v-else class="acts">
      <ElButton
        :type="tried || first ? 'primary' : 'default'"
        :loading="making.sending.value"
        :disabled="trying.sending.value"
        @click="start"
        >{{ tried && !first ? 'Keep it' : say }}</ElButton
      >
      <ElButton v-if="tried" @click="emit('undo')">Leave it</ElButton>
    </div>
    <WrongNote :trouble="making.trouble.value" :shown="['reason']" />
  </section>
</template>

<style scoped>
.bar {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 0 var(--gap-3);
  min-height: 36px;
  padding: 1px 0;
  border-bottom: var(--line);
  background: var(--ivory-0);
}
.bar :deep(.el-button) {
  min-height: 32px;
  height: 32px;
}
.says {
  flex: 1 1 300px;
  min-width: 0;
}
.tried {
  position: sticky;
  top: 0;
  z-index: 2;
  border-bottom: var(--rule);
}
.trial {
  --lines: 3;
}
.acts {
  display: flex;
  gap: var(--gap-2);
}
.form {
  display: flex;
  flex-wrap: wrap;
  align-items: end;
  gap: var(--gap-2);
  flex: 1 1 100%;
}
.reason {
  flex: 1 1 260px;
}
summary {
  cursor: pointer;
  line-height: 30px;
}
@media screen and (max-width: 720px) {
  .bar :deep(.el-button) {
    min-height: var(--hand);
  }
  .says {
    flex-basis: 180px;
  }
}
</style>
