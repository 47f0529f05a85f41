<script setup lang="ts">
// Films for the trainer, by the list: in pieces that go on after a cut. What the trainer
// does not ask for can be sent too.
import { computed, onMounted, ref, shallowRef } from 'vue'
import { v4 } from 'uuid'
import type { Schemas } from '../api/types'
import { sendClip } from '../parts/sendClip'
import { filmList } from './client'

const { token, horse, trainer } = defineProps<{ token: string; horse: string; trainer: string }>()
const list = shallowRef<Schemas['FilmList']>()
const view = ref('')
const picked = ref<File>()
const share = ref<number>()
const says = ref('')
const unplayed = ref(false)
const wanted = computed(() => list.value?.views.filter((v) => v.came === 0) ?? [])

async function read() {
  const answer = await filmList(token, horse)
  if ('got' in answer) list.value = answer.got
}
onMounted(read)

function pick(event: Event) {
  picked.value = (event.target as HTMLInputElement).files?.[0]
  says.value = ''
  unplayed.value = false
  if (picked.value) look(picked.value)
}

/** Says at once where this phone can't play what was chosen; it can be sent all the same. */
function look(file: File) {
  const video = document.createElement('video')
  const at = URL.createObjectURL(file)
  video.onloadedmetadata = () => URL.revokeObjectURL(at)
  video.onerror = () => {
    unplayed.value = true
    URL.revokeObjectURL(at)
  }
  video.preload = 'metadata'
  video.src = at
}

async function send() {
  const file = picked.value
  if (!file) return
  share.value = 0
  const on = new Date(Math.min(file.lastModified, Date.now()))
  const day = `${on.getFullYear()}-${String(on.getMonth() + 1).padStart(2, '0')}-${String(on.getDate()).padStart(2, '0')}`
  const name = list.value?.views.find((v) => v.key === view.value)?.says.text?.split(':')[0] ?? ''
  try {
    await sendClip(
      file,
      { horse, name, view: view.value, on: day },
      {
        endpoint: '/api/owner/clips/arriving',
        headers: token ? { Authorization: `Bearer ${token}` } : undefined,
        make: v4,
        told: (s) => (share.value = s),
      },
    )
    says.value = `It arrived. ${trainer} sees it with the horse.`
    picked.value = undefined
    view.value = ''
    await read()
  } catch (error) {
    says.value = error instanceof Error ? error.message : 'It could not be sent. Ring your trainer.'
  }
  share.value = undefined
}
</script>

<template>
  <section v-if="list">
    <h2>Films for {{ trainer }}</h2>
    <details>
      <summary>What to film</summary>
      <p class="strong">{{ list.safety.text }}</p>
      <ul>
        <li v-for="v in list.views" :key="v.key">{{ v.came ? '✓ ' : '' }}{{ v.says.text }}</li>
      </ul>
      <p>{{ list.how.text }}</p>
    </details>
    <label class="pick"
      >{{ picked ? picked.name : 'Film or choose one'
      }}<input type="file" accept="video/*" :disabled="share !== undefined" @change="pick"
    /></label>
    <template v-if="picked">
      <label
        >What it shows
        <select v-model="view">
          <option value="">something else</option>
          <option v-for="v in wanted" :key="v.key" :value="v.key">{{ v.says.text }}</option>
        </select>
      </label>
      <p v-if="unplayed" class="small">This phone can't play it here. It can be sent all the same.</p>
      <p class="small">
        Sending it is agreeing that it is kept with the horse, and shown to nobody outside. The place is taken out.
      </p>
      <button type="button" :disabled="share !== undefined" @click="send">
        {{ share === undefined ? 'Send the film' : `${Math.round(share * 100)} % has arrived` }}
      </button>
    </template>
    <p v-if="says" role="status">{{ says }}</p>
  </section>
</template>

<style scoped>
summary {
  min-height: var(--hand);
  font-weight: 700;
}
.pick {
  display: flex;
  align-items: center;
  min-height: var(--touch);
  padding: 0 var(--gap-3);
  border: var(--stroke);
  font-weight: 700;
}
.pick:focus-within {
  outline: var(--focus);
}
.pick input {
  position: absolute;
  opacity: 0;
  width: 1px;
}
select {
  display: block;
  width: 100%;
  min-height: var(--hand);
  font: inherit;
  border: 2px solid var(--arena-ink);
}
button {
  margin-top: var(--gap-2);
  width: 100%;
}
</style>
