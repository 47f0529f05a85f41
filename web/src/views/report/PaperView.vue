<script setup lang="ts">
// A document of a horse that is of no single visit: the page at the end of the work,
// or the whole file for whoever takes over.
import { computed, ref } from 'vue'
import { api, told } from '../../api/client'
import BridgeDrawing from '../../parts/BridgeDrawing.vue'
import { copied } from '../../parts/copy'
import PageState from '../../parts/PageState.vue'
import StaleNote from '../../parts/StaleNote.vue'
import WrongNote from '../../parts/WrongNote.vue'
import ReportSentence from './ReportSentence.vue'
import { useWording } from './useWording'

const { id, kind } = defineProps<{ id: string; kind: string }>()
const params = { path: { id } }
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
  () =>
    kind === 'closing'
      ? told(api.GET('/api/horses/{id}/closing', { params }))
      : told(api.GET('/api/horses/{id}/file', { params })),
  (body) => told(api.PUT('/api/horses/{id}/closing', { params, body })),
)
const pdf = computed(() => `/api/horses/${id}/${kind === 'closing' ? 'closing' : 'file'}.pdf`)
const said = ref('')

async function copy() {
  said.value = await copied(data.value?.message ?? '')
}
const print = () => window.print()
</script>

<template>
  <div class="page">
    <PageState :trouble="trouble" :ready="data !== undefined" @again="load">
      <template v-if="data">
        <div class="bar row between no-print">
          <RouterLink :to="`/horses/${data.horse.id}/reports`">{{ data.horse.name }}, all reports</RouterLink>
          <div class="row">
            <span v-if="said || saved" role="status">{{ said || 'Saved.' }}</span>
            <template v-if="editing">
              <ElButton type="primary" :loading="saving.sending.value" @click="save">Save the wording</ElButton>
              <ElButton @click="leave">Leave it as it was</ElButton>
            </template>
            <template v-else>
              <template v-if="kind === 'closing'">
                <ElButton @click="editing = true">Word it yourself</ElButton>
                <ElButton @click="copy">Copy as a message</ElButton>
              </template>
              <a class="button plain" :href="pdf" download>PDF</a>
              <ElButton type="primary" @click="print">Print</ElButton>
            </template>
          </div>
        </div>
        <StaleNote
          v-if="theirs"
          class="no-print"
          :differences="differing"
          :by="theirs.saved_by"
          @mine="mine"
          @theirs="takeTheirs"
        />
        <WrongNote v-else :trouble="saving.trouble.value" />
        <article class="paper" :class="kind">
          <header class="head">
            <div>
              <h1>{{ data.title }}</h1>
              <p class="quiet">{{ data.under }}</p>
            </div>
            <p class="quiet right">{{ data.right }}</p>
          </header>
          <template v-for="s in sections" :key="s.key">
            <section class="part">
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
            <BridgeDrawing v-if="s.key === 'short'" class="picture" :bridge="data.bridge" />
          </template>
        </article>
      </template>
    </PageState>
  </div>
</template>

<style scoped src="./paper.css"></style>
