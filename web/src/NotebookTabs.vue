<script setup lang="ts">
// The places, as page tabs cut into the ruled edge of a notebook; the open one
// joins the sheet. In the hand they stand at the bottom.
import { computed, defineAsyncComponent, ref } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { isHelper, me, signOut } from './api/me'
import { keptWords, outbox, saveToFile } from './offline/kept'
import { places } from './places'

/** Seldom needed, so it comes only when it is. */
const SetAside = defineAsyncComponent(() => import('./offline/SetAside.vue'))

/** Not for a helper for a day. */
const staffOnly = ['/people', '/day', '/diary', '/outings', '/house']

const route = useRoute()
const router = useRouter()
const trouble = ref('')
const open = computed(() => places.filter((p) => !isHelper.value || !staffOnly.includes(p.to)))
/** In the hand the foot opens on a tap, or where it has something to say. */
const more = ref(false)
const calm = computed(() => !outbox.value?.state.waiting && !outbox.value?.state.refused && !trouble.value)
/** Unsent taps stay here when somebody signs out; that is said first. */
const warned = ref(false)

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
      <svg viewBox="0 0 60 27" class="mark" aria-hidden="true">
        <path d="M2 23Q30 -6 58 23" class="arch" />
        <path d="M14 14v9M30 8v15M46 14v9" class="piers" />
      </svg>
      <span>Ivory Bridge</span>
    </div>
    <ul class="tabs" :class="{ all: more }">
      <li v-for="p in open" :key="p.to" :class="{ desk: p.desk && !route.path.startsWith(p.to) }">
        <RouterLink :to="p.to" class="tab" :class="{ here: route.path.startsWith(p.to) }">{{ p.name }}</RouterLink>
      </li>
      <li class="more">
        <button type="button" class="tab" :aria-expanded="more" @click="more = !more">More</button>
      </li>
    </ul>
    <div class="foot small" :class="{ folded: calm && !more }">
      <p role="status">{{ keptWords }}</p>
      <p v-if="outbox?.old">Some of it is over a day old.</p>
      <SetAside v-if="outbox?.state.refused" />
      <button v-else-if="outbox?.old" type="button" class="plain" @click="saveToFile">Save it to a file</button>
      <RouterLink v-if="!route.path.startsWith('/guide')" :to="{ path: '/guide', query: { at: route.path } }" class="plain"
        >How do I …</RouterLink
      >
      <p class="strong who">{{ me?.name }}</p>
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
  background: repeating-linear-gradient(var(--ivory-2) 0 47px, var(--ivory-3) 47px 48px) 0 84px;
}
.brand {
  height: 84px;
  padding: var(--gap-3) 0 0 16px;
  font: 700 1.0625rem/1 var(--font-head);
  background: var(--ivory-2);
}
.mark {
  display: block;
  width: 60px;
  margin-bottom: 5px;
}
.arch {
  fill: none;
  stroke: var(--ink-1);
  stroke-width: 3;
}
.piers {
  stroke: var(--leather);
  stroke-width: 3;
}
.tab {
  display: grid;
  align-content: center;
  height: 48px;
  padding: 0 var(--gap-2) 0 16px;
  color: var(--ink-1);
  text-decoration: none;
}
.tab.here {
  position: relative;
  z-index: 2;
  margin: 0 -1.5px 0 7px;
  padding-left: var(--gap-2);
  background: var(--ivory-0);
  border: var(--rule);
  border-right: 0;
  border-radius: 5px 0 0 5px;
  font-weight: 700;
}
.tab:focus-visible {
  outline-offset: -4px;
}
.more {
  display: none;
}
.foot {
  margin-top: auto;
  padding: 10px var(--gap-2) 12px 16px;
  display: grid;
  gap: 2px;
  justify-items: start;
  color: var(--ink-2);
  background: var(--ivory-2);
}
.foot [role='status'] {
  min-height: 1.45em;
}
.foot .strong {
  color: var(--ink-1);
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
@media screen and (max-width: 720px) {
  .edge {
    top: auto;
    bottom: 0;
    height: auto;
    border-top: 2px solid var(--ink-1);
    background: var(--ivory-2);
    z-index: 3;
  }
  .brand {
    display: none;
  }
  .tabs {
    display: flex;
    flex-wrap: wrap;
    order: 2;
  }
  .tabs li {
    flex: 1;
  }
  .tabs .desk {
    display: none;
    order: 1;
  }
  .tabs.all .desk {
    display: block;
    flex: 1 1 30%;
  }
  .tab,
  .tab.here {
    margin: 0;
    height: 56px;
    padding: 0;
    justify-content: center;
    border: 0;
    border-right: 1px solid var(--ivory-3);
    border-radius: 0;
  }
  .more {
    display: block;
  }
  .more .tab {
    width: 100%;
    background: none;
    cursor: pointer;
    text-align: center;
  }
  .foot.folded {
    position: absolute;
    height: 1px;
    overflow: hidden;
    clip-path: inset(50%);
  }
  .foot.folded * {
    visibility: hidden;
  }
  .foot.folded [role='status'] {
    visibility: visible;
  }
  .tab.here {
    margin-top: -2px;
    height: 58px;
    border-inline: 2px solid var(--ink-1);
  }
  .foot {
    display: flex;
    flex-wrap: wrap;
    gap: 0 var(--gap-3);
    margin: 0;
    padding: 2px var(--side);
    border-bottom: var(--line);
  }
  .who {
    display: none;
  }
  .foot [role='status'] {
    flex: 1;
    min-height: 28px;
    align-content: center;
  }
}
@media print {
  .edge {
    display: none;
  }
}
</style>
