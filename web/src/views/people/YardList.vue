<script setup lang="ts">
// Where horses stand: the address is what a vet is told.
import { ref } from 'vue'
import { api, told } from '../../api/client'
import type { Schemas } from '../../api/types'
import { useLoad } from '../../api/use'
import PageState from '../../parts/PageState.vue'
import YardForm from './YardForm.vue'
import { dial } from '../../parts/dial'

type Yard = Schemas['Yard']

const { data, trouble, load } = useLoad(() => told(api.GET('/api/yards')))
const editing = ref<Yard | 'new'>()

async function done() {
  editing.value = undefined
  await load()
}
</script>

<template>
  <section class="sheet stack">
    <div class="row between">
      <h2>Yards</h2>
      <ElButton @click="editing = 'new'">Add a yard</ElButton>
    </div>
    <PageState :trouble="trouble" :ready="data !== undefined" @again="load">
      <YardForm
        v-if="editing"
        :key="editing === 'new' ? 'new' : editing.id"
        :yard="editing === 'new' ? undefined : editing"
        @done="done"
        @leave="editing = undefined"
      />
      <p v-if="data?.length === 0" class="quiet">
        No yards yet. Add one, with the way to it: it stands behind Danger in the arena.
      </p>
      <ul>
        <li v-for="y in data" :key="y.id" class="yard">
          <div>
            <p>
              <b>{{ y.name }}</b> <a v-if="y.phone" :href="dial(y.phone)">{{ y.phone }}</a>
            </p>
            <p class="quiet">{{ y.address || 'no address written down' }}</p>
            <p>
              <RouterLink class="visits" :to="{ path: '/diary', query: { yard: y.id } }"
                >Its visits<span class="visually-hidden"> at {{ y.name }}</span></RouterLink
              >
            </p>
          </div>
          <ElButton link @click="editing = y"
            >change<span class="visually-hidden"> {{ y.name }}</span></ElButton
          >
        </li>
      </ul>
    </PageState>
  </section>
</template>

<style scoped>
.yard {
  display: flex;
  justify-content: space-between;
  gap: var(--gap-3);
  padding: var(--gap-2) 0;
  border-top: var(--line);
  overflow-wrap: anywhere;
}
.visits {
  display: inline-block;
  min-height: 24px;
}
</style>
