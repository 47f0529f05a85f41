<script setup lang="ts">
// A document of a horse that is of no single visit: the page at the end of the work,
// or the whole file for whoever takes over.
import { computed, reactive, ref } from 'vue'
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
const w = reactive(
  useWording(
    () =>
      kind === 'closing'
        ? told(api.GET('/api/horses/{id}/closing', { params }))
        : told(api.GET('/api/horses/{id}/file', { params })),
    (body) => told(api.PUT('/api/horses/{id}/closing', { params, body })),
  ),
)
const pdf = computed(() => `/api/horses/${id}/${kind === 'closing' ? 'closing' : 'file'}.pdf`)
const said = ref('')

async function copy() {
  said.value = await copied(w.data?.message ?? '')
}
const print = () => window.print()
</script>

<template>
  <div class="page">
    <PageState :trouble="w.trouble" :ready="w.data !== undefined" @again="w.load">
      <template v-if="w.data">
        <div class="bar row between no-print">
          <RouterLink :to="`/horses/${w.data.horse.id}/reports`">{{ w.data.horse.name }}, all reports</RouterLink>
          <div class="row">
            <span v-if="said || w.saved" role="status">{{ said || 'Saved.' }}</span>
            <template v-if="w.editing">
              <ElButton type="primary" :loading="w.saving.sending" @click="w.save">Save the wording</ElButton>
              <ElButton @click="w.leave">Leave it as it was</ElButton>
            </template>
            <template v-else>
              <template v-if="kind === 'closing'">
                <ElButton @click="w.editing = true">Word it yourself</ElButton>
                <ElButton @click="copy">Copy as a message</ElButton>
              </template>
              <a class="button plain" :href="pdf" download>PDF</a>
              <ElButton type="primary" @click="print">Print</ElButton>
            </template>
          </div>
        </div>
        <StaleNote
          v-if="w.theirs"
          class="no-print"
          :differences="w.differing"
          :by="w.theirs.saved_by"
          @mine="w.mine"
          @theirs="w.takeTheirs"
        />
        <WrongNote v-else :trouble="w.saving.trouble" />
        <article class="paper" :class="kind">
          <header class="head">
            <div>
              <h1>{{ w.data.title }}</h1>
              <p class="quiet">{{ w.data.under }}</p>
            </div>
            <p class="quiet right">{{ w.data.right }}</p>
          </header>
          <template v-for="s in w.sections" :key="s.key">
            <section class="part">
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
            <BridgeDrawing v-if="s.key === 'short'" class="picture" :bridge="w.data.bridge" />
          </template>
        </article>
      </template>
    </PageState>
  </div>
</template>

<style scoped src="./paper.css"></style>
