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
const handlers = computed(() => Object.entries((walk.typed('handlers') ?? {}) as Record<string, Handler>))
const words = computed(() => walk.data?.words)

const add = () => walk.mark(`handlers/${v7()}/main`, handlers.value.length === 0)
const set = (id: string, name: keyof Handler, value: unknown) =>
  walk.mark(`handlers/${id}/${name}`, walk.typed(`handlers/${id}/${name}`) === value ? null : value)
</script>

<template>
  <div class="stack">
    <section v-for="[id, h] in handlers" :key="id" class="one stack">
      <div class="grid">
        <WalkField label="Name" :walk="walk" :path="`handlers/${id}/name`" />
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
        <ElButton @click="walk.mark(`handlers/${id}`, null)">Take out</ElButton>
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
