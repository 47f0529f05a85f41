<script setup lang="ts">
// Invitations by link: an owner's own account, or a helper for one day at one yard.
import { reactive, ref, shallowRef } from 'vue'
import { api, told } from '../../api/client'
import type { Schemas } from '../../api/types'
import { useLoad, useSend } from '../../api/use'
import FieldRow from '../../parts/FieldRow.vue'
import PageState from '../../parts/PageState.vue'
import WrongNote from '../../parts/WrongNote.vue'
import { instant, longDate } from '../../words'

const { people } = defineProps<{ people: Schemas['Person'][] }>()
const { data, trouble, load } = useLoad(() => told(api.GET('/api/invitations')))
const yards = useLoad(() => told(api.GET('/api/yards')))
const open = ref<'owner' | 'helper'>()
const form = reactive({ person: '', name: '', on: '', yard: '' })
const sending = useSend()
const fresh = shallowRef<Schemas['NewInvited']>()
const address = (i: Schemas['NewInvited']) => location.origin + i.path

async function invite() {
  const { person, name, on, yard } = form
  const body = open.value === 'owner' ? { person } : { name, on, yard }
  const made = await sending.send(() => told(api.POST('/api/invitations', { body })))
  if (!made) return
  fresh.value = made
  open.value = undefined
  Object.assign(form, { person: '', name: '', on: '', yard: '' })
  await load()
}

async function takeBack(id: string) {
  const now = await sending.send(() => told(api.DELETE('/api/invitations/{id}', { params: { path: { id } } })))
  if (!now) return
  data.value = now
  if (fresh.value?.id === id) fresh.value = undefined
}

const what = (i: Schemas['Invited']) =>
  i.owner ? 'an account of their own' : `helps on ${longDate(i.on ?? '')} at ${i.yard ?? ''}`
</script>

<template>
  <section class="sheet stack">
    <h2>Invite by a link</h2>
    <div class="row">
      <ElButton :aria-expanded="open === 'owner'" @click="open = 'owner'">An owner</ElButton>
      <ElButton :aria-expanded="open === 'helper'" @click="open = 'helper'">A helper for a day</ElButton>
    </div>
    <form v-if="open" class="stack" novalidate @submit.prevent="invite">
      <template v-if="open === 'owner'">
        <p class="quiet">
          Owners need no account: a private link is enough. With one they sign in, and the link need not be kept.
        </p>
        <FieldRow v-slot="f" label="Owner" :wrong="sending.trouble.value?.fields.person">
          <select :id="f.id" v-model="form.person" class="pick">
            <option v-for="p in people" :key="p.id" :value="p.id">{{ p.name }}</option>
          </select>
        </FieldRow>
      </template>
      <template v-else>
        <p class="quiet">A helper may log that day, at that yard, and sees no reports.</p>
        <FieldRow v-slot="f" label="Helper" :wrong="sending.trouble.value?.fields.name">
          <ElInput :id="f.id" v-model="form.name" :aria-describedby="f.describedby" />
        </FieldRow>
        <FieldRow v-slot="f" label="Day" :wrong="sending.trouble.value?.fields.on">
          <ElInput :id="f.id" v-model="form.on" type="date" :aria-describedby="f.describedby" />
        </FieldRow>
        <FieldRow v-slot="f" label="Yard" :wrong="sending.trouble.value?.fields.yard">
          <select :id="f.id" v-model="form.yard" class="pick" :aria-describedby="f.describedby">
            <option v-for="y in yards.data.value" :key="y.id" :value="y.id">{{ y.name }}</option>
          </select>
        </FieldRow>
      </template>
      <div class="row">
        <ElButton
          type="primary"
          native-type="submit"
          :disabled="open === 'owner' && !form.person"
          :loading="sending.sending.value"
          >Make the invitation</ElButton
        >
        <ElButton @click="open = undefined">Leave it</ElButton>
      </div>
    </form>
    <WrongNote :trouble="sending.trouble.value" :shown="['person', 'name', 'on', 'yard']" />
    <div v-if="fresh" class="fresh" role="status">
      <p class="strong">For {{ fresh.name }}, {{ what(fresh) }}. It is shown this once, and can be used once.</p>
      <p class="address">{{ address(fresh) }}</p>
    </div>
    <PageState :trouble="trouble" :ready="data !== undefined" @again="load">
      <ul>
        <li v-for="i in data" :key="i.id" class="row between line">
          <span
            ><b>{{ i.name }}</b
            >, {{ what(i) }} <span class="quiet">open until {{ instant(i.until) }}</span></span
          >
          <ElButton link @click="takeBack(i.id)"
            >take back<span class="visually-hidden"> the invitation of {{ i.name }}</span></ElButton
          >
        </li>
      </ul>
    </PageState>
  </section>
</template>

<style scoped>
.pick {
  font: inherit;
  min-height: var(--control);
  width: 100%;
}
.fresh {
  border: 2px solid var(--ink-1);
  padding: var(--gap-3);
}
.address {
  font-family: monospace;
  overflow-wrap: anywhere;
  user-select: all;
}
.line {
  border-top: var(--line);
  padding: var(--gap-2) 0;
}
</style>
