<script setup lang="ts">
// One step of an own ladder, folded or open.
import { computed } from 'vue'
import ChipRow from '../../parts/ChipRow.vue'
import FieldRow from '../../parts/FieldRow.vue'
import NumberField from '../../parts/NumberField.vue'
import { units } from '../../lengths'
import type { StepDraft } from './draft'

const step = defineModel<StepDraft>('step', { required: true })
const { steps, open, wrong, first, last } = defineProps<{
  /** All steps that can be needed. */
  steps: { key: string; says: string }[]
  open: boolean
  wrong: string
  first: boolean
  last: boolean
}>()
const emit = defineEmits<{ toggle: []; up: []; down: []; remove: [] }>()

const measures = ['answer', 'hold', 'dose', 'count', 'distance', 'setting', 'time'].map((m) => ({ value: m, text: m }))
const counted = [
  { value: 's', text: 'seconds' },
  { value: 'steps', text: 'steps' },
  { value: 'feet', text: 'hooves' },
  { value: 'times', text: 'times' },
  { value: 'holes', text: 'holes' },
  { value: 'mm', text: units() },
]

/** A step of the practice's own, not a shipped one. */
const own = computed(() => /\.own\d+$|^own\./.test(step.value.key))

function measure(m: string) {
  const has = step.value.measures
  step.value.measures = has.includes(m) ? has.filter((x) => x !== m) : [...has, m]
}
</script>

<template>
  <section class="sheet stack" :class="{ bad: wrong }">
    <div class="row between">
      <h2>
        <button type="button" class="fold" :aria-expanded="open" @click="emit('toggle')">
          {{ step.name || 'a new step' }}
        </button>
      </h2>
      <div class="row">
        <ElButton :disabled="first" @click="emit('up')"
          >Up<span class="visually-hidden">: {{ step.name || 'a new step' }}</span></ElButton
        >
        <ElButton :disabled="last" @click="emit('down')"
          >Down<span class="visually-hidden">: {{ step.name || 'a new step' }}</span></ElButton
        >
        <ElButton @click="emit('remove')"
          >Take out<span class="visually-hidden">: {{ step.name || 'a new step' }}</span></ElButton
        >
      </div>
    </div>
    <p v-if="wrong" class="wrong" role="alert">{{ wrong }}</p>
    <p v-if="open && step.link">It stands for a whole ladder: {{ step.name }}.</p>
    <div v-else-if="open" class="stack">
      <div class="two">
        <FieldRow v-slot="f" label="Name, on the plank"><ElInput :id="f.id" v-model="step.name" maxlength="40" /></FieldRow>
        <FieldRow v-slot="f" label="As an owner understands it" hint="as what the horse is doing">
          <ElInput :id="f.id" v-model="step.plain" maxlength="200" />
        </FieldRow>
      </div>
      <FieldRow v-slot="f" label="Ask"
        ><ElInput :id="f.id" v-model="step.ask" type="textarea" autosize maxlength="500"
      /></FieldRow>
      <FieldRow v-slot="f" label="Release on">
        <ElInput :id="f.id" v-model="step.release" type="textarea" autosize maxlength="500" />
      </FieldRow>
      <FieldRow v-slot="f" label="Mistakes and cautions">
        <ElInput :id="f.id" v-model="step.watch" type="textarea" autosize maxlength="1000" />
      </FieldRow>
      <ChipRow label="Measured by" :choices="measures" :chosen="step.measures" @toggle="measure" />
      <div class="marks">
        <FieldRow v-slot="f" label="In a row"><NumberField :id="f.id" v-model="step.run" /></FieldRow>
        <FieldRow v-slot="f" label="Level at most"><NumberField :id="f.id" v-model="step.level" /></FieldRow>
        <FieldRow v-slot="f" label="Corrections at most"><NumberField :id="f.id" v-model="step.corrections" /></FieldRow>
        <FieldRow v-slot="f" label="Values in order" hint="for example 15, 30, 60">
          <ElInput :id="f.id" v-model="step.values" />
        </FieldRow>
      </div>
      <ChipRow
        label="The values count"
        :choices="counted"
        :chosen="[step.unit]"
        @toggle="(u) => (step.unit = step.unit === u ? '' : u)"
      />
      <div class="two">
        <FieldRow v-slot="f" label="And, in words"><ElInput :id="f.id" v-model="step.and" maxlength="200" /></FieldRow>
        <FieldRow v-slot="f" label="Needs further" hint="other steps, by ladder">
          <ElSelect :id="f.id" v-model="step.needs" multiple filterable :multiple-limit="10" placeholder="None">
            <ElOption v-for="s in steps" :key="s.key" :value="s.key" :label="s.says" />
          </ElSelect>
        </FieldRow>
      </div>
      <ChipRow
        v-if="own"
        label="Asked from"
        :choices="[{ value: 1, text: 'ridden' }]"
        :chosen="step.ridden ? [1] : []"
        @toggle="step.ridden = !step.ridden"
      />
      <p v-if="own" class="quiet small">What bars the step below bars this one too.</p>
      <FieldRow v-slot="f" label="Bring" hint="with commas"><ElInput :id="f.id" v-model="step.kit" maxlength="400" /></FieldRow>
    </div>
  </section>
</template>

<style scoped>
.fold {
  background: none;
  border: 0;
  padding: 0;
  font: inherit;
  text-align: left;
  cursor: pointer;
  min-height: var(--control);
}
.bad {
  border: 2px solid var(--rust);
}
.wrong {
  color: var(--rust);
  font-weight: 600;
}
.two {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(min(260px, 100%), 1fr));
  gap: var(--gap-3);
}
.marks {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(130px, 1fr));
  gap: var(--gap-3);
}
</style>
