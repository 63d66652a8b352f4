<script setup lang="ts">
import { nextTick, ref } from 'vue'
import { frameOf, type Start } from '@/view/timecode'

/** A time that can be typed over: a click makes it a field, Enter takes what was typed. */
const props = defineProps<{
  label: string
  shown: string
  code: string
  rate: number
  /** Label of the clip's first frame, where its file has one. */
  start?: Start | undefined
  low: number
  high: number
}>()
const emit = defineEmits<{ set: [frame: number] }>()

const typing = ref(false)
const text = ref('')
const wrong = ref('')
const field = ref<HTMLInputElement>()

function begin() {
  text.value = props.code
  wrong.value = ''
  typing.value = true
  void nextTick(() => field.value?.select())
}

function take() {
  if (!typing.value) {
    return
  }
  const frame = frameOf(text.value, props.rate, props.start)
  if (frame === undefined) {
    wrong.value = 'write 12.5, 1:02.5, 00:00:04:12 or f120'
  } else if (frame < props.low || frame > props.high) {
    wrong.value = `allowed: f${props.low} to f${props.high}`
  } else {
    typing.value = false
    emit('set', frame)
  }
}
</script>

<template>
  <span class="time">
    <v-btn
      v-if="!typing"
      variant="plain"
      class="bare shown figure"
      :title="`${code}; click to type`"
      @click="begin"
    >
      {{ label }} {{ shown }}
    </v-btn>
    <template v-else>
      <label class="figure">
        {{ label }}
        <v-text-field
          ref="field"
          v-model="text"
          class="in-line"
          variant="plain"
          hide-details
          :aria-label="label"
          :aria-invalid="wrong !== ''"
          @keydown.enter.prevent="take"
          @keydown.esc.stop="typing = false"
          @blur="typing = false"
        />
      </label>
      <span v-if="wrong" class="fault" role="alert">{{ wrong }}</span>
    </template>
  </span>
</template>

<style scoped>
.time {
  display: inline-flex;
  gap: 8px;
  align-items: baseline;
}

.shown {
  border: 0;
  background: none;
  padding: 0;
  color: inherit;
  cursor: text;
}

.shown:hover {
  text-decoration: underline dotted;
}

.in-line {
  display: inline-grid;
  width: 108px;
  border: 1px solid var(--rule);
  background: var(--ground);
  font: 13px var(--mono);
}

.in-line:has([aria-invalid='true']) {
  border-color: var(--fault);
}
</style>
