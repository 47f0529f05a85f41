<script setup lang="ts">
// One step as the handbook tells it.
import { computed } from 'vue'
import type { Schemas } from '../../api/types'
import { sideWord } from '../../words'
import type { Step } from './handbook'

const { step, needs, stands, opened } = defineProps<{
  step: Step
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
  <section :id="step.key" class="sheet step" :class="{ opened }">
    <header>
      <h2>{{ step.name }}</h2>
      <p v-if="step.ridden" class="small strong">ridden</p>
      <p v-if="step.calm" class="small strong">only if fear is unlikely</p>
    </header>
    <div class="stack told">
      <p v-if="step.link">
        This step stands for the whole ladder <RouterLink :to="`/methods/${step.link}`">{{ stands }}</RouterLink>.
      </p>
      <p v-else class="ask">{{ step.ask }}.</p>
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
  </section>
</template>

<style scoped>
.step {
  display: grid;
  grid-template-columns: minmax(120px, 180px) minmax(0, 1fr);
  gap: var(--gap-4);
  scroll-margin-top: var(--gap-4);
}
.opened {
  border: 2px solid var(--ink-1);
}
.ask {
  font-size: var(--step-2);
  max-width: var(--measure);
}
.told {
  gap: var(--gap-2);
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
@media (max-width: 720px) {
  .step {
    grid-template-columns: minmax(0, 1fr);
    gap: var(--gap-2);
  }
  dl {
    grid-template-columns: minmax(0, 1fr);
  }
  dd {
    margin-bottom: var(--gap-1);
  }
}
</style>
