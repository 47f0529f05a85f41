<script setup lang="ts">
// The last rep in words, what can be said of it with one tap, and undo.
import { computed } from 'vue'
import { sideWord } from '../../words'
import type { Schemas } from '../../api/types'
import type { Rep } from './useArena'

const { last, newest, canUndo } = defineProps<{ last?: Schemas['ArenaTold']; newest?: string; canUndo: boolean }>()
const emit = defineEmits<{ correct: [change: Partial<Rep>]; more: []; settings: []; undo: [] }>()

/** Only where something was let go of can a release be late. */
const held = computed(() => (last?.kind === 'rep' && !last.trial) || last?.kind === 'dose')
const answers = ['rep', 'dose', 'offer', 'burst', 'spell']

const says = computed(() => {
  if (newest && !answers.includes(newest)) return newest
  if (!last) return 'No rep yet'
  if (last.trial) return [last.trial.what, last.trial.changed || 'right as it is', last.trial.verdict].filter(Boolean).join(', ')
  const parts: (string | undefined)[] = [
    last.kind === 'spell' ? `rest of ${last.reached ?? 0} s` : last.peak == null ? last.answer : `${last.answer} at ${last.peak}`,
    sideWord(last.variant ?? ''),
    last.kind === 'spell' || last.reached == null ? '' : `reached ${last.reached}`,
    ...(last.ways_out ?? []),
    ...(last.signs ?? []),
    ...(last.flags ?? []),
    last.release && last.release !== 'on the try' ? `released ${last.release}` : '',
  ]
  return parts.filter(Boolean).join(', ')
})

function release(when: Rep['release']) {
  emit('correct', { release: last?.release === when ? 'on the try' : when })
}
</script>

<template>
  <div class="strip">
    <p class="last" aria-live="polite">
      <span class="wide">Last: </span><b>{{ says }}</b>
    </p>
    <div class="chips">
      <button type="button" :disabled="!held" :aria-pressed="last?.release === 'late'" @click="release('late')">late</button>
      <button type="button" :disabled="!held" :aria-pressed="last?.release === 'wrong moment'" @click="release('wrong moment')">
        wrong moment
      </button>
      <button type="button" :disabled="!last" @click="emit('more')">more</button>
      <button type="button" class="settings" @click="emit('settings')">settings</button>
    </div>
    <button type="button" class="undo" :disabled="!canUndo" @click="emit('undo')">Undo</button>
  </div>
</template>

<style scoped>
.strip {
  display: flex;
  align-items: center;
  gap: var(--gap-3);
  padding: var(--gap-1) var(--gap-3);
  border-top: var(--stroke);
}
.last {
  flex: 1 1 0;
  min-width: 0;
}
.chips {
  display: flex;
  gap: var(--gap-2);
}
button {
  min-height: var(--touch);
  min-width: var(--touch);
  border: 2px solid var(--arena-ink);
  border-radius: var(--radius);
  background: var(--ivory-0);
  padding: 0 var(--gap-3);
  font-weight: 600;
  cursor: pointer;
}
button[aria-pressed='true'] {
  background: var(--arena-ink);
  color: var(--ivory-0);
}
button:disabled {
  opacity: 0.45;
}
.settings {
  display: none;
}
.undo {
  border: var(--stroke);
  font-weight: 700;
}
@media (max-width: 720px) {
  .strip {
    gap: var(--gap-2);
    padding: var(--gap-1) var(--gap-2);
  }
  .wide {
    display: none;
  }
  .chips button:nth-child(2) {
    display: none;
  }
  .chips {
    gap: var(--gap-1);
  }
  button {
    padding: 0;
    font-size: var(--step-0);
  }
  .settings {
    display: block;
  }
  .undo {
    min-width: var(--touch);
  }
}
</style>
