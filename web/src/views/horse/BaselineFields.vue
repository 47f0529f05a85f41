<script setup lang="ts">
// Section E: the problem itself, once, low.
import type { Schemas } from '../../api/client'
import ChipRow from '../../parts/ChipRow.vue'
import { choices } from '../../parts/choices'
import FieldRow from '../../parts/FieldRow.vue'
import NumberField from '../../parts/NumberField.vue'

type Baseline = Schemas['AssessBaseline']
type Way = NonNullable<Baseline['ways_out']>[number]

const { baseline, steps, wrong } = defineProps<{
  baseline: Baseline
  steps: Schemas['ReachedStep'][]
  wrong: (field: string) => string | undefined
}>()
const emit = defineEmits<{ change: [baseline: Baseline] }>()

const arousals = ['settled', 'attentive', 'tense', 'over the line', 'explosive'].map((text, value) => ({ value, text }))
const ways = choices([
  'head up',
  'turned away',
  'backed up',
  'crowded in',
  'swung hindquarters left',
  'swung hindquarters right',
  'leaned',
  'pulled back',
  'planted',
  'rushed through',
  'spun',
] as Way[])

const put = <K extends keyof Baseline>(field: K, value: Baseline[K]) =>
  emit('change', { ...baseline, done: true, [field]: value })
function toggle(way: Way) {
  const now = baseline.ways_out ?? []
  put('ways_out', now.includes(way) ? now.filter((w) => w !== way) : [...now, way])
}
</script>

<template>
  <section class="sheet stack">
    <h2>E. The problem itself, once, low</h2>
    <ElCheckbox
      :model-value="baseline.done ?? false"
      @update:model-value="emit('change', { ...baseline, done: !!$event || undefined })"
    >
      It was asked once, low
    </ElCheckbox>
    <template v-if="baseline.done">
      <FieldRow label="Last step of an unbroken run of accepted ones" :wrong="wrong('reached')">
        <ChipRow
          label="Reached"
          :choices="[{ value: '', text: 'none' }, ...steps.map((s) => ({ value: s.key, text: s.name }))]"
          :chosen="[baseline.reached ?? '']"
          @toggle="put('reached', String($event) || undefined)"
        />
      </FieldRow>
      <FieldRow label="Arousal at its highest">
        <ChipRow
          label="Arousal"
          :choices="arousals"
          :chosen="[baseline.arousal ?? -1]"
          @toggle="put('arousal', Number($event))"
        />
      </FieldRow>
      <FieldRow label="Ways out used">
        <ChipRow label="Ways out" :choices="ways" :chosen="baseline.ways_out ?? []" @toggle="toggle($event as Way)" />
      </FieldRow>
      <div class="grid">
        <FieldRow v-slot="f" label="Seconds until it was back down" :wrong="wrong('recovery_s')">
          <NumberField :id="f.id" :model-value="baseline.recovery_s" @update:model-value="put('recovery_s', $event)" />
        </FieldRow>
        <FieldRow v-slot="f" label="Minutes in all" :wrong="wrong('minutes')">
          <NumberField :id="f.id" :model-value="baseline.minutes" @update:model-value="put('minutes', $event)" />
        </FieldRow>
        <FieldRow v-slot="f" label="Tries" :wrong="wrong('tries')">
          <NumberField :id="f.id" :model-value="baseline.tries" @update:model-value="put('tries', $event)" />
        </FieldRow>
      </div>
      <ElCheckbox :model-value="baseline.warning_look ?? false" @update:model-value="put('warning_look', !!$event || undefined)">
        A warning look: hard stare, head up, ears back
      </ElCheckbox>
      <FieldRow v-slot="f" label="Where it stopped, and how" :wrong="wrong('note')">
        <ElInput :id="f.id" :model-value="baseline.note ?? ''" @update:model-value="put('note', $event || undefined)" />
      </FieldRow>
    </template>
  </section>
</template>

<style scoped>
.grid {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(min(190px, 100%), 1fr));
  gap: var(--gap-3);
}
</style>
