<script setup lang="ts">
// Who changed and who opened what, the newest first.
import { ref } from 'vue'
import { api, told } from '../../api/client'
import { useLoad } from '../../api/use'
import PageState from '../../parts/PageState.vue'
import { instant } from '../../words'

const { data, trouble, load } = useLoad(() => told(api.GET('/api/record')))
const all = ref(false)
const first = 8
</script>

<template>
  <section class="sheet stack">
    <h2>Who changed and opened what</h2>
    <PageState :trouble="trouble" :ready="data !== undefined" @again="load">
      <ul>
        <li v-for="(r, i) in all ? data : data?.slice(0, first)" :key="i" class="line">
          <span class="quiet">{{ instant(r.at) }}</span> <b>{{ r.name || 'the product' }}</b>: {{ r.what
          }}<template v-if="r.horse">, {{ r.horse }}</template>
        </li>
      </ul>
      <ElButton v-if="(data?.length ?? 0) > first" link @click="all = !all">{{ all ? 'Show fewer' : 'Show more' }}</ElButton>
    </PageState>
  </section>
</template>

<style scoped>
.line {
  border-top: var(--line);
  padding: var(--gap-1) 0;
}
</style>
