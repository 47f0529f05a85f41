<script setup lang="ts">
// The horse from its near side, head to the left; from the off side, mirrored.
// What is drawn over it stands in the same picture (horsePlaces.ts).
import { picture } from './horsePlaces'

const { side } = defineProps<{ side: 'near' | 'off' }>()
</script>

<template>
  <svg :viewBox="`0 0 ${picture.width} ${picture.height}`" class="outline">
    <g :transform="side === 'off' ? `translate(${picture.width} 0) scale(-1 1)` : undefined" aria-hidden="true">
      <path
        class="far"
        d="M262 226 C274 250 282 272 288 296 C292 306 292 314 292 322 L298 352 C302 362 302 368 300 376 L306 398 L276 398 L282 378
           C282 368 282 362 281 354 L274 322 C270 312 270 304 268 296 C260 274 248 256 236 236z"
      />
      <path
        class="far"
        d="M434 214 C428 232 424 244 428 258 C432 270 436 278 436 288 C430 308 426 332 424 352 C424 362 430 366 428 374 L432 398 L400 398
           L408 378 C412 370 410 362 411 352 C414 330 416 308 416 292 C412 276 402 262 398 246 C396 236 400 226 406 216z"
      />
      <path
        class="hair"
        d="M492 138 C512 146 522 176 520 214 C518 250 514 282 500 312 C494 300 496 284 500 268 C506 240 504 200 494 172z"
      />
      <path
        class="horse"
        d="M154 46 C182 40 220 58 244 92 C254 106 266 115 282 117 C310 120 332 130 362 130 C390 130 414 121 434 116
           C458 110 482 118 494 140 C504 158 506 180 501 198 C496 222 480 240 479 258 C481 268 492 274 494 286 C492 302 487 330 486 352
           C486 361 493 366 491 374 L487 384 L492 400 L459 400 L467 379 C470 371 470 362 471 352 C473 330 473 312 472 298
           C470 282 458 270 450 256 C442 240 430 234 422 224 C402 240 376 252 346 254 C320 255 296 252 280 245 C282 262 280 282 277 298
           C279 308 278 318 275 325 C274 338 275 348 275 355 C280 363 280 370 276 377 L280 400 L247 400 L255 380 C257 370 256 362 257 354
           C258 340 258 332 255 322 C251 312 252 304 252 297 C249 272 244 252 236 238 C222 228 215 210 217 190 C204 172 186 142 176 106
           C166 114 154 117 142 118 C130 128 120 138 110 146 C103 152 92 151 88 144 C86 137 89 129 95 121 C109 99 123 77 136 60
           C140 52 146 47 154 46z"
      />
      <path class="horse" d="M148 49 C144 38 146 28 151 19 C158 27 161 36 160 46z" />
      <path
        class="hair"
        d="M156 44 C184 38 222 56 246 92 C252 101 258 107 264 111 C252 110 242 108 234 102 C228 99 222 95 217 90 C208 86 202 80 198 74
           C188 70 182 64 178 58 C170 55 162 50 156 44z"
      />
      <path class="hair" d="M151 44 C142 50 136 60 134 72 C142 68 150 60 154 50z" />
      <circle class="eye" cx="133" cy="78" r="3.6" />
      <ellipse class="eye" cx="96" cy="131" rx="2.2" ry="3.4" transform="rotate(30 96 131)" />
      <path class="line" d="M89 144 C96 145 101 143 105 139" />
      <path class="line" d="M142 118 C154 112 162 100 160 86" />
      <path class="line" d="M244 104 C226 130 222 160 234 196 C238 212 246 226 256 236" />
      <path class="line" d="M280 245 C274 236 270 228 268 216" />
      <path class="line" d="M422 224 C414 208 414 188 424 170" />
      <path class="line" d="M249 394 L279 394 M460 394 L491 394" />
    </g>
    <slot />
  </svg>
</template>

<style scoped>
.outline {
  width: 100%;
  display: block;
  touch-action: manipulation;
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
  stroke-linejoin: round;
}
.line {
  fill: none;
  stroke: var(--ink-2);
  stroke-width: 1.2;
  stroke-linecap: round;
}
.hair {
  fill: var(--ink-2);
}
.eye {
  fill: var(--ink-1);
}
</style>
