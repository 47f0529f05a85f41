<script setup lang="ts">
// The places, as ruled page tabs along the edge of a notebook.
import { ref } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { me, signOut } from './api/me'
import { keptWords, outbox, saveToFile } from './offline/kept'

const route = useRoute()
const router = useRouter()
const trouble = ref('')
/** Unsent taps stay here when somebody signs out; that is said first. */
const warned = ref(false)

const places = [
  { to: '/horses', name: 'Horses' },
  { to: '/arena', name: 'Arena' },
  { to: '/methods', name: 'Methods' },
  { to: '/people', name: 'People' },
]

async function leave() {
  if (outbox.value?.state.waiting && !warned.value) {
    warned.value = true
    return
  }
  try {
    await signOut()
    await router.push('/sign-in')
  } catch {
    trouble.value = 'No signal: still signed in.'
  }
}
</script>

<template>
  <nav class="edge no-print" aria-label="Places">
    <div class="brand">
      <svg viewBox="0 0 64 30" class="mark" aria-hidden="true">
        <path d="M3 27Q32 -9 61 27" class="arch" />
        <path d="M17 16v11M32 9v18M47 16v11" class="piers" />
      </svg>
      <span>Ivory Bridge</span>
    </div>
    <ul class="tabs">
      <li v-for="p in places" :key="p.to">
        <RouterLink :to="p.to" class="tab" :class="{ here: route.path.startsWith(p.to) }">{{ p.name }}</RouterLink>
      </li>
    </ul>
    <div class="foot small">
      <p role="status">{{ keptWords }}</p>
      <p v-if="outbox?.old">Some of it is over a day old.</p>
      <button v-if="outbox?.old || outbox?.state.refused" type="button" class="plain" @click="saveToFile">
        Save it to a file
      </button>
      <p class="strong">{{ me?.name }}</p>
      <p v-if="trouble">{{ trouble }}</p>
      <p v-if="warned" role="alert">
        {{ outbox?.state.waiting }} kept here are not sent. They stay on this device and go when you sign in again.
      </p>
      <button type="button" class="plain" @click="leave">{{ warned ? 'Sign out all the same' : 'Sign out' }}</button>
    </div>
  </nav>
</template>

<style scoped>
.edge {
  position: sticky;
  top: 0;
  height: 100vh;
  display: flex;
  flex-direction: column;
  background: repeating-linear-gradient(var(--ivory-2) 0 35px, var(--ivory-3) 35px 36px);
  border-right: var(--rule);
}
.brand {
  padding: var(--gap-3);
  font: 700 var(--step-2) / 1 var(--font-head);
  display: grid;
  gap: var(--gap-1);
}
.mark {
  width: 56px;
}
.arch {
  fill: none;
  stroke: var(--ink-1);
  stroke-width: 3.5;
}
.piers {
  stroke: var(--leather);
  stroke-width: 3;
}
.tabs {
  display: grid;
  gap: var(--gap-2);
  margin-top: var(--gap-3);
}
.tab {
  display: block;
  margin-left: var(--gap-4);
  padding: var(--gap-2) var(--gap-3);
  background: var(--ivory-0);
  border: 2px solid var(--ink-2);
  border-right: 0;
  border-radius: var(--radius) 0 0 var(--radius);
  color: var(--ink-1);
  font-weight: 600;
  text-decoration: none;
}
.tab.here {
  background: var(--ivory-1);
  border-color: var(--ink-1);
  margin-left: var(--gap-3);
  margin-right: -2px;
  padding-right: calc(var(--gap-3) + 2px);
  position: relative;
}
.tab:focus-visible {
  outline-offset: -4px;
}
.foot {
  margin-top: auto;
  padding: var(--gap-3);
  display: grid;
  gap: var(--gap-1);
  justify-items: start;
  background: var(--ivory-2);
  border-top: 1px solid var(--ivory-3);
}
.plain {
  background: none;
  border: 0;
  padding: 0;
  min-height: 24px;
  text-decoration: underline;
  color: var(--slate);
  cursor: pointer;
  text-align: left;
}
@media (max-width: 720px) {
  .edge {
    position: sticky;
    top: auto;
    bottom: 0;
    height: auto;
    flex-flow: row wrap;
    align-items: center;
    border-right: 0;
    border-top: var(--rule);
    background: var(--ivory-2);
    z-index: 2;
  }
  .brand {
    display: none;
  }
  .tabs {
    display: flex;
    margin: 0;
    gap: 0;
    flex: 1;
  }
  .tabs li {
    flex: 1;
  }
  .tab,
  .tab.here {
    margin: 0;
    border: 0;
    border-right: 1px solid var(--ivory-3);
    background: none;
    text-align: center;
    padding: var(--gap-3) var(--gap-1);
  }
  .tab.here {
    background: var(--ivory-1);
    box-shadow: 0 -3px 0 var(--leather) inset;
  }
  .foot {
    display: flex;
    border: 0;
    margin: 0;
    padding: var(--gap-2);
    max-width: 40%;
    flex-wrap: wrap;
  }
  .foot .strong {
    display: none;
  }
}
@media print {
  .edge {
    display: none;
  }
}
</style>
