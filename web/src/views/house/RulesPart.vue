<script setup lang="ts">
// The numbers of the house, or what findings say, beside what ships. What a change does to
// horses in work is shown before it is kept.
import { useDebounceFn } from '@vueuse/core'
import { computed, reactive, ref, shallowRef, watch } from 'vue'
import { api, told } from '../../api/client'
import type { Schemas } from '../../api/types'
import { useLoad, useSend } from '../../api/use'
import PageState from '../../parts/PageState.vue'
import MadeList from './MadeList.vue'
import RulesTable from './RulesTable.vue'
import TrialSheet from './TrialSheet.vue'
import WeightsTable from './WeightsTable.vue'

type House = Schemas['CatalogHouse']

const { weights, lead } = defineProps<{ weights: boolean; lead: boolean }>()
const { data, trouble, at, load } = useLoad(() => told(api.GET('/api/house/rules')))
const draft = reactive<{ doc: House }>({ doc: {} })
const trial = shallowRef<Schemas['HouseTrial']>()
const trying = useSend()
const keeping = useSend()
const reason = ref('')
const kept = ref('')

watch(data, (d) => d && (draft.doc = copy(d.doc)))
function copy(h: House): House {
  return JSON.parse(JSON.stringify(h)) as House
}
const changed = computed(() => data.value !== undefined && JSON.stringify(draft.doc) !== JSON.stringify(data.value.doc))
const fields = computed(() => ({ ...trying.trouble.value?.fields, ...keeping.trouble.value?.fields }))

const look = useDebounceFn(async () => {
  if (!changed.value) return
  const doc = copy(draft.doc)
  const said = await trying.send(() => told(api.POST('/api/house/rules/trial', { body: doc })))
  if (said) trial.value = said
  if (JSON.stringify(doc) !== JSON.stringify(draft.doc)) void look()
}, 500)

function change(doc: House) {
  draft.doc = doc
  kept.value = ''
  trial.value = undefined
  trying.trouble.value = undefined
  void look()
}
function leave() {
  if (data.value) draft.doc = copy(data.value.doc)
  trial.value = undefined
  trying.trouble.value = keeping.trouble.value = undefined
}
async function keep() {
  const d = data.value
  if (!d) return
  const body = { doc: draft.doc, reason: reason.value, version: d.version }
  const now = await keeping.send(() => told(api.PUT('/api/house/rules', { body })))
  if (!now) return
  data.value = now
  reason.value = ''
  trial.value = undefined
  kept.value = 'Kept. Sessions that were begun keep the rules they were begun with.'
}
</script>

<template>
  <PageState :trouble="trouble" :ready="data !== undefined" :at="at" @again="load">
    <template v-if="data">
      <TrialSheet
        v-if="changed"
        v-model="reason"
        :trial="trial"
        :trying="trying.sending.value"
        :wrong="fields"
        :trouble="keeping.trouble.value ?? trying.trouble.value"
        :sending="keeping.sending.value"
        @keep="keep"
        @leave="leave"
        @again="load"
      />
      <p v-if="kept" role="status" class="strong">{{ kept }}</p>
      <WeightsTable v-if="weights" :house="data" :doc="draft.doc" :lead="lead" :wrong="fields" @change="change" />
      <RulesTable v-else :house="data" :doc="draft.doc" :lead="lead" :wrong="fields" @change="change" />
      <MadeList :made="data.made" />
    </template>
  </PageState>
</template>
