<script setup lang="ts">
import { computed, reactive } from 'vue'
import { api, told } from '../../api/client'
import type { Schemas } from '../../api/types'
import { useSend } from '../../api/use'
import { differences } from '../../parts/differences'
import FieldRow from '../../parts/FieldRow.vue'
import StaleNote from '../../parts/StaleNote.vue'
import WrongNote from '../../parts/WrongNote.vue'

type Yard = Schemas['Yard']

const { yard } = defineProps<{ yard?: Yard }>()
const emit = defineEmits<{ done: []; leave: [] }>()

const text = reactive({ name: yard?.name ?? '', address: yard?.address ?? '', phone: yard?.phone ?? '' })
const { sending, trouble, send } = useSend()
const theirs = computed(() => trouble.value?.current as Yard | undefined)
const differing = computed(() => {
  const t = theirs.value
  return t ? differences(text, { name: t.name, address: t.address, phone: t.phone }) : []
})

async function save(version = yard?.version ?? 1) {
  const kept = await send(() =>
    yard
      ? told(api.PUT('/api/yards/{id}', { params: { path: { id: yard.id } }, body: { ...text, version } }))
      : told(api.POST('/api/yards', { body: text })),
  )
  if (kept) emit('done')
}
</script>

<template>
  <form class="stack" novalidate @submit.prevent="save()">
    <FieldRow v-slot="f" label="Yard's name" :wrong="trouble?.fields.name">
      <ElInput :id="f.id" v-model="text.name" :aria-describedby="f.describedby" />
    </FieldRow>
    <FieldRow v-slot="f" label="Address, so that a vet finds it" :wrong="trouble?.fields.address">
      <ElInput :id="f.id" v-model="text.address" :aria-describedby="f.describedby" />
    </FieldRow>
    <FieldRow v-slot="f" label="Phone of the yard" :wrong="trouble?.fields.phone">
      <ElInput :id="f.id" v-model="text.phone" type="tel" :aria-describedby="f.describedby" />
    </FieldRow>
    <StaleNote v-if="theirs" :differences="differing" @mine="save(theirs.version)" @theirs="emit('done')" />
    <WrongNote v-else :trouble="trouble" :shown="['name', 'address', 'phone']" />
    <div class="row">
      <ElButton type="primary" native-type="submit" :loading="sending">Save the yard</ElButton>
      <ElButton @click="emit('leave')">Leave it</ElButton>
    </div>
  </form>
</template>
