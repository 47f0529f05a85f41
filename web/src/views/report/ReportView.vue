<script setup lang="ts">
// The owner's page after a visit: written from the log, then worded by the
// trainer, sentence by sentence. Safety sentences stay as they are.
import { ref } from 'vue'
import { api, told } from '../../api/client'
import { me } from '../../api/me'
import BridgeDrawing from '../../parts/BridgeDrawing.vue'
import PageState from '../../parts/PageState.vue'
import StaleNote from '../../parts/StaleNote.vue'
import WrongNote from '../../parts/WrongNote.vue'
import { longDate } from '../../words'
import ReportSentence from './ReportSentence.vue'
import SendPanel from './SendPanel.vue'
import { useWording } from './useWording'

const { id } = defineProps<{ id: string }>()
const params = { path: { id } }
const sending = ref(false)
const {
  data,
  trouble,
  load,
  sections,
  edits,
  edit,
  editing,
  saved,
  saving,
  save,
  leave,
  theirs,
  differing,
  mine,
  takeTheirs,
  wrongAt,
} = useWording(
  () => told(api.GET('/api/sessions/{id}/report', { params })),
  (body) => told(api.PUT('/api/sessions/{id}/report', { params, body })),
)

const print = () => window.print()
</script>

<template>
  <div class="page">
    <PageState :trouble="trouble" :ready="data !== undefined" @again="load">
      <template v-if="data">
        <div class="bar row between no-print">
          <p>
            <RouterLink :to="`/horses/${data.horse.id}/reports`">{{ data.horse.name }}, all reports</RouterLink>
          </p>
          <div class="row">
            <p v-if="saved" role="status">Saved.</p>
            <template v-if="editing">
              <ElButton type="primary" :loading="saving.sending.value" @click="save">Save the wording</ElButton>
              <ElButton @click="leave">Leave it as it was</ElButton>
            </template>
            <template v-else>
              <ElButton @click="editing = true">Word it yourself</ElButton>
              <a class="button plain" :href="`/api/sessions/${data.session}/report.pdf`" download>PDF</a>
              <ElButton @click="print">Print</ElButton>
              <ElButton type="primary" :aria-expanded="sending" @click="sending = !sending">Send</ElButton>
            </template>
          </div>
        </div>
        <p v-if="!data.ended" class="strong no-print">This session is still open; the page may change.</p>
        <StaleNote
          v-if="theirs"
          class="no-print"
          :differences="differing"
          :by="theirs.saved_by"
          @mine="mine"
          @theirs="takeTheirs"
        />
        <WrongNote v-else :trouble="saving.trouble.value" />
        <SendPanel v-if="sending && !editing" :key="data.version" :report="data" @sent="data = { ...data, sent_at: $event }" />
        <article class="paper">
          <header class="head">
            <div>
              <h1>{{ data.horse.name }}</h1>
              <p class="quiet">
                Visit on {{ longDate(data.date) }}<template v-if="data.yard">, {{ data.yard }}</template
                ><template v-if="data.for.length"> · for {{ data.for.join(', ') }}</template>
              </p>
            </div>
            <p class="quiet right">{{ me?.practice_name }}<br />{{ data.by }}</p>
          </header>
          <template v-for="(s, i) in sections" :key="s.key">
            <section class="part" :class="s.key">
              <h2>{{ s.title.text }}</h2>
              <ReportSentence
                v-for="x in s.sentences"
                :key="x.id"
                :sentence="x"
                :edit="edits[x.id]"
                :editing="editing && !x.fixed"
                :page="data"
                :wrong="wrongAt(x.id)"
                @change="edit(x, $event)"
                @reset="edit(x)"
              />
            </section>
            <template v-if="i === 0">
              <BridgeDrawing class="picture" :bridge="data.bridge" />
              <dl v-if="data.figures.length" class="figures">
                <div v-for="f in data.figures" :key="f.label.key">
                  <dt>{{ f.label.text }}</dt>
                  <dd>{{ f.before.text === f.after.text ? f.after.text : `${f.before.text} → ${f.after.text}` }}</dd>
                  <dd class="quiet">{{ f.means.text }}</dd>
                </div>
              </dl>
            </template>
          </template>
        </article>
      </template>
    </PageState>
  </div>
</template>

<style scoped src="./paper.css"></style>
<style scoped>
.figures {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(150px, 1fr));
  border: var(--line);
  margin: 0;
}
.figures > div {
  padding: var(--gap-3);
}
.figures > div + div {
  border-left: var(--line);
}
.figures dd {
  margin: 0;
}
.figures dd:not(.quiet) {
  font: 700 var(--step-3) / 1.2 var(--font-head);
}
.care {
  color: var(--ink-2);
}
@media print {
  .figures > div {
    padding: var(--gap-2);
  }
  .figures dd:not(.quiet) {
    font-size: var(--step-2);
  }
}
</style>
