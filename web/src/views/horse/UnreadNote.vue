<script setup lang="ts">
// An entry that can't be read: it is left out until it is put right, or set
// aside by an entry that undoes it. Nothing is taken away.
import { v7 } from 'uuid'
import { api, told } from '../../api/client'
import type { Schemas } from '../../api/types'
import { useSend } from '../../api/use'
import SignMark from '../../parts/SignMark.vue'
import WrongNote from '../../parts/WrongNote.vue'

const { entry } = defineProps<{ entry: Schemas['UnreadEntry'] }>()
const emit = defineEmits<{ aside: [] }>()
const setting = useSend()

async function setAside() {
  const now = Date.now()
  const undo = { id: v7(), kind: 'undo' as const, at: now, device: 'desk', seq: now, replaces: entry.id }
  const params = { path: { id: entry.session } }
  const done = await setting.send(() =>
    told(api.POST('/api/sessions/{id}/entries', { params, body: { sent_at: now, entries: [undo], quiet: true } })),
  )
  if (done) emit('aside')
}
</script>

<template>
  <div class="unread" role="note">
    <SignMark sign="alarm" />
    <p>{{ entry.say.text }}</p>
    <RouterLink :to="`/arena/${entry.session}/after`">Open the session</RouterLink>
    <ElButton :loading="setting.sending.value" @click="setAside">Set it aside</ElButton>
    <WrongNote :trouble="setting.trouble.value" />
  </div>
</template>

<style scoped>
.unread {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: var(--gap-1) var(--gap-3);
  padding: var(--gap-1) 0;
  border-bottom: var(--line);
  font-weight: 600;
}
.unread p {
  flex: 1 1 260px;
}
</style>
