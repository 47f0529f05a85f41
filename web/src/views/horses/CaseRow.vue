<script setup lang="ts">
// A horse in the caseload: who, what for, its bridge, when it was worked, its date;
// in the margin a note only where something is needed.
import { computed } from 'vue'
import type { Schemas } from '../../api/types'
import { answered } from '../../cases/answered'
import BridgeStrip from '../../parts/BridgeStrip.vue'
import SignMark from '../../parts/SignMark.vue'
import { lastWorked, shortDate } from '../../words'
import DateRope from './DateRope.vue'

const { row, today } = defineProps<{ row: Schemas['Row']; today: string }>()

const note = computed(() => row.attention[0])
const whose = computed(() => [row.owners.join(', '), row.yard].filter(Boolean).join(', '))
const grave = computed(() => row.care !== 'ordinary care')

const to = computed(() => (note.value ? answered(note.value, row) : ''))
</script>

<template>
  <li class="case">
    <div class="who">
      <RouterLink :to="`/horses/${row.id}`" class="name clamp" :title="row.name">{{ row.name }}</RouterLink>
      <p class="small quiet cut" :title="whose">{{ whose }}</p>
    </div>
    <div class="problem">
      <p class="clamp" :title="row.problem.text">{{ row.problem.text }}</p>
      <p v-if="grave" class="small strong">{{ row.care }}</p>
    </div>
    <div class="bridges">
      <template v-if="!row.unread">
        <BridgeStrip :bridge="row.bridge" />
        <BridgeStrip v-for="b in row.others" :key="b.ladder" :bridge="b" />
      </template>
    </div>
    <p class="worked">
      <template v-if="row.case.finished_on">{{ shortDate(row.case.finished_on) }}</template>
      <template v-else-if="!row.unread">{{ lastWorked(row.days_off) }}</template>
    </p>
    <DateRope :today="today" :by="row.case.finished_on ? '' : row.case.needed_by" class="date" />
    <div class="margin">
      <p v-if="note" class="note">
        <SignMark :sign="note.sign" />
        <span class="clamp said"
          ><RouterLink :to="to" class="does">{{ note.does.text }}</RouterLink
          >. {{ note.say.text }}
          <RouterLink v-if="row.attention.length > 1" :to="`/horses/${row.id}`" class="small behind"
            >{{ row.attention.length - 1 }} more</RouterLink
          ></span
        >
      </p>
      <p v-else-if="row.aside" class="quiet aside">{{ row.aside.text }}</p>
      <p v-if="row.home && !note" class="small home">
        <RouterLink :to="`/horses/${row.id}/plan?see=clearance`">{{ row.home.text }}</RouterLink>
      </p>
    </div>
  </li>
</template>

<style scoped>
.case {
  display: grid;
  grid-template-columns: var(--case-columns);
  align-items: center;
  min-height: 52px;
  border-top: var(--line);
}
.case:first-child {
  border-top: 0;
}
.home a {
  color: var(--ink-2);
}
.who {
  min-width: 0;
  padding-right: var(--gap-2);
}
.name {
  font: 700 1.0313rem/1.2 var(--font-head);
  color: var(--ink-1);
  text-decoration: none;
  overflow-wrap: anywhere;
  unicode-bidi: plaintext;
}
.name:hover {
  text-decoration: underline;
}
.cut {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.problem {
  line-height: 1.2;
  padding-right: var(--gap-2);
}
.bridges {
  display: grid;
  padding-right: var(--gap-2);
}
.bridges :deep(svg + svg) {
  margin-top: -4px;
}
.worked {
  line-height: 1.25;
}
.margin {
  align-self: stretch;
  display: grid;
  align-content: center;
  padding: 4px 0 4px 12px;
  border-left: 1.5px solid var(--margin-rule);
  font-size: 0.9063rem;
  line-height: 1.25;
}
.note {
  display: grid;
  grid-template-columns: 20px minmax(0, 1fr);
  gap: var(--gap-2);
}
.said {
  --lines: 3;
}
.does {
  font-weight: 700;
  color: var(--ink-1);
}
.aside {
  padding-left: 28px;
}
@media (max-width: 1180px) {
  .date {
    display: none;
  }
}
@media (max-width: 900px) {
  .worked,
  .problem {
    display: none;
  }
}
@media screen and (max-width: 720px) {
  .case {
    grid-template-columns: minmax(0, 1fr) auto;
    padding: 10px 0;
    min-height: 64px;
  }
  .worked {
    display: block;
    align-self: start;
    color: var(--ink-2);
  }
  .who .small {
    display: none;
  }
  .name {
    font-size: 1.1875rem;
  }
  .bridges {
    display: none;
  }
  .margin {
    grid-column: 1 / -1;
    padding: 2px 0 0;
    border: 0;
    font-size: 1rem;
  }
  .aside {
    padding: 0;
  }
}
</style>
