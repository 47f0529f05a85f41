<script setup lang="ts">
import { computed, reactive, ref, shallowRef } from 'vue'
import { useRouter } from 'vue-router'
import { api, told } from '../../api/client'
import type { Schemas } from '../../api/types'
import { useLoad, useSend } from '../../api/use'
import ChipRow from '../../parts/ChipRow.vue'
import FieldRow from '../../parts/FieldRow.vue'
import PageState from '../../parts/PageState.vue'
import WrongNote from '../../parts/WrongNote.vue'
import RecordFields from '../../cases/RecordFields.vue'

const router = useRouter()
const { data, trouble, load } = useLoad(async () => {
  const [people, yards, problems] = await Promise.all([
    told(api.GET('/api/people')),
    told(api.GET('/api/yards')),
    told(api.GET('/api/problems')),
  ])
  return { owners: people.filter((p) => ['owner', 'yard', 'rescue'].includes(p.kind)), yards, problems }
})
const saving = useSend()

const form = reactive({
  name: '',
  goal: '',
  needed: '',
  problem: '' as Schemas['ProblemChoice']['problem'],
  ownerId: '',
  yardId: '',
  owner: { kind: 'owner' as Schemas['PersonText']['kind'], name: '', phone: '', email: '' },
  yard: { name: '', address: '', phone: '' },
})
const record = shallowRef<Schemas['AssessRecord']>({})
const newOwner = ref(false)
const newYard = ref(false)

const ownerIsNew = computed(() => newOwner.value || data.value?.owners.length === 0)
const yardIsNew = computed(() => newYard.value || data.value?.yards.length === 0)
const wrong = (field: string) => saving.trouble.value?.fields[field]
const shown = [
  'name',
  'goal',
  'needed_by',
  'problem',
  'owner_id',
  'owner.name',
  'owner.phone',
  'owner.email',
  'yard_id',
  'yard.name',
  'yard.address',
  'yard.phone',
  ...['sex', 'born', 'gelded', 'breed', 'height_mm', 'weight_g', 'rides', 'arrived', 'living'].map((f) => `record.${f}`),
]

async function takeOn() {
  const horse = await saving.send(() =>
    told(
      api.POST('/api/horses', {
        body: {
          name: form.name,
          goal: form.goal,
          needed_by: form.needed || undefined,
          problem: form.problem,
          record: record.value,
          owner_id: ownerIsNew.value ? undefined : form.ownerId,
          owner: ownerIsNew.value ? form.owner : undefined,
          yard_id: yardIsNew.value ? undefined : form.yardId || undefined,
          yard: yardIsNew.value && form.yard.name ? form.yard : undefined,
        },
      }),
    ),
  )
  if (horse) await router.push(`/horses/${horse.id}/assessment`)
}
</script>

<template>
  <div class="page">
    <header class="page-head"><h1>Take on a horse</h1></header>
    <PageState :trouble="trouble" :ready="data !== undefined" @again="load">
      <form class="stack form" novalidate @submit.prevent="takeOn">
        <section class="sheet stack">
          <h2>The horse and what is asked of it</h2>
          <FieldRow v-slot="f" label="Name of the horse" :wrong="wrong('name')">
            <ElInput :id="f.id" v-model="form.name" maxlength="200" :aria-describedby="f.describedby" />
          </FieldRow>
          <FieldRow label="Problem" :wrong="wrong('problem')">
            <ChipRow
              label="Problem"
              :choices="(data?.problems ?? []).map((p) => ({ value: p.problem, text: p.name.text }))"
              :chosen="[form.problem]"
              @toggle="form.problem = form.problem === $event ? '' : ($event as typeof form.problem)"
            />
          </FieldRow>
          <FieldRow v-slot="f" label="How will we know it's fixed?" :wrong="wrong('goal')">
            <ElInput :id="f.id" v-model="form.goal" maxlength="400" :aria-describedby="f.describedby" />
          </FieldRow>
          <FieldRow v-slot="f" label="Needed by" hint="Leave it empty if there is no date" :wrong="wrong('needed_by')">
            <ElInput :id="f.id" v-model="form.needed" type="date" class="date" :aria-describedby="f.describedby" />
          </FieldRow>
        </section>

        <section class="sheet stack">
          <h2>The owner</h2>
          <div v-if="data?.owners.length" class="row">
            <ElCheckbox v-model="newOwner">A new owner</ElCheckbox>
          </div>
          <FieldRow v-if="!ownerIsNew" v-slot="f" label="Owner" :wrong="wrong('owner_id')">
            <ElSelect :id="f.id" v-model="form.ownerId" filterable placeholder="Choose, or type part of the name">
              <ElOption v-for="p in data?.owners" :key="p.id" :value="p.id" :label="p.name" />
            </ElSelect>
          </FieldRow>
          <div v-else class="grid">
            <FieldRow v-slot="f" label="Owner's name" :wrong="wrong('owner.name')">
              <ElInput :id="f.id" v-model="form.owner.name" :aria-describedby="f.describedby" />
            </FieldRow>
            <FieldRow v-slot="f" label="Phone" :wrong="wrong('owner.phone')">
              <ElInput :id="f.id" v-model="form.owner.phone" type="tel" :aria-describedby="f.describedby" />
            </FieldRow>
            <FieldRow v-slot="f" label="Email" :wrong="wrong('owner.email')">
              <ElInput :id="f.id" v-model="form.owner.email" :aria-describedby="f.describedby" />
            </FieldRow>
          </div>
        </section>

        <section class="sheet stack">
          <h2>Where it stands</h2>
          <div v-if="data?.yards.length" class="row"><ElCheckbox v-model="newYard">A new yard</ElCheckbox></div>
          <FieldRow v-if="!yardIsNew" v-slot="f" label="Yard" :wrong="wrong('yard_id')">
            <ElSelect :id="f.id" v-model="form.yardId" filterable clearable placeholder="Choose a yard">
              <ElOption v-for="y in data?.yards" :key="y.id" :value="y.id" :label="y.name" />
            </ElSelect>
          </FieldRow>
          <div v-else class="grid">
            <FieldRow v-slot="f" label="Yard's name" :wrong="wrong('yard.name')">
              <ElInput :id="f.id" v-model="form.yard.name" :aria-describedby="f.describedby" />
            </FieldRow>
            <FieldRow v-slot="f" label="Address, so that a vet finds it" :wrong="wrong('yard.address')">
              <ElInput :id="f.id" v-model="form.yard.address" :aria-describedby="f.describedby" />
            </FieldRow>
            <FieldRow v-slot="f" label="Phone of the yard" :wrong="wrong('yard.phone')">
              <ElInput :id="f.id" v-model="form.yard.phone" type="tel" :aria-describedby="f.describedby" />
            </FieldRow>
          </div>
        </section>

        <section class="sheet stack">
          <h2>The horse's record</h2>
          <p class="quiet">What is known now. The rest can be filled in later.</p>
          <RecordFields v-model="record" :wrong="(f) => wrong(`record.${f}`)" />
        </section>

        <WrongNote :trouble="saving.trouble.value" :shown="shown" />
        <div class="row">
          <ElButton type="primary" native-type="submit" :loading="saving.sending.value">Take it on</ElButton>
          <ElButton @click="router.back()">Leave it</ElButton>
        </div>
      </form>
    </PageState>
  </div>
</template>

<style scoped>
.form {
  max-width: 900px;
}
.date {
  max-width: 220px;
}
.grid {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(min(240px, 100%), 1fr));
  gap: var(--gap-3);
}
</style>
