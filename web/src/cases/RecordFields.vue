<script setup lang="ts">
// The horse's record, asked once. Heights and weights are kept in millimetres and
// grams and typed in centimetres or hands, and in kilograms.
import { computed } from 'vue'
import type { Schemas } from '../api/types'
import ChipRow from '../parts/ChipRow.vue'
import { choices } from '../parts/choices'
import { height } from '../lengths'
import FieldRow from '../parts/FieldRow.vue'
import NumberField from '../parts/NumberField.vue'

type Record = Schemas['AssessRecord']

const record = defineModel<Record>({ required: true })
const { wrong, only } = defineProps<{
  wrong: (field: string) => string | undefined
  /** These fields alone. */
  only?: readonly (keyof Record)[]
}>()
const asked = (field: keyof Record) => !only || only.includes(field)

type Word = 'sex' | 'bit_hung' | 'ridden_past' | 'energy' | 'sensitivity' | 'food'
type Text = 'born' | 'gelded' | 'breed' | 'started_by' | 'last_worked' | 'arrived' | 'living'
type List = 'things'
type Measure = 'height_mm' | 'weight_g' | 'rides'
type Field = { label: string; hint?: string; shown?: boolean } & (
  | { field: Word; words: readonly string[] }
  | { field: Text; date: true }
  | { field: Text; longest: number }
  | { field: Measure; typed: (kept: number) => number; kept: (typed: number) => number }
  | { field: List; lines: true }
)

const energies = ['low', 'usual', 'high'] as const
const fields = computed<Field[]>(() => [
  { field: 'sex', label: 'Sex', words: ['mare', 'gelding', 'stallion'] },
  { field: 'born', label: 'Born', date: true, hint: "The year's first day if only the year is known" },
  { field: 'gelded', label: 'Gelded on', date: true, shown: record.value.sex === 'gelding' },
  { field: 'breed', label: 'Breed or type', longest: 120 },
  { field: 'height_mm', label: `Height, ${height.unit()}`, ...height, hint: besides.value },
  { field: 'weight_g', label: 'Weight, kg', typed: (g) => g / 1000, kept: (kg) => Math.round(kg * 1000) },
  { field: 'rides', label: 'Rides so far', typed: (n) => n, kept: Math.round, hint: 'Empty: not known' },
  { field: 'started_by', label: 'Started by', longest: 120 },
  { field: 'last_worked', label: 'Last worked', date: true },
  { field: 'bit_hung', label: 'The bit hangs with', words: ['no wrinkle', 'one wrinkle', 'two wrinkles'] },
  { field: 'arrived', label: 'Here since', date: true },
  { field: 'living', label: 'Living', longest: 200, hint: 'Stable, field, herd, hours out' },
  { field: 'ridden_past', label: 'Ridden past', words: ['none', 'ordinary', 'unhappy', 'unknown'] },
  { field: 'energy', label: 'Energy', words: energies },
  { field: 'sensitivity', label: 'Sensitivity', words: energies },
  {
    field: 'things',
    label: 'Things it has met',
    lines: true,
    hint: 'As told: fly spray, clippers, a tarpaulin. Those of its sessions are counted by themselves',
  },
  { field: 'food', label: 'Food allowed', words: ['yes', 'no', 'only after standing'] },
])
const ticks = [
  { field: 'gaited', label: 'Gaited' },
  { field: 'unhandled', label: 'An unhandled adult' },
  { field: 'guards_itself', label: 'Guards itself: tight, head high, no move at people' },
] as const

/** Sets one field; the same choice again takes it back. */
function set<K extends keyof Record>(field: K, value: Record[K]) {
  record.value = { ...record.value, [field]: record.value[field] === value ? undefined : value }
}
function put<K extends keyof Record>(field: K, value: Record[K]) {
  record.value = { ...record.value, [field]: value }
}

/** A list as it is typed: with commas between. */
const listed = (typed: string) => {
  const names = typed.split(',').map((name) => name.trimStart())
  return names.length === 1 && !names[0] ? undefined : names
}
const tidy = (field: List) => {
  const names = record.value[field]?.map((name) => name.trim()).filter(Boolean)
  put(field, names?.length ? names : undefined)
}

const through = (turn: (n: number) => number, n?: number) => (n === undefined ? undefined : turn(n))
const besides = computed(() => (record.value.height_mm ? height.beside(record.value.height_mm) : ''))
</script>

<template>
  <div class="grid">
    <template v-for="d in fields" :key="d.field">
      <FieldRow v-if="(d.shown ?? true) && asked(d.field)" v-slot="f" :label="d.label" :hint="d.hint" :wrong="wrong(d.field)">
        <ChipRow
          v-if="'words' in d"
          :label="d.label"
          :choices="choices(d.words)"
          :chosen="[record[d.field] ?? '']"
          @toggle="set(d.field, $event as Record[typeof d.field])"
        />
        <NumberField
          v-else-if="'typed' in d"
          :id="f.id"
          :model-value="through(d.typed, record[d.field])"
          @update:model-value="put(d.field, through(d.kept, $event))"
        />
        <ElInput
          v-else-if="'lines' in d"
          :id="f.id"
          :model-value="record[d.field]?.join(',') ?? ''"
          :aria-describedby="f.describedby"
          @update:model-value="put(d.field, listed($event))"
          @blur="tidy(d.field)"
        />
        <ElInput
          v-else
          :id="f.id"
          :model-value="record[d.field] ?? ''"
          :type="'date' in d ? 'date' : 'text'"
          :maxlength="'longest' in d ? d.longest : undefined"
          :aria-describedby="f.describedby"
          @update:model-value="put(d.field, $event || undefined)"
        />
      </FieldRow>
    </template>
    <div>
      <ElCheckbox
        v-for="t in ticks.filter((t) => asked(t.field))"
        :key="t.field"
        :model-value="record[t.field] ?? false"
        @update:model-value="put(t.field, !!$event || undefined)"
        >{{ t.label }}</ElCheckbox
      >
    </div>
  </div>
</template>

<style scoped>
.grid {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(min(260px, 100%), 1fr));
  gap: var(--gap-3) var(--gap-4);
  align-items: start;
}
</style>
