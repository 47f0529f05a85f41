<script setup lang="ts">
// What is taken out: the whole practice, one horse, or what is kept of an owner's horses.
import { ref } from 'vue'
import { api, told } from '../../api/client'
import { useLoad } from '../../api/use'
import type { Schemas } from '../../api/types'
import FieldRow from '../../parts/FieldRow.vue'

const { lead, horses } = defineProps<{ lead: boolean; horses: Schemas['HouseHorse'][] }>()
const people = useLoad(() => told(api.GET('/api/people')))
const horse = ref('')
const person = ref('')
</script>

<template>
  <section class="stack out">
    <template v-if="lead">
      <h2>The whole practice</h2>
      <p>
        One .zip that any program opens: all rows as JSON, tables for a spreadsheet, pictures and films, and a page that explains
        it. Passwords and private links stay behind.
      </p>
      <div class="row"><a class="button" href="/api/house/archive" download>Take the practice out</a></div>
      <h2>One horse</h2>
      <p>Its file, for another trainer's practice. There it is taken in; twice changes nothing.</p>
      <div class="row end">
        <FieldRow v-slot="f" label="Horse">
          <select :id="f.id" v-model="horse" class="plain-field">
            <option value="">choose</option>
            <option v-for="h in horses" :key="h.id" :value="h.id">{{ h.name }}</option>
          </select>
        </FieldRow>
        <a v-if="horse" class="button plain" :href="`/api/horses/${horse}/archive`" download>Take this horse out</a>
      </div>
      <h2>For an owner who asks</h2>
      <p>What is kept of the owner's own horses. To erase a person, open them in <RouterLink to="/people">People</RouterLink>.</p>
      <div class="row end">
        <FieldRow v-slot="f" label="Owner">
          <select :id="f.id" v-model="person" class="plain-field">
            <option value="">choose</option>
            <option
              v-for="p in people.data.value?.filter((p) => ['owner', 'yard', 'rescue'].includes(p.kind))"
              :key="p.id"
              :value="p.id"
            >
              {{ p.name }}
            </option>
          </select>
        </FieldRow>
        <a v-if="person" class="button plain" :href="`/api/people/${person}/archive`" download>Take out what is kept</a>
      </div>
    </template>
    <p v-else>A lead trainer takes out.</p>
  </section>
</template>

<style scoped>
.out {
  max-width: 80ch;
  padding: var(--gap-3) 0;
}
.end {
  align-items: flex-end;
}
</style>
