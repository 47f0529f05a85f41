<script setup lang="ts">
// One letter, as it is read.
const { name, subject, body, says, open } = defineProps<{
  name: string
  subject: string
  body: string
  says?: string
  open?: boolean
}>()
</script>

<template>
  <details class="letter" :open="open">
    <summary>
      <b>{{ name }}</b> {{ subject }} <span v-if="says" class="quiet small says">{{ says }}</span>
    </summary>
    <pre>{{ body }}</pre>
  </details>
</template>

<style scoped>
.letter {
  border-top: var(--line);
  padding: var(--gap-2) 0;
}
summary {
  min-height: 32px;
  cursor: pointer;
  overflow-wrap: anywhere;
}
.says {
  display: block;
}
pre {
  font: inherit;
  white-space: pre-wrap;
  overflow-wrap: anywhere;
  margin: var(--gap-2) 0 0 var(--gap-4);
}
</style>
