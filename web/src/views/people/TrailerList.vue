<script setup lang="ts">
// The trailers, each with what a horse meets there.
import { ref } from 'vue'
import { api, told } from '../../api/client'
import type { Schemas } from '../../api/types'
import { useLoad } from '../../api/use'
import PageState from '../../parts/PageState.vue'
import TrailerForm from '../../cases/TrailerForm.vue'

type Trailer = Schemas['Trailer']

const { data, trouble, load } = useLoad(async () => {
  const [trailers, yards, people] = await Promise.all([
    told(api.GET('/api/trailers')),
    told(api.GET('/api/yards')),
    told(api.GET('/api/people')),
  ])
  return { trailers, yards, owners: people.filter((p) => ['owner', 'yard', 'rescue'].includes(p.kind)) }
})
const editing = ref<Trailer | 'new'>()
const of = (t: Trailer) =>
  [data.value?.yards.find((y) => y.id === t.yard_id)?.name, data.value?.owners.find((o) => o.id === t.person_id)?.name]
    .filter(Boolean)
    .join(', ')

async function done() {
  editing.value = undefined
  await load()
}
</script>

<template>
  <section class="sheet stack">
    <div class="row between">
      <h2>Trailers</h2>
      <ElButton @click="editing = 'new'">Add a trailer</ElButton>
    </div>
    <PageState :trouble="trouble" :ready="data !== undefined" @again="load">
      <template v-if="data">
        <TrailerForm
          v-if="editing"
          :key="editing === 'new' ? 'new' : editing.id"
          :trailer="editing === 'new' ? undefined : editing"
          @done="done"
          @leave="editing = undefined"
        />
        <p v-if="data.trailers.length === 0" class="quiet">
          No trailers yet. Write one down once, and it stands at the gate and on the sequence card.
        </p>
        <ul>
          <li v-for="t in data.trailers" :key="t.id" class="trailer">
            <div>
              <p>
                <b>{{ t.name }}</b> <span class="quiet">{{ of(t) }}</span>
              </p>
              <p>{{ t.like.text }}</p>
            </div>
            <ElButton link @click="editing = t"
              >change<span class="visually-hidden"> {{ t.name }}</span></ElButton
            >
          </li>
        </ul>
      </template>
    </PageState>
  </section>
</template>

<style scoped>
.trailer {
  display: flex;
  justify-content: space-between;
  gap: var(--gap-3);
  padding: var(--gap-2) 0;
  border-top: var(--line);
  overflow-wrap: anywhere;
}
</style>
