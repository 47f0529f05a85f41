<script setup lang="ts">
// Say what to do, then why, then let me disagree.
import { computed, ref } from 'vue'
import type { Schemas } from '../../api/types'

const { advice, would, other, elsewhere } = defineProps<{
  advice: Schemas['ArenaAdvice']
  /** Advice shown before another device's entries came in. */
  would: Schemas['ArenaWould'][]
  other: boolean
  /** Name of the advised ask, where the card stands on another. */
  elsewhere?: string
}>()
const emit = defineEmits<{ take: []; otherwise: []; change: []; dismiss: [] }>()

const numbers = ref(false)
const lately = computed(() => would.at(-1))
const n = computed(() => advice.numbers)
/** What the trainer must do by hand to follow it. */
const doing = computed(() => {
  switch (advice.action) {
    case 'end session':
      return advice.easy ? '' : 'End the session'
    case 'end ask':
    case 'change ask':
      return 'Choose the next ask'
  }
  return elsewhere ? `Go to ${elsewhere}` : ''
})
</script>

<template>
  <section class="say" aria-live="polite">
    <p class="lab">{{ other ? 'You do otherwise, and that is kept. It had said' : 'Next' }}</p>
    <button type="button" class="tell" :aria-expanded="numbers" @click="numbers = !numbers">
      <span class="what">{{ advice.say.text }}</span>
      <span class="why">
        {{ advice.why.text }}
        <template v-if="advice.rest && advice.action !== 'end session'"> Rest {{ advice.rest }} s first.</template>
        <template v-if="advice.release"> A {{ advice.release }} release.</template>
        {{ ' ' }}<u>the numbers</u>
      </span>
    </button>
    <div v-if="lately" class="why strong lately">
      <span>Another device has logged too. Where it said “{{ lately.shown }}” it would now say “{{ lately.now }}”.</span>
      <button type="button" class="put-away" @click="emit('dismiss')">Read</button>
    </div>
    <dl v-if="numbers" class="numbers">
      <dt>Rule</dt>
      <dd>{{ advice.rule }}</dd>
      <dt>Reps that count here</dt>
      <dd>{{ n.n }}{{ n.dip ? ', on a dip' : '' }}</dd>
      <dt>Towards the pass mark</dt>
      <dd>{{ n.pass_run }} of {{ n.pass_needs }} at {{ n.pass_level }} or less</dd>
      <dt>Time for a rep</dt>
      <dd>{{ Math.round(n.rep_seconds) }} s</dd>
      <dt>Block, session</dt>
      <dd>
        {{ n.block_minutes.toFixed(1) }} of {{ n.block_ends }}, {{ n.session_minutes.toFixed(1) }} of {{ n.session_cap }} min
      </dd>
    </dl>
    <div class="acts">
      <button v-if="doing" type="button" class="do" @click="emit('take')">{{ doing }}</button>
      <button v-if="!other" type="button" class="other" @click="emit('otherwise')">I do otherwise</button>
      <button type="button" class="change" @click="emit('change')">change ask</button>
    </div>
    <p v-for="w in advice.warnings" :key="w.rule" class="note">
      <b class="sign" aria-hidden="true">!</b><span>{{ w.why.text }}</span>
    </p>
    <p v-if="advice.incident" class="note">
      <b class="sign" aria-hidden="true">!</b><span>Write down what happened: tap Danger.</span>
    </p>
  </section>
</template>

<style scoped>
.say {
  display: grid;
  gap: var(--gap-2);
  align-content: start;
}
.lab {
  font-size: var(--step-1);
}
.tell {
  border: 0;
  background: none;
  padding: 0;
  text-align: left;
  min-height: var(--touch);
  display: grid;
  gap: var(--gap-2);
  align-content: start;
  cursor: pointer;
}
.what {
  font: 700 1.875rem / 1.12 var(--font-head);
}
.why {
  font-size: var(--step-2);
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: var(--gap-2);
}
.acts button {
  border: var(--stroke);
  border-radius: var(--radius);
  background: var(--ivory-0);
  min-height: var(--touch);
  padding: 0 var(--gap-3);
  font-weight: 600;
  cursor: pointer;
}
.acts .do {
  background: var(--arena-ink);
  color: var(--ivory-0);
}
.note {
  display: grid;
  grid-template-columns: 1.2em 1fr;
  font-weight: 600;
  font-size: var(--step-2);
}
.sign {
  font-size: var(--step-3);
  line-height: 1;
}
.lately {
  display: flex;
  gap: var(--gap-2);
  align-items: start;
}
.put-away {
  border: var(--stroke);
  border-radius: var(--radius);
  background: var(--ivory-0);
  min-height: var(--touch);
  min-width: var(--touch);
  font-weight: 600;
  cursor: pointer;
}
.numbers {
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 2px var(--gap-3);
  margin: 0;
}
.numbers dd {
  margin: 0;
}
@media (max-width: 720px) {
  .what {
    font-size: var(--step-2);
  }
  .why,
  .note {
    font-size: var(--step-1);
  }
  .tell {
    gap: var(--gap-1);
  }
  .lab,
  .change {
    display: none;
  }
  .say {
    gap: var(--gap-1);
  }
  .acts button {
    padding: 0 var(--gap-2);
  }
}
</style>
