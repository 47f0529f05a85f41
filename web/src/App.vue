<script setup lang="ts">
import { defineAsyncComponent, ref, shallowRef, watch } from 'vue'
import { useRoute } from 'vue-router'
import { onSignedOut } from './api/client'
import { me } from './api/me'
import { shownFrom } from './device/copies'
import { outbox } from './offline/kept'
import { clockTime } from './words'
import NotebookTabs from './NotebookTabs.vue'

const SignInAgain = defineAsyncComponent(() => import('./views/signin/SignInAgain.vue'))

const route = useRoute()
const asking = ref(false)
const answer = shallowRef<(signedIn: boolean) => void>()
let open: Promise<boolean> | undefined

onSignedOut(() => {
  open ??= new Promise<boolean>((resolve) => {
    answer.value = resolve
    asking.value = true
  }).finally(() => {
    asking.value = false
    open = undefined
  })
  return open
})

watch(outbox, (box) => void box?.send())
watch(
  () => route.path,
  () => (shownFrom.value = 0),
)
</script>

<template>
  <a href="#main" class="skip">To the page</a>
  <div :class="route.meta.bare ? 'bare' : 'notebook'">
    <NotebookTabs v-if="!route.meta.bare && me" />
    <main id="main" tabindex="-1">
      <p v-if="shownFrom && !route.meta.bare" class="copy no-print" role="status">
        No signal. What you see was kept here at {{ clockTime(shownFrom) }}.
      </p>
      <RouterView />
    </main>
  </div>
  <SignInAgain v-if="asking" @done="answer?.($event)" />
</template>

<style>
.skip {
  position: absolute;
  left: var(--gap-3);
  top: -4em;
  background: var(--ivory-0);
  padding: var(--gap-2);
  z-index: 10;
}
.skip:focus {
  top: var(--gap-2);
}
.copy {
  padding: var(--gap-2) var(--gap-4);
  background: var(--ivory-2);
  border-bottom: var(--rule);
  font-weight: 600;
}
.notebook {
  display: grid;
  grid-template-columns: var(--rail) minmax(0, 1fr);
  min-height: 100vh;
}
.notebook > main {
  min-width: 0;
}
main:focus {
  outline: none;
}
@media (max-width: 720px) {
  .notebook {
    grid-template-columns: minmax(0, 1fr);
    grid-template-rows: 1fr auto;
  }
  .notebook > main {
    order: -1;
  }
}
@media print {
  .notebook {
    display: block;
  }
}
</style>
