<script setup lang="ts">
// The private links to a person's horses, or to one report: made, told once, seen to
// be opened, switched off.
import { computed, ref, shallowRef } from 'vue'
import { api, told } from '../api/client'
import type { Schemas } from '../api/types'
import { useLoad, useSend } from '../api/use'
import { copied, passedOn, shares } from '../parts/copy'
import PageState from '../parts/PageState.vue'
import WrongNote from '../parts/WrongNote.vue'
import { count, instant } from '../words'

const { person, session, name, message } = defineProps<{
  person?: string
  session?: string
  /** Whom or what it opens. */
  name: string
  /** What stands above the link in a message. */
  message?: string
}>()

const params = { path: { id: person ?? session ?? '' } }
const read = () =>
  person ? told(api.GET('/api/people/{id}/links', { params })) : told(api.GET('/api/sessions/{id}/links', { params }))
const { data, trouble, load } = useLoad(read)
const days = ref(90)
const fresh = shallowRef<Schemas['NewLink']>()
const making = useSend()
const said = ref('')
const open = computed(() => (data.value ?? []).filter((l) => l.open))
const closed = computed(() => (data.value ?? []).filter((l) => !l.open))
const address = computed(() => (fresh.value ? location.origin + fresh.value.path : ''))
const text = computed(() => [message, address.value].filter(Boolean).join('\n'))

async function make() {
  const body = { days: days.value }
  const made = await making.send(() =>
    person
      ? told(api.POST('/api/people/{id}/links', { params, body }))
      : told(api.POST('/api/sessions/{id}/links', { params, body })),
  )
  if (!made) return
  fresh.value = made
  said.value = ''
  await load()
}

async function off(id: string) {
  const now = await making.send(() => told(api.DELETE('/api/links/{id}', { params: { path: { id } } })))
  if (!now) return
  data.value = now
  if (fresh.value?.id === id) fresh.value = undefined
}

async function copy(what: string) {
  said.value = await copied(what)
}

const share = () => passedOn(text.value)
const opened = (l: Schemas['Link']) =>
  l.opened === 0 ? 'not opened yet' : `opened ${count(l.opened, 'time', 'times')}, last ${instant(l.last_at ?? 0)}`
</script>

<template>
  <div class="stack">
    <PageState :trouble="trouble" :ready="data !== undefined" @again="load">
      <ul v-if="open.length" class="links">
        <li v-for="l in open" :key="l.id" class="row between">
          <span>
            made {{ instant(l.made_at) }} by {{ l.made_by }}, <b>{{ opened(l) }}</b>, ends {{ instant(l.until) }}
          </span>
          <ElButton size="small" @click="off(l.id)">Switch off</ElButton>
        </li>
      </ul>
      <div v-if="fresh" class="fresh stack" role="status">
        <p class="strong">This is the link. It is shown this once; only its hash is kept.</p>
        <p class="address">{{ address }}</p>
        <div class="row">
          <ElButton v-if="shares" type="primary" @click="share">Share with {{ name }}</ElButton>
          <ElButton :type="shares ? 'default' : 'primary'" @click="copy(text)">{{
            message ? 'Copy message and link' : 'Copy'
          }}</ElButton>
          <ElButton v-if="message" @click="copy(address)">Copy the link alone</ElButton>
          <span v-if="said" role="status">{{ said }}</span>
        </div>
      </div>
      <div v-else class="row make">
        <ElButton :type="open.length ? 'default' : 'primary'" :loading="making.sending.value" @click="make">{{
          open.length ? 'Make another link' : `Make a link for ${name}`
        }}</ElButton>
        <label>for <ElInputNumber v-model="days" :min="1" :max="365" :step="1" step-strictly size="small" /> days</label>
      </div>
      <p v-if="open.length && !fresh" class="quiet small">
        An address can't be shown again. Make another if it got lost, and switch the old one off.
      </p>
      <WrongNote :trouble="making.trouble.value" />
      <details v-if="closed.length" class="small">
        <summary>{{ count(closed.length, 'link that ended', 'links that ended') }}</summary>
        <ul>
          <li v-for="l in closed" :key="l.id">
            made {{ instant(l.made_at) }}, {{ l.off_at ? `switched off ${instant(l.off_at)}` : `ended ${instant(l.until)}` }},
            {{ opened(l) }}
          </li>
        </ul>
      </details>
    </PageState>
  </div>
</template>

<style scoped>
.links li {
  border-top: var(--line);
  padding: var(--gap-2) 0;
  gap: var(--gap-3);
}
.fresh {
  border: var(--rule);
  padding: var(--gap-3);
}
.address {
  overflow-wrap: anywhere;
  font-family: monospace;
}
.make {
  gap: var(--gap-3);
}
</style>
