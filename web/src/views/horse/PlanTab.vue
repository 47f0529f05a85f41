<script setup lang="ts">
import { computed, ref } from 'vue'
import { api, told } from '../../api/client'
import { useLoad, useSend } from '../../api/use'
import FieldRow from '../../parts/FieldRow.vue'
import PageState from '../../parts/PageState.vue'
import WrongNote from '../../parts/WrongNote.vue'
import { count, shortDate } from '../../words'
import { useHorseFile } from './file'
import PlanSteps from './PlanSteps.vue'

const { file, reload } = useHorseFile()
const caseId = file.value?.case.id ?? ''
const { data, trouble, load } = useLoad(() => told(api.GET('/api/cases/{id}/plan', { params: { path: { id: caseId } } })))
const making = useSend()
const reason = ref('')

const made = computed(() => data.value?.made ?? [])

async function make() {
  const body = { reason: reason.value || (made.value.length ? '' : 'First plan after the assessment') }
  const plan = await making.send(() => told(api.POST('/api/cases/{id}/plans', { params: { path: { id: caseId } }, body })))
  if (!plan) return
  reason.value = ''
  await Promise.all([load(), reload()])
}

const changes = (m: (typeof made.value)[number]) =>
  [
    m.dropped.length && `done or dropped: ${m.dropped.join(', ')}`,
    m.added.length && `new: ${m.added.join(', ')}`,
    m.blocked.length && `barred: ${m.blocked.join(', ')}`,
    m.lifted.length && `no longer barred: ${m.lifted.join(', ')}`,
  ].filter(Boolean)
const day = (ms: number) => shortDate(new Date(ms).toISOString().slice(0, 10))
</script>

<template>
  <PageState :trouble="trouble" :ready="data !== undefined" @again="load">
    <div v-if="data" class="columns">
      <div class="stack">
        <section v-if="!data.assessed" class="sheet stack">
          <h2>Look before you plan</h2>
          <p>There is no assessment yet. The plan below takes nothing as known.</p>
          <p><RouterLink :to="`/horses/${file?.id}/assessment`">Begin the assessment</RouterLink></p>
        </section>
        <section class="sheet stack">
          <h2>{{ data.now.name }}, {{ data.school }}</h2>
          <p>{{ data.why.text }}</p>
          <p v-if="data.mismatch" class="strong">{{ data.mismatch.text }}</p>
          <p v-if="data.suggested"><b>The assessment suggests otherwise.</b> {{ data.suggested.why.text }}</p>
          <p class="quiet">{{ data.where }}. {{ data.watch }}</p>
          <PlanSteps :plan="data.now" />
          <p v-if="data.now.done?.length" class="quiet">
            {{ count(data.now.done.length, 'step is', 'steps are') }} kept and left out.
          </p>
        </section>
      </div>
      <aside class="stack">
        <section class="sheet stack">
          <h2>The next visits</h2>
          <p v-if="data.now.visits.length === 0">Nothing is open to be worked. See what is barred, and what lifts it.</p>
          <details v-for="v in data.now.visits" :key="v.n" class="visit" :open="v.n === 1">
            <summary>
              Visit {{ v.n }} <span class="quiet">about {{ v.minutes }} min</span>
            </summary>
            <ol class="parts">
              <li v-for="(p, i) in v.parts" :key="i">
                <span>{{ p.kind }}</span> <b>{{ p.names?.join(', ') }}</b> <span class="quiet">{{ p.minutes }} min</span>
              </li>
            </ol>
            <p class="small"><span class="strong">Bring: </span>{{ v.kit.join(', ') }}</p>
          </details>
        </section>
        <section class="sheet stack">
          <h2>{{ made.length ? 'Plans made' : 'No plan made yet' }}</h2>
          <p v-if="made.length === 0">Make it, and it is kept as it is now. Later ones are kept beside it, with what changed.</p>
          <ul class="plain-list">
            <li v-for="m in made" :key="m.number">
              <b>{{ m.number }}.</b> {{ m.reason }} <span class="quiet small">{{ m.by }}, {{ day(m.on) }}</span>
              <p v-for="c in changes(m)" :key="String(c)" class="small">{{ c }}</p>
            </li>
          </ul>
          <form class="stack" @submit.prevent="make">
            <FieldRow v-if="made.length" v-slot="f" label="Why make it anew" :wrong="making.trouble.value?.fields.reason">
              <ElInput :id="f.id" v-model="reason" maxlength="500" :aria-describedby="f.describedby" />
            </FieldRow>
            <WrongNote :trouble="making.trouble.value" :shown="['reason']" />
            <div>
              <ElButton :type="made.length ? 'default' : 'primary'" native-type="submit" :loading="making.sending.value">
                {{ made.length ? 'Make the plan anew' : 'Make the plan' }}
              </ElButton>
            </div>
          </form>
        </section>
      </aside>
    </div>
  </PageState>
</template>

<style scoped>
.columns {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 340px;
  gap: var(--gap-3);
  align-items: start;
}
.visit + .visit {
  border-top: var(--line);
  padding-top: var(--gap-2);
}
summary {
  font-weight: 700;
  cursor: pointer;
  min-height: 28px;
}
summary .quiet {
  font-weight: 400;
}
.parts {
  margin: var(--gap-2) 0;
  display: grid;
  gap: var(--gap-1);
}
@media (max-width: 1000px) {
  .columns {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
