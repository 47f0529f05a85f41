<script setup lang="ts">
import { computed, ref } from 'vue'
import { api, told } from '../../api/client'
import type { Schemas } from '../../api/types'
import { isLead } from '../../api/me'
import { useLoad } from '../../api/use'
import PageState from '../../parts/PageState.vue'
import AccountList from './AccountList.vue'
import DoorList from './DoorList.vue'
import InviteByLink from './InviteByLink.vue'
import PersonForm from './PersonForm.vue'
import PhoneForm from './PhoneForm.vue'
import RecordList from './RecordList.vue'
import SignedInList from './SignedInList.vue'
import TrailerList from './TrailerList.vue'
import YardList from './YardList.vue'
import { dial } from '../../parts/dial'

type Person = Schemas['Person']

const { data, trouble, load } = useLoad(() => told(api.GET('/api/people')))
const editing = ref<Person | 'new'>()

const groups = computed(() => {
  const owners = (data.value ?? []).filter((p) => ['owner', 'yard', 'rescue'].includes(p.kind))
  const others = (data.value ?? []).filter((p) => !owners.includes(p))
  return [
    { title: 'Owners', people: owners, empty: 'No owners yet. They come with the horses you take on.' },
    {
      title: 'Vets and others to call',
      people: others,
      empty: 'Write down the vet first: the number stands behind Danger in the arena.',
    },
  ]
})

async function done() {
  editing.value = undefined
  await load()
}
</script>

<template>
  <div class="page">
    <header class="page-head">
      <h1>People</h1>
      <p class="facts">Whom to ring, and who can sign in.</p>
      <div class="acts">
        <RouterLink to="/password" class="button plain">My password</RouterLink>
        <button type="button" class="button" @click="editing = 'new'">Add a person</button>
      </div>
    </header>
    <PageState :trouble="trouble" :ready="data !== undefined" @again="load">
      <PersonForm
        v-if="editing"
        :key="editing === 'new' ? 'new' : editing.id"
        :person="editing === 'new' ? undefined : editing"
        @done="done"
        @leave="editing = undefined"
      />
      <div class="columns">
        <section v-for="g in groups" :key="g.title" class="sheet list">
          <h2>{{ g.title }}</h2>
          <p v-if="g.people.length === 0" class="quiet">{{ g.empty }}</p>
          <ul>
            <li v-for="p in g.people" :key="p.id" class="person">
              <div>
                <p>
                  <b>{{ p.name }}</b> <span v-if="p.kind !== 'owner'" class="quiet">{{ p.kind }}</span>
                </p>
                <p>
                  <a v-if="p.phone" :href="dial(p.phone)">{{ p.phone }}</a>
                  <a v-if="p.email" :href="`mailto:${p.email}`" class="mail">{{ p.email }}</a>
                </p>
                <p v-if="p.note" class="quiet">{{ p.note }}</p>
                <p v-if="g === groups[0]">
                  <RouterLink class="visits" :to="{ path: '/diary', query: { person: p.id } }"
                    >Visits<span class="visually-hidden"> to the horses of {{ p.name }}</span></RouterLink
                  >
                </p>
              </div>
              <ElButton link @click="editing = p"
                >change<span class="visually-hidden"> {{ p.name }}</span></ElButton
              >
            </li>
          </ul>
        </section>
        <YardList />
        <TrailerList />
        <PhoneForm />
        <AccountList v-if="isLead" />
        <template v-if="isLead">
          <InviteByLink :people="groups[0]?.people ?? []" />
          <SignedInList />
          <DoorList />
          <RecordList />
        </template>
      </div>
    </PageState>
  </div>
</template>

<style scoped>
.columns {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(min(320px, 100%), 1fr));
  gap: 0 var(--gap-5);
  align-items: start;
}
.page-head {
  margin-bottom: 0;
}
.columns > :deep(.sheet) {
  border-top: 0;
  border-bottom: var(--rule);
}
.person {
  display: flex;
  justify-content: space-between;
  gap: var(--gap-3);
  padding: var(--gap-2) 0;
  border-top: var(--line);
  overflow-wrap: anywhere;
}
.person :deep(.el-button),
.columns :deep(.el-button.is-link) {
  flex: none;
  white-space: nowrap;
}
.mail {
  margin-left: var(--gap-3);
}
.visits {
  display: inline-block;
  min-height: 24px;
}
</style>
