<script setup lang="ts">
// The horse's first page: what is next, the bridge, what wants attention, and what
// has changed since the first day.
import { computed } from 'vue'
import BeadRope from '../../parts/BeadRope.vue'
import { byAsk } from '../../parts/beads'
import HeadLine from '../../parts/HeadLine.vue'
import BridgeDrawing from '../../parts/BridgeDrawing.vue'
import BridgeSources from '../../parts/BridgeSources.vue'
import BridgeKey from '../../parts/BridgeKey.vue'
import AttentionList from './AttentionList.vue'
import IncidentPart from './IncidentPart.vue'
import BridgeStrip from '../../parts/BridgeStrip.vue'
import { useLeaf } from '../../parts/leaf'
import OneTap from '../../parts/OneTap.vue'
import { count, longDate, secure, sideWord } from '../../words'
import { useHorseFile } from '../../cases/file'

const { file } = useHorseFile()
const { open } = useLeaf()

const lastAsks = computed(() => byAsk(file.value?.beads ?? []).reverse())
const blocked = computed(() => (file.value?.bridge.planks ?? []).filter((p) => p.blocked && !p.beyond))
const block = computed(() => blocked.value[0])
const leaves = computed(() => [
  ...(lastAsks.value.length ? [{ key: 'last', name: 'the last session' }] : []),
  { key: 'incidents', name: 'dangerous moments' },
  { key: 'unlooked', name: `not looked at, ${file.value?.unlooked.length || 'nothing'}` },
  { key: 'planks', name: 'what the planks mean' },
])
</script>

<template>
  <div v-if="file" class="leafpage">
    <template v-if="!open">
      <HeadLine :headline="file.headline">
        <RouterLink v-if="!file.assessed" :to="`/horses/${file.id}/assessment`">Begin the assessment</RouterLink>
        <RouterLink v-else-if="!file.planned" :to="`/horses/${file.id}/plan`">Make the plan</RouterLink>
        <RouterLink v-else :to="`/horses/${file.id}/plan`">The plan</RouterLink>
      </HeadLine>
      <BridgeDrawing :bridge="file.bridge" :before="file.assessed ? file.before : ''" :by="file.case.needed_by" />
      <div class="goal">
        <p><span class="quiet">The goal.</span> {{ file.case.goal }}</p>
        <p v-if="block?.blocked" class="strong">
          {{ count(blocked.length, 'step is', 'steps are') }} barred. {{ block.blocked.text }} {{ block.lifts?.text }}
        </p>
        <p v-for="b in file.others" :key="b.ladder" class="other">
          <b>{{ b.name }}</b> <BridgeStrip :bridge="b" /> <span class="quiet">{{ secure(b) }}</span>
        </p>
      </div>
      <div class="parts columns">
        <section aria-labelledby="attention">
          <h2 id="attention">Wants attention</h2>
          <AttentionList :file="file" />
        </section>
        <section aria-labelledby="since">
          <h2 id="since">Since the first day</h2>
          <p v-if="file.since.length === 0" class="quiet">Nothing to compare yet.</p>
          <dl class="since">
            <div v-for="s in file.since" :key="s.label.text">
              <dt>{{ s.label.text }}</dt>
              <dd>
                <template v-if="s.before.text === s.after.text"
                  >as on the first day: <b>{{ s.after.text }}</b></template
                >
                <template v-else
                  >{{ s.before.text }} → <b>{{ s.after.text }}</b></template
                >
              </dd>
            </div>
          </dl>
        </section>
        <section aria-labelledby="last">
          <h2 id="last">{{ file.last_worked ? `Last session, ${longDate(file.last_worked)}` : 'No session yet' }}</h2>
          <template v-for="a in lastAsks.slice(0, 1)" :key="a.key">
            <h3>{{ [a.name, sideWord(a.variant)].filter(Boolean).join(', ') }}</h3>
            <BeadRope :beads="a.beads" />
          </template>
        </section>
      </div>
    </template>
    <section v-else-if="open === 'last'" class="stack leaf">
      <h2>Last session, {{ longDate(file.last_worked ?? '') }}</h2>
      <p class="quiet">A bead for each rep; the height is the level it took.</p>
      <div v-for="a in lastAsks" :key="a.key">
        <h3>{{ [a.name, sideWord(a.variant)].filter(Boolean).join(', ') }}</h3>
        <BeadRope :beads="a.beads" />
      </div>
    </section>
    <section v-else-if="open === 'unlooked'" class="stack leaf">
      <h2>Not looked at</h2>
      <p v-if="file.unlooked.length === 0">Every part was looked at.</p>
      <ul class="plain-list">
        <li v-for="u in file.unlooked" :key="u.text">{{ u.text }}</li>
      </ul>
      <p v-if="file.unlooked.length" class="quiet">What was not looked at is not clear.</p>
    </section>
    <IncidentPart v-else-if="open === 'incidents'" :horse="file.id" />
    <section v-else class="stack leaf">
      <h2>What the planks mean</h2>
      <BridgeKey />
      <BridgeSources :sources="file.bridge.sources" />
    </section>
    <OneTap :leaves="leaves" front="the bridge" />
  </div>
</template>

<style scoped>
.goal {
  padding: 4px 0 8px;
  max-width: 110ch;
}
.other {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 0 var(--gap-2);
}
.columns {
  --beside: repeat(3, minmax(0, 1fr));
}
.columns section {
  display: grid;
  align-content: start;
  gap: var(--gap-2);
}
.since {
  margin: 0;
}
.since > div {
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  gap: 0 var(--gap-2);
  padding: 3px 0;
  border-bottom: var(--line);
}
.since dt {
  color: var(--ink-2);
}
.since dd {
  margin: 0;
}
.leaf {
  padding-top: var(--gap-3);
}
</style>
