<script setup lang="ts">
import { ref } from 'vue'
import type { PinView } from '@/api/client'
import type { Sides } from '@/view/sides'
import NameField from '@/components/common/NameField.vue'
import Loupe from '@/components/common/Loupe.vue'
import KeyHint from '@/components/common/KeyHint.vue'

/** The pins of a clip: source over treated, live at the settings at hand. */
defineProps<{ pins: PinView[]; sides: Sides; frame: number; searching: boolean }>()
const emit = defineEmits<{
  go: [pin: PinView]
  rename: [pin: PinView, name: string]
  remove: [pin: PinView]
  drop: []
  suggest: []
  failed: [error: unknown]
}>()
const naming = ref('')

function named(pin: PinView, name: string | undefined) {
  naming.value = ''
  if (name !== undefined) {
    emit('rename', pin, name)
  }
}
</script>

<template>
  <div class="pins">
    <div class="scroll">
      <div v-for="(pin, index) in pins" :key="pin.id" class="pin" data-test="pin">
        <v-btn
          variant="plain"
          class="bare look"
          :aria-label="`Go to ${pin.name}`"
          :title="`Go to ${pin.name}, frame ${pin.frame}`"
          @click="emit('go', pin)"
        >
          <Loupe
            v-for="side in ['source', 'treated'] as const"
            :key="side"
            class="half"
            :pin="pin"
            :sides="sides"
            :side="side"
            :viewer="`pin-${pin.id}`"
            :label="`${pin.name}, ${side}`"
            @failed="(error) => emit('failed', error)"
          />
        </v-btn>
        <div class="line">
          <NameField
            v-if="naming === pin.id"
            class="name"
            :name="pin.name"
            label="Name of the pin"
            @done="(name) => named(pin, name)"
          />
          <v-btn v-else variant="plain" class="bare name" title="Name it" @click="naming = pin.id">
            {{ index + 1 }} {{ pin.name }}
          </v-btn>
          <span v-if="pin.frame !== frame" class="figure faint">{{ pin.frame }}</span>
          <v-btn
            class="link away"
            variant="plain"
            :aria-label="`Take ${pin.name} away`"
            @click="emit('remove', pin)"
          >
            ×
          </v-btn>
        </div>
      </div>
      <p v-if="pins.length === 0" class="label faint">
        Pin the places that matter. They stay in sight here, before and after, whatever you change.
      </p>
    </div>
    <div class="foot">
      <v-btn
        class="link"
        variant="plain"
        title="Shift and drag on the picture draws a box"
        @click="emit('drop')"
      >
        Pin here <KeyHint of="p" />
      </v-btn>
      <v-btn class="link" variant="plain" :disabled="searching" @click="emit('suggest')">
        {{ searching ? 'Looking…' : 'Suggest pins' }}
      </v-btn>
    </div>
  </div>
</template>

<style scoped>
.pins {
  display: flex;
  flex-direction: column;
  min-height: 0;
  flex: 1;
}

.scroll {
  flex: 1;
  overflow: hidden auto;
  padding: 0 12px;
  min-height: 0;
}

.pin {
  margin-bottom: 10px;
}

.look {
  display: grid;
  gap: 2px;
  width: 100%;
  padding: 0;
  border: 0;
  background: none;
  cursor: pointer;
}

.half {
  height: 74px;
}

.line {
  display: flex;
  align-items: baseline;
  gap: 4px;
}

.name {
  flex: 1;
  min-width: 0;
  padding: 2px 0;
  border: 0;
  background: none;
  color: var(--quiet);
  font: 12px var(--label);
  text-align: left;
  overflow: hidden;
  white-space: nowrap;
  text-overflow: ellipsis;
  cursor: text;
}

input.name {
  background: var(--raised);
  color: var(--ink);
}

.away {
  color: var(--faint);
}

.foot {
  display: flex;
  flex-direction: column;
  align-items: flex-start;
  gap: 6px;
  padding: 10px 12px 12px;
}
</style>
