<script setup lang="ts">
// Section H: each person who will handle the horse.
import { v7 } from 'uuid'
import { computed } from 'vue'
import type { Schemas } from '../../api/types'
import ChipRow from '../../parts/ChipRow.vue'
import { choices } from '../../parts/choices'
import FieldRow from '../../parts/FieldRow.vue'
import type { Assessing } from '../../cases/useAssessment'
import WalkField from './WalkField.vue'

const { walk } = defineProps<{ walk: Assessing }>()

type Handler = Schemas['AssessHandler']
/** Those written down, and before them the owner's side, who need not be asked for. */
const noted = computed(() => (walk.typed('handlers') ?? {}) as Record<string, Handler>)
const people = computed(() => walk.data?.people ?? [])
const handlers = computed<[string, Handler][]>(() => [
  ...people.value.map((p): [string, Handler] => [p.id, noted.value[p.id] ?? { name: p.name }]),
  ...Object.entries(noted.value).filter(([id]) => people.value.every((p) => p.id !== id)),
])
const words = computed(() => walk.data?.words)

const add = () => walk.mark(`handlers/${v7()}/main`, handlers.value.length === 0)
function set(id: string, name: keyof Handler, value: unknown) {
  const person = people.value.find((p) => p.id === id)
  if (person && !noted.value[id]) walk.mark(`handlers/${id}/name`, person.name)
  walk.mark(`handlers/${id}/${name}`, walk.typed(`handlers/${id}/${name}`) === value ? null : value)
}
</script>

<template>
  <div class="stack">
    <section v-for="[id, h] in handlers" :key="id" class="one stack">
      <h3 v-if="people.some((p) => p.id === id)">{{ h.name }}</h3>
      <div class="grid">
        <WalkField v-if="people.every((p) => p.id !== id)" label="Name" :walk="walk" :path="`handlers/${id}/name`" />
        <WalkField label="Strength, injuries that matter" :walk="walk" :path="`handlers/${id}/note`" />
      </div>
      <FieldRow label="Experience">
        <ChipRow
          label="Experience"
          :choices="choices(words?.experiences ?? [])"
          :chosen="[h.experience ?? '']"
          @toggle="set(id, 'experience', $event)"
        />
      </FieldRow>
      <div class="row">
        <ChipRow
          label="Steadiness"
          :choices="choices(words?.steadiness ?? [])"
          :chosen="[h.steadiness ?? '']"
          @toggle="set(id, 'steadiness', $event)"
        />
        <ChipRow
          label="Also"
          :choices="[
            { value: 'main', text: 'handles it most' },
            { value: 'shoulder', text: 'a shoulder injury' },
          ]"
          :chosen="[h.main ? 'main' : '', h.shoulder ? 'shoulder' : '']"
          @toggle="set(id, $event as 'main' | 'shoulder', true)"
        />
        <ElButton v-if="noted[id]" @click="walk.mark(`handlers/${id}`, null)">Take out</ElButton>
      </div>
    </section>
    <div>
      <ElButton @click="add">{{ handlers.length ? 'One more person' : 'Write down a person' }}</ElButton>
    </div>
  </div>
</template>

<style scoped>
.one {
  border-left: var(--rule);
  padding-left: var(--gap-3);
}
.grid {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(min(240px, 100%), 1fr));
  gap: var(--gap-3);
}
</style>
