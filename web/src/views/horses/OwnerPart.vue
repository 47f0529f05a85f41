<script setup lang="ts">
// Whose horse it is: a private owner, a yard, or a rescue with several people who
// handle it.
import { computed, reactive, ref, watch } from 'vue'
import type { Schemas } from '../../api/types'
import ChipRow from '../../parts/ChipRow.vue'
import FieldRow from '../../parts/FieldRow.vue'
import type { Owning } from './takeOn'

const { owners, wrong } = defineProps<{
  owners: Schemas['Person'][]
  wrong: (field: string) => string | undefined
}>()
const emit = defineEmits<{ change: [owning: Owning] }>()

const kinds = [
  { value: 'owner' as const, text: 'a private owner' },
  { value: 'yard' as const, text: 'a yard' },
  { value: 'rescue' as const, text: 'a rescue or foster home' },
]
const another = ref(false)
const isNew = computed(() => another.value || owners.length === 0)
const id = ref('')
const owner = reactive({ kind: 'owner' as (typeof kinds)[number]['value'], name: '', phone: '', email: '' })
const handlers = reactive<{ name: string; phone: string }[]>([])

watch(
  [isNew, id, owner, handlers],
  () => {
    const named = handlers.filter((h) => h.name || h.phone).map((h) => ({ kind: 'other' as const, ...h }))
    emit('change', {
      owner_id: isNew.value ? undefined : id.value || undefined,
      owner: isNew.value ? { ...owner } : undefined,
      handlers: named.length ? named : undefined,
    })
  },
  { immediate: true },
)
</script>

<template>
  <section class="sheet stack">
    <h2>Whose it is</h2>
    <div v-if="owners.length" class="row"><ElCheckbox v-model="another">A new owner</ElCheckbox></div>
    <FieldRow v-if="!isNew" v-slot="f" label="Owner" :wrong="wrong('owner_id')">
      <ElSelect :id="f.id" v-model="id" filterable placeholder="Choose, or type part of the name">
        <ElOption v-for="p in owners" :key="p.id" :value="p.id" :label="p.name" />
      </ElSelect>
    </FieldRow>
    <template v-else>
      <ChipRow label="Kind of owner" :choices="kinds" :chosen="[owner.kind]" @toggle="owner.kind = $event" />
      <div class="grid">
        <FieldRow v-slot="f" label="Owner's name" :wrong="wrong('owner.name')">
          <ElInput :id="f.id" v-model="owner.name" :aria-describedby="f.describedby" />
        </FieldRow>
        <FieldRow v-slot="f" label="Phone" :wrong="wrong('owner.phone')">
          <ElInput :id="f.id" v-model="owner.phone" type="tel" :aria-describedby="f.describedby" />
        </FieldRow>
        <FieldRow v-slot="f" label="Email" :wrong="wrong('owner.email')">
          <ElInput :id="f.id" v-model="owner.email" :aria-describedby="f.describedby" />
        </FieldRow>
      </div>
    </template>
    <div v-for="(h, i) in handlers" :key="i" class="grid">
      <FieldRow v-slot="f" :label="`Handler ${i + 1}, name`" :wrong="wrong(`handlers.${i}.name`)">
        <ElInput :id="f.id" v-model="h.name" :aria-describedby="f.describedby" />
      </FieldRow>
      <FieldRow v-slot="f" :label="`Handler ${i + 1}, phone`" :wrong="wrong(`handlers.${i}.phone`)">
        <ElInput :id="f.id" v-model="h.phone" type="tel" :aria-describedby="f.describedby" />
      </FieldRow>
    </div>
    <div>
      <ElButton v-if="handlers.length < 12" @click="handlers.push({ name: '', phone: '' })">Somebody who handles it</ElButton>
    </div>
    <p v-if="isNew && owner.kind !== 'owner'" class="quiet small">
      Name those who handle it: each is cleared, and counted, for themselves. Reports go to the {{ owner.kind }}.
    </p>
  </section>
</template>

<style scoped>
.grid {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(min(240px, 100%), 1fr));
  gap: var(--gap-3);
}
</style>
