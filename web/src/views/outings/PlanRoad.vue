<script setup lang="ts">
// An outing is laid out before the gate: the way out, the stops, how long each stands. It
// is reckoned on this device, so that it can be changed at the yard.
import { useDebounceFn } from '@vueuse/core'
import { computed, reactive, shallowRef, watch } from 'vue'
import { useRouter } from 'vue-router'
import { api, told } from '../../api/client'
import type { Schemas } from '../../api/types'
import { me } from '../../api/me'
import { useLoad } from '../../api/use'
import { outbox } from '../../offline/kept'
import FieldRow from '../../parts/FieldRow.vue'
import PageState from '../../parts/PageState.vue'
import RoadLine from '../../parts/RoadLine.vue'
import { theRules } from '../../rules/rules'
import { distance, fromUnit, toUnit, unit, units } from '../../lengths'
import { clock } from '../../words'

const { id } = defineProps<{ id: string }>()
const router = useRouter()
const rules = theRules()
const { data, trouble, at, load } = useLoad(async () => {
  const view = await told(api.GET('/api/horses/{id}/outings', { params: { path: { id } } }))
  const catalog = await told(api.GET('/api/catalog'))
  await rules.read(catalog.version, () => Promise.resolve(catalog.catalog))
  return view
})

const form = reactive({
  minutes: '',
  far: '',
  pace: '',
  moving: '',
  stand: '',
  how: 'backup' as 'backup' | 'plain' | 'given',
  plain: '',
  ridden: false,
})
const laid = shallowRef<Schemas['DeskLaid']>()
const number = (text: string) => (text.trim() === '' ? undefined : Number(text))
function metres(text: string, whole = (n: number) => n) {
  const n = number(text)
  return n === undefined ? undefined : whole(fromUnit(n))
}

// The next outing as it is proposed.
watch(data, (d) => {
  if (!d) return
  const text = (n?: number) => (n ? String(n) : '')
  const far = (metres?: number) => text(metres && Math.round(toUnit(metres)))
  const { minutes, metres, pace, stand } = d.road
  Object.assign(form, { minutes: text(minutes), far: far(metres), pace: far(pace), stand: text(stand) })
})

const road = computed<Schemas['TrackRoad']>(() => ({
  minutes: number(form.minutes),
  metres: metres(form.far, Math.round),
  pace: number(form.far) && number(form.minutes) ? undefined : metres(form.pace),
  moving: number(form.moving),
  stand: form.how === 'given' ? undefined : number(form.stand),
  plain: form.how === 'given' ? number(form.plain) : undefined,
  no_back: form.how === 'plain' || undefined,
  ridden: form.ridden || undefined,
}))
const before = computed(() => data.value?.list.length ?? 0)

const lay = useDebounceFn(async () => {
  if (!data.value || !me.value) return
  laid.value = await rules.ask('road', { road: road.value, before: before.value, words: me.value.words })
}, 100)
watch([road, data], () => void lay(), { immediate: true })

async function go() {
  const kase = data.value?.case
  if (!kase || !laid.value?.plan) return
  await outbox.value?.keep(`road ${kase}`, { road: road.value, before: before.value })
  await router.push(data.value?.open_session ? `/arena/${data.value.open_session}/walk` : `/arena/ready/${kase}?walk`)
}
</script>

<template>
  <div class="page">
    <PageState :trouble="trouble" :ready="data !== undefined" :at="at" @again="load">
      <template v-if="data">
        <header class="page-head">
          <h1>{{ data.horse.name }}: an outing</h1>
          <p class="facts">
            {{ data.why.text }}
          </p>
          <div class="acts"><RouterLink :to="`/outings/${id}`" class="button plain">The road so far</RouterLink></div>
        </header>
        <div class="columns">
          <form class="stack" novalidate @submit.prevent="go">
            <div class="fields">
              <FieldRow v-slot="f" label="Minutes out">
                <ElInput :id="f.id" v-model="form.minutes" type="number" min="0" step="0.5" />
              </FieldRow>
              <FieldRow v-slot="f" :label="`or ${units()} out`" hint="empty: from the minutes and the pace">
                <ElInput :id="f.id" v-model="form.far" type="number" min="0" step="10" />
              </FieldRow>
              <FieldRow v-slot="f" :label="`Pace, ${unit()} a minute`">
                <ElInput :id="f.id" v-model="form.pace" type="number" min="0" step="5" />
              </FieldRow>
              <FieldRow v-slot="f" label="Minutes of moving home" hint="empty: as the way out">
                <ElInput :id="f.id" v-model="form.moving" type="number" min="0" step="0.5" />
              </FieldRow>
            </div>
            <FieldRow v-slot="f" label="Stops">
              <select :id="f.id" v-model="form.how" class="plain-field">
                <option value="backup">as many as are needed, each third backs up</option>
                <option value="plain">as many as are needed, plain</option>
                <option value="given">so many plain stops</option>
              </select>
            </FieldRow>
            <FieldRow v-if="form.how === 'given'" v-slot="f" label="How many">
              <ElInput :id="f.id" v-model="form.plain" type="number" min="1" max="100" />
            </FieldRow>
            <FieldRow v-else v-slot="f" label="Seconds of a stand">
              <ElInput :id="f.id" v-model="form.stand" type="number" min="5" max="600" />
            </FieldRow>
            <ElCheckbox v-model="form.ridden">Ridden</ElCheckbox>
            <p v-if="form.ridden && !data.riding.may" class="strong">{{ data.riding.says.text }}</p>
            <p v-if="laid?.wrong" class="strong" role="alert">{{ laid.wrong }}</p>
            <div class="row">
              <ElButton type="primary" native-type="submit" :disabled="!laid?.plan">To the gate</ElButton>
            </div>
          </form>
          <section v-if="laid?.plan" class="stack" aria-live="polite">
            <p class="lead">
              {{ clock(laid.plan.owed) }} of standing, at {{ laid.plan.stops.length }}
              {{ laid.plan.stops.length === 1 ? 'stop' : 'stops' }}.
            </p>
            <RoadLine
              :stops="[]"
              :ahead="laid.plan.stops.map((s) => s.share)"
              label="The road with its stops, the yard at the left"
            />
            <p>
              <template v-if="laid.plan.every"
                >One every {{ distance(laid.plan.every) }}, the first at the turning point.
              </template>
              {{ laid.plan.stand }} s each<template v-if="laid.plan.stops.some((s) => s.back_up)"
                >; at each third stand, two steps back, straight, and stand again</template
              >. Home takes {{ clock(laid.plan.moving + laid.plan.owed) }} in all.
            </p>
            <p v-for="w in laid.plan.warns" :key="w.key" class="strong">{{ w.text }}</p>
            <p class="quiet">{{ laid.plan.safety.text }}</p>
          </section>
        </div>
      </template>
    </PageState>
  </div>
</template>

<style scoped>
.columns {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(min(340px, 100%), 1fr));
  gap: var(--gap-4);
}
.fields {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(140px, 1fr));
  gap: var(--gap-3);
}
</style>
