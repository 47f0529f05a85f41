<script setup lang="ts">
// A horse is taken on: what is asked of it and whose it is. The rest waits until it
// matters, so that work can begin within a minute.
import { computed, reactive, ref, shallowRef, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { api, told } from '../../api/client'
import type { Schemas } from '../../api/types'
import { useLoad, useSend } from '../../api/use'
import RecordFields from '../../cases/RecordFields.vue'
import ChipRow from '../../parts/ChipRow.vue'
import FieldRow from '../../parts/FieldRow.vue'
import PageState from '../../parts/PageState.vue'
import WrongNote from '../../parts/WrongNote.vue'
import GoalRow from './GoalRow.vue'
import OwnerPart from './OwnerPart.vue'
import { atFirst, owning, type Owning } from './takeOn'

type Problem = Schemas['ProblemChoice']['problem']

const router = useRouter()
const route = useRoute()
const { data, trouble, load } = useLoad(async () => {
  const [people, yards, problems] = await Promise.all([
    told(api.GET('/api/people')),
    told(api.GET('/api/yards')),
    told(api.GET('/api/problems')),
  ])
  return { owners: people.filter((p) => ['owner', 'yard', 'rescue'].includes(p.kind)), yards, problems }
})
const saving = useSend()

const form = reactive({
  name: String(route.query.name ?? ''),
  goal: '',
  needed: '',
  thing: '',
  problems: [] as Problem[],
  until: {} as Record<string, string>,
  yardId: '',
  yard: { name: '', address: '', phone: '' },
})
const owner = ref<Owning>(owning())
const record = shallowRef<Schemas['AssessRecord']>({})
const newYard = ref(false)
const yardIsNew = computed(() => newYard.value || data.value?.yards.length === 0)

const wrong = (field: string) => saving.trouble.value?.fields[field]
const shown = computed(() => Object.keys(saving.trouble.value?.fields ?? {}))
/** What can wait is folded, until something in it is wrong. */
const open = ref(false)
watch(shown, (fields) => {
  if (fields.some((f) => /^(needed_by|yard|record)/.test(f))) open.value = true
})
const chosen = computed(() => form.problems.flatMap((p) => data.value?.problems.filter((choice) => choice.problem === p) ?? []))
/** The goal as the bridge has it, until the owner says it in other words. */
const proposed = computed(() => {
  const main = chosen.value[0]
  const plank = main?.planks.find((p) => p.step === form.until[main.problem]) ?? main?.planks.at(-1)
  return plank ? plank.plain.charAt(0).toUpperCase() + plank.plain.slice(1) : ''
})

function choose(p: Problem) {
  form.problems = form.problems.includes(p) ? form.problems.filter((had) => had !== p) : [...form.problems, p]
}

async function takeOn(then: 'assessment' | 'arena') {
  const [problem, ...also] = form.problems
  const body: Schemas['Intake'] = {
    name: form.name,
    goal: form.goal || proposed.value,
    needed_by: form.needed || undefined,
    problem: problem ?? '',
    also: also.length ? also : undefined,
    until: Object.fromEntries(Object.entries(form.until).filter(([p]) => form.problems.includes(p as Problem))),
    thing: chosen.value.some((c) => c.thing) ? form.thing || undefined : undefined,
    record: record.value,
    yard_id: yardIsNew.value ? undefined : form.yardId || undefined,
    yard: yardIsNew.value && form.yard.name ? form.yard : undefined,
    ...owner.value,
  }
  const horse = await saving.send(() => told(api.POST('/api/horses', { body })))
  if (horse) await router.push(then === 'arena' ? `/arena/ready/${horse.case_id}` : `/horses/${horse.id}/assessment`)
}
</script>

<template>
  <div class="page">
    <header class="page-head"><h1>Take on a horse</h1></header>
    <PageState :trouble="trouble" :ready="data !== undefined" @again="load">
      <form v-if="data" class="stack form" novalidate @submit.prevent="takeOn('assessment')">
        <section class="sheet stack">
          <h2>The horse and what is asked of it</h2>
          <FieldRow v-slot="f" label="Name of the horse" :wrong="wrong('name')">
            <ElInput :id="f.id" v-model="form.name" maxlength="120" :aria-describedby="f.describedby" />
          </FieldRow>
          <FieldRow
            label="Problem"
            :hint="form.problems.length > 1 ? 'The first one tapped names the case' : 'One or more, the main one first'"
            :wrong="wrong('problem') ?? wrong('also')"
          >
            <ChipRow
              label="Problem"
              :choices="data.problems.map((p) => ({ value: p.problem, text: p.name.text }))"
              :chosen="form.problems"
              @toggle="choose"
            />
          </FieldRow>
          <FieldRow v-if="chosen.some((c) => c.thing)" v-slot="f" label="What is the new thing?" :wrong="wrong('thing')">
            <ElInput :id="f.id" v-model="form.thing" maxlength="60" placeholder="fly spray, clippers, a tarpaulin" />
          </FieldRow>
          <GoalRow
            v-for="c in chosen"
            :key="c.problem"
            v-model="form.until[c.problem]"
            :choice="c"
            :alone="chosen.length === 1"
            :wrong="wrong(`until.${c.problem}`)"
          />
          <FieldRow
            v-slot="f"
            label="How will we know it's fixed?"
            hint="In the owner's words, so that it can be checked. Left empty, what stands there in grey is kept"
            :wrong="wrong('goal')"
          >
            <ElInput :id="f.id" v-model="form.goal" maxlength="300" :placeholder="proposed" :aria-describedby="f.describedby" />
          </FieldRow>
        </section>

        <OwnerPart :owners="data.owners" :wrong="wrong" @change="owner = $event" />

        <details class="sheet" :open="open" @toggle="open = ($event.target as HTMLDetailsElement).open">
          <summary>Where it stands, a date, and what is known of it</summary>
          <div class="stack">
            <FieldRow v-slot="f" label="Needed by" hint="Leave it empty if there is no date" :wrong="wrong('needed_by')">
              <ElInput :id="f.id" v-model="form.needed" type="date" class="date" :aria-describedby="f.describedby" />
            </FieldRow>
            <div v-if="data.yards.length" class="row"><ElCheckbox v-model="newYard">A new yard</ElCheckbox></div>
            <FieldRow v-if="!yardIsNew" v-slot="f" label="Yard" :wrong="wrong('yard_id')">
              <ElSelect :id="f.id" v-model="form.yardId" filterable clearable placeholder="Choose a yard">
                <ElOption v-for="y in data.yards" :key="y.id" :value="y.id" :label="y.name" />
              </ElSelect>
            </FieldRow>
            <div v-else class="grid">
              <FieldRow v-slot="f" label="Yard's name" :wrong="wrong('yard.name')">
                <ElInput :id="f.id" v-model="form.yard.name" :aria-describedby="f.describedby" />
              </FieldRow>
              <FieldRow v-slot="f" label="Address, so that a vet finds it" :wrong="wrong('yard.address')">
                <ElInput :id="f.id" v-model="form.yard.address" :aria-describedby="f.describedby" />
              </FieldRow>
              <FieldRow v-slot="f" label="Phone of the yard" :wrong="wrong('yard.phone')">
                <ElInput :id="f.id" v-model="form.yard.phone" type="tel" :aria-describedby="f.describedby" />
              </FieldRow>
            </div>
            <RecordFields v-model="record" :only="atFirst" :wrong="(f) => wrong(`record.${f}`)" />
            <p class="quiet small">Its record has the rest. Nothing of it is needed to begin.</p>
          </div>
        </details>

        <WrongNote :trouble="saving.trouble.value" :shown="shown" />
        <div class="row">
          <ElButton type="primary" native-type="submit" :loading="saving.sending.value">Take it on</ElButton>
          <ElButton :loading="saving.sending.value" @click="takeOn('arena')">Take it on and begin work</ElButton>
          <ElButton @click="router.back()">Leave it</ElButton>
        </div>
        <p class="quiet small">Work can begin without an assessment. The horse is then shown as not assessed yet.</p>
      </form>
    </PageState>
  </div>
</template>

<style scoped>
.form {
  max-width: 900px;
}
.date {
  max-width: 220px;
}
summary {
  font-weight: 600;
  min-height: var(--control);
  align-content: center;
  cursor: pointer;
}
.grid {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(min(240px, 100%), 1fr));
  gap: var(--gap-3);
}
</style>
