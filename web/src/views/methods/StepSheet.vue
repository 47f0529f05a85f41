<script setup lang="ts">
// One step as the handbook tells it.
import { computed } from 'vue'
import type { Schemas } from '../../api/types'
import { sideWord } from '../../words'
import type { Step } from './handbook'

const { step, number, needs, stands, opened } = defineProps<{
  step: Step
  /** Its place on the ladder, from 1. */
  number: number
  needs: Schemas['Pier'][]
  /** Name of the ladder that the step stands for. */
  stands: string
  opened: boolean
}>()

const lines = computed(() =>
  [
    ['Release on', step.release],
    ['Mistakes and cautions', step.watch],
    ['Pass mark', step.pass.text],
    ['Measured by', step.measures?.join(', ')],
    ['Each apart', step.variants?.map((v) => sideWord(String(v))).join(', ')],
    ['Means, each light, medium, firm', step.means?.join(' → ')],
    ['Not alone', step.helper],
    ['Blocked by', step.blocked?.length ? `${step.blocked.join(', ')} suspect or in treatment` : ''],
    ['Bring', step.kit?.join(', ')],
  ].filter(([, text]) => text),
)
</script>

<template>
  <details :id="step.key" class="step" :open="opened">
    <summary>
      <b class="number">{{ number }}</b>
      <b class="name">{{ step.name }}</b>
      <span class="ask">{{ step.link ? `stands for the whole ladder ${stands}` : `${step.ask}.` }}</span>
      <span class="quiet small mark">{{ step.pass.text }}</span>
    </summary>
    <div class="told">
      <p v-if="step.ridden || step.calm" class="strong">
        {{ [step.ridden && 'ridden', step.calm && 'only if fear is unlikely'].filter(Boolean).join(', ') }}
      </p>
      <p v-if="step.link">
        This step stands for the whole ladder <RouterLink :to="`/methods/${step.link}`">{{ stands }}</RouterLink>.
      </p>
      <dl>
        <template v-for="[name, text] in lines" :key="name">
          <dt class="quiet small">{{ name }}</dt>
          <dd>{{ text }}</dd>
        </template>
        <template v-if="needs.length">
          <dt class="quiet small">Needs, beyond the step before</dt>
          <dd>
            <template v-for="(n, i) in needs" :key="n.step">
              <template v-if="i > 0"> · </template>
              <RouterLink :to="`/methods/${n.ladder}/${n.step}`">{{ n.says.text }}</RouterLink>
            </template>
          </dd>
        </template>
      </dl>
    </div>
  </details>
</template>

<style scoped>
.step {
  border-bottom: var(--line);
  scroll-margin-top: var(--gap-4);
}
.step[open] {
  border-bottom: 1.5px solid var(--ink-1);
}
summary {
  display: grid;
  grid-template-columns: 28px 118px minmax(0, 1fr) minmax(0, 250px);
  align-items: center;
  gap: 0 var(--gap-2);
  min-height: 40px;
  padding: 3px 0;
  list-style: none;
  cursor: pointer;
  line-height: 1.3;
}
summary::-webkit-details-marker {
  display: none;
}
.number {
  color: var(--ink-2);
  text-align: right;
}
.name {
  font-family: var(--font-head);
  font-weight: 700;
}
.mark {
  text-align: right;
}
.told {
  padding: 2px 0 var(--gap-3) 36px;
}
dl {
  margin: 0;
  display: grid;
  grid-template-columns: minmax(110px, 170px) minmax(0, 1fr);
  gap: var(--gap-1) var(--gap-3);
}
dd {
  margin: 0;
  max-width: var(--measure);
  overflow-wrap: anywhere;
}
@media screen and (max-width: 720px) {
  summary {
    grid-template-columns: 28px minmax(0, 1fr);
    min-height: 52px;
  }
  .ask,
  .mark {
    grid-column: 2;
    text-align: left;
  }
  .told {
    padding-left: 0;
  }
  dl {
    grid-template-columns: minmax(0, 1fr);
  }
  dd {
    margin-bottom: var(--gap-1);
  }
}
</style>
