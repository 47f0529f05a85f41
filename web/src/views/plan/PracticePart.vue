<script setup lang="ts">
// What owners practised at home, day by day; and practice that stopped, which waits
// for a word of the trainer.
import { ref } from 'vue'
import { api, told } from '../../api/client'
import type { Schemas } from '../../api/types'
import { useLoad, useSend } from '../../api/use'
import PageState from '../../parts/PageState.vue'
import WrongNote from '../../parts/WrongNote.vue'
import { longDate, instant } from '../../words'

const { horse } = defineProps<{ horse: string }>()
const emit = defineEmits<{ resumed: [] }>()
const params = { path: { id: horse } }
const { data, trouble, load } = useLoad(() => told(api.GET('/api/horses/{id}/practised', { params })))
const reason = ref('')
const going = ref('')
const sending = useSend()

function says(d: Schemas['HomeDay']) {
  if (!d.done) return 'not done'
  const feel = [d.lightest, d.firmest].filter(Boolean)
  return [
    `${d.minutes} minutes`,
    d.mood,
    d.answers?.length ? `first answers ${d.answers.join(', ')}` : '',
    feel.length ? `feel ${[...new Set(feel)].join(' to ')}` : '',
    d.ended ? `ended ${d.ended}` : '',
  ]
    .filter(Boolean)
    .join('; ')
}

async function resume(log: string) {
  const now = await sending.send(() =>
    told(api.POST('/api/horses/{id}/practised/resume', { params, body: { log, reason: reason.value } })),
  )
  if (!now) return
  data.value = now
  going.value = reason.value = ''
  emit('resumed')
}
</script>

<template>
  <section class="sheet stack">
    <h2>Practice at home</h2>
    <PageState :trouble="trouble" :ready="data !== undefined" @again="load">
      <template v-if="data">
        <p>{{ data.says.text }}</p>
        <ul>
          <li v-for="d in data.days" :key="d.id" class="day" :class="{ put: d.put_right }">
            <p>
              <b>{{ longDate(d.on) }}</b>, {{ d.who }}: {{ d.name }}. {{ says(d) }}.
              <span v-if="d.put_right" class="quiet">put right later</span>
              <span v-if="d.received - d.at > 3_600_000" class="quiet">arrived {{ instant(d.received) }}</span>
            </p>
            <p v-if="d.note">“{{ d.note }}”</p>
            <div v-if="d.stopped" class="stack">
              <p class="strong">Practice of it has stopped, on the owner’s page too. Ring first; then say how it goes on.</p>
              <form v-if="going === d.id" class="row" @submit.prevent="resume(d.id)">
                <ElInput v-model="reason" maxlength="500" placeholder="Why it may go on" aria-label="Why it may go on" />
                <ElButton type="primary" native-type="submit" :loading="sending.sending.value">Let it go on</ElButton>
                <ElButton @click="going = ''">Not yet</ElButton>
              </form>
              <p v-else><ElButton @click="((going = d.id), (reason = ''))">Let it go on</ElButton></p>
              <WrongNote v-if="going === d.id" :trouble="sending.trouble.value" />
            </div>
            <p v-if="d.resumed" class="quiet">It goes on, {{ d.resumed_by }}: {{ d.resumed }}</p>
          </li>
        </ul>
      </template>
    </PageState>
  </section>
</template>

<style scoped>
.day {
  border-top: var(--line);
  padding: var(--gap-2) 0;
}
.put {
  text-decoration: line-through;
}
</style>
