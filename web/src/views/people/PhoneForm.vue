<script setup lang="ts">
// The number that owners call: it stands on every homework card.
import { ref, watch } from 'vue'
import { api, told } from '../../api/client'
import { isLead } from '../../api/me'
import { useLoad, useSend } from '../../api/use'
import FieldRow from '../../parts/FieldRow.vue'
import WrongNote from '../../parts/WrongNote.vue'

const { data } = useLoad(() => told(api.GET('/api/practice')))
const phone = ref('')
const saving = useSend()
const kept = ref(false)
watch(data, (d) => (phone.value = d?.phone ?? ''))

async function save() {
  kept.value = false
  const now = await saving.send(() => told(api.PUT('/api/practice', { body: { phone: phone.value.trim() } })))
  if (now) kept.value = true
}
</script>

<template>
  <section class="sheet stack">
    <h2>The number that owners call</h2>
    <form v-if="isLead" class="row form" @submit.prevent="save">
      <FieldRow v-slot="f" label="Phone" hint="on every homework card" :wrong="saving.trouble.value?.fields.phone">
        <ElInput :id="f.id" v-model="phone" maxlength="60" inputmode="tel" :aria-describedby="f.describedby" />
      </FieldRow>
      <ElButton native-type="submit" :loading="saving.sending.value">Keep the number</ElButton>
      <p v-if="kept" role="status">Kept.</p>
    </form>
    <p v-else>{{ data?.phone || 'none written down' }}</p>
    <WrongNote :trouble="saving.trouble.value" :shown="['phone']" />
  </section>
</template>

<style scoped>
.form {
  align-items: center;
}
</style>
