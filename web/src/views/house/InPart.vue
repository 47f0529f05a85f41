<script setup lang="ts">
// What comes in: a practice or a horse that was taken out. How far it has come stays in sight.
import { useIntervalFn } from '@vueuse/core'
import { computed, ref, shallowRef } from 'vue'
import { api, told } from '../../api/client'
import type { Schemas } from '../../api/types'
import { count } from '../../words'
import NotebookPart from './NotebookPart.vue'
import { sendWhole } from './sendWhole'

const { house } = defineProps<{ house: Schemas['House'] }>()
const emit = defineEmits<{ changed: [] }>()

const taking = shallowRef(house.taking)
const share = ref<number>()
const wrong = ref('')
const busy = computed(() => share.value !== undefined || taking.value?.state === 'taking' || taking.value?.state === 'arriving')

async function look() {
  const now = await told(api.GET('/api/house/taking')).catch(() => undefined)
  if (!now) return // without a signal it is asked again
  const before = taking.value?.state
  taking.value = now
  if (now.state !== 'taking' && now.state !== 'arriving') pause()
  if (now.state === 'done' && before !== 'done') emit('changed')
}
const { pause, resume } = useIntervalFn(look, 1000, { immediate: busy.value })

async function choose(e: Event) {
  const input = e.target as HTMLInputElement
  const file = input.files?.[0]
  input.value = ''
  if (!file) return
  wrong.value = ''
  share.value = 0
  try {
    taking.value = await sendWhole('/api/house/taking', file, (part) => (share.value = part))
    resume()
  } catch (error) {
    wrong.value = error instanceof Error ? error.message : 'It broke off. Nothing was taken in. Send it again.'
  } finally {
    share.value = undefined
  }
}
</script>

<template>
  <section class="stack in">
    <template v-if="house.lead">
      <h2>A practice or a horse</h2>
      <p>
        The .zip that was taken out, as it is. A whole practice comes into an empty one<template v-if="!house.empty"
          >: this one has horses, people or yards already, so one horse's file can come in</template
        >. All of it comes in, or nothing.
      </p>
      <div class="row">
        <label class="button plain file" :class="{ off: busy }">
          {{ busy ? 'On its way' : 'Choose the file' }}
          <input type="file" accept=".zip,application/zip" class="visually-hidden" :disabled="busy" @change="choose" />
        </label>
      </div>
      <div role="status">
        <p v-if="share !== undefined">
          <progress :value="share" max="1" aria-label="Sent" /> {{ Math.round(share * 100) }} % is sent. Stay on this page until
          it is there.
        </p>
        <p v-else-if="taking?.state === 'taking'">Taking in: {{ count(taking.done, 'row', 'rows') }} so far.</p>
        <p v-else-if="taking?.state === 'done'" class="strong">
          {{ taking.whole ? 'The practice is in' : 'It is in' }}: {{ count(taking.rows, 'row', 'rows') }} that
          {{ taking.rows === 1 ? 'was' : 'were' }} not there yet,
          {{ count(taking.files, 'picture or film', 'pictures and films') }}.
          <RouterLink to="/horses">To the horses</RouterLink>
        </p>
      </div>
      <p v-if="wrong || taking?.state === 'refused'" class="short" role="alert">{{ wrong || taking?.say }}</p>
      <NotebookPart @changed="emit('changed')" />
    </template>
    <p v-else>A lead trainer takes in.</p>
  </section>
</template>

<style scoped>
.in {
  max-width: 110ch;
  padding: var(--gap-3) 0;
}
progress {
  width: 200px;
}
.off {
  opacity: 0.6;
}
</style>
