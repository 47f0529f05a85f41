<script setup lang="ts">
// The arena's keys, by position on the keyboard; the letters are this layout's
// where the browser tells them.
import { ref } from 'vue'

const layout = ref(new Map<string, string>())
const asked = (navigator as { keyboard?: { getLayoutMap?: () => Promise<Map<string, string>> } }).keyboard?.getLayoutMap?.()
asked?.then((map) => (layout.value = map)).catch(() => undefined)

const letters = (codes: string[]) => codes.map((c) => (layout.value.get(`Key${c}`) ?? c).toUpperCase()).join(' ')

const keys: [string[] | string, string][] = [
  ['Space, held', 'pressure on; let go to let go'],
  ['1 to 9, 0', 'level 1 to 9, ten'],
  ['-', 'none'],
  [['Q', 'W', 'E', 'R', 'T'], 'refused, try, tolerated, accepted, offered'],
  [['Y'], 'a try, inside a held ask'],
  [['N', 'O'], 'near, off'],
  [['A', 'S', 'D', 'F', 'G'], 'settled, attentive, tense, over the line, explosive'],
  [['L', 'M'], 'released late, at the wrong moment'],
  ['.', 'take the advice'],
  ['/', 'more about the last rep'],
  ['Z, Backspace', 'undo'],
  ['?', 'these keys'],
]
</script>

<template>
  <dl>
    <template v-for="[key, says] in keys" :key="says">
      <dt>{{ typeof key === 'string' ? key : letters(key) }}</dt>
      <dd>{{ says }}</dd>
    </template>
  </dl>
</template>

<style scoped>
dl {
  display: grid;
  grid-template-columns: auto 1fr;
  gap: var(--gap-1) var(--gap-4);
  margin: 0;
  font-size: var(--step-1);
}
dt {
  font-weight: 700;
}
dd {
  margin: 0;
}
</style>
