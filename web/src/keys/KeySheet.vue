<script setup lang="ts">
// The keys of the place, over the page.
import { onMounted, useTemplateRef } from 'vue'
import { allKeys, keysAreOn } from './keys'

const emit = defineEmits<{ close: [] }>()
const dialog = useTemplateRef('dialog')
onMounted(() => dialog.value?.showModal())
const spelled = (press: string) => (press.length === 2 ? `${press[0]} then ${press[1]}` : press)
</script>

<template>
  <dialog ref="dialog" class="keys" aria-labelledby="keys" @close="emit('close')">
    <header>
      <h2 id="keys">Keys here</h2>
      <button type="button" class="button plain" @click="dialog?.close()">Close</button>
    </header>
    <dl>
      <div v-for="k in allKeys" :key="k.press">
        <dt>
          <kbd>{{ spelled(k.press) }}</kbd>
        </dt>
        <dd>{{ k.does }}</dd>
      </div>
    </dl>
    <ElCheckbox v-model="keysAreOn">Letters are keys here. Put it off if you dictate.</ElCheckbox>
  </dialog>
</template>

<style scoped>
.keys {
  border: var(--rule);
  border-radius: var(--radius);
  background: var(--ivory-0);
  color: var(--ink-1);
  padding: var(--gap-3) var(--gap-4);
  width: min(560px, calc(100vw - 2 * var(--gap-3)));
}
.keys::backdrop {
  background: rgb(29 38 41 / 35%);
}
header {
  display: flex;
  justify-content: space-between;
  align-items: center;
}
dl {
  columns: 2;
  column-gap: var(--gap-4);
}
dl > div {
  display: grid;
  grid-template-columns: 5.5em 1fr;
  break-inside: avoid;
  padding: var(--gap-1) 0;
  border-bottom: var(--line);
}
dd {
  margin: 0;
}
kbd {
  font: 700 var(--step-1) var(--font-head);
}
@media screen and (max-width: 560px) {
  dl {
    columns: 1;
  }
}
</style>
