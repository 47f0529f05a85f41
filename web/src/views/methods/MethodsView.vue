<script setup lang="ts">
// The handbook of methods: every ladder as a bridge, the schools, and where
// practitioners disagree.
import { computed, ref } from 'vue'
import FieldRow from '../../parts/FieldRow.vue'
import PageState from '../../parts/PageState.vue'
import { count } from '../../words'
import { speaksOf, useHandbook, type Ladder } from './handbook'
import LadderCard from './LadderCard.vue'
import SchoolTable from './SchoolTable.vue'

const { data, trouble, load } = useHandbook()
const looked = ref('')

const found = computed(() => {
  const words = looked.value.trim()
  if (!words) return []
  return (data.value?.ladders ?? []).flatMap((l) =>
    l.steps.filter((s) => !s.link && speaksOf(s, words)).map((s) => ({ ladder: l, step: s })),
  )
})
const groups = computed(() => {
  const all = data.value?.ladders ?? []
  return [
    {
      name: 'Foundations',
      says: 'Taught away from the problem place, on both sides.',
      ladders: all.filter((l) => l.kind === 'foundation'),
    },
    { name: 'Ladders of a problem', says: 'Each stands on its foundations.', ladders: all.filter((l) => l.kind === 'problem') },
  ]
})
const stands = (l: Ladder) => data.value?.piers[l.key] ?? []
</script>

<template>
  <div class="page">
    <header class="page-head row between">
      <div>
        <h1>Methods</h1>
        <p class="small"><RouterLink to="/methods/handbook/README">How it judges: the handbook</RouterLink></p>
      </div>
      <FieldRow v-slot="f" class="search" label="Look for a step">
        <ElInput :id="f.id" v-model="looked" clearable placeholder="rope, ears, stands, flag" />
      </FieldRow>
    </header>
    <PageState :trouble="trouble" :ready="data !== undefined" @again="load">
      <div v-if="data" class="stack wide">
        <section v-if="looked.trim()" class="sheet stack" aria-live="polite">
          <h2>{{ found.length ? count(found.length, 'step', 'steps') : 'No step speaks of that' }}</h2>
          <p v-if="!found.length" class="quiet">Try one word of it: a part of the horse, a tool, what it does.</p>
          <ul class="plain-list">
            <li v-for="f in found.slice(0, 60)" :key="f.step.key">
              <RouterLink :to="`/methods/${f.ladder.key}/${f.step.key}`" class="strong raised"
                >{{ f.ladder.name }}: {{ f.step.name }}</RouterLink
              >
              <span>{{ f.step.ask }}</span>
            </li>
          </ul>
        </section>
        <template v-else>
          <section v-if="data.own_ladders.length" class="stack">
            <h2>Your own</h2>
            <div class="cards">
              <LadderCard
                v-for="o in data.own_ladders"
                :key="o.id"
                :to="`/methods/own/${o.id}`"
                :ladder="o.doc"
                :name="o.name"
                :piers="data.piers[o.ladder] ?? []"
                :note="`from ${o.ladder}, version ${o.version}`"
              />
            </div>
          </section>
          <section v-for="g in groups" :key="g.name" class="stack">
            <h2>
              {{ g.name }} <span class="quiet small">{{ g.says }}</span>
            </h2>
            <div class="cards">
              <LadderCard
                v-for="l in g.ladders"
                :key="l.key"
                :to="`/methods/${l.key}`"
                :ladder="l"
                :name="l.name"
                :piers="stands(l)"
              />
            </div>
          </section>
          <SchoolTable :schools="data.schools" />
          <section class="sheet stack">
            <h2>Where practitioners disagree</h2>
            <p class="quiet">What a plan does unless it chooses otherwise, and why.</p>
            <dl class="choices">
              <div v-for="c in data.choices" :key="c.key" class="choice">
                <dt>
                  <b>{{ c.asks }}</b>
                </dt>
                <dd>
                  <p v-for="o in c.options" :key="o.key">
                    <b v-if="o.key === c.default">{{ o.key }}. </b><span v-else>{{ o.key }}. </span>
                    <span class="quiet">{{ o.says }}<template v-if="o.key === c.default"> (the plan's own way)</template></span>
                  </p>
                  <p class="small">{{ c.why }}</p>
                </dd>
              </div>
            </dl>
          </section>
          <section class="sheet stack">
            <h2>Sequence cards</h2>
            <p v-for="c in data.cards" :key="c.key">
              <RouterLink :to="`/cards/${c.key}`">{{ c.name }}</RouterLink>
            </p>
          </section>
        </template>
      </div>
    </PageState>
  </div>
</template>

<style scoped>
.raised {
  display: inline-block;
  margin-right: var(--gap-2);
}
.raised::first-letter {
  text-transform: uppercase;
}
.search {
  min-width: min(320px, 100%);
}
.wide {
  gap: var(--gap-4);
}
.cards {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(min(250px, 100%), 1fr));
  gap: var(--gap-3);
}
h2 .small {
  font-family: var(--font-ui);
  font-weight: 400;
}
.choices {
  margin: 0;
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(min(340px, 100%), 1fr));
  gap: var(--gap-4);
}
dd {
  margin: var(--gap-1) 0 0;
}
</style>
