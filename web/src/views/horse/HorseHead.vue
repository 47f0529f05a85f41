<script setup lang="ts">
// The heading of a horse's pages, on one line: its name, its facts, the care it
// asks for, and the way into the arena; its pages as tabs on the sheet's edge.
import { computed } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { isHelper } from '../../api/me'
import type { Schemas } from '../../api/types'
import { useKeys } from '../../keys/keys'
import { height } from '../../lengths'
import { shortDate } from '../../words'
import CareGrade from './CareGrade.vue'
import { dial } from '../../parts/dial'

const { file } = defineProps<{ file: Schemas['File'] }>()
const route = useRoute()
const router = useRouter()

const all = computed(() => [
  { to: `/horses/${file.id}`, name: 'Bridge' },
  { to: `/horses/${file.id}/assessment`, name: 'Assessment' },
  { to: `/horses/${file.id}/plan`, name: 'Plan' },
  { to: `/horses/${file.id}/progress`, name: 'Progress' },
  { to: `/horses/${file.id}/sessions`, name: file.sessions ? `Sessions ${file.sessions}` : 'Sessions' },
  { to: `/horses/${file.id}/reports`, name: 'Reports' },
  { to: `/horses/${file.id}/clips`, name: 'Clips' },
  { to: `/horses/${file.id}/record`, name: 'Record' },
])

/** A helper sees what logging takes. */
const tabs = computed(() => (isHelper.value ? all.value.slice(0, 1) : all.value))

const facts = computed(() => {
  const r = file.record
  const age = r.born ? `born ${r.born.slice(0, 4)}` : ''
  const tall = r.height_mm ? height.said(r.height_mm) : ''
  const owners = file.owners.map((o) => o.name).join(', ')
  return [
    [[r.sex, age, tall, r.breed].filter(Boolean).join(', '), file.yard].filter(Boolean).join(' · '),
    [
      owners && `owner ${owners}`,
      file.bridge.name,
      r.living,
      file.case.finished_on && `finished ${shortDate(file.case.finished_on)}`,
    ]
      .filter(Boolean)
      .join(' · '),
  ].filter(Boolean)
})
const into = computed(() => {
  if (file.open_session) return { to: `/arena/${file.open_session}`, name: 'Back into the arena' }
  return file.case.finished_on ? undefined : { to: `/arena/ready/${file.case.id}`, name: 'Into the arena' }
})
const owner = computed(() => file.owners.find((o) => o.phone))

function turn(by: number) {
  const at = tabs.value.findIndex((t) => t.to === route.path)
  const next = tabs.value[(at + by + tabs.value.length) % tabs.value.length]
  if (next) void router.push(next.to)
}
useKeys([
  { press: '[', does: "the horse's page before", run: () => turn(-1) },
  { press: ']', does: "the horse's next page", run: () => turn(1) },
])
</script>

<template>
  <header class="head">
    <h1 :class="{ 'long clamp': file.name.length > 22 }">{{ file.name }}</h1>
    <div class="facts">
      <p v-for="f in facts" :key="f" :title="f">{{ f }}</p>
    </div>
    <div class="right">
      <CareGrade :risk="file.risk" :precautions="file.precautions" />
      <RouterLink v-if="into" :to="into.to" class="button into">{{ into.name }}</RouterLink>
    </div>
  </header>
  <nav class="pages no-print" aria-label="The horse's file">
    <RouterLink v-for="t in tabs" :key="t.to" :to="t.to" class="tab" exact-active-class="here">{{ t.name }}</RouterLink>
  </nav>
  <div class="thumb no-print">
    <RouterLink v-if="into" :to="into.to" class="button">{{ into.name }}</RouterLink>
    <a v-if="owner" :href="dial(owner.phone)" class="button plain">Ring {{ owner.name.split(' ')[0] }}</a>
  </div>
</template>

<style scoped>
.head {
  display: flex;
  align-items: flex-end;
  gap: 18px;
  min-height: 68px;
  padding-top: 16px;
}
h1 {
  font-size: var(--name);
  line-height: 1;
  letter-spacing: -0.01em;
}
h1.long {
  font-size: var(--step-3);
  line-height: 1.1;
}
.facts {
  flex: 1 1 0;
  min-width: 0;
  font-size: 0.875rem;
  line-height: 1.35;
  color: var(--ink-2);
}
.facts p {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.right {
  display: flex;
  align-items: flex-end;
  gap: 18px;
  flex: none;
}
.into {
  min-height: 44px;
  padding: 0 18px;
  font-size: 1rem;
  font-weight: 700;
}
.pages {
  display: flex;
  margin: 12px calc(-1 * var(--side)) 0;
  padding: 0 var(--side);
  border-bottom: var(--rule);
  min-height: 33px;
}
.tab {
  padding: 5px 14px;
  color: var(--ink-2);
  text-decoration: none;
  line-height: 22px;
}
.tab:first-child:not(.here) {
  padding-left: 0;
}
.tab.here {
  margin-bottom: -1.5px;
  color: var(--ink-1);
  font-weight: 700;
  background: var(--ivory-0);
  border: var(--rule);
  border-bottom: 0;
  border-radius: 4px 4px 0 0;
}
.thumb {
  display: none;
}
@media (max-width: 1100px) {
  .tab {
    padding-block: 10px;
  }
}
@media (max-width: 900px) {
  .head {
    flex-wrap: wrap;
    gap: 4px 14px;
  }
  .facts {
    order: 3;
    flex-basis: 100%;
  }
  .right {
    margin-left: auto;
  }
}
@media screen and (max-width: 720px) {
  .head {
    min-height: 0;
    padding: 8px 0 0;
  }
  h1 {
    flex: 1 1 0;
    font-size: var(--step-3);
  }
  .facts {
    white-space: nowrap;
  }
  .facts p + p,
  .into {
    display: none;
  }
  .right :deep(.small) {
    font-size: var(--step-0);
  }
  .pages {
    margin-top: 2px;
    overflow-x: auto;
    scrollbar-width: none;
  }
  .tab {
    flex: none;
    min-height: var(--hand);
    padding-inline: 12px;
  }
  .thumb {
    position: sticky;
    bottom: var(--tabs-tall, 58px);
    z-index: 2;
    order: 9;
    display: flex;
    gap: 12px;
    margin: var(--gap-3) calc(-1 * var(--side)) 0;
    padding: 8px var(--side);
    background: var(--ivory-0);
  }
  .thumb .button {
    min-height: 56px;
    font-size: 1.0625rem;
    font-weight: 700;
    background: var(--arena-ink);
    border-color: var(--arena-ink);
  }
  .thumb .button:first-child {
    flex: 1;
  }
  .thumb .button.plain {
    background: var(--ivory-0);
  }
}
@media print {
  .into {
    display: none;
  }
}
</style>
