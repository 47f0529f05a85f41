<script setup lang="ts">
// One page for the owner: what to do, when it is good, when to stop and whom to
// call. To print.
import { api, told } from '../../api/client'
import { useLoad } from '../../api/use'
import PageState from '../../parts/PageState.vue'
import { longDate, sideWord } from '../../words'

const { id, kase, person } = defineProps<{ id: string; kase: string; person: string }>()
const { data, trouble, load } = useLoad(() =>
  told(api.GET('/api/cases/{id}/homework/{of}', { params: { path: { id: kase, of: person } } })),
)
const print = () => window.print()
</script>

<template>
  <div class="page">
    <PageState :trouble="trouble" :ready="data !== undefined" @again="load">
      <template v-if="data">
        <div class="row no-print">
          <ElButton v-if="!data.none" type="primary" @click="print">Print the card</ElButton>
          <RouterLink :to="`/horses/${id}/plan`" class="button plain">Back to the plan</RouterLink>
        </div>
        <article class="sheet card stack">
          <header class="head">
            <div>
              <h1>Homework with {{ data.horse.name }}</h1>
              <p>for {{ data.name }}</p>
            </div>
            <p class="quiet">{{ data.practice }}, {{ longDate(data.date) }}</p>
          </header>
          <p v-if="data.none" class="strong">{{ data.none.text }}</p>
          <template v-else>
            <p class="time">{{ data.time.text }}</p>
            <section v-for="(s, i) in data.steps" :key="s.step" class="step">
              <h2>
                {{ i + 1 }}. <span class="begins">{{ s.plain }}</span>
              </h2>
              <p>
                {{ s.ask }}.<span v-if="s.sides?.length"> Each: {{ s.sides.map(sideWord).join(', ') }}.</span>
              </p>
              <p v-if="s.let_go">{{ s.let_go.text }}</p>
              <p>{{ s.good.text }}</p>
              <p class="strong">{{ s.refuses.text }}</p>
            </section>
            <section v-if="data.remember.length">
              <h2>Remember</h2>
              <ul class="dots">
                <li v-for="r in data.remember" :key="r">{{ r }}</li>
              </ul>
            </section>
            <div class="two">
              <section>
                <h2>Stop when</h2>
                <ul class="dots">
                  <li v-for="s in data.stop" :key="s.key">{{ s.text }}</li>
                </ul>
              </section>
              <section>
                <h2>Call</h2>
                <p>{{ data.call.text }}</p>
                <p v-for="c in data.contacts" :key="c.phone">
                  {{ c.what }} <b>{{ c.name }}</b> <a :href="`tel:${c.phone}`">{{ c.phone }}</a>
                </p>
                <p v-if="data.contacts.length === 0" class="strong">Write the number here:</p>
              </section>
            </div>
            <section v-if="data.cues.length">
              <h2>How you ask</h2>
              <table class="cues">
                <thead>
                  <tr>
                    <th scope="col">Ask</th>
                    <th scope="col">Body</th>
                    <th scope="col">Word</th>
                    <th scope="col">Aid</th>
                  </tr>
                </thead>
                <tbody>
                  <tr v-for="c in data.cues" :key="c.key">
                    <th scope="row">{{ c.name }}</th>
                    <td>{{ c.body }}</td>
                    <td>{{ c.word }}</td>
                    <td>{{ c.in_hand }}</td>
                  </tr>
                </tbody>
              </table>
            </section>
          </template>
          <p class="small">{{ data.safety.text }}</p>
        </article>
      </template>
    </PageState>
  </div>
</template>

<style scoped>
.card {
  max-width: 760px;
  margin-top: var(--gap-3);
}
.head {
  display: flex;
  flex-wrap: wrap;
  gap: var(--gap-2) var(--gap-4);
  justify-content: space-between;
  border-bottom: var(--rule);
  padding-bottom: var(--gap-2);
}
.time {
  font-size: var(--step-2);
  font-weight: 600;
}
.begins {
  display: inline-block;
}
.begins::first-letter {
  text-transform: uppercase;
}
.two {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(240px, 1fr));
  gap: var(--gap-4);
}
.cues {
  border-collapse: collapse;
  width: 100%;
}
.cues th,
.cues td {
  text-align: left;
  vertical-align: top;
  padding: var(--gap-1) var(--gap-2) var(--gap-1) 0;
  border-top: var(--line);
}
@media print {
  .page {
    padding: 0;
  }
  .card {
    border: 0;
    padding: 0;
    margin: 0;
    max-width: none;
    gap: var(--gap-2);
    font-size: var(--step-0);
    line-height: 1.3;
  }
  .card h1 {
    font-size: var(--step-3);
  }
  .card h2,
  .time {
    font-size: var(--step-1);
  }
}
</style>
