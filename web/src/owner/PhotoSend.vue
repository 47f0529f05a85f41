<script setup lang="ts">
// A photograph for the trainer, of the horse or a mark on it.
import { ref } from 'vue'
import { shrink } from '../parts/shrink'
import { sendPhoto } from './client'

const { token, horse, trainer } = defineProps<{ token: string; horse: string; trainer: string }>()
const caption = ref('')
const picked = ref<File>()
const sending = ref(false)
const says = ref('')

function pick(event: Event) {
  picked.value = (event.target as HTMLInputElement).files?.[0]
  says.value = ''
}

async function send() {
  if (!picked.value) return
  sending.value = true
  const answer = await sendPhoto(token, horse, await shrink(picked.value), caption.value.trim())
  sending.value = false
  if ('away' in answer) says.value = 'A photograph needs a signal. It is still chosen here: send it where there is one.'
  else if ('refused' in answer) says.value = answer.refused
  else {
    says.value = answer.got.say
    picked.value = undefined
    caption.value = ''
  }
}
</script>

<template>
  <section>
    <h2>A photograph for {{ trainer }}</h2>
    <label class="pick"
      >{{ picked ? picked.name : 'Take or choose one' }}<input type="file" accept="image/*" @change="pick"
    /></label>
    <template v-if="picked">
      <label>What it shows <input v-model="caption" type="text" maxlength="150" /></label>
      <p class="small">Sending it is agreeing that it is kept with the horse, and shown to nobody outside.</p>
      <button type="button" :disabled="sending" @click="send">{{ sending ? 'Sending' : 'Send the photograph' }}</button>
    </template>
    <p v-if="says" role="status">{{ says }}</p>
  </section>
</template>

<style scoped>
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
label input[type='text'] {
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
