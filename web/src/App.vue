<script setup lang="ts">
import { defineAsyncComponent, onBeforeUnmount, onMounted, ref, shallowRef, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { onSignedOut } from './api/client'
import { me } from './api/me'
import { shownFrom } from './device/copies'
import { pressed, useKeys } from './keys/keys'
import { outbox } from './offline/kept'
import { places } from './places'
import { clockTime } from './words'
import NotebookTabs from './NotebookTabs.vue'

const SignInAgain = defineAsyncComponent(() => import('./views/signin/SignInAgain.vue'))

const KeySheet = defineAsyncComponent(() => import('./keys/KeySheet.vue'))

const route = useRoute()
const router = useRouter()
const keysShown = ref(false)
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

useKeys([
  ...places.map((p) => ({ press: `g${p.key}`, does: p.name, run: () => void router.push(p.to) })),
  { press: '?', does: 'the keys of the place', run: () => (keysShown.value = true) },
])
// The arena has keys of its own.
const take = (e: KeyboardEvent) => void (!route.meta.bare && pressed(e))
onMounted(() => window.addEventListener('keydown', take))
onBeforeUnmount(() => window.removeEventListener('keydown', take))

watch(outbox, (box) => void box?.send())
watch(
  () => route.path,
  () => (shownFrom.value = 0),
)
</script>

<template>
  <a href="#main" class="skip">To the page</a>
  <div v-if="route.matched.length" :class="route.meta.bare ? 'bare' : 'notebook'">
    <NotebookTabs v-if="!route.meta.bare && me" />
    <main id="main" tabindex="-1">
      <p v-if="shownFrom && !route.meta.bare" class="copy no-print" role="status">
        No signal. What you see was kept here at {{ clockTime(shownFrom) }}.
      </p>
      <RouterView />
    </main>
  </div>
  <KeySheet v-if="keysShown" @close="keysShown = false" />
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
  padding: var(--gap-1) var(--side);
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
  grid-column: 2; /* also while the places are not there yet */
  min-width: 0;
  background: var(--ivory-0);
  border-left: var(--rule);
}
main:focus {
  outline: none;
}
@media screen and (max-width: 720px) {
  .notebook {
    grid-template-columns: minmax(0, 1fr);
    grid-template-rows: 1fr auto;
  }
  .notebook > main {
    grid-column: 1;
    order: -1;
    border-left: 0;
  }
}
@media print {
  .notebook {
    display: block;
  }
  .notebook > main {
    border: 0;
  }
}
</style>
