<script setup lang="ts">
import { computed, ref } from 'vue'
import type { ClipView } from '@/api/client'
import type { CutByHand } from '@/view/cutsByHand'
import { clamp } from '@/view/glass'
import { startOf, timecode } from '@/view/timecode'
import { clock } from '@/view/words'
import Curves from './Curves.vue'
import RunMarks from './RunMarks.vue'
import TimeField from './TimeField.vue'
import KeyHint from '@/components/common/KeyHint.vue'

const props = defineProps<{
  clip: ClipView
  frames: number
  seconds: number
  inFrame: number | undefined
  outFrame: number | undefined
  /** Where the small picture of a frame lies, if there is one. */
  peekOf: (frame: number) => string | undefined
  byHand: CutByHand[]
}>()
const frame = defineModel<number>('frame', { required: true })
const emit = defineEmits<{
  span: [inFrame: number | undefined, outFrame: number | undefined]
  /** A frame is passed while dragging along the strip; none when it is let go. */
  seek: [frame: number | undefined]
}>()

const strip = ref<HTMLElement>()
const THUMBS = 5
/** The frame under the pointer, while it rests on the strip. */
const under = ref<number>()
const peek = computed(() => (under.value === undefined ? undefined : props.peekOf(under.value)))
/** So that the small picture stays over the strip. */
const peekAt = computed(() => `clamp(120px, ${at((under.value ?? 0) + 0.5)}, calc(100% - 120px))`)

function lookUnder(event: PointerEvent) {
  // while dragging the picture itself follows
  under.value = event.buttons > 0 ? undefined : clamp(Math.floor(frameUnder(event)), 0, props.frames - 1)
}

const at = (n: number) => `${(100 * n) / props.frames}%`
const time = (n: number) => clock((n * props.seconds) / props.frames)
const from = computed(() => props.inFrame ?? 0)
const rate = computed(() => props.frames / Math.max(0.001, props.seconds))
const start = computed(() => startOf(props.clip.facts?.timecode, rate.value))
const code = (n: number) => timecode(n, rate.value, start.value)
const end = computed(() => props.outFrame ?? props.frames)
const marked = computed(() => props.inFrame !== undefined || props.outFrame !== undefined)

function frameUnder(event: PointerEvent): number {
  const box = strip.value?.getBoundingClientRect()
  return box ? ((event.clientX - box.left) / box.width) * props.frames : 0
}

type Hold = 'here' | 'in' | 'out'

function take(event: PointerEvent, hold: Hold) {
  if (event.button !== 0) {
    return
  }
  event.preventDefault()
  const surface = event.currentTarget as HTMLElement
  surface.setPointerCapture(event.pointerId)
  const done = new AbortController()
  const move = (now: PointerEvent) => {
    const n = frameUnder(now)
    if (hold === 'here') {
      frame.value = clamp(Math.floor(n), 0, props.frames - 1)
      emit('seek', frame.value)
    } else if (hold === 'in') {
      emit('span', clamp(Math.round(n), 0, end.value - 1), props.outFrame)
    } else {
      emit('span', props.inFrame, clamp(Math.round(n), from.value + 1, props.frames))
    }
  }
  move(event)
  surface.addEventListener('pointermove', move, { signal: done.signal })
  for (const name of ['pointerup', 'pointercancel'] as const) {
    surface.addEventListener(
      name,
      () => {
        done.abort()
        emit('seek', undefined)
      },
      { signal: done.signal },
    )
  }
}

function keyOnHandle(event: KeyboardEvent, hold: 'in' | 'out') {
  const by = event.key === 'ArrowLeft' ? -1 : event.key === 'ArrowRight' ? 1 : 0
  if (by === 0) {
    return
  }
  event.preventDefault()
  if (hold === 'in') {
    emit('span', clamp(from.value + by, 0, end.value - 1), props.outFrame)
  } else {
    emit('span', props.inFrame, clamp(end.value + by, from.value + 1, props.frames))
  }
}
</script>

<template>
  <div class="run">
    <div class="line">
      <v-btn class="link" variant="plain" aria-label="One frame back" :disabled="frame <= 0" @click="frame--">
        <KeyHint of="," />
      </v-btn>
      <TimeField
        class="now"
        data-test="time"
        label=""
        :shown="time(frame)"
        :code="code(frame)"
        :rate="rate"
        :start="start"
        :low="0"
        :high="frames - 1"
        @set="(n) => (frame = n)"
      />
      <v-btn
        class="link"
        variant="plain"
        aria-label="One frame on"
        :disabled="frame >= frames - 1"
        @click="frame++"
      >
        <KeyHint of="." />
      </v-btn>
      <span class="figure faint all">/ {{ time(frames) }}</span>
      <span class="figure quiet" data-test="frame">frame {{ frame }} of {{ frames }}</span>
      <span v-if="start" class="figure source" title="Time code, as the file has it" data-test="timecode">{{
        code(frame)
      }}</span>
      <span class="figure span" data-test="span">
        <template v-if="marked">
          <span class="treated marks">
            <TimeField
              label="in"
              :shown="time(from)"
              :code="code(from)"
              :rate="rate"
              :start="start"
              :low="0"
              :high="end - 1"
              @set="(n) => emit('span', n, outFrame)"
            />
            <TimeField
              label="out"
              :shown="time(end)"
              :code="code(end)"
              :rate="rate"
              :start="start"
              :low="from + 1"
              :high="frames"
              @set="(n) => emit('span', inFrame, n)"
            />
          </span>
          <v-btn class="link clear" variant="plain" @click="emit('span', undefined, undefined)">
            whole clip
          </v-btn>
        </template>
        <span v-else class="faint" title="No span is marked; these keys mark one"
          ><KeyHint of="i" /> <KeyHint of="o"
        /></span>
      </span>
      <slot name="prove"></slot>
    </div>
    <div
      ref="strip"
      class="strip"
      data-test="strip"
      @pointerdown="take($event, 'here')"
      @pointermove="lookUnder"
      @pointerleave="under = undefined"
    >
      <figure v-if="peek && under !== undefined" class="peek" data-test="peek" :style="{ left: peekAt }">
        <img :src="peek" alt="" draggable="false" />
        <figcaption class="figure">{{ time(under) }} · frame {{ under }}</figcaption>
      </figure>
      <div class="thumbs">
        <img
          v-for="n in THUMBS"
          :key="n"
          :src="`/api/clips/${clip.id}/thumbs/${n - 1}`"
          alt=""
          draggable="false"
        />
      </div>
      <RunMarks :clip="clip" :at="(n) => at(n + 0.5)" />
      <div class="shade" :style="{ left: 0, width: at(from) }"></div>
      <div class="shade" :style="{ left: at(end), right: 0 }"></div>
      <div
        class="handle"
        :class="{ set: inFrame !== undefined }"
        :style="{ left: at(from) }"
        role="slider"
        tabindex="0"
        aria-label="In point"
        :aria-valuemin="0"
        :aria-valuemax="end - 1"
        :aria-valuenow="from"
        :aria-valuetext="time(from)"
        @pointerdown.stop="take($event, 'in')"
        @keydown="keyOnHandle($event, 'in')"
      ></div>
      <div
        class="handle out"
        :class="{ set: outFrame !== undefined }"
        :style="{ left: at(end) }"
        role="slider"
        tabindex="0"
        aria-label="Out point"
        :aria-valuemin="from + 1"
        :aria-valuemax="frames"
        :aria-valuenow="end"
        :aria-valuetext="time(end)"
        @pointerdown.stop="take($event, 'out')"
        @keydown="keyOnHandle($event, 'out')"
      ></div>
      <div class="head" :style="{ left: at(frame + 0.5) }"></div>
    </div>
    <div class="lanes"><slot name="lane"></slot></div>
    <slot name="proof"></slot>
    <Curves :clip="clip" :frames="frames" :by-hand="byHand" />
  </div>
</template>

<style scoped>
.run {
  background: var(--table);
  border-top: 1px solid var(--rule);
  padding: 8px 14px 8px;
  user-select: none;
}

.line {
  overflow: hidden;
  white-space: nowrap;
  display: flex;
  align-items: center;
  gap: 10px;
  height: 26px;
}

.line kbd {
  margin: 0;
}

.now {
  min-width: 56px;
  text-align: center;
}

.span {
  margin-left: auto;
  display: flex;
  white-space: nowrap;
  gap: 12px;
  align-items: center;
}

.marks {
  display: flex;
  gap: 10px;
}

@media (width < 1240px) {
  .all {
    display: none;
  }
}

/* kept free, so that nothing moves when a proof comes */
.lanes {
  height: 22px;
  padding-top: 2px;
  overflow: hidden auto;
}

.strip {
  position: relative;
  height: 58px;
  margin-top: 6px;
  cursor: pointer;
  touch-action: none;
}

.thumbs {
  position: absolute;
  inset: 4px 0;
  display: flex;
  overflow: hidden;
  background: var(--ground);
}

.thumbs img {
  flex: 1;
  min-width: 0;
  height: 100%;
  object-fit: cover;
  filter: brightness(0.85);
}

.peek {
  position: absolute;
  bottom: calc(100% + 4px);
  width: 240px;
  margin: 0 0 0 -120px;
  padding: 4px;
  background: var(--table);
  border: 1px solid var(--rule);
  pointer-events: none;
  z-index: 3;
}

.peek img {
  display: block;
  width: 100%;
  min-height: 60px;
}

.peek figcaption {
  padding-top: 3px;
  text-align: center;
}

.shade {
  position: absolute;
  top: 4px;
  bottom: 4px;
  background: rgb(22 22 22 / 78%);
}

.handle {
  position: absolute;
  top: 0;
  bottom: 0;
  width: 12px;
  margin-left: -6px;
  cursor: ew-resize;
}

.handle::before {
  content: '';
  position: absolute;
  inset: 0 auto 0 5px;
  width: 2px;
  background: var(--faint);
}

.handle.set::before {
  background: var(--treated);
}

.handle::after {
  content: '';
  position: absolute;
  top: 0;
  left: 6px;
  width: 7px;
  height: 2px;
  background: inherit;
  border-top: 2px solid var(--faint);
}

.handle.out::after {
  left: -1px;
}

.handle.set::after {
  border-color: var(--treated);
}

.head {
  position: absolute;
  top: -4px;
  bottom: -4px;
  width: 1px;
  background: #fff;
  pointer-events: none;
}
</style>
