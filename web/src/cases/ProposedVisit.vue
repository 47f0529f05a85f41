<script setup lang="ts">
// The next visits of a horse, and the day that is proposed where none waits, taken with
// one tap.
import { computed, ref } from 'vue'
import { api, told } from '../api/client'
import { useLoad, useSend } from '../api/use'
import WrongNote from '../parts/WrongNote.vue'
import { longDate } from '../words'

const { horse } = defineProps<{ horse: string }>()
const params = { path: { id: horse } }
const { data, load } = useLoad(() => told(api.GET('/api/horses/{id}/visits', { params })))
const sending = useSend()
const said = ref('')
const waits = computed(() => (data.value?.visits ?? []).filter((v) => !v.cancelled))
const on = computed(() => data.value?.proposal.on ?? '')

async function take(agreed: boolean) {
  if (!data.value) return
  const body = { horses: [horse], on: on.value, minutes: data.value.minutes, aim: data.value.aim, agreed }
  const kept = await sending.send(() => told(api.POST('/api/visits', { body })))
  if (!kept) return
  said.value = kept.clashes.map((c) => c.says.text).join(' ')
  await load()
}
</script>

<template>
  <section v-if="data" class="next">
    <p v-for="v in waits" :key="v.id">
      <RouterLink :to="`/diary?on=${v.on}`">{{ longDate(v.on) }}{{ v.at ? ` at ${v.at}` : '' }}</RouterLink>
      <span class="quiet"> {{ v.agreed ? 'stands in the diary' : 'in pencil in the diary' }}</span>
    </p>
    <template v-if="waits.length === 0 && on">
      <p class="row">
        <ElButton :loading="sending.sending.value" @click="take(true)">Put {{ longDate(on) }} in the diary</ElButton>
        <ElButton link @click="take(false)">in pencil</ElButton>
        <RouterLink :to="`/diary?on=${on}`">another day</RouterLink>
      </p>
      <p class="quiet">{{ data.proposal.reasons.map((r) => r.text).join(' ') }}</p>
    </template>
    <p v-else-if="waits.length === 0" class="quiet">{{ data.proposal.reasons.map((r) => r.text).join(' ') }}</p>
    <p v-if="said" class="strong" role="status">{{ said }}</p>
    <WrongNote :trouble="sending.trouble.value" />
  </section>
</template>

<style scoped>
.next {
  display: grid;
  gap: var(--gap-1);
  margin: var(--gap-1) 0 var(--gap-2);
}
</style>
