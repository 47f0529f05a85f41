<script setup lang="ts">
// One ladder to read: the bridge with its piers, and each step with ask,
// release, mistakes, pass mark and what it needs. A step opens by its key.
import { computed, nextTick, ref, watch } from 'vue'
import { useRouter } from 'vue-router'
import { api, told } from '../../api/client'
import { useSend } from '../../api/use'
import BridgeDrawing from '../../parts/BridgeDrawing.vue'
import FieldRow from '../../parts/FieldRow.vue'
import { useLeaf } from '../../parts/leaf'
import OneTap from '../../parts/OneTap.vue'
import PageState from '../../parts/PageState.vue'
import WrongNote from '../../parts/WrongNote.vue'
import { bridgeOf, useHandbook } from './handbook'
import LadderFile from './LadderFile.vue'
import StepSheet from './StepSheet.vue'

const { ladder, step = '' } = defineProps<{ ladder: string; step?: string }>()
const { data, trouble, load } = useHandbook()
const router = useRouter()

const shown = computed(() => data.value?.ladders.find((l) => l.key === ladder))
const piers = computed(() => data.value?.piers[ladder] ?? [])
const cards = computed(() => (data.value?.cards ?? []).filter((c) => c.ladder === ladder))
const links = computed(() => [
  ...cards.value.map((c) => ({ to: `/cards/${c.key}`, name: 'The sequence card' })),
  { to: '/methods', name: 'all ladders' },
])
const { open } = useLeaf()
const copying = useSend()
const name = ref('')

watch(
  [() => step, shown],
  async ([key]) => {
    await nextTick()
    if (key) document.getElementById(key)?.scrollIntoView({ block: 'start' })
  },
  { immediate: true },
)

async function copy() {
  const own = await copying.send(() => told(api.POST('/api/ladders', { body: { version: 0, ladder, name: name.value } })))
  if (own) await router.push(`/methods/own/${own.id}`)
}
</script>

<template>
  <div class="page">
    <PageState :trouble="trouble" :ready="data !== undefined" @again="load">
      <section v-if="!shown" class="sheet stack">
        <h1>There is no such ladder</h1>
        <p><RouterLink to="/methods">All methods</RouterLink></p>
      </section>
      <template v-else>
        <header class="page-head">
          <h1 class="raised">{{ shown.name }}</h1>
          <div class="facts">
            <p><RouterLink to="/methods">Methods</RouterLink> · {{ shown.schools.join(', ') }}</p>
            <p>
              {{ shown.where }}<template v-if="shown.care">. Care: at least {{ shown.care }}</template>
            </p>
          </div>
        </header>
        <div class="leafpage">
          <template v-if="!open">
            <BridgeDrawing method :bridge="bridgeOf(shown, piers)" />
            <div class="facts-of">
              <p v-if="piers.length"><b>Stands on.</b> {{ piers.map((p) => p.says.text).join(' · ') }}.</p>
              <p v-if="shown.helper"><b>Not alone.</b> {{ shown.helper }}.</p>
              <p v-if="shown.watch"><b>Watch.</b> {{ shown.watch }}.</p>
            </div>
            <div class="steps">
              <StepSheet
                v-for="(s, i) in shown.steps"
                :key="s.key"
                :step="s"
                :number="i + 1"
                :needs="data?.needs[s.key] ?? []"
                :stands="data?.ladders.find((l) => l.key === s.link)?.name ?? ''"
                :opened="s.key === step"
              />
            </div>
          </template>
          <section v-else class="stack leaf">
            <h2>Change it</h2>
            <p>A copy keeps the keys, so progress carries over. Plans choose which one they use.</p>
            <form class="row naming" @submit.prevent="copy">
              <FieldRow v-slot="f" label="Name of your copy" :wrong="copying.trouble.value?.fields.name">
                <ElInput :id="f.id" v-model="name" maxlength="120" :aria-describedby="f.describedby" />
              </FieldRow>
              <ElButton type="primary" native-type="submit" :loading="copying.sending.value">Copy this ladder</ElButton>
            </form>
            <WrongNote :trouble="copying.trouble.value" :shown="['name']" />
            <h2>As a file</h2>
            <LadderFile :ladder="ladder" @taken="(own) => router.push(`/methods/own/${own.id}`)" />
          </section>
          <OneTap
            :leaves="data?.lead ? [{ key: 'change', name: 'change it: a copy of your own' }] : []"
            front="the ladder"
            :links="links"
          />
        </div>
      </template>
    </PageState>
  </div>
</template>

<style scoped>
.raised::first-letter {
  text-transform: uppercase;
}
.page-head {
  margin-bottom: 0;
}
.facts-of {
  padding: 6px 0;
  max-width: 110ch;
}
.steps {
  border-top: var(--rule);
}
.leaf {
  padding: var(--gap-3) 0;
}
.naming {
  align-items: end;
}
</style>
