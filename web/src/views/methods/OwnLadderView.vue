<script setup lang="ts">
// An own ladder, edited: the checks are the same as for the shipped ones, and
// each fault stands at its step. Nothing is kept until all of it holds.
import { computed, ref, watch } from 'vue'
import { api, told } from '../../api/client'
import { useLoad, useSend } from '../../api/use'
import BridgeDrawing from '../../parts/BridgeDrawing.vue'
import FieldRow from '../../parts/FieldRow.vue'
import PageState from '../../parts/PageState.vue'
import StaleNote from '../../parts/StaleNote.vue'
import WrongNote from '../../parts/WrongNote.vue'
import { shortDate } from '../../words'
import { bridgeOf, useHandbook, type Own } from './handbook'
import { asStep, differences, draftOf, fresh, textOf, type Draft } from './draft'
import LadderFile from './LadderFile.vue'
import StepForm from './StepForm.vue'

const { id } = defineProps<{ id: string }>()
const { data, trouble, load } = useHandbook()
const own = computed(() => data.value?.own_ladders.find((o) => o.id === id))
const ladder = computed(() => data.value?.ladders.find((l) => l.key === own.value?.ladder))
const draft = ref<Draft>()
const version = ref(0)
const open = ref('')
const kept = ref(false)
const saving = useSend()
const newer = computed(() => (saving.trouble.value?.status === 409 ? (saving.trouble.value.current as Own) : undefined))

function take(o: Own) {
  draft.value = draftOf(o)
  version.value = o.version
}
watch(own, (o) => {
  if (o && !draft.value) take(o)
})

const steps = computed(() =>
  (data.value?.ladders ?? []).flatMap((l) =>
    (l.key === own.value?.ladder ? own.value.doc : l).steps.map((s) => ({ key: s.key, says: `${l.name}: ${s.name}` })),
  ),
)

const fault = (i: number) => saving.trouble.value?.fields[`steps.${i}`] ?? ''
const shownFields = computed(() => ['name', ...(draft.value?.steps ?? []).map((_, i) => `steps.${i}`)])

function move(i: number, by: number) {
  const steps = draft.value?.steps
  const step = steps?.[i]
  if (!steps || !step || i + by < 0 || i + by >= steps.length) return
  steps.splice(i, 1)
  steps.splice(i + by, 0, step)
}

function add() {
  if (!draft.value || !own.value) return
  const step = fresh(own.value.ladder, draft.value.steps)
  draft.value.steps.push(step)
  open.value = step.key
}

/** What horses were asked that no ladder names, and that is not a step here yet. */
const { data: asked } = useLoad(() => told(api.GET('/api/asks/own')))
const askable = computed(() => (asked.value ?? []).filter((o) => !draft.value?.steps.some((s) => s.key === o.ask.key)))
function addAsk(key: string) {
  const one = askable.value.find((o) => o.ask.key === key)
  if (!one || !draft.value) return
  draft.value.steps.push(asStep(one))
  open.value = one.ask.key
}

async function save() {
  const d = draft.value
  if (!d) return
  kept.value = false
  const answer = await saving.send(() =>
    told(api.PUT('/api/ladders/{id}', { params: { path: { id } }, body: textOf(d, version.value) })),
  )
  if (!answer) return
  version.value = answer.version
  kept.value = true
  await load()
}

/** A file has become the next version. What was typed here and not kept stays, and is held
 * against it once it is kept. */
async function again(next: Own) {
  const typed = draft.value && own.value && differences(draft.value, draftOf(own.value)).length > 0
  if (!typed) take(next)
  await load()
}

function mine() {
  if (newer.value) version.value = newer.value.version
  void save()
}

function theirs() {
  if (newer.value) take(newer.value)
  saving.trouble.value = undefined
}
</script>

<template>
  <div class="page">
    <PageState :trouble="trouble" :ready="data !== undefined" @again="load">
      <section v-if="!own" class="sheet stack">
        <h1>There is no such ladder</h1>
        <p><RouterLink to="/methods">All methods</RouterLink></p>
      </section>
      <form v-else-if="draft" class="stack" @submit.prevent="save">
        <header class="page-head">
          <p class="small">
            <RouterLink to="/methods">Methods</RouterLink> · your copy of
            <RouterLink :to="`/methods/${own.ladder}`">{{ ladder?.name }}</RouterLink>
          </p>
          <h1>{{ own.name }}</h1>
          <p class="quiet">
            version {{ own.version }}, {{ own.saved_by }}, {{ shortDate(new Date(own.saved_at).toISOString().slice(0, 10)) }}
          </p>
        </header>
        <StaleNote
          v-if="newer"
          :differences="differences(draft, draftOf(newer))"
          :by="newer.saved_by"
          @mine="mine"
          @theirs="theirs"
        />
        <section class="sheet stack">
          <BridgeDrawing :bridge="bridgeOf(own.doc, data?.piers[own.ladder] ?? [])" />
          <p v-if="own.changed.length">
            Measured or passed otherwise than as shipped, so that progress on them begins again:
            {{ own.changed.join(', ') }}.
          </p>
          <p class="quiet">Plans that use an older version keep it until they are made anew.</p>
        </section>
        <fieldset class="plain-set stack" :disabled="!data?.lead">
          <section class="sheet stack">
            <FieldRow v-slot="f" label="Name" :wrong="saving.trouble.value?.fields.name">
              <ElInput :id="f.id" v-model="draft.name" maxlength="120" :aria-describedby="f.describedby" />
            </FieldRow>
            <FieldRow v-slot="f" label="Where"><ElInput :id="f.id" v-model="draft.where" maxlength="500" /></FieldRow>
            <FieldRow v-slot="f" label="It stands on">
              <ElSelect :id="f.id" v-model="draft.standsOn" multiple filterable placeholder="nothing">
                <ElOption v-for="s in steps" :key="s.key" :value="s.key" :label="s.says" />
              </ElSelect>
            </FieldRow>
            <FieldRow v-slot="f" label="Watch">
              <ElInput :id="f.id" v-model="draft.watch" type="textarea" autosize maxlength="1000" />
            </FieldRow>
          </section>
          <StepForm
            v-for="(s, i) in draft.steps"
            :key="s.key"
            v-model:step="draft.steps[i]!"
            :steps="steps"
            :open="open === s.key || fault(i) !== ''"
            :wrong="fault(i)"
            :first="i === 0"
            :last="i === draft.steps.length - 1"
            @toggle="open = open === s.key ? '' : s.key"
            @up="move(i, -1)"
            @down="move(i, 1)"
            @remove="draft.steps.splice(i, 1)"
          />
          <div class="row">
            <ElButton @click="add">Add a step</ElButton>
            <ElSelect
              v-if="askable.length"
              :model-value="''"
              placeholder="Make an own ask a step"
              aria-label="Make an own ask a step"
              class="asks"
              @update:model-value="addAsk"
            >
              <ElOption v-for="o in askable" :key="o.ask.key" :value="o.ask.key" :label="`${o.ask.name}, ${o.horse.name}`" />
            </ElSelect>
          </div>
          <section class="sheet stack">
            <FieldRow v-slot="f" label="What you changed, and why">
              <ElInput :id="f.id" v-model="draft.reason" maxlength="500" />
            </FieldRow>
            <WrongNote v-if="!newer" :trouble="saving.trouble.value" :shown="shownFields" />
            <p v-if="kept" role="status" class="strong">Kept as version {{ version }}.</p>
            <div class="row">
              <ElButton type="primary" native-type="submit" :loading="saving.sending.value">Keep it as the next version</ElButton>
              <ElButton @click="take(own)">Back to what is kept</ElButton>
            </div>
          </section>
        </fieldset>
        <section v-if="data?.lead" class="sheet stack">
          <h2>As a file</h2>
          <LadderFile :own="own" @taken="again" />
        </section>
        <p v-if="!data?.lead" class="quiet">Only a lead trainer changes ladders.</p>
      </form>
    </PageState>
  </div>
</template>

<style scoped>
.asks {
  max-width: 320px;
}
.plain-set {
  border: 0;
  margin: 0;
  padding: 0;
}
</style>
