<script setup lang="ts">
// All that can be said of the last rep: each tap corrects it.
import { computed } from 'vue'
import type { Schemas } from '../../api/types'
import { isLead } from '../../api/me'
import type { ArenaSession, Rep } from './useArena'
import ArenaSheet from './ArenaSheet.vue'
import ChipRow from '../../parts/ChipRow.vue'
import { choices } from '../../parts/choices'

const { session, rep, card } = defineProps<{ session: ArenaSession; rep: Schemas['ArenaTold']; card?: Schemas['ArenaCard'] }>()
const emit = defineEmits<{ correct: [change: Partial<Rep>]; close: [] }>()

const usual = choices(['not noticed', 'outside cause', 'not finished', 'fed'] as const)
/** A rear that was at nobody, with the rope clear, is a lead trainer's to say. */
const cleared = [{ value: 'rear cleared', text: 'the rear: not at a person, rope clear, not afraid' }]
const flags = computed(() => (isLead.value && rep.ways_out?.includes('reared') ? [...usual, ...cleared] : usual))
const releases = choices(['on the try', 'late', 'early', 'wrong moment', 'not released'] as const)
const manners = choices(['tense', 'sour'] as const)
const held = choices(['free', 'loose line', 'slack rope', 'held', 'tied'] as const)
const levels = Array.from({ length: 11 }, (_, i) => ({ value: i, text: String(i) }))
const faces = ['easy', 'turns to look', 'ears tip back', 'muzzle to the person', 'bites'].map((text, value) => ({ value, text }))

/** An answer without a rope has no release and no level. */
const roped = computed(() => rep.kind === 'rep' || rep.kind === 'dose')
const from = choices(['front', 'shoulder', 'behind'] as const)

/** The ways out that are usual on this ladder first, then the dangerous ones,
 * then the rest. */
const ways = computed(() => {
  const usual = card?.ways_out ?? []
  const chips = (list: string[]) => list.map((w) => ({ value: w, text: w }))
  const rest = session.ways_out.filter((w) => !usual.includes(w.word))
  return [
    { title: 'Way out it tried', ways: chips(usual) },
    { title: 'Dangerous: the advice is then to make safe', ways: chips(rest.filter((w) => w.danger).map((w) => w.word)) },
    { title: 'Other ways out', ways: chips(rest.filter((w) => !w.danger).map((w) => w.word)) },
  ].filter((g) => g.ways.length > 0)
})
const kinds = ['soft', 'afraid', 'warning', 'tense or curious'] as const
const signs = computed(() =>
  kinds.map((kind) => ({
    title: `Signs: ${kind}`,
    signs: session.signs.filter((s) => s.kind === kind).map((s) => ({ value: s.word, text: s.word })),
  })),
)

function toggled<T extends string>(list: readonly T[] | undefined, word: T): T[] {
  const now = list ?? []
  return now.includes(word) ? now.filter((w) => w !== word) : [...now, word]
}
const once = <T,>(now: T | undefined, value: T) => (now === value ? undefined : value)
</script>

<template>
  <ArenaSheet title="The last rep" @close="emit('close')">
    <section v-for="g in ways" :key="g.title">
      <h3>{{ g.title }}</h3>
      <ChipRow
        big
        :label="g.title"
        :choices="g.ways"
        :chosen="rep.ways_out ?? []"
        @toggle="emit('correct', { ways_out: toggled(rep.ways_out, $event as NonNullable<Rep['ways_out']>[number]) })"
      />
    </section>
    <section v-for="g in signs" :key="g.title">
      <h3>{{ g.title }}</h3>
      <ChipRow
        big
        :label="g.title"
        :choices="g.signs"
        :chosen="rep.signs ?? []"
        @toggle="emit('correct', { signs: toggled(rep.signs, $event as NonNullable<Rep['signs']>[number]) })"
      />
    </section>
    <section v-if="roped || rep.kind === 'offer'">
      <h3>Come to it from</h3>
      <ChipRow
        big
        label="Come to it from"
        :choices="from"
        :chosen="[rep.came_from ?? '']"
        @toggle="emit('correct', { came_from: once(rep.came_from, $event as Rep['came_from']) })"
      />
    </section>
    <template v-if="roped">
      <section>
        <h3>It does not count, or</h3>
        <ChipRow
          big
          label="Flags"
          :choices="flags"
          :chosen="rep.flags ?? []"
          @toggle="emit('correct', { flags: toggled(rep.flags, $event as NonNullable<Rep['flags']>[number]) })"
        />
      </section>
      <section>
        <h3>Release</h3>
        <ChipRow
          big
          label="Release"
          :choices="releases"
          :chosen="[rep.release || 'on the try']"
          @toggle="emit('correct', { release: $event as Rep['release'] })"
        />
      </section>
      <section v-if="rep.answer === 'tolerated'">
        <h3>Tolerated, but</h3>
        <ChipRow
          big
          label="Manner"
          :choices="manners"
          :chosen="[rep.manner ?? '']"
          @toggle="emit('correct', { manner: once(rep.manner, $event as Rep['manner']) })"
        />
      </section>
      <section>
        <h3>Face</h3>
        <ChipRow
          big
          label="Face"
          :choices="faces"
          :chosen="[rep.face ?? -1]"
          @toggle="emit('correct', { face: once(rep.face, Number($event)) })"
        />
      </section>
      <section>
        <h3>Level the horse brought itself</h3>
        <ChipRow
          big
          label="Brought"
          :choices="levels"
          :chosen="[rep.brought ?? -1]"
          @toggle="emit('correct', { brought: once(rep.brought, Number($event)) })"
        />
      </section>
      <section>
        <h3>How it was kept</h3>
        <ChipRow
          big
          label="Held"
          :choices="held"
          :chosen="[rep.held ?? '']"
          @toggle="emit('correct', { held: once(rep.held, $event as Rep['held']) })"
        />
      </section>
    </template>
  </ArenaSheet>
</template>

<style scoped>
h3 {
  font-size: var(--step-2);
  margin-bottom: var(--gap-2);
}
</style>
