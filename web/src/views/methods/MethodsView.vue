<script setup lang="ts">
// The handbook of methods: every ladder as a bridge, the schools, and where
// practitioners disagree.
import { computed, ref } from 'vue'
import FieldRow from '../../parts/FieldRow.vue'
import PageState from '../../parts/PageState.vue'
import { useLeaf } from '../../parts/leaf'
import OneTap from '../../parts/OneTap.vue'
import { count, inWords } from '../../words'
import { speaksOf, useHandbook, type Ladder } from './handbook'
import LadderFile from './LadderFile.vue'
import LadderRow from './LadderRow.vue'
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
const { open } = useLeaf()
const groups = computed(() => {
  const all = data.value?.ladders ?? []
  const row = (l: Ladder) => ({ to: `/methods/${l.key}`, ladder: l, name: l.name, piers: data.value?.piers[l.key] ?? [] })
  const own = (data.value?.own_ladders ?? []).map((o) => ({
    to: `/methods/own/${o.id}`,
    ladder: o.doc,
    name: o.name,
    piers: data.value?.piers[o.ladder] ?? [],
    note: `from ${o.ladder}, version ${o.version}`,
  }))
  return [
    { name: 'Your own', says: 'copied and changed', ladders: own },
    {
      name: 'Ladders of a problem',
      says: 'each stands on its foundations',
      ladders: all.filter((l) => l.kind === 'problem').map(row),
    },
    { name: 'Foundations', says: 'taught first', ladders: all.filter((l) => l.kind === 'foundation').map(row) },
  ].filter((g) => g.ladders.length > 0)
})
const leaves = computed(() => [
  { key: 'schools', name: 'the schools' },
  { key: 'disagree', name: 'where practitioners disagree' },
  ...(data.value?.lead ? [{ key: 'file', name: "take in a ladder's file" }] : []),
])
const links = computed(() => [
  ...(data.value?.cards ?? []).map((c) => ({ to: `/cards/${c.key}`, name: c.name })),
  { to: '/methods/handbook/README', name: 'How it judges: the handbook' },
])
</script>

<template>
  <div class="page">
    <header class="page-head">
      <h1>Methods</h1>
      <p v-if="data" class="facts">
        {{ inWords(data.ladders.length, true) }} ladders: foundations, taught away from the problem place on both sides, and those
        of a problem, which stand on them.
      </p>
      <FieldRow v-slot="f" class="acts search" label="Look for a step">
        <ElInput :id="f.id" v-model="looked" clearable placeholder="rope, ears, stands, flag" />
      </FieldRow>
    </header>
    <PageState :trouble="trouble" :ready="data !== undefined" @again="load">
      <div v-if="data" class="leafpage">
        <section v-if="looked.trim()" class="stack leaf" aria-live="polite">
          <h2>{{ found.length ? count(found.length, 'step', 'steps') : 'No step speaks of that' }}</h2>
          <p v-if="!found.length" class="quiet">Try one word of it: a part of the horse, a tool, what it does.</p>
          <ul>
            <li v-for="f in found.slice(0, 60)" :key="f.step.key" class="found">
              <RouterLink :to="`/methods/${f.ladder.key}/${f.step.key}`" class="strong raised"
                >{{ f.ladder.name }}: {{ f.step.name }}</RouterLink
              >
              <span>{{ f.step.ask }}</span>
            </li>
          </ul>
        </section>
        <template v-else-if="!open">
          <section v-for="g in groups" :key="g.name" class="kin group">
            <header>
              <h2>{{ g.name }}</h2>
              <p class="small quiet">{{ g.says }}</p>
            </header>
            <ul>
              <LadderRow v-for="l in g.ladders" :key="l.to" v-bind="l" />
            </ul>
          </section>
        </template>
        <SchoolTable v-else-if="open === 'schools'" :schools="data.schools" />
        <section v-else-if="open === 'file'" class="stack leaf">
          <h2>A ladder's file</h2>
          <p>
            A ladder that a colleague changed, or one that you took out of here. To take one out, open it and choose
            <b>change it</b>.
          </p>
          <LadderFile @taken="load" />
        </section>
        <section v-else class="stack leaf">
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
        <OneTap :leaves="leaves" front="the ladders" :links="links" />
      </div>
    </PageState>
  </div>
</template>

<style scoped>
.search {
  width: min(300px, 100%);
}
.page-head {
  margin-bottom: 0;
}
.leaf {
  padding: var(--gap-3) 0;
}
.found {
  padding: 5px 0;
  border-bottom: var(--line);
}
.raised {
  display: inline-block;
  margin-right: var(--gap-2);
}
.raised::first-letter {
  text-transform: uppercase;
}
.group {
  --kin: 128px;
  border-bottom: var(--rule);
}
.group ul {
  display: grid;
  grid-template-columns: repeat(2, minmax(0, 1fr));
  gap: 0 24px;
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
@media (max-width: 1000px) {
  .group,
  .group ul {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
