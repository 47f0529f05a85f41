<script setup lang="ts">
// What the owner should film, fitted to the horse; ticked is what has come. It goes as a
// message, and on paper.
import { ref } from 'vue'
import type { Schemas } from '../../api/types'
import { passedOn, shares } from '../../parts/copy'
import { count, shortDate } from '../../words'

const { list } = defineProps<{ list: Schemas['FilmList'] }>()
const said = ref('')

async function send() {
  said.value = await passedOn(list.message ?? '')
}
const came = (w: Schemas['Wanted']) =>
  w.came ? `${count(w.came, 'clip', 'clips')}, the newest of ${shortDate(w.last ?? '')}` : 'has not come yet'
</script>

<template>
  <section class="sheet stack">
    <div class="row between">
      <h2>Film list</h2>
      <ElButton class="no-print" @click="send">{{ shares ? 'Send the list' : 'Copy the list' }}</ElButton>
    </div>
    <p class="strong">{{ list.safety.text }}</p>
    <ol>
      <li v-for="w in list.views" :key="w.key" class="line">
        <span class="box" aria-hidden="true">{{ w.came && !w.again ? '✓' : '' }}</span>
        <span
          >{{ w.says.text }} <span class="quiet small">{{ came(w) }}</span><template v-if="w.again">
            <br /><b>{{ w.again.text }}</b></template
          ></span
        >
      </li>
    </ol>
    <p>{{ list.how.text }}</p>
    <p class="quiet small no-print">The owner sends clips through the private link; they stand above as they come.</p>
    <p v-if="said" role="status">{{ said }}</p>
  </section>
</template>

<style scoped>
ol {
  list-style: none;
  padding: 0;
  margin: 0;
}
.line {
  display: grid;
  grid-template-columns: 26px 1fr;
  gap: var(--gap-2);
  padding: var(--gap-1) 0;
  border-top: var(--line);
}
.box {
  width: 20px;
  height: 20px;
  border: 1.5px solid var(--ink-1);
  text-align: center;
  line-height: 1;
  font-weight: 700;
}
</style>
