<script setup lang="ts">
// Who is signed in, on which device and from where; each can be ended.
import { ref } from 'vue'
import { api, told } from '../../api/client'
import { useLoad, useSend } from '../../api/use'
import PageState from '../../parts/PageState.vue'
import WrongNote from '../../parts/WrongNote.vue'
import { instant } from '../../words'

const { data, trouble, load } = useLoad(() => told(api.GET('/api/sign-ins')))
const ending = useSend()
const all = ref(false)
const first = 6

async function end(id: string) {
  const now = await ending.send(() => told(api.DELETE('/api/sign-ins/{id}', { params: { path: { id } } })))
  if (now) data.value = now
}
</script>

<template>
  <section class="sheet stack">
    <h2>Signed in now</h2>
    <PageState :trouble="trouble" :ready="data !== undefined" @again="load">
      <ul>
        <li v-for="s in all ? data : data?.slice(0, first)" :key="s.id" class="row between line">
          <span
            ><b>{{ s.name }}</b> since {{ instant(s.at) }}<br /><span class="quiet small"
              >{{ s.place }} · {{ s.device }}</span
            ></span
          >
          <ElButton link @click="end(s.id)"
            >end<span class="visually-hidden"> the sign-in of {{ s.name }} since {{ instant(s.at) }}</span></ElButton
          >
        </li>
      </ul>
      <ElButton v-if="(data?.length ?? 0) > first" link @click="all = !all">{{
        all ? 'Show fewer' : `All ${data?.length}`
      }}</ElButton>
      <WrongNote :trouble="ending.trouble.value" />
    </PageState>
  </section>
</template>

<style scoped>
.line {
  border-top: var(--line);
  padding: var(--gap-2) 0;
  overflow-wrap: anywhere;
}
</style>
