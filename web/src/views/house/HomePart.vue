<script setup lang="ts">
// The practice itself: its name, the words it speaks in, and the zone in which its days are.
import { reactive, ref, watch } from 'vue'
import { api, told } from '../../api/client'
import { me } from '../../api/me'
import type { Schemas } from '../../api/types'
import { useLoad, useSend } from '../../api/use'
import FieldRow from '../../parts/FieldRow.vue'
import PageState from '../../parts/PageState.vue'
import StaleNote from '../../parts/StaleNote.vue'
import WrongNote from '../../parts/WrongNote.vue'
import { instant } from '../../words'

type Text = Schemas['HomeText']

const { lead } = defineProps<{ lead: boolean }>()
const { data, trouble, at, load } = useLoad(() => told(api.GET('/api/house/home')))
const saving = useSend()
const kept = ref(false)
const form = reactive<Text>({ name: '', vehicle: 'trailer', sides: 'near and off', units: 'metres', zone: '' })
const was = ref<Text>()
/** As the browser knows them, where it tells. */
const zones = Intl.supportedValuesOf?.('timeZone') ?? []

const textOf = ({ name, vehicle, sides, units, zone }: Text): Text => ({ name, vehicle, sides, units, zone })
watch(data, (d) => {
  if (!d) return
  Object.assign(form, textOf(d))
  was.value = textOf(d)
})

const newer = () => (saving.trouble.value?.status === 409 ? (saving.trouble.value.current as Text) : undefined)
const rows = { name: 'Name', vehicle: 'What a horse travels in', sides: 'Sides', units: 'Lengths', zone: 'Time zone' } as const
const differences = (theirs: Text) =>
  (Object.keys(rows) as (keyof typeof rows)[])
    .filter((key) => form[key] !== theirs[key])
    .map((key) => ({ name: rows[key], mine: form[key], theirs: theirs[key] }))

async function save() {
  if (!was.value) return
  kept.value = false
  const body = { ...textOf(form), was: was.value }
  const now = await saving.send(() => told(api.PUT('/api/house/home', { body })))
  if (!now) return
  data.value = now
  kept.value = true
  const who = me.value
  if (who)
    me.value = {
      ...who,
      practice_name: now.name,
      zone: now.zone,
      words: { vehicle: now.vehicle, sides: now.sides, units: now.units },
    }
}
function mine() {
  was.value = newer()
  void save()
}
function theirs() {
  const now = newer()
  if (now) Object.assign(form, now)
  was.value = now
  saving.trouble.value = undefined
}
</script>

<template>
  <PageState :trouble="trouble" :ready="data !== undefined" :at="at" @again="load">
    <form v-if="data" class="stack home" @submit.prevent="save">
      <StaleNote v-if="newer()" :differences="differences(newer()!)" @mine="mine" @theirs="theirs" />
      <fieldset class="plain-set stack" :disabled="!lead">
        <FieldRow v-slot="f" label="Name of the practice" :wrong="saving.trouble.value?.fields.name">
          <ElInput :id="f.id" v-model="form.name" maxlength="120" :aria-describedby="f.describedby" />
        </FieldRow>
        <FieldRow v-slot="f" label="What a horse travels in" :hint="`ships as ${data.shipped.vehicle}`">
          <select :id="f.id" v-model="form.vehicle" class="plain-field" :aria-describedby="f.describedby">
            <option>trailer</option>
            <option>float</option>
            <option>box</option>
          </select>
        </FieldRow>
        <FieldRow v-slot="f" label="A horse's sides are called" :hint="`ships as ${data.shipped.sides}`">
          <select :id="f.id" v-model="form.sides" class="plain-field" :aria-describedby="f.describedby">
            <option>near and off</option>
            <option>left and right</option>
          </select>
        </FieldRow>
        <FieldRow
          v-slot="f"
          label="Lengths are said in"
          :hint="`ships as ${data.shipped.units}; with feet go hands for a height and inches for a width`"
        >
          <select :id="f.id" v-model="form.units" class="plain-field" :aria-describedby="f.describedby">
            <option>metres</option>
            <option>feet</option>
          </select>
        </FieldRow>
        <FieldRow
          v-slot="f"
          label="Time zone"
          hint="of the days here; a yard may have one of its own"
          :wrong="saving.trouble.value?.fields.zone"
        >
          <input
            :id="f.id"
            v-model="form.zone"
            class="plain-field"
            list="zones"
            maxlength="60"
            autocomplete="off"
            :aria-describedby="f.describedby"
          />
          <datalist id="zones"><option v-for="z in zones" :key="z" :value="z" /></datalist>
        </FieldRow>
      </fieldset>
      <p class="small quiet">
        All is said in these words from then on, in what was written before too. A sentence of a report that somebody wrote stays
        as it was written.
      </p>
      <WrongNote v-if="!newer()" :trouble="saving.trouble.value" :shown="['name', 'zone']" />
      <div class="row">
        <ElButton v-if="lead" type="primary" native-type="submit" :loading="saving.sending.value">Keep it</ElButton>
        <p v-else class="quiet">A lead trainer changes these.</p>
        <p v-if="kept" role="status" class="strong">Kept.</p>
        <p class="quiet">{{ data.by ? `Changed by ${data.by}, ${instant(data.at ?? 0)}.` : 'As it was made.' }}</p>
      </div>
    </form>
  </PageState>
</template>

<style scoped>
.home {
  max-width: 60ch;
  padding: var(--gap-3) 0;
}
.plain-set {
  border: 0;
  margin: 0;
  padding: 0;
}
</style>
