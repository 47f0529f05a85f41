<script setup lang="ts">
// Section B: the body, item by item. Not looked at is a state of its own.
import type { Schemas } from '../../api/client'

type Note = Schemas['AssessBodyNote']

const { body, items, states } = defineProps<{ body: Note[]; items: string[]; states: string[] }>()
const emit = defineEmits<{ change: [body: Note[]] }>()

const noteOf = (item: string): Note => body.find((n) => n.item === item) ?? { item: item as Note['item'], state: 'not looked at' }

function put(item: string, part: Partial<Note>) {
  const note = { ...noteOf(item), ...part }
  emit('change', body.some((n) => n.item === item) ? body.map((n) => (n.item === item ? note : n)) : [...body, note])
}
</script>

<template>
  <section class="sheet stack">
    <h2>B. Body</h2>
    <ul class="items">
      <li v-for="item in items" :key="item" class="item">
        <span class="name">{{ item }}</span>
        <div class="states" role="radiogroup" :aria-label="item">
          <button
            v-for="s in states"
            :key="s"
            type="button"
            role="radio"
            class="state"
            :class="s.replaceAll(' ', '-')"
            :aria-checked="noteOf(item).state === s"
            @click="put(item, { state: s as Note['state'] })"
          >
            {{ s }}
          </button>
        </div>
        <ElInput
          v-if="['suspect', 'in treatment', 'cleared'].includes(noteOf(item).state)"
          :model-value="noteOf(item).note ?? ''"
          maxlength="300"
          placeholder="What was seen, by whom, when"
          :aria-label="`Note: ${item}`"
          class="note"
          @update:model-value="put(item, { note: $event || undefined })"
        />
      </li>
    </ul>
  </section>
</template>

<style scoped>
.item {
  display: grid;
  grid-template-columns: 110px minmax(0, 1fr);
  gap: var(--gap-1) var(--gap-3);
  align-items: center;
  padding: var(--gap-1) 0;
}
.item + .item {
  border-top: var(--line);
}
.name {
  font-weight: 600;
}
.states {
  display: flex;
  flex-wrap: wrap;
}
.state {
  border: 1px solid var(--ink-2);
  margin-left: -1px;
  background: var(--ivory-0);
  min-height: 36px;
  padding: 0 var(--gap-2);
  cursor: pointer;
}
.state[aria-checked='true'] {
  background: var(--ink-1);
  color: var(--ivory-0);
  font-weight: 600;
}
.state.not-looked-at[aria-checked='true'] {
  background: var(--ivory-2);
  color: var(--ink-1);
  border-style: dashed;
}
.state.suspect[aria-checked='true'],
.state.in-treatment[aria-checked='true'] {
  background: var(--rust);
}
.note {
  grid-column: 2;
}
@media (max-width: 720px) {
  .item {
    grid-template-columns: minmax(0, 1fr);
  }
  .note {
    grid-column: 1;
  }
}
</style>
