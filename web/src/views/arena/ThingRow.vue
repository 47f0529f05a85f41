<script setup lang="ts">
// The thing that is asked with, by its name: each new one is counted.
import { computed, useId } from 'vue'
import { count } from '../../words'

const { met } = defineProps<{
  /** The things it has met so far. */
  met: string[]
}>()
const thing = defineModel<string>({ required: true })
const id = useId()
const isNew = computed(
  () => thing.value.trim() !== '' && !met.some((name) => name.toLowerCase() === thing.value.trim().toLowerCase()),
)
</script>

<template>
  <div class="thing">
    <label :for="id">With</label>
    <input :id="id" v-model="thing" class="name" maxlength="60" placeholder="which thing?" :list="`${id}-met`" />
    <datalist :id="`${id}-met`">
      <option v-for="name in met" :key="name" :value="name" />
    </datalist>
    <p class="small">{{ count(met.length, 'thing', 'things') }} met before{{ isNew ? '. This one is new to it' : '' }}.</p>
  </div>
</template>

<style scoped>
.thing {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: var(--gap-2);
  font-size: var(--step-1);
}
.name {
  flex: 1 1 180px;
  min-height: var(--touch);
  min-width: 0;
  border: var(--stroke);
  border-radius: var(--radius);
  background: var(--ivory-0);
  padding: 0 var(--gap-3);
  font: inherit;
}
</style>
