<script setup lang="ts">
// The rounds of a trainer who travels: every third Thursday, with its exceptions.
import type { Schemas } from '../../api/types'
import FieldRow from '../../parts/FieldRow.vue'
import { dayMonth } from '../../words'

type Round = Schemas['DiaryRound']

const rounds = defineModel<Round[]>({ required: true })
const { yards, today, wrong } = defineProps<{ yards: Schemas['RoadYard'][]; today: string; wrong: Record<string, string> }>()

const weekdays = ['Sunday', 'Monday', 'Tuesday', 'Wednesday', 'Thursday', 'Friday', 'Saturday']
const rhythms = [
  { value: 'w1', text: 'every week' },
  { value: 'w2', text: 'every second week' },
  { value: 'w3', text: 'every third week' },
  { value: 'w4', text: 'every fourth week' },
  { value: 'w6', text: 'every sixth week' },
  { value: 'n1', text: 'the first of a month' },
  { value: 'n2', text: 'the second of a month' },
  { value: 'n3', text: 'the third of a month' },
  { value: 'n4', text: 'the fourth of a month' },
  { value: 'n-1', text: 'the last of a month' },
]
const rhythm = (r: Round) => (r.weeks ? `w${r.weeks}` : `n${r.nth ?? 0}`)
const change = (i: number, now: Partial<Round>) => (rounds.value = rounds.value.map((r, n) => (n === i ? { ...r, ...now } : r)))

function beat(i: number, value: string) {
  const n = Number(value.slice(1))
  change(i, value.startsWith('w') ? { weeks: n, nth: 0 } : { weeks: 0, nth: n })
}
const add = () => (rounds.value = [...rounds.value, { name: '', day: 4, weeks: 3, from: today, except: [], yards: [] }])
const text = (e: Event) => (e.target as HTMLInputElement).value

function except(i: number, e: Event) {
  const day = text(e)
  const r = rounds.value[i]
  if (r && day && !r.except?.includes(day)) change(i, { except: [...(r.except ?? []), day].sort() })
  ;(e.target as HTMLInputElement).value = ''
}
</script>

<template>
  <fieldset v-for="(r, i) in rounds" :key="i" class="round stack">
    <legend>{{ r.name || 'A round' }}</legend>
    <div class="fields">
      <FieldRow v-slot="f" label="Name" :wrong="wrong[`rounds[${i}]`]">
        <ElInput
          :id="f.id"
          :model-value="r.name"
          maxlength="80"
          :aria-describedby="f.describedby"
          @update:model-value="change(i, { name: $event })"
        />
      </FieldRow>
      <FieldRow v-slot="f" label="On">
        <select :id="f.id" class="plain-field" :value="r.day" @change="change(i, { day: Number(text($event)) })">
          <option v-for="(d, n) in weekdays" :key="d" :value="n">{{ d }}</option>
        </select>
      </FieldRow>
      <FieldRow v-slot="f" label="How often">
        <select :id="f.id" class="plain-field" :value="rhythm(r)" @change="beat(i, text($event))">
          <option v-for="x in rhythms" :key="x.value" :value="x.value">{{ x.text }}</option>
        </select>
      </FieldRow>
      <FieldRow v-slot="f" label="From">
        <input :id="f.id" class="plain-field" type="date" :value="r.from" @change="change(i, { from: text($event) })" />
      </FieldRow>
      <FieldRow v-slot="f" label="Not on" :hint="(r.except ?? []).map(dayMonth).join(', ')">
        <input :id="f.id" class="plain-field" type="date" @change="except(i, $event)" />
      </FieldRow>
    </div>
    <p class="row">
      <span class="quiet">Goes to</span>
      <label v-for="y in yards" :key="y.id" class="yard">
        <input
          type="checkbox"
          :checked="!r.yards?.length || r.yards.includes(y.id)"
          @change="
            change(i, {
              yards: yards
                .map((x) => x.id)
                .filter((id) =>
                  id === y.id ? ($event.target as HTMLInputElement).checked : !r.yards?.length || r.yards.includes(id),
                ),
            })
          "
        />
        {{ y.name }}
      </label>
    </p>
    <p><ElButton link @click="rounds = rounds.filter((_, n) => n !== i)">Take this round out</ElButton></p>
  </fieldset>
  <p><ElButton @click="add">Add a round</ElButton></p>
</template>

<style scoped>
.round {
  border: 0;
  border-left: var(--rule);
  padding: 0 0 0 var(--gap-3);
}
legend {
  font-weight: 700;
  padding: 0;
}
.fields {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(150px, 1fr));
  gap: var(--gap-3);
}
.yard {
  display: inline-flex;
  align-items: center;
  gap: var(--gap-1);
  min-height: 32px;
}
</style>
