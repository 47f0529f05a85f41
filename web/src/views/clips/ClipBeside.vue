<script setup lang="ts">
// Another clip of the horse beside this one, each from its own mark: the same view, weeks
// apart.
import { computed, ref, useTemplateRef, watch } from 'vue'
import { api, told } from '../../api/client'
import type { Schemas } from '../../api/types'
import { useLoad } from '../../api/use'
import FieldRow from '../../parts/FieldRow.vue'
import PageState from '../../parts/PageState.vue'
import { shortDate } from '../../words'
import ClipScreen from './ClipScreen.vue'
import { useFrames } from './useFrames'

type Film = ReturnType<typeof useFrames>

const { clip, film, other } = defineProps<{ clip: Schemas['ClipWhole']; film: Film; other: string }>()
const { data, trouble, at, load } = useLoad(() => told(api.GET('/api/clips/{id}', { params: { path: { id: other } } })))
watch(() => other, load)

const screen = useTemplateRef<{ video: HTMLVideoElement | null }>('screen')
const beside = useFrames(
  computed(() => screen.value?.video ?? null),
  () => data.value?.frames ?? [],
)
/** Where each begins: the first mark of the film, until another is chosen. */
const here = ref<number>()
const there = ref<number>()
const from = computed(() => here.value ?? clip.marks[0]?.at ?? 0)
const fromThere = computed(() => there.value ?? data.value?.marks[0]?.at ?? 0)

function line() {
  film.to(from.value)
  beside.to(fromThere.value)
}
function both() {
  line()
  beside.rate.value = film.rate.value
  for (const f of [film, beside]) if (!f.playing.value) f.play()
}
function step(by: number) {
  film.go(by)
  beside.go(by)
}
const starts = (list: Schemas['ClipMark'][]) => [{ at: 0, says: 'the beginning' }, ...list]
</script>

<template>
  <section class="stack" aria-label="Beside it">
    <PageState :trouble="trouble" :ready="data !== undefined" :at="at" @again="load">
      <template v-if="data">
        <p class="facts">
          Beside it: <b>{{ data.name || 'a clip' }}</b>, {{ shortDate(data.on)
          }}{{ data.timed ? `. ${data.timed.says.text}` : '' }}
        </p>
        <ClipScreen ref="screen" :clip="data" :film="beside" :rate="beside.rate.value" />
        <div class="fields">
          <FieldRow v-slot="f" :label="`This one of ${shortDate(clip.on)} begins at`">
            <select
              :id="f.id"
              :value="from"
              class="plain-field"
              @change="here = Number(($event.target as HTMLSelectElement).value)"
            >
              <option v-for="(m, i) in starts(clip.marks)" :key="i" :value="m.at">{{ m.at.toFixed(2) }} s, {{ m.says }}</option>
            </select>
          </FieldRow>
          <FieldRow v-slot="f" :label="`That one of ${shortDate(data.on)} begins at`">
            <select
              :id="f.id"
              :value="fromThere"
              class="plain-field"
              @change="there = Number(($event.target as HTMLSelectElement).value)"
            >
              <option v-for="(m, i) in starts(data.marks)" :key="i" :value="m.at">{{ m.at.toFixed(2) }} s, {{ m.says }}</option>
            </select>
          </FieldRow>
        </div>
        <div class="row">
          <ElButton type="primary" @click="both">Play both from there</ElButton>
          <ElButton @click="line">Both to there</ElButton>
          <ElButton @click="step(-1)">Both one back</ElButton>
          <ElButton @click="step(1)">Both one on</ElButton>
        </div>
      </template>
    </PageState>
  </section>
</template>

<style scoped>
.fields {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(160px, 1fr));
  gap: var(--gap-3);
}
select {
  width: 100%;
  min-width: 0;
}
</style>
