<script setup lang="ts">
// A ladder as a file: out, to be changed in an editor or handed on, and in again. What is
// wrong in it is said line by line; nothing is kept until all of it holds.
import { shallowRef } from 'vue'
import { api, told } from '../../api/client'
import type { Schemas } from '../../api/types'
import { useSend } from '../../api/use'
import { saveFile } from '../../device/saveFile'
import WrongNote from '../../parts/WrongNote.vue'
import type { Own } from './handbook'

const { ladder, own } = defineProps<{
  /** The shipped ladder that goes out; none: only in. */
  ladder?: string
  /** The own ladder that goes out, and of which a file becomes the next version. */
  own?: Own
}>()
const emit = defineEmits<{ taken: [own: Own] }>()

const sending = useSend()
const kept = shallowRef<Own>()

async function out(ask: () => Promise<Schemas['LadderFile']>) {
  const file = await sending.send(ask)
  if (file) saveFile(file.name, file.text, 'text/plain')
}
const ladderOut = () =>
  own
    ? told(api.GET('/api/ladders/{id}/file', { params: { path: { id: own.id } } }))
    : told(api.GET('/api/methods/{key}/file', { params: { path: { key: ladder ?? '' } } }))
const formOut = () => told(api.GET('/api/ladders/schema'))

async function take(e: Event) {
  const input = e.target as HTMLInputElement
  const file = input.files?.[0]
  input.value = ''
  if (!file) return
  kept.value = undefined
  const text = await file.text()
  const answer = await sending.send(() =>
    own
      ? told(
          api.PUT('/api/ladders/{id}/file', {
            params: { path: { id: own.id } },
            body: { version: own.version, text, reason: file.name },
          }),
        )
      : told(api.POST('/api/ladders/file', { body: { version: 0, text, reason: file.name } })),
  )
  if (!answer) return
  kept.value = answer
  emit('taken', answer)
}
</script>

<template>
  <div class="stack">
    <div class="row">
      <ElButton v-if="ladder || own" @click="out(ladderOut)">Take it out as a file</ElButton>
      <label class="button plain file">
        {{ own ? 'Take in a file as the next version' : 'Take in a file as a ladder of your own' }}
        <input type="file" accept=".yaml,.yml,.txt,text/yaml,text/plain" class="visually-hidden" @change="take" />
      </label>
    </div>
    <p class="small quiet">
      The file is plain text (YAML), in the form of the ladders that ship, and held against the same checks. What keeps a horse
      safe, and what the product knows a step by, stays as it ships.
      <button type="button" class="as-link" @click="out(formOut)">Its form, as a JSON Schema</button>
    </p>
    <WrongNote :trouble="sending.trouble.value" :shown="[]" />
    <p v-if="kept" role="status" class="strong">
      Taken in:
      <RouterLink :to="`/methods/own/${kept.id}`">{{ kept.name }}, version {{ kept.version }}</RouterLink>
    </p>
  </div>
</template>
