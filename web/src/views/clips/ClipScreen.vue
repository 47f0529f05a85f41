<script setup lang="ts">
// The film, which frame of it is shown, and the keys that step it. What a browser can't
// play is said at once, and can be taken down.
import { computed, ref, useTemplateRef } from 'vue'
import type { Schemas } from '../../api/types'
import type { useFrames } from './useFrames'

const { clip, film, rate } = defineProps<{ clip: Schemas['ClipWhole']; film: ReturnType<typeof useFrames>; rate: number }>()
const video = useTemplateRef<HTMLVideoElement>('video')
const unplayed = ref(false)
const source = computed(() => `/api/clips/${clip.id}/film`)
const speed = computed(() => ({ 1: 'full speed', 0.5: 'half speed', 0.25: 'quarter speed' })[rate] ?? `speed ${rate}`)
defineExpose({ video })
</script>

<template>
  <div class="screen">
    <div class="picture">
      <p v-if="unplayed" class="unplayed">
        This browser can't play this film. It is kept: <a :href="source" :download="`${clip.name || 'clip'}`">take it down</a> and
        look at it in another program. Taps and marks stay.
      </p>
      <video v-show="!unplayed" ref="video" :src="source" playsinline preload="auto" @error="unplayed = true" />
      <p v-if="!unplayed" class="frame number">
        frame {{ film.frame.value + 1 }} of {{ film.exact.value ? '' : 'about ' }}{{ film.frames.value.length }} ·
        {{ film.now.value.toFixed(2) }} s
      </p>
    </div>
    <div class="keys no-print" role="group" aria-label="The film">
      <button type="button" @click="film.go(-10)">ten back <kbd>⇧ ,</kbd></button>
      <button type="button" @click="film.go(-1)">one back <kbd>,</kbd></button>
      <button type="button" class="play" @click="film.play()">{{ film.playing.value ? 'stop' : 'play' }} <kbd>space</kbd></button>
      <button type="button" @click="film.go(1)">one on <kbd>.</kbd></button>
      <button type="button" @click="film.go(10)">ten on <kbd>⇧ .</kbd></button>
      <button type="button" @click="film.slow()">{{ speed }}</button>
    </div>
  </div>
</template>

<style scoped>
.picture {
  position: relative;
  background: var(--ivory-2);
}
video {
  display: block;
  width: 100%;
  max-height: 42vh;
}
.frame {
  position: absolute;
  top: 0;
  left: 0;
  margin: 0;
  padding: var(--gap-1) var(--gap-3);
  background: var(--ink-1);
  color: var(--ivory-0);
}
.unplayed {
  padding: var(--gap-5) var(--gap-4);
  border: 2px dashed var(--ink-2);
  margin: 0;
}
.keys {
  display: flex;
  flex-wrap: wrap;
  border-bottom: var(--rule);
}
.keys button {
  flex: 1 1 auto;
  min-height: var(--hand);
  padding: 0 var(--gap-2);
  border: 0;
  border-right: var(--line);
  background: none;
  font: inherit;
  font-weight: 600;
  white-space: nowrap;
  cursor: pointer;
}
.keys button:last-child {
  border-right: 0;
}
@media (max-width: 600px) {
  kbd {
    display: none;
  }
}
.keys .play {
  background: var(--ink-1);
  color: var(--ivory-0);
  min-width: 120px;
}
</style>
