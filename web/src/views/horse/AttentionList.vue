<script setup lang="ts">
// What wants attention, each with its verb; any can be set aside until a day, with
// the reason.
import { ref } from 'vue'
import { api, told } from '../../api/client'
import type { Schemas } from '../../api/types'
import { useSend } from '../../api/use'
import { answered } from '../../cases/answered'
import { useHorseFile } from '../../cases/file'
import FieldRow from '../../parts/FieldRow.vue'
import MarginNote from '../../parts/MarginNote.vue'
import WrongNote from '../../parts/WrongNote.vue'
import { longDate } from '../../words'

const { file } = defineProps<{ file: Schemas['File'] }>()
const { reload } = useHorseFile()
const putting = ref('')
const until = ref('')
const reason = ref('')
const sending = useSend()

async function send(note: string, body: { until?: string; reason?: string; again?: boolean }) {
  const params = { path: { id: file.id } }
  const now = await sending.send(() => told(api.POST('/api/horses/{id}/set-aside', { params, body: { note, ...body } })))
  if (!now) return
  putting.value = ''
  await reload()
}
</script>

<template>
  <p v-if="file.attention.length === 0" class="quiet">Nothing just now.</p>
  <div v-for="n in file.attention" :key="n.say.key + n.say.text" class="one">
    <MarginNote :note="n" :to="answered(n, file)">
      <ElButton
        v-if="putting !== n.say.key"
        link
        size="small"
        @click="((putting = n.say.key), (until = reason = ''), (sending.trouble.value = undefined))"
        >Set aside</ElButton
      >
    </MarginNote>
    <form v-if="putting === n.say.key" class="stack" @submit.prevent="send(n.say.key, { until, reason })">
      <FieldRow v-slot="f" label="Until" :wrong="sending.trouble.value?.fields.until">
        <ElInput :id="f.id" v-model="until" type="date" :aria-describedby="f.describedby" />
      </FieldRow>
      <FieldRow v-slot="f" label="Why it can wait" :wrong="sending.trouble.value?.fields.reason">
        <ElInput :id="f.id" v-model="reason" maxlength="500" :aria-describedby="f.describedby" />
      </FieldRow>
      <WrongNote :trouble="sending.trouble.value" :shown="['until', 'reason']" />
      <div class="row">
        <ElButton type="primary" native-type="submit" :loading="sending.sending.value">Set aside</ElButton>
        <ElButton @click="putting = ''">Leave it</ElButton>
      </div>
    </form>
  </div>
  <details v-if="file.later.length" class="small">
    <summary>Set aside: {{ file.later.length }}</summary>
    <div v-for="n in file.later" :key="n.say.key">
      <MarginNote :note="n" />
      <p class="quiet">until {{ longDate(n.until) }}, {{ n.by }}: {{ n.reason }}</p>
      <ElButton link size="small" @click="send(n.say.key, { again: true })">Show it again</ElButton>
    </div>
  </details>
  <WrongNote v-if="!putting" :trouble="sending.trouble.value" />
</template>

<style scoped>
.one + .one {
  margin-top: var(--gap-2);
}
form {
  padding: var(--gap-2) 0 var(--gap-2) 28px;
}
</style>
