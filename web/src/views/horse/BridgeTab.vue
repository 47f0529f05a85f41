<script setup lang="ts">
import { computed } from 'vue'
import BeadRope from '../../parts/BeadRope.vue'
import { byAsk } from '../../parts/beads'
import BridgeDrawing from '../../parts/BridgeDrawing.vue'
import BridgeSources from '../../parts/BridgeSources.vue'
import BridgeKey from '../../parts/BridgeKey.vue'
import BridgeStrip from '../../parts/BridgeStrip.vue'
import MarginNote from '../../parts/MarginNote.vue'
import { count, longDate, secure, shortDate, sideWord } from '../../words'
import { useHorseFile } from '../../cases/file'

const { file } = useHorseFile()

const before = computed(() => {
  const f = file.value
  if (!f) return ''
  return f.assessed ? f.before : ''
})
const lastAsks = computed(() =>
  byAsk(file.value?.beads ?? [])
    .slice(-3)
    .reverse(),
)
const percent = computed(() => Math.round((file.value?.bridge.progress ?? 0) * 100))
const blocked = computed(() => (file.value?.bridge.planks ?? []).filter((p) => p.blocked))
const block = computed(() => blocked.value[0])
</script>

<template>
  <div v-if="file" class="columns">
    <div class="stack">
      <section class="sheet stack">
        <div class="row between">
          <h2>{{ file.bridge.name }}</h2>
          <p>
            <span class="percent">{{ percent }} % built</span><br />
            <span v-if="file.case.needed_by" class="quiet">needed by {{ shortDate(file.case.needed_by) }}</span>
          </p>
        </div>
        <BridgeDrawing :bridge="file.bridge" :before="before" :goal="file.case.goal" />
        <BridgeSources :sources="file.bridge.sources" />
        <p v-if="block?.blocked" class="strong">
          {{ count(blocked.length, 'step is', 'steps are') }} barred. {{ block.blocked.text }} {{ block.lifts?.text }}
        </p>
        <div v-for="b in file.others" :key="b.ladder" class="row">
          <b>{{ b.name }}</b>
          <BridgeStrip :bridge="b" />
          <span class="quiet">{{ secure(b) }}</span>
        </div>
        <BridgeKey />
      </section>
      <section v-if="lastAsks.length" class="sheet stack">
        <div class="row between">
          <h2>Last session, {{ longDate(file.last_worked ?? '') }}</h2>
          <p class="quiet small">a bead for each rep; the height is the level it took</p>
        </div>
        <div v-for="a in lastAsks" :key="a.key">
          <h3>{{ [a.name, sideWord(a.variant)].filter(Boolean).join(', ') }}</h3>
          <BeadRope :beads="a.beads" />
        </div>
      </section>
    </div>
    <aside class="stack">
      <section class="sheet stack">
        <h2>Wants attention</h2>
        <p v-if="file.attention.length === 0" class="quiet">Nothing just now.</p>
        <MarginNote v-for="n in file.attention" :key="n.say.key" :urgent="n.rank <= 2">{{ n.say.text }}</MarginNote>
        <p v-if="!file.assessed"><RouterLink :to="`/horses/${file.id}/assessment`">Begin the assessment</RouterLink></p>
        <p v-else-if="!file.planned"><RouterLink :to="`/horses/${file.id}/plan`">Make the plan</RouterLink></p>
      </section>
      <section v-if="file.since.length" class="sheet stack">
        <h2>Since the first day</h2>
        <dl class="since">
          <template v-for="s in file.since" :key="s.label.text">
            <dt>{{ s.label.text }}</dt>
            <dd>
              {{ s.before.text }} → <b>{{ s.after.text }}</b>
            </dd>
          </template>
        </dl>
      </section>
      <section v-if="file.unlooked.length" class="sheet stack">
        <h2>Not looked at</h2>
        <ul class="plain-list">
          <li v-for="u in file.unlooked" :key="u.text">{{ u.text }}</li>
        </ul>
        <p class="quiet small">What was not looked at is not clear.</p>
      </section>
    </aside>
  </div>
</template>

<style scoped>
.columns {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 300px;
  gap: var(--gap-3);
  align-items: start;
}
.percent {
  font: 700 var(--step-3) / 1 var(--font-head);
}
.since {
  margin: 0;
  display: grid;
  gap: var(--gap-2);
}
.since dt {
  color: var(--ink-2);
}
.since dd {
  margin: 0;
}
@media (max-width: 1000px) {
  .columns {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
