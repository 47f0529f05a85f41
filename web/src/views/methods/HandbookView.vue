<script setup lang="ts">
// A part of the handbook: how the product judges, as the rules have it. Or a page of the guide.
import { computed, watch } from 'vue'
import { useRouter } from 'vue-router'
import { api, told } from '../../api/client'
import { useLoad } from '../../api/use'
import PageState from '../../parts/PageState.vue'

const { part, guide = false } = defineProps<{ part: string; guide?: boolean }>()
const router = useRouter()
const { data, trouble, load } = useLoad(() =>
  told(
    guide
      ? api.GET('/api/guide/{part}', { params: { path: { part } } })
      : api.GET('/api/handbook/{part}', { params: { path: { part } } }),
  ),
)
const at = computed(() => (guide ? '/guide/' : '/methods/handbook/'))
watch(
  () => part,
  () => void load(),
)

/** A link to another part stays in the product. */
function follow(event: MouseEvent) {
  const link = (event.target as Element).closest('a')?.getAttribute('href')
  if (!link?.startsWith(at.value)) return
  event.preventDefault()
  void router.push(link)
}
</script>

<template>
  <div class="page">
    <header class="page-head">
      <p v-if="guide">How do I …</p>
      <p v-else><RouterLink to="/methods">Methods</RouterLink> · How it judges</p>
    </header>
    <PageState :trouble="trouble" :ready="data !== undefined" @again="load">
      <div v-if="data" class="beside">
        <nav :aria-label="guide ? 'Pages of the guide' : 'Parts of the handbook'">
          <ul class="plain-list small">
            <li v-for="p in data.parts" :key="p.key">
              <RouterLink :to="at + p.key">{{ p.title }}</RouterLink>
            </li>
          </ul>
        </nav>
        <!-- eslint-disable-next-line vue/no-v-html -- the handbook comes with the product; nobody else writes in it -->
        <article class="sheet text" @click="follow" v-html="data.html"></article>
      </div>
    </PageState>
  </div>
</template>

<style scoped>
.beside {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 4fr);
  gap: var(--gap-4);
  align-items: start;
}
nav a {
  display: inline-block;
  min-height: 24px;
}
nav [aria-current='page'] {
  font-weight: 700;
}
.text {
  overflow-x: auto;
  overflow-wrap: anywhere;
}
.text :deep(h1),
.text :deep(h2) {
  margin: var(--gap-3) 0 var(--gap-2);
}
.text :deep(p),
.text :deep(ul),
.text :deep(ol) {
  margin: 0 0 var(--gap-2);
  max-width: 80ch;
}
.text :deep(img) {
  width: min(100%, 640px);
  border: var(--line);
}
.text :deep(table) {
  border-collapse: collapse;
  margin: 0 0 var(--gap-3);
}
.text :deep(th),
.text :deep(td) {
  border: 1px solid var(--ivory-2);
  padding: var(--gap-1) var(--gap-2);
  text-align: left;
  vertical-align: top;
  overflow-wrap: normal;
}
.text :deep(th) {
  background: var(--ivory-2);
}
@media screen and (max-width: 720px) {
  .beside {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
