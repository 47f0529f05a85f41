<script setup lang="ts">
// A document of a horse that is of no single visit: the page at the end of the work,
// or the whole file for whoever takes over.
import { computed, ref } from 'vue'
import { api, told } from '../../api/client'
import { useLoad } from '../../api/use'
import BridgeDrawing from '../../parts/BridgeDrawing.vue'
import { copied } from '../../parts/copy'
import PageState from '../../parts/PageState.vue'

const { id, kind } = defineProps<{ id: string; kind: string }>()
const params = { path: { id } }
const { data, trouble, load } = useLoad(() =>
  kind === 'closing' ? told(api.GET('/api/horses/{id}/closing', { params })) : told(api.GET('/api/horses/{id}/file', { params })),
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
            <span v-if="said" role="status">{{ said }}</span>
            <ElButton v-if="kind === 'closing'" @click="copy">Copy as a message</ElButton>
            <a class="button plain" :href="pdf" download>PDF</a>
            <ElButton type="primary" @click="print">Print</ElButton>
          </div>
        </div>
        <article class="paper" :class="kind">
          <header class="head">
            <div>
              <h1>{{ data.title }}</h1>
              <p class="quiet">{{ data.under }}</p>
            </div>
            <p class="quiet right">{{ data.right }}</p>
          </header>
          <template v-for="s in data.sections" :key="s.key">
            <section class="part">
              <h2>{{ s.title.text }}</h2>
              <p v-for="x in s.sentences" :key="x.id">{{ x.said.text }}</p>
            </section>
            <BridgeDrawing v-if="s.key === 'short'" class="picture" :bridge="data.bridge" />
          </template>
        </article>
      </template>
    </PageState>
  </div>
</template>

<style scoped src="./paper.css"></style>
