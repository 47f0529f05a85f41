<script setup lang="ts">
// Who owns it, and who handles it for them.
import { reactive, ref } from 'vue'
import { api, told } from '../../api/client'
import type { Schemas } from '../../api/types'
import { useSend } from '../../api/use'
import FieldRow from '../../parts/FieldRow.vue'
import WrongNote from '../../parts/WrongNote.vue'

const { horse } = defineProps<{ horse: Schemas['Horse'] }>()
const emit = defineEmits<{ changed: [] }>()

const adding = ref(false)
const form = reactive({ name: '', phone: '' })
const saving = useSend()
const path = { id: horse.id }

async function add() {
  const body = { kind: 'other' as const, ...form }
  const kept = await saving.send(() => told(api.POST('/api/horses/{id}/handlers', { params: { path }, body })))
  if (!kept) return
  Object.assign(form, { name: '', phone: '' })
  adding.value = false
  emit('changed')
}

async function out(person: string) {
  const kept = await saving.send(() =>
    told(api.DELETE('/api/horses/{id}/handlers/{person}', { params: { path: { ...path, person } } })),
  )
  if (kept) emit('changed')
}
</script>

<template>
  <section class="sheet stack">
    <h2>Its people</h2>
    <p v-for="o in horse.owners" :key="o.id">
      <b>{{ o.name }}</b>, {{ o.kind === 'owner' ? 'owner' : o.kind }}<span v-if="o.phone">, {{ o.phone }}</span>
    </p>
    <p v-for="h in horse.handlers" :key="h.id" class="row">
      <span
        ><b>{{ h.name }}</b> handles it<span v-if="h.phone">, {{ h.phone }}</span></span
      >
      <ElButton @click="out(h.id)">Handles it no more</ElButton>
    </p>
    <form v-if="adding" class="stack" novalidate @submit.prevent="add">
      <FieldRow v-slot="f" label="Handler's name" :wrong="saving.trouble.value?.fields.name">
        <ElInput :id="f.id" v-model="form.name" :aria-describedby="f.describedby" />
      </FieldRow>
      <FieldRow v-slot="f" label="Handler's phone" :wrong="saving.trouble.value?.fields.phone">
        <ElInput :id="f.id" v-model="form.phone" type="tel" :aria-describedby="f.describedby" />
      </FieldRow>
      <div class="row">
        <ElButton type="primary" native-type="submit" :loading="saving.sending.value">Keep</ElButton>
        <ElButton @click="adding = false">Leave it</ElButton>
      </div>
    </form>
    <div v-else><ElButton @click="adding = true">Somebody who handles it</ElButton></div>
    <WrongNote :trouble="saving.trouble.value" :shown="['name', 'phone']" />
  </section>
</template>
