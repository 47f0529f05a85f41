<script setup lang="ts">
// What each finding says of the causes: to be argued with, one finding at a time, and put back.
import { computed, ref } from 'vue'
import type { Schemas } from '../../api/types'
import FieldRow from '../../parts/FieldRow.vue'
import { count } from '../../words'
import { without } from './without'

type House = Schemas['CatalogHouse']
type Finding = Schemas['HouseFinding']

const { house, doc, lead, wrong } = defineProps<{
  house: Schemas['HouseRules']
  doc: House
  lead: boolean
  wrong: Record<string, string>
}>()
const emit = defineEmits<{ change: [doc: House] }>()

const looked = ref('')
const only = ref(false)
const open = ref('')
const own = (f: Finding) => doc.bears?.[f.key]
const mark = (f: Finding, cause: string) => own(f)?.[cause] ?? f.shipped[cause] ?? ''
const list = computed(() =>
  house.findings.filter(
    (f) => f.says.toLowerCase().includes(looked.value.trim().toLowerCase()) && (!only.value || own(f) !== undefined),
  ),
)
const says = (f: Finding) =>
  house.causes
    .map((c) => ({ cause: c.says.text, mark: mark(f, c.cause) }))
    .filter((b) => b.mark)
    .map((b) => `${b.cause} ${b.mark}`)
    .join(' · ') || 'nothing'

function put(f: Finding, cause: string, to: string) {
  const one = to === (f.shipped[cause] ?? '') ? without(own(f), cause) : { ...own(f), [cause]: to }
  emit('change', { ...doc, bears: one ? { ...doc.bears, [f.key]: one } : without(doc.bears, f.key) })
}
const back = (f: Finding) => emit('change', { ...doc, bears: without(doc.bears, f.key) })
</script>

<template>
  <section class="stack weights" aria-label="What findings say">
    <p>
      A finding speaks for a cause with +, ++ or +++, or against it with − or −−. What is seen on video counts seven tenths of it,
      what is told a half. <RouterLink to="/methods/handbook/3-assessment">Handbook, part 3</RouterLink>
    </p>
    <div class="row end">
      <FieldRow v-slot="f" label="Look for a finding">
        <ElInput :id="f.id" v-model="looked" clearable placeholder="girth, pulls, shakes" />
      </FieldRow>
      <label class="row"><input v-model="only" type="checkbox" /> only what is otherwise here</label>
    </div>
    <p v-if="list.length === 0" class="quiet">{{ only ? 'Nothing is otherwise than shipped.' : 'No finding speaks of that.' }}</p>
    <p v-else class="quiet small">{{ count(list.length, 'finding', 'findings') }}</p>
    <ul>
      <li v-for="f in list" :key="f.key" class="line" :class="{ own: own(f) }">
        <div class="row between">
          <span class="grow"
            ><b>{{ f.says }}</b> <span class="quiet small">{{ f.seen.text }}</span><br />
            {{ says(f) }}</span
          >
          <button v-if="own(f) && lead" type="button" class="as-link" @click="back(f)">
            put back<span class="visually-hidden"> {{ f.says }}</span>
          </button>
          <button
            v-if="lead"
            type="button"
            class="as-link"
            :aria-expanded="open === f.key"
            @click="open = open === f.key ? '' : f.key"
          >
            {{ open === f.key ? 'close' : 'argue' }}<span class="visually-hidden"> {{ f.says }}</span>
          </button>
        </div>
        <div v-if="open === f.key" class="marks">
          <label v-for="c in house.causes" :key="c.cause" class="mark">
            {{ c.says.text }}
            <select
              class="plain-field"
              :value="mark(f, c.cause)"
              @change="put(f, c.cause, ($event.target as HTMLSelectElement).value)"
            >
              <option value="">nothing{{ f.shipped[c.cause] ? '' : ', as shipped' }}</option>
              <option v-for="m in house.marks" :key="m" :value="m">
                {{ m }}{{ f.shipped[c.cause] === m ? ', as shipped' : '' }}
              </option>
            </select>
          </label>
        </div>
        <p v-if="wrong[`bears.${f.key}`]" class="short" role="alert">{{ wrong[`bears.${f.key}`] }}</p>
      </li>
    </ul>
  </section>
</template>

<style scoped>
.weights {
  padding: var(--gap-3) 0;
}
.line {
  border-top: var(--line);
  padding: var(--gap-2) 0;
}
.own {
  border-left: 3px solid var(--ink-1);
  padding-left: var(--gap-2);
}
.grow {
  flex: 1;
}
.end {
  align-items: flex-end;
}
.marks {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(170px, 1fr));
  gap: var(--gap-2) var(--gap-3);
  padding: var(--gap-2) 0;
}
.mark {
  display: grid;
}
</style>
