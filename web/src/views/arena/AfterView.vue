<script setup lang="ts">
// What a session came to, and one line of how it ended, for the owner.
import { computed, ref, watch } from 'vue'
import { api, told } from '../../api/client'
import { useLoad } from '../../api/use'
import { keptWords, outbox } from '../../offline/kept'
import BeadRope from '../../parts/BeadRope.vue'
import { byAsk } from '../../parts/beads'
import BridgeDrawing from '../../parts/BridgeDrawing.vue'
import FieldRow from '../../parts/FieldRow.vue'
import PageState from '../../parts/PageState.vue'
import { count, longDate, sideWord } from '../../words'

const { id } = defineProps<{ id: string }>()
const { data, trouble, load } = useLoad(async () => {
  const sum = await told(api.GET('/api/sessions/{id}/summary', { params: { path: { id } } }))
  if (!line.value) line.value = sum.note
  return sum
})
const line = ref('')
const keptLine = ref(false)
const waiting = computed(() => outbox.value?.state.waiting ?? 0)

// What was still on its way when the page opened changes the summary.
watch(waiting, (n, before) => n === 0 && before > 0 && void load())

async function keep() {
  const box = outbox.value
  if (!box || !data.value?.end_id) return
  await box.add(`session/${id}`, { kind: 'end', replaces: data.value.end_id, note: line.value.trim() })
  keptLine.value = true
}
</script>

<template>
  <div class="page">
    <PageState :trouble="trouble" :ready="data !== undefined" @again="load">
      <template v-if="data">
        <header class="page-head row between">
          <div>
            <h1>{{ data.horse.name }}, {{ longDate(data.date) }}</h1>
            <p class="quiet">
              {{ count(data.minutes, 'minute', 'minutes') }} with {{ data.by }}. {{ data.reps.soft }} of {{ data.reps.n }} answers
              soft, highest level {{ data.reps.highest }}.
            </p>
          </div>
          <div class="row">
            <RouterLink :to="`/reports/${id}`" class="button">The owner's report</RouterLink>
            <RouterLink :to="`/horses/${data.horse.id}`" class="button plain">Back to the horse</RouterLink>
          </div>
        </header>
        <p v-if="waiting" class="strong note" role="status">{{ keptWords }}: this page follows when they have arrived.</p>
        <p v-if="!data.ended && !waiting" class="strong note">
          This session is still open. <RouterLink :to="`/arena/${id}`">Go on with it</RouterLink>
        </p>
        <p v-if="data.late" class="strong note">
          {{ count(data.late, 'entry', 'entries') }} arrived from another device after this session had ended. Kept, and marked
          so.
        </p>
        <p v-if="data.clock_off" class="note">
          The clock of a device was wrong. Its entries stand in their order, at corrected times.
        </p>
        <div class="columns">
          <section class="sheet stack">
            <h2>What changed on the bridge</h2>
            <p v-if="data.changes.length === 0">No step came to another state. That is a session too.</p>
            <ul class="changes">
              <li v-for="c in data.changes" :key="c.name + c.variant.text">
                <b>{{ [c.name, c.variant.text].filter(Boolean).join(', ') }}</b> {{ c.from }} → {{ c.to }}
              </li>
            </ul>
            <BridgeDrawing :bridge="data.bridge" />
            <p v-if="data.care !== data.care_before" class="strong">
              The grade of care is now {{ data.care }}; it was {{ data.care_before }}.
            </p>
            <p v-if="data.events.length" class="strong">
              Dangerous: {{ data.events.map((e) => e.kind).join(', ') }}. It is on record.
            </p>
          </section>
          <section class="sheet stack">
            <h2>How it ended</h2>
            <form class="stack" @submit.prevent="keep">
              <FieldRow v-slot="f" label="One line for the owner">
                <ElInput
                  :id="f.id"
                  v-model="line"
                  maxlength="300"
                  placeholder="stood in the doorway and sighed"
                  :disabled="!data.end_id"
                />
              </FieldRow>
              <div class="row">
                <ElButton native-type="submit" :disabled="!data.end_id || !line.trim()">Keep the line</ElButton>
                <p v-if="keptLine" role="status">Kept. It stands in the report.</p>
              </div>
            </form>
            <h2>All the reps</h2>
            <div v-for="a in byAsk(data.beads)" :key="a.key">
              <h3>{{ [a.name, sideWord(a.variant)].filter(Boolean).join(', ') }}</h3>
              <BeadRope :beads="a.beads" />
            </div>
            <p v-if="data.beads.length === 0">No rep was logged.</p>
          </section>
        </div>
      </template>
    </PageState>
  </div>
</template>

<style scoped>
.columns {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 0.8fr);
  gap: var(--gap-3);
  align-items: start;
}
.changes {
  display: grid;
  gap: var(--gap-1);
}
.note {
  margin-bottom: var(--gap-3);
}
@media (max-width: 1000px) {
  .columns {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
