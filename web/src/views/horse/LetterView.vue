<script setup lang="ts">
// The letter to a professional: one page, to print or to read out, with the
// photographs that are chosen for it.
import { computed, ref } from 'vue'
import { api, told } from '../../api/client'
import { useLoad } from '../../api/use'
import PageState from '../../parts/PageState.vue'
import { shortDate } from '../../words'

const { id, subject } = defineProps<{ id: string; subject: string }>()
const { data, trouble, load } = useLoad(() =>
  told(api.GET('/api/horses/{id}/letters/{key}', { params: { path: { id, key: subject } } })),
)
const photos = useLoad(() => told(api.GET('/api/horses/{id}/photographs', { params: { path: { id } } })))
/** Ids of those that go along. */
const along = ref<string[]>([])
const chosen = computed(() => (photos.data.value?.list ?? []).filter((p) => along.value.includes(p.id)))
const print = () => window.print()
</script>

<template>
  <div class="page">
    <PageState :trouble="trouble" :ready="data !== undefined" @again="load">
      <template v-if="data">
        <div class="row no-print">
          <ElButton type="primary" @click="print">Print the letter</ElButton>
          <RouterLink :to="`/horses/${id}/assessment`" class="button plain">Back to the assessment</RouterLink>
        </div>
        <fieldset v-if="photos.data.value?.list.length" class="row no-print">
          <legend>Photographs that go along</legend>
          <label v-for="p in photos.data.value.list" :key="p.id">
            <input v-model="along" type="checkbox" :value="p.id" /> {{ shortDate(p.taken_on) }} {{ p.caption || p.about }}
          </label>
        </fieldset>
        <article class="sheet letter stack">
          <header class="head">
            <div>
              <p class="strong">{{ data.practice }}</p>
              <p>{{ data.by }}, {{ shortDate(data.date) }}</p>
            </div>
            <div>
              <p>To the {{ data.who }}</p>
              <p class="strong">{{ data.name }}</p>
            </div>
          </header>
          <h1>{{ data.horse.name }}</h1>
          <p>{{ data.about.map((a) => a.text).join(', ') }}</p>
          <p>
            {{ [data.yard, data.address].filter(Boolean).join(', ') }}
            <template v-for="o in data.owners" :key="o.id"> · owner {{ o.name }} {{ o.phone }}</template>
          </p>
          <section>
            <h2>What is asked, by {{ shortDate(data.due) }}</h2>
            <p class="question">{{ data.own || data.question.text }}</p>
          </section>
          <section>
            <h2>What was seen and told</h2>
            <ul class="dots">
              <li v-for="s in data.saw" :key="s.text">{{ s.text }}</li>
            </ul>
          </section>
          <section v-if="chosen.length" class="photos">
            <figure v-for="p in chosen" :key="p.id">
              <img :src="`/api/photographs/${p.id}`" :alt="p.caption || p.about" />
              <figcaption>{{ shortDate(p.taken_on) }} {{ p.caption || p.about }}</figcaption>
            </figure>
          </section>
          <section>
            <h2>What waits</h2>
            <p v-for="w in data.waits" :key="w.key">{{ w.text }}</p>
          </section>
          <section>
            <h2>Your answer</h2>
            <p v-for="a in data.answer" :key="a.key" class="line">{{ a.text }}</p>
            <p class="line">Name, date</p>
          </section>
        </article>
      </template>
    </PageState>
  </div>
</template>

<style scoped>
.letter {
  max-width: 760px;
  margin-top: var(--gap-3);
}
.head {
  display: flex;
  flex-wrap: wrap;
  gap: var(--gap-3);
  justify-content: space-between;
}
.photos {
  display: flex;
  flex-wrap: wrap;
  gap: var(--gap-3);
}
figure {
  margin: 0;
}
figure img {
  max-height: 180px;
  max-width: 100%;
  display: block;
}
fieldset {
  border: 0;
  padding: var(--gap-2) 0 0;
}
.question {
  font-size: var(--step-2);
}
.line {
  border-bottom: var(--line);
  border-color: var(--ink-2);
  padding: 0 0 2.2em;
  margin-top: var(--gap-2);
}
@media print {
  .letter {
    border: 0;
    padding: 0;
  }
}
</style>
