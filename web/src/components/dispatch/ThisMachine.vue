<script setup lang="ts">
import { computed, onMounted, ref } from 'vue'
import { api, type MachineView } from '@/api/client'
import SegmentRow from '@/components/common/SegmentRow.vue'
import { useNotices } from '@/stores/notices'
import { coresOf, firstOf } from '@/view/cores'
import { bytes } from '@/view/words'

/** What of this machine the work may use: seen in a line, changed at once, also for what runs. */
const notices = useNotices()
const machine = ref<MachineView>()
const isOpen = ref(false)
const isTyping = ref(false)
const typed = ref('')

onMounted(() => api.machine().then((view) => (machine.value = view), notices.fail))

const ALL = 'all'
const TYPED = 'typed'
const there = computed(() => (machine.value?.there ? coresOf(machine.value.there) : []))
const coreChoices = computed(() => {
  const all = there.value.length
  const parts = [...new Set([Math.floor(all / 2), Math.floor(all / 4), 1])].filter((n) => n > 0 && n < all)
  return [
    { id: ALL, label: `all ${all}` },
    ...parts.map((n) => ({ id: firstOf(machine.value!.there, n), label: `${n}` })),
    { id: TYPED, label: 'these…', effect: 'By their numbers' },
  ]
})
const chosenCores = computed(() => {
  const cores = machine.value?.share.cores
  if (isTyping.value) {
    return TYPED
  }
  return !cores ? ALL : coreChoices.value.some((one) => one.id === cores) ? cores : TYPED
})
const memoryChoices = computed(() =>
  [1, 0.5, 0.25].map((share) => ({
    id: share,
    label: bytes(share * (machine.value?.mostBytes ?? 0)),
    effect: 'All work together; what needs more is refused with a sentence',
  })),
)
const CORES = 'cores'
const GRAPHICS = 'graphics'
const NETS = [
  { id: CORES, label: 'the cores' },
  {
    id: GRAPHICS,
    label: 'the graphics processor',
    effect: 'All else goes on on the cores beside it; other machines make no parts of such renders',
  },
]
const MEANWHILE = [
  { id: 1, label: 'go on' },
  { id: 0.5, label: 'half of the time' },
  { id: 0.25, label: 'a quarter' },
  { id: 0, label: 'wait' },
]
const line = computed(() => {
  const now = machine.value
  if (!now) {
    return ''
  }
  const all = there.value.length
  const cores = all > 0 ? `${now.cores} of ${all} cores` : `${now.cores} cores`
  const meanwhile = MEANWHILE.find((one) => one.id === now.share.whileWorking)
  return [
    cores,
    `up to ${bytes(now.mostBytes * now.share.memory)}`,
    now.share.whileWorking < 1
      ? `while somebody works, renders ${meanwhile?.id === 0 ? 'wait' : `work ${meanwhile?.label ?? `${Math.round(100 * now.share.whileWorking)} % of the time`}`}`
      : '',
  ]
    .filter(Boolean)
    .join(' · ')
})

async function change(part: Partial<MachineView['share']>) {
  if (!machine.value) {
    return
  }
  const share = { ...machine.value.share, ...part }
  machine.value = await api.shareMachine(share).catch((error: unknown) => {
    notices.fail(error)
    return machine.value
  })
}

function chooseCores(id: string) {
  isTyping.value = id === TYPED
  if (id === TYPED) {
    typed.value = machine.value?.share.cores ?? machine.value?.there ?? ''
  } else {
    void change({ cores: id === ALL ? undefined : id })
  }
}

async function type() {
  await change({ cores: typed.value.trim() || undefined })
  isTyping.value = false
}
</script>

<template>
  <section v-if="machine" class="machine" aria-label="This machine" data-test="this-machine">
    <h2>
      This machine <span class="label">{{ line }}</span>
      <v-btn class="link" variant="plain" :aria-expanded="isOpen" @click="isOpen = !isOpen">
        {{ isOpen ? 'Done' : 'Change' }}
      </v-btn>
    </h2>
    <dl v-if="isOpen" class="choices">
      <template v-if="there.length > 0">
        <dt class="label">Works on cores</dt>
        <dd>
          <SegmentRow
            label="Works on cores"
            :options="coreChoices"
            :chosen="chosenCores"
            @choose="chooseCores"
          />
          <form v-if="chosenCores === TYPED" class="typed" @submit.prevent="type">
            <input
              v-model="typed"
              class="figure"
              aria-label="Cores by their numbers"
              :placeholder="machine.share.cores ?? machine.there"
            />
            <v-btn type="submit" class="link" variant="plain">Use these</v-btn>
            <span class="quiet">of {{ machine.there }}, as 0-3,6</span>
          </form>
        </dd>
      </template>
      <dt class="label">Holds at most</dt>
      <dd>
        <SegmentRow
          label="Holds at most"
          :options="memoryChoices"
          :chosen="machine.share.memory"
          @choose="(memory) => change({ memory })"
        />
      </dd>
      <dt class="label">While somebody works, renders</dt>
      <dd>
        <SegmentRow
          label="While somebody works, renders"
          :options="MEANWHILE"
          :chosen="machine.share.whileWorking"
          @choose="(whileWorking) => change({ whileWorking })"
        />
        <span class="quiet">until a minute after the last change or picture</span>
      </dd>
      <dt class="label">Nets run on</dt>
      <dd>
        <SegmentRow
          v-if="!machine.noGraphics"
          label="Nets run on"
          :options="NETS"
          :chosen="machine.graphics ? GRAPHICS : CORES"
          @choose="(nets) => change({ graphics: nets === GRAPHICS })"
        />
        <span class="quiet">{{
          machine.noGraphics ? `${machine.nets}: ${machine.noGraphics}` : 'for what begins from now on'
        }}</span>
      </dd>
      <dt class="label">Coded by</dt>
      <dd class="quiet">{{ machine.coding }}</dd>
    </dl>
  </section>
</template>

<style scoped>
.machine {
  padding: 18px 20px 0;
  border-top: 1px solid var(--rule);
  margin-top: 18px;
}

h2 {
  display: flex;
  gap: 12px;
  align-items: baseline;
}

h2 .label {
  font-weight: 400;
}

.typed {
  display: flex;
  gap: 10px;
  align-items: baseline;
}

.typed input {
  width: 120px;
  padding: 2px 6px;
  border: 1px solid var(--rule);
  background: none;
  color: var(--ink);
}
</style>
