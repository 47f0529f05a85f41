<script setup lang="ts">
// The copies of each night: the last in words, the others in a list.
import { computed } from 'vue'
import { api, told } from '../../api/client'
import type { Schemas } from '../../api/types'
import { useSend } from '../../api/use'
import WrongNote from '../../parts/WrongNote.vue'
import { count, instant, size } from '../../words'

const { copies, lead } = defineProps<{ copies: Schemas['HouseCopies']; lead: boolean }>()
const emit = defineEmits<{ changed: [copies: Schemas['HouseCopies']] }>()
const making = useSend()
const made = computed(() => copies.list.filter((c) => !c.failed))
const holds = (c: Schemas['HouseCopies']['list'][number]) => (copies.shared ? 'opened and counted' : counted(c))
const counted = (c: Schemas['HouseCopies']['list'][number]) =>
  `${size(c.bytes)}, opened and counted: ${count(c.horses, 'horse', 'horses')}, ${count(c.sessions, 'session', 'sessions')}, ${count(
    c.entries,
    'entry',
    'entries',
  )}, ${count(c.files, 'picture or film', 'pictures and films')}`

async function now() {
  const after = await making.send(() => told(api.POST('/api/house/copies')))
  if (after) emit('changed', after)
}
</script>

<template>
  <section class="stack copies">
    <h2>Copies</h2>
    <template v-if="copies.on">
      <p v-if="copies.wrong" class="strong wrong-line" role="alert">{{ copies.wrong }}</p>
      <p v-if="made[0]" class="large">
        The last copy is of <b>{{ instant(Date.parse(made[0].at)) }}</b>: {{ holds(made[0]) }}.
      </p>
      <p v-else>There is no copy yet. The first is made within the hour.</p>
      <p>
        One is made each night after {{ copies.hour }}:00. Kept are {{ count(copies.days, 'day', 'days') }},
        {{ count(copies.weeks, 'week', 'weeks') }} and {{ count(copies.months, 'month', 'months') }}.
      </p>
      <div v-if="lead" class="row">
        <ElButton :loading="making.sending.value" @click="now">Make one now</ElButton>
      </div>
      <WrongNote :trouble="making.trouble.value" :shown="[]" />
      <ul>
        <li v-for="c in copies.list" :key="c.at" class="line">
          {{ instant(Date.parse(c.at)) }}: <template v-if="c.failed"><b>failed</b>, {{ c.failed }}</template
          ><template v-else
            >{{ holds(c) }}<template v-if="c.missing">. {{ c.missing }} were missing</template></template
          >.
        </li>
      </ul>
      <p class="quiet small">
        To put one back, whoever keeps the server stops it and runs ivorybridge restore with the copy. What was there is kept
        beside.
      </p>
    </template>
    <p v-else class="strong">Copies are switched off on this server. What is lost then stays lost. Ask whoever keeps it.</p>
  </section>
</template>

<style scoped>
.copies {
  max-width: 90ch;
  padding: var(--gap-3) 0;
}
.large {
  font-size: var(--step-1);
}
.wrong-line {
  border-left: 3px solid var(--rust);
  padding-left: var(--gap-2);
}
.line {
  border-top: var(--line);
  padding: var(--gap-1) 0;
}
</style>
