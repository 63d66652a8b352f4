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
    <button
      v-if="!typing"
      class="shown figure"
      type="button"
      :title="`${code}; click to type`"
      @click="begin"
    >
      {{ label }} {{ shown }}
    </button>
    <template v-else>
      <label class="figure">
        {{ label }}
        <input
          ref="field"
          v-model="text"
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

input {
  width: 108px;
  padding: 1px 5px;
  border: 1px solid var(--rule);
  background: var(--ground);
  color: var(--ink);
  font: 13px var(--mono);
}

input[aria-invalid='true'] {
  border-color: var(--fault);
}
</style>
