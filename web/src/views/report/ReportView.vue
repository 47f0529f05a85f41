<script setup lang="ts">
// The owner's page after a visit: written from the log, then worded by the
// trainer, sentence by sentence. Safety sentences stay as they are.
import { reactive, ref } from 'vue'
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
const w = reactive(
  useWording(
    () => told(api.GET('/api/sessions/{id}/report', { params })),
    (body) => told(api.PUT('/api/sessions/{id}/report', { params, body })),
  ),
)

const print = () => window.print()
</script>

<template>
  <div class="page">
    <PageState :trouble="w.trouble" :ready="w.data !== undefined" @again="w.load">
      <template v-if="w.data">
        <div class="bar row between no-print">
          <p>
            <RouterLink :to="`/horses/${w.data.horse.id}/reports`">{{ w.data.horse.name }}, all reports</RouterLink>
          </p>
          <div class="row">
            <p v-if="w.saved" role="status">Saved.</p>
            <template v-if="w.editing">
              <ElButton type="primary" :loading="w.saving.sending" @click="w.save">Save the wording</ElButton>
              <ElButton @click="w.leave">Leave it as it was</ElButton>
            </template>
            <template v-else>
              <ElButton @click="w.editing = true">Word it yourself</ElButton>
              <a class="button plain" :href="`/api/sessions/${w.data.session}/report.pdf`" download>PDF</a>
              <ElButton @click="print">Print</ElButton>
              <ElButton type="primary" :aria-expanded="sending" @click="sending = !sending">Send</ElButton>
            </template>
          </div>
        </div>
        <p v-if="!w.data.ended" class="strong no-print">This session is still open; the page may change.</p>
        <StaleNote
          v-if="w.theirs"
          class="no-print"
          :differences="w.differing"
          :by="w.theirs.saved_by"
          @mine="w.mine"
          @theirs="w.takeTheirs"
        />
        <WrongNote v-else :trouble="w.saving.trouble" />
        <SendPanel
          v-if="sending && !w.editing"
          :key="w.data.version"
          :report="w.data"
          @sent="w.data = { ...w.data, sent_at: $event }"
        />
        <article class="paper">
          <header class="head">
            <div>
              <h1>{{ w.data.horse.name }}</h1>
              <p class="quiet">
                Visit on {{ longDate(w.data.date) }}<template v-if="w.data.yard">, {{ w.data.yard }}</template
                ><template v-if="w.data.for.length"> · for {{ w.data.for.join(', ') }}</template>
              </p>
            </div>
            <p class="quiet right">{{ me?.practice_name }}<br />{{ w.data.by }}</p>
          </header>
          <template v-for="(s, i) in w.sections" :key="s.key">
            <section class="part" :class="s.key">
              <h2>{{ s.title.text }}</h2>
              <ReportSentence
                v-for="x in s.sentences"
                :key="x.id"
                :sentence="x"
                :edit="w.edits[x.id]"
                :editing="w.editing && !x.fixed"
                :page="w.data"
                :wrong="w.wrongAt(x.id)"
                @change="w.edit(x, $event)"
                @reset="w.edit(x)"
              />
            </section>
            <template v-if="i === 0">
              <BridgeDrawing class="picture" :bridge="w.data.bridge" />
              <dl v-if="w.data.figures.length" class="figures">
                <div v-for="f in w.data.figures" :key="f.label.key">
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
