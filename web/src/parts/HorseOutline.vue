<script setup lang="ts">
// The horse from its near side, head to the left; from the off side, mirrored.
// What is drawn over it stands in the same picture, 480 wide and 340 high.
const { side } = defineProps<{ side: 'near' | 'off' }>()
</script>

<template>
  <svg viewBox="0 0 480 340" class="outline">
    <g :transform="side === 'off' ? 'translate(480 0) scale(-1 1)' : undefined" aria-hidden="true">
      <path class="far" d="M236 206 C242 226 243 242 241 256 L246 298 L251 312 L251 324 L227 324 L231 304 L226 256 L217 208z" />
      <path
        class="far"
        d="M366 200 C358 220 356 232 360 248 L353 298 L357 324 L332 324 L338 302 L340 250 C334 234 326 222 322 206z"
      />
      <path
        class="horse"
        d="M30 118 C26 108 29 98 38 93 C52 82 64 66 76 52 C83 43 92 37 102 33 L105 11 C112 16 117 24 120 32 C152 38 176 62 190 90
           C200 102 212 106 226 108 C252 117 288 118 318 109 C346 99 372 102 390 117 C400 126 406 136 408 147
           C432 164 440 220 424 274 C418 270 414 262 414 254 C420 222 412 192 402 174 C405 190 400 204 390 214
           C387 226 392 238 394 247 C390 266 388 284 387 298 L392 312 L392 324 L366 324 L370 302 L371 256 C364 240 354 228 343 214
           C310 227 262 226 224 212 C223 226 221 238 219 250 C217 268 215 284 214 298 L219 312 L219 324 L193 324 L197 302
           L197 252 C191 230 184 214 177 200 C162 188 157 172 158 157 C150 146 142 136 132 122 C122 130 106 132 90 127
           C78 128 66 132 56 136 C44 141 34 132 30 118z"
      />
      <path class="line" d="M103 34 C124 52 138 84 132 122" />
      <path class="line" d="M31 116 C40 120 49 118 54 111" />
      <path class="line" d="M106 16 C108 22 110 27 111 32" />
      <circle class="eye" cx="82" cy="68" r="3.5" />
      <circle class="eye" cx="38" cy="104" r="2" />
      <path class="line" d="M190 90 C178 116 172 152 184 200" />
      <path class="line" d="M343 214 C332 188 336 158 352 138" />
      <path class="line" d="M193 318 L219 318 M366 318 L392 318" />
      <path class="mane" d="M120 32 C152 38 176 62 190 90 C176 80 168 78 160 72 C158 64 148 62 142 56 C138 48 128 46 122 42z" />
    </g>
    <slot />
  </svg>
</template>

<style scoped>
.outline {
  width: 100%;
  display: block;
  overflow: visible;
}
.horse {
  fill: var(--ivory-2);
  stroke: var(--ink-1);
  stroke-width: 2.5;
  stroke-linejoin: round;
}
.far {
  fill: var(--ivory-3);
  stroke: var(--ink-2);
  stroke-width: 1.5;
}
.line {
  fill: none;
  stroke: var(--ink-2);
  stroke-width: 1.2;
}
.mane {
  fill: var(--ink-2);
}
.eye {
  fill: var(--ink-1);
}
</style>
