<script setup lang="ts">
// The horse's record, asked once. Lengths and weights are kept in millimetres
// and grams and typed in centimetres and kilograms.
import { computed } from 'vue'
import type { Schemas } from '../api/types'
import ChipRow from '../parts/ChipRow.vue'
import { choices } from '../parts/choices'
import FieldRow from '../parts/FieldRow.vue'
import NumberField from '../parts/NumberField.vue'

type Record = Schemas['AssessRecord']

const record = defineModel<Record>({ required: true })
const { wrong } = defineProps<{ wrong: (field: string) => string | undefined }>()

const sexes = choices(['mare', 'gelding', 'stallion'] as const)
const energies = choices(['low', 'usual', 'high'] as const)
const foods = choices(['yes', 'no', 'only after standing'] as const)
const hangs = choices(['no wrinkle', 'one wrinkle', 'two wrinkles'] as const)
const pasts = choices(['none', 'ordinary', 'unhappy', 'unknown'] as const)

/** Sets one field; the same choice again takes it back. */
function set<K extends keyof Record>(field: K, value: Record[K]) {
  record.value = { ...record.value, [field]: record.value[field] === value ? undefined : value }
}
function put<K extends keyof Record>(field: K, value: Record[K]) {
  record.value = { ...record.value, [field]: value }
}

const scaled = (field: 'height_mm' | 'weight_g', by: number) =>
  computed({
    get: () => (record.value[field] === undefined ? undefined : (record.value[field] ?? 0) / by),
    set: (v: number | undefined) => put(field, v === undefined ? undefined : Math.round(v * by)),
  })
const height = scaled('height_mm', 10)
const weight = scaled('weight_g', 1000)

const hands = computed(() => {
  if (!record.value.height_mm) return ''
  const inches = Math.round(record.value.height_mm / 25.4)
  return `${Math.floor(inches / 4)}.${inches % 4} hands`
})
</script>

<template>
  <div class="grid">
    <FieldRow label="Sex" :wrong="wrong('sex')">
      <ChipRow label="Sex" :choices="sexes" :chosen="[record.sex ?? '']" @toggle="set('sex', $event as Record['sex'])" />
    </FieldRow>
    <FieldRow v-slot="f" label="Born" hint="The year's first day if only the year is known" :wrong="wrong('born')">
      <ElInput
        :id="f.id"
        :model-value="record.born ?? ''"
        type="date"
        :aria-describedby="f.describedby"
        @update:model-value="put('born', $event || undefined)"
      />
    </FieldRow>
    <FieldRow v-if="record.sex === 'gelding'" v-slot="f" label="Gelded on" :wrong="wrong('gelded')">
      <ElInput
        :id="f.id"
        :model-value="record.gelded ?? ''"
        type="date"
        @update:model-value="put('gelded', $event || undefined)"
      />
    </FieldRow>
    <FieldRow v-slot="f" label="Breed or type" :wrong="wrong('breed')">
      <ElInput
        :id="f.id"
        :model-value="record.breed ?? ''"
        maxlength="120"
        @update:model-value="put('breed', $event || undefined)"
      />
    </FieldRow>
    <FieldRow v-slot="f" label="Height, cm" :hint="hands" :wrong="wrong('height_mm')">
      <NumberField :id="f.id" v-model="height" />
    </FieldRow>
    <FieldRow v-slot="f" label="Weight, kg" :wrong="wrong('weight_g')">
      <NumberField :id="f.id" v-model="weight" />
    </FieldRow>
    <FieldRow v-slot="f" label="Rides so far" hint="Empty: not known" :wrong="wrong('rides')">
      <NumberField :id="f.id" :model-value="record.rides" @update:model-value="put('rides', $event)" />
    </FieldRow>
    <FieldRow v-slot="f" label="Started by" :wrong="wrong('started_by')">
      <ElInput
        :id="f.id"
        :model-value="record.started_by ?? ''"
        maxlength="120"
        @update:model-value="put('started_by', $event || undefined)"
      />
    </FieldRow>
    <FieldRow v-slot="f" label="Last worked" :wrong="wrong('last_worked')">
      <ElInput
        :id="f.id"
        :model-value="record.last_worked ?? ''"
        type="date"
        @update:model-value="put('last_worked', $event || undefined)"
      />
    </FieldRow>
    <FieldRow label="The bit hangs with">
      <ChipRow
        label="The bit hangs with"
        :choices="hangs"
        :chosen="[record.bit_hung ?? '']"
        @toggle="set('bit_hung', $event as Record['bit_hung'])"
      />
    </FieldRow>
    <FieldRow v-slot="f" label="Here since" :wrong="wrong('arrived')">
      <ElInput
        :id="f.id"
        :model-value="record.arrived ?? ''"
        type="date"
        @update:model-value="put('arrived', $event || undefined)"
      />
    </FieldRow>
    <FieldRow v-slot="f" label="Living" hint="Stable, field, herd, hours out" :wrong="wrong('living')">
      <ElInput
        :id="f.id"
        :model-value="record.living ?? ''"
        maxlength="200"
        @update:model-value="put('living', $event || undefined)"
      />
    </FieldRow>
    <FieldRow label="Ridden past">
      <ChipRow
        label="Ridden past"
        :choices="pasts"
        :chosen="[record.ridden_past ?? '']"
        @toggle="set('ridden_past', $event as Record['ridden_past'])"
      />
    </FieldRow>
    <FieldRow label="Energy">
      <ChipRow
        label="Energy"
        :choices="energies"
        :chosen="[record.energy ?? '']"
        @toggle="set('energy', $event as Record['energy'])"
      />
    </FieldRow>
    <FieldRow label="Sensitivity">
      <ChipRow
        label="Sensitivity"
        :choices="energies"
        :chosen="[record.sensitivity ?? '']"
        @toggle="set('sensitivity', $event as Record['sensitivity'])"
      />
    </FieldRow>
    <FieldRow label="Food allowed">
      <ChipRow
        label="Food allowed"
        :choices="foods"
        :chosen="[record.food ?? '']"
        @toggle="set('food', $event as Record['food'])"
      />
    </FieldRow>
    <div>
      <ElCheckbox :model-value="record.gaited ?? false" @update:model-value="put('gaited', !!$event || undefined)"
        >Gaited</ElCheckbox
      >
      <ElCheckbox :model-value="record.unhandled ?? false" @update:model-value="put('unhandled', !!$event || undefined)">
        An unhandled adult
      </ElCheckbox>
      <ElCheckbox :model-value="record.guards_itself ?? false" @update:model-value="put('guards_itself', !!$event || undefined)">
        Guards itself: tight, head high, no move at people
      </ElCheckbox>
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
