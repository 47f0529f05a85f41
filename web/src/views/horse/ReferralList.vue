<script setup lang="ts">
// Whom to ask, what, by when, and what came of it.
import type { Schemas } from '../../api/types'
import ChipRow from '../../parts/ChipRow.vue'
import { choices } from '../../parts/choices'
import FieldRow from '../../parts/FieldRow.vue'
import TypedAnswer from '../../parts/TypedAnswer.vue'
import { shortDate } from '../../words'
import type { Assessing } from '../../cases/useAssessment'

const { referrals, walk, horse, editable } = defineProps<{
  referrals: Schemas['AssessReferral'][]
  walk: Assessing
  horse: string
  editable: boolean
}>()

const place = (key: string, name: string) => `referrals/${key}/${name}`
</script>

<template>
  <section v-for="r in referrals" :key="r.key" class="one stack">
    <p>
      <b>{{ r.who }}</b>, by {{ shortDate(r.due) }}{{ r.done ? ', answered' : '' }}. {{ r.why.text }}
    </p>
    <p v-if="r.done">{{ r.asked?.outcome }}</p>
    <div v-if="editable" class="row no-print">
      <RouterLink :to="`/horses/${horse}/letter/${encodeURIComponent(r.key)}`" class="button plain">The letter</RouterLink>
    </div>
    <details v-if="editable" class="no-print">
      <summary>Question, day and outcome</summary>
      <div class="stack">
        <ChipRow
          label="Who"
          :choices="choices(walk.data?.words.who ?? [])"
          :chosen="[String(walk.typed(place(r.key, 'who')) ?? r.who)]"
          @toggle="walk.mark(place(r.key, 'who'), $event)"
        />
        <FieldRow v-slot="f" label="Name" :wrong="walk.wrong(place(r.key, 'name'))">
          <TypedAnswer
            :id="f.id"
            kind="text"
            :value="walk.typed(place(r.key, 'name'))"
            @put="walk.mark(place(r.key, 'name'), $event)"
          />
        </FieldRow>
        <FieldRow v-slot="f" label="Question" :hint="r.question.text" :wrong="walk.wrong(place(r.key, 'question'))">
          <TypedAnswer
            :id="f.id"
            kind="text"
            long
            :value="walk.typed(place(r.key, 'question'))"
            @put="walk.mark(place(r.key, 'question'), $event)"
          />
        </FieldRow>
        <div class="grid">
          <FieldRow v-slot="f" label="Due" :wrong="walk.wrong(place(r.key, 'due'))">
            <TypedAnswer
              :id="f.id"
              kind="date"
              :value="walk.typed(place(r.key, 'due')) ?? r.due"
              @put="walk.mark(place(r.key, 'due'), $event)"
            />
          </FieldRow>
          <FieldRow v-slot="f" label="Sent on" :wrong="walk.wrong(place(r.key, 'sent_on'))">
            <TypedAnswer
              :id="f.id"
              kind="date"
              :value="walk.typed(place(r.key, 'sent_on'))"
              @put="walk.mark(place(r.key, 'sent_on'), $event)"
            />
          </FieldRow>
          <FieldRow v-slot="f" label="Answered on" :wrong="walk.wrong(place(r.key, 'outcome_on'))">
            <TypedAnswer
              :id="f.id"
              kind="date"
              :value="walk.typed(place(r.key, 'outcome_on'))"
              @put="walk.mark(place(r.key, 'outcome_on'), $event)"
            />
          </FieldRow>
        </div>
        <FieldRow v-slot="f" label="Outcome" :wrong="walk.wrong(place(r.key, 'outcome'))">
          <TypedAnswer
            :id="f.id"
            kind="text"
            long
            :value="walk.typed(place(r.key, 'outcome'))"
            @put="walk.mark(place(r.key, 'outcome'), $event)"
          />
        </FieldRow>
      </div>
    </details>
  </section>
</template>

<style scoped>
.one + .one {
  border-top: var(--line);
  padding-top: var(--gap-3);
}
.grid {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(min(150px, 100%), 1fr));
  gap: var(--gap-3);
}
summary {
  cursor: pointer;
  min-height: var(--control);
  align-content: center;
}
</style>
