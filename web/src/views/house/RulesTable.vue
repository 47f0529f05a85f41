<script setup lang="ts">
// The numbers of the house rules: what ships, what holds here, why, and where it is explained.
import type { Schemas } from '../../api/types'
import { without } from './without'

type House = Schemas['CatalogHouse']

const { house, doc, lead, wrong } = defineProps<{
  house: Schemas['HouseRules']
  doc: House
  lead: boolean
  wrong: Record<string, string>
}>()
const emit = defineEmits<{ change: [doc: House] }>()

const parts: Record<number, string> = { 3: '3-assessment', 6: '6-session-rules', 9: '9-safety' }
const now = (r: Schemas['HouseRule']) => doc.rules?.[r.key] ?? r.shipped

function put(r: Schemas['HouseRule'], text: string) {
  const n = Number(text)
  const rules = text === '' || n === r.shipped ? without(doc.rules, r.key) : { ...doc.rules, [r.key]: Math.round(n) }
  emit('change', { ...doc, rules })
}
function swap(to: string) {
  emit('change', { ...doc, swap_sides: to === house.swap.shipped ? undefined : (to as House['swap_sides']) })
}
function share(key: 'likely' | 'possible', text: string) {
  const n = Number(text) / 100
  emit('change', { ...doc, [key]: text === '' || Math.abs(n - house[key].shipped) < 1e-9 ? undefined : n })
}
const percent = (n: number) => Math.round(n * 100)
</script>

<template>
  <div class="wide">
    <table class="rules">
      <thead>
        <tr>
          <th>Rule</th>
          <th>Ships</th>
          <th>Here</th>
          <th>What it does</th>
          <th>Handbook</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="r in house.rules" :key="r.key" :class="{ own: now(r) !== r.shipped }">
          <th scope="row">{{ r.name }}</th>
          <td class="number">{{ r.shipped }} {{ r.unit }}</td>
          <td>
            <template v-if="lead">
              <input
                type="number"
                class="plain-field small-field"
                :aria-label="`${r.name}, ${r.unit}`"
                :min="r.min"
                :max="r.max"
                :value="now(r)"
                :aria-invalid="wrong[`rules.${r.key}`] ? true : undefined"
                @change="put(r, ($event.target as HTMLInputElement).value)"
              />
              <button v-if="now(r) !== r.shipped" type="button" class="as-link" @click="put(r, '')">
                put back<span class="visually-hidden"> {{ r.name }}</span>
              </button>
              <p v-if="wrong[`rules.${r.key}`]" class="short" role="alert">{{ wrong[`rules.${r.key}`] }}</p>
            </template>
            <template v-else>{{ now(r) }} {{ r.unit }}</template>
          </td>
          <td>{{ r.why }}</td>
          <td>
            <RouterLink :to="`/methods/handbook/${parts[r.part]}`">part {{ r.part }}</RouterLink>
          </td>
        </tr>
        <tr :class="{ own: doc.swap_sides }">
          <th scope="row">swap sides</th>
          <td>{{ house.swap.shipped }}</td>
          <td>
            <select
              v-if="lead"
              class="plain-field"
              aria-label="swap sides"
              :value="doc.swap_sides ?? house.swap.shipped"
              @change="swap(($event.target as HTMLSelectElement).value)"
            >
              <option v-for="c in house.swap.choices" :key="c">{{ c }}</option>
            </select>
            <template v-else>{{ house.swap.now }}</template>
          </td>
          <td>When work goes over to the other side.</td>
          <td><RouterLink to="/methods/handbook/6-session-rules">part 6</RouterLink></td>
        </tr>
        <tr v-for="key in ['likely', 'possible'] as const" :key="key" :class="{ own: doc[key] !== undefined }">
          <th scope="row">{{ key }}</th>
          <td class="number">{{ percent(house[key].shipped) }} %</td>
          <td>
            <input
              v-if="lead"
              type="number"
              class="plain-field small-field"
              :aria-label="`${key}, percent`"
              min="1"
              max="99"
              :value="percent(doc[key] ?? house[key].shipped)"
              @change="share(key, ($event.target as HTMLInputElement).value)"
            />
            <template v-else>{{ percent(house[key].now) }} %</template>
            <p v-if="key === 'likely' && wrong['likely']" class="short" role="alert">{{ wrong['likely'] }}</p>
          </td>
          <td>From here a cause is called {{ key }}.</td>
          <td><RouterLink to="/methods/handbook/3-assessment">part 3</RouterLink></td>
        </tr>
      </tbody>
    </table>
    <p class="quiet small">
      What keeps horse and person safe is not among them: precautions, stop rules, who does not get on (<RouterLink
        to="/methods/handbook/9-safety"
        >part 9</RouterLink
      >).
    </p>
  </div>
</template>

<style scoped>
.wide {
  overflow-x: auto;
}
.rules {
  border-collapse: collapse;
  width: 100%;
}
.rules th,
.rules td {
  text-align: left;
  vertical-align: top;
  padding: var(--gap-2) var(--gap-3) var(--gap-2) 0;
  border-bottom: var(--line);
}
.own th {
  font-weight: 700;
}
.own td:nth-child(3) {
  border-left: 3px solid var(--ink-1);
  padding-left: var(--gap-2);
}
.small-field {
  width: 10ch;
}
@media (max-width: 720px) {
  .rules thead {
    display: none;
  }
  .rules tr {
    display: grid;
    grid-template-columns: 1fr auto;
    gap: 0 var(--gap-3);
    padding: var(--gap-2) 0;
    border-bottom: var(--line);
  }
  .rules th,
  .rules td {
    border: 0;
    padding: 0;
  }
  .rules td:nth-child(2)::before {
    content: 'ships ';
  }
  .rules td:nth-child(3) {
    grid-column: 1 / -1;
  }
}
</style>
