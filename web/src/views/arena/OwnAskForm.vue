<script setup lang="ts">
// Something that no ladder names, in one line: from here on it is one of this horse's.
import { ref } from 'vue'

export interface OwnAsk {
  name: string
  sides: boolean
  holds?: number
}
const emit = defineEmits<{ add: [own: OwnAsk] }>()

const name = ref('')
const sides = ref(false)
const holds = ref<number>()
const wrong = ref('')

function add() {
  const seconds = holds.value || undefined
  if (!name.value.trim()) wrong.value = 'Say in a few words what is asked.'
  else if (seconds !== undefined && (seconds < 1 || seconds > 3600))
    wrong.value = 'It lasts from 1 to 3600 seconds, or leave it empty.'
  else emit('add', { name: name.value.trim(), sides: sides.value, holds: seconds })
}
</script>

<template>
  <form class="own asked" @submit.prevent="add">
    <h3>Something no ladder names</h3>
    <label for="own-name">What is asked</label>
    <input id="own-name" v-model="name" class="typed" maxlength="60" autocomplete="off" />
    <div class="row">
      <button type="button" class="pressed" :aria-pressed="sides" @click="sides = !sides">each side apart</button>
      <span class="row">
        <label for="own-holds">seconds, if it holds</label>
        <input id="own-holds" v-model.number="holds" type="number" min="1" max="3600" class="typed short" />
      </span>
      <button type="submit" class="pressed">Ask it</button>
    </div>
    <p v-if="wrong" class="wrong" role="alert">{{ wrong }}</p>
  </form>
</template>

<style scoped src="./sheet.css"></style>
<style scoped>
h3 {
  font-size: var(--step-2);
}
.row {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: var(--gap-2);
}
.short {
  width: 6em;
}
</style>
