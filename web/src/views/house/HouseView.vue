<script setup lang="ts">
// House rules: what holds in this practice, and what goes out of it, comes in, and is copied.
import { api, told } from '../../api/client'
import { useLoad } from '../../api/use'
import PageState from '../../parts/PageState.vue'
import { useLeaf } from '../../parts/leaf'
import CopiesPart from './CopiesPart.vue'
import HomePart from './HomePart.vue'
import InPart from './InPart.vue'
import OutPart from './OutPart.vue'
import RulesPart from './RulesPart.vue'

const { data, trouble, at, load } = useLoad(() => told(api.GET('/api/house')))
const { open } = useLeaf()
const leaves = [
  { key: '', name: 'Rules' },
  { key: 'weights', name: 'What findings say' },
  { key: 'words', name: 'Words and zone' },
  { key: 'copies', name: 'Copies' },
  { key: 'out', name: 'Take out' },
  { key: 'in', name: 'Take in' },
]
</script>

<template>
  <div class="page">
    <header class="page-head">
      <h1>House rules</h1>
      <p class="facts">What holds in this practice, beside what ships. What goes out, comes in, and is copied.</p>
    </header>
    <nav class="row leaves no-print" aria-label="House rules">
      <RouterLink
        v-for="l in leaves"
        :key="l.key"
        :to="{ query: l.key ? { see: l.key } : {} }"
        class="leaf-link"
        :class="{ here: (open || '') === l.key }"
        :aria-current="(open || '') === l.key ? 'page' : undefined"
        >{{ l.name }}</RouterLink
      >
    </nav>
    <PageState :trouble="trouble" :ready="data !== undefined" :at="at" @again="load">
      <template v-if="data">
        <CopiesPart
          v-if="open === 'copies'"
          :copies="data.copies"
          :lead="data.lead"
          @changed="data = { ...data, copies: $event }"
        />
        <HomePart v-else-if="open === 'words'" :lead="data.lead" />
        <OutPart v-else-if="open === 'out'" :lead="data.lead" :horses="data.horses" />
        <InPart v-else-if="open === 'in'" :house="data" @changed="load" />
        <RulesPart v-else :weights="open === 'weights'" :lead="data.lead" />
      </template>
    </PageState>
  </div>
</template>

<style scoped>
.leaves {
  gap: var(--gap-4);
  padding: var(--gap-2) 0;
  border-bottom: var(--line);
}
.leaf-link {
  min-height: 24px;
}
.leaf-link.here {
  color: var(--ink-1);
  font-weight: 700;
  text-decoration: none;
}
</style>
