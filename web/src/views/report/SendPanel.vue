<script setup lang="ts">
// Sends the visit's page: from then on each owner's private link shows it; as a
// message; or as a link to this page alone.
import { ref } from 'vue'
import { api, told } from '../../api/client'
import type { Schemas } from '../../api/types'
import { useSend } from '../../api/use'
import LinkPanel from '../../cases/LinkPanel.vue'
import WrongNote from '../../parts/WrongNote.vue'
import { instant } from '../../words'

const { report } = defineProps<{ report: Schemas['Report'] }>()
const emit = defineEmits<{ sent: [at: number] }>()
const sending = useSend()
const at = ref(report.sent_at ?? 0)

async function send() {
  const now = await sending.send(() => told(api.POST('/api/sessions/{id}/sent', { params: { path: { id: report.session } } })))
  if (!now) return
  at.value = now.at
  emit('sent', now.at)
}
</script>

<template>
  <section class="sheet stack no-print" aria-labelledby="send">
    <h2 id="send">Send it</h2>
    <p v-if="at" role="status">
      Sent {{ instant(at) }}: the owners’ links show this page. What you word from here on shows there at once.
    </p>
    <template v-else>
      <p>Nobody outside sees this page yet. Once it is sent, the owners’ links show it.</p>
      <div class="row">
        <ElButton type="primary" :loading="sending.sending.value" @click="send">Send the page</ElButton>
      </div>
    </template>
    <WrongNote :trouble="sending.trouble.value" />
    <template v-if="at">
      <article v-for="o in report.owners" :key="o.id" class="stack">
        <h3>{{ o.name }}</h3>
        <LinkPanel :person="o.id" :name="o.name" :message="report.message" />
      </article>
      <p v-if="report.owners.length === 0" class="quiet">This horse has no owner written down. Add one under Record.</p>
      <details>
        <summary>For somebody else: this page alone, without homework</summary>
        <LinkPanel :session="report.session" name="somebody else" />
      </details>
    </template>
  </section>
</template>

<style scoped>
section {
  max-width: 760px;
  margin: 0 auto var(--gap-3);
}
</style>
