<script setup lang="ts">
// Who signed in, who did not, and what was refused: for lead trainers.
import { computed, ref } from 'vue'
import { api, told } from '../../api/client'
import type { Schemas } from '../../api/types'
import { useLoad } from '../../api/use'
import PageState from '../../parts/PageState.vue'
import { instant } from '../../words'

type Row = Schemas['DoorRow']

const first = 8
const { data, trouble, load, at } = useLoad(() => told(api.GET('/api/door')))
const all = ref(false)
const shown = computed(() => (all.value ? data.value : data.value?.slice(0, first)))

/** What is said before the name and after it. */
const words: Record<Row['what'], [before: string, after: string]> = {
  'signed in': ['', 'signed in'],
  'wrong password': ['Wrong password for', ''],
  'held off': ['Held off, after too many wrong passwords for', ''],
  'kept out': ['Right password, but kept out:', ''],
  'password changed': ['', 'changed the password'],
  'signed out everywhere': ['', 'signed out on every device'],
  'refused origin': ['Refused, as it was asked from another site:', ''],
  'refused host': ['Refused, as it was asked at another address:', ''],
}
const refused = (r: Row) => r.what === 'refused origin' || r.what === 'refused host'
const who = (r: Row) => (refused(r) ? r.said || 'unnamed' : r.name || 'an address that is not known here')
</script>

<template>
  <section class="sheet stack">
    <h2>At the door</h2>
    <PageState :trouble="trouble" :ready="data !== undefined" :at="at" @again="load">
      <p v-if="data?.length === 0" class="quiet">Nobody has come yet.</p>
      <ul>
        <li v-for="(r, i) in shown" :key="i" class="row-at-door">
          <p>
            {{ words[r.what][0] }} <b>{{ who(r) }}</b> {{ words[r.what][1]
            }}<template v-if="r.times > 1"> {{ r.times }} times</template>
          </p>
          <p class="quiet small">{{ instant(r.last_at) }}, from {{ r.place }}</p>
          <p v-if="r.device" class="quiet small device">{{ r.device }}</p>
        </li>
      </ul>
      <div v-if="(data?.length ?? 0) > first">
        <ElButton link @click="all = !all">{{ all ? 'Show the newest' : `Show all ${data?.length}` }}</ElButton>
      </div>
    </PageState>
  </section>
</template>

<style scoped>
.row-at-door {
  padding: var(--gap-2) 0;
  border-top: var(--line);
  overflow-wrap: anywhere;
}
.device {
  display: -webkit-box;
  -webkit-line-clamp: 1;
  -webkit-box-orient: vertical;
  overflow: hidden;
}
</style>
