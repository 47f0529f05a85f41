<script setup lang="ts">
// Who can sign in: for lead trainers.
import { reactive, ref, shallowRef } from 'vue'
import { useRouter } from 'vue-router'
import { api, told } from '../../api/client'
import type { Schemas } from '../../api/types'
import { me, signOut } from '../../api/me'
import { useLoad, useSend } from '../../api/use'
import ChipRow from '../../parts/ChipRow.vue'
import { choices } from '../../parts/choices'
import FieldRow from '../../parts/FieldRow.vue'
import PageState from '../../parts/PageState.vue'
import WrongNote from '../../parts/WrongNote.vue'
import { longDate } from '../../words'

type User = Schemas['User']

const router = useRouter()
const { data, trouble, load } = useLoad(() => told(api.GET('/api/users')))
const acting = useSend()
const inviting = ref(false)
const handed = shallowRef<Schemas['Invitation']>()
const form = reactive({ name: '', email: '', role: 'assistant' as User['role'] })
const roles = choices(['lead trainer', 'assistant'] as const)

async function act<T>(work: () => Promise<T>) {
  handed.value = undefined
  const done = await acting.send(work)
  if (done) await load()
  return done
}

async function invite() {
  const done = await act(() => told(api.POST('/api/users', { body: { ...form } })))
  if (!done) return
  handed.value = done
  inviting.value = false
  Object.assign(form, { name: '', email: '', role: 'assistant' })
}

async function reset(u: User) {
  handed.value = await act(() => told(api.POST('/api/users/{id}/reset', { params: { path: { id: u.id } } })))
}

const activate = (u: User) =>
  act(() => told(api.PUT('/api/users/{id}/active', { params: { path: { id: u.id } }, body: { active: !u.active } })))

async function leaveEverywhere() {
  await acting.send(() => signOut(true))
  if (!me.value) await router.push('/sign-in')
}
</script>

<template>
  <section class="sheet stack">
    <div class="row between">
      <h2>Sign-ins</h2>
      <ElButton @click="inviting = !inviting">Invite somebody</ElButton>
    </div>
    <PageState :trouble="trouble" :ready="data !== undefined" @again="load">
      <p v-if="handed" class="handed" role="status">
        {{ handed.user.name }} signs in once with <code>{{ handed.password }}</code> within a week, and then chooses a password.
        It is shown this once.
      </p>
      <form v-if="inviting" class="stack" novalidate @submit.prevent="invite">
        <FieldRow v-slot="f" label="Name" :wrong="acting.trouble.value?.fields.name"
          ><ElInput :id="f.id" v-model="form.name"
        /></FieldRow>
        <FieldRow v-slot="f" label="Email address" :wrong="acting.trouble.value?.fields.email"
          ><ElInput :id="f.id" v-model="form.email"
        /></FieldRow>
        <FieldRow label="Role" hint="Owners and helpers are invited by a link">
          <ChipRow label="Role" :choices="roles" :chosen="[form.role]" @toggle="form.role = $event as User['role']" />
        </FieldRow>
        <div><ElButton type="primary" native-type="submit" :loading="acting.sending.value">Invite</ElButton></div>
      </form>
      <WrongNote :trouble="acting.trouble.value" :shown="['name', 'email']" />
      <ul>
        <li v-for="u in data" :key="u.id" class="user">
          <div>
            <p>
              <b>{{ u.name }}</b>
              <span class="quiet"
                >{{ u.day ? `helps on ${longDate(u.day)} at ${u.yard}` : u.role }}{{ u.active ? '' : ', kept out' }}</span
              >
            </p>
            <p class="quiet">{{ u.email }}{{ u.must_change ? ' · has not signed in yet' : '' }}</p>
          </div>
          <div class="row">
            <ElButton v-if="u.active" link @click="reset(u)"
              >reset<span class="visually-hidden"> password of {{ u.name }}</span></ElButton
            >
            <ElButton link @click="activate(u)"
              >{{ u.active ? 'keep out' : 'let in again' }}<span class="visually-hidden"> {{ u.name }}</span></ElButton
            >
          </div>
        </li>
      </ul>
      <div><ElButton link @click="leaveEverywhere">Sign me out on every device</ElButton></div>
    </PageState>
  </section>
</template>

<style scoped>
.user {
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  gap: var(--gap-2);
  padding: var(--gap-2) 0;
  border-top: var(--line);
  overflow-wrap: anywhere;
}
.handed {
  border: 2px solid var(--ink-1);
  padding: var(--gap-3);
}
code {
  font-size: var(--step-2);
  font-weight: 700;
  user-select: all;
}
</style>
