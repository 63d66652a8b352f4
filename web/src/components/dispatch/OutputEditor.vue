<script setup lang="ts">
import { computed, ref } from 'vue'
import {
  api,
  type CodecDescription,
  type DeliverableChoice,
  type PresetDescription,
  Problem,
  type Recipe,
} from '@/api/client'
import NameField from '@/components/common/NameField.vue'
import SegmentRow from '@/components/common/SegmentRow.vue'
import { useNotices } from '@/stores/notices'
import { byQuality, chosenOf, inCodec, inContainer, isPreset, presetOver } from '@/view/sending'
import CodecControls from './CodecControls.vue'
import SizeCurve from './SizeCurve.vue'
import TagFields from './TagFields.vue'

/** One file to send out: by what it is for, or set in every part. */
const props = defineProps<{
  codecs: CodecDescription[]
  presets: PresetDescription[]
  /** Whether there is sound that could go along, and whether it is played at another pace. */
  hasSound: boolean
  isStretched: boolean
  hasSubtitles?: boolean
  /** What size and quality can be tried on; none where there are many clips, or it cannot be made yet. */
  trial?: { clip: string; request: { recipe: Recipe; inFrame?: number; outFrame?: number } } | undefined
}>()
const output = defineModel<DeliverableChoice>({ required: true })
const emit = defineEmits<{ presets: [] }>()
const notices = useNotices()

const codec = computed(() => props.codecs.find((one) => one.id === output.value.codec))
const container = computed(() => codec.value?.containers.find((one) => one.ending === output.value.container))
const sound = computed(() => container.value?.sounds.find((one) => one.id === output.value.sound))
const subtitles = computed(() =>
  container.value?.subtitles.find((one) => one.id === (output.value.subtitles ?? 'attached')),
)
const preset = computed(() => props.presets.find((one) => isPreset(output.value, one)))
const choices = computed(() =>
  props.codecs.map((one) => ({ title: one.label, value: one.id, props: { subtitle: one.purpose } })),
)

/** What was set, by codec: going to another and back forgets nothing. */
const before = new Map<string, DeliverableChoice>()
function take(id: string) {
  const next = props.codecs.find((one) => one.id === id)
  if (next) {
    before.set(output.value.codec, output.value)
    output.value = before.get(id) ?? inCodec(output.value, next)
  }
}

function choose(key: string) {
  const one = props.presets.find((other) => other.key === key)
  if (one) {
    output.value = presetOver(output.value, one)
  }
}
function contain(ending: string) {
  if (codec.value) {
    output.value = inContainer(output.value, codec.value, ending)
  }
}

function withoutTags(one: DeliverableChoice): DeliverableChoice {
  const rest = { ...one }
  delete rest.tags
  return rest
}

const isTrying = ref(false)
const naming = ref(false)
const picker = ref<HTMLInputElement>()
async function save(name: string | undefined) {
  naming.value = false
  if (name) {
    await api.savePreset(name, output.value, false).catch(notices.fail)
    emit('presets')
  }
}
async function makeDefault(own: PresetDescription) {
  await api.savePreset(own.label, chosenOf(own), !own.isDefault).catch(notices.fail)
  emit('presets')
}
async function forget(own: PresetDescription) {
  await api.removePreset(own.id!).catch(notices.fail)
  emit('presets')
}

/** As a file, for another machine or somebody else. */
function exported() {
  const name = preset.value?.label ?? 'preset'
  const tree = { awlsmithPreset: 1, name, deliverable: output.value }
  const link = document.createElement('a')
  link.href = URL.createObjectURL(new Blob([JSON.stringify(tree, null, 2)], { type: 'application/json' }))
  link.download = `${name}.json`
  link.click()
  URL.revokeObjectURL(link.href)
}

async function taken(event: Event) {
  const input = event.target as HTMLInputElement
  const file = input.files?.[0]
  input.value = ''
  if (!file) {
    return
  }
  try {
    const tree = JSON.parse(await file.text()) as {
      awlsmithPreset?: number
      name?: string
      deliverable?: DeliverableChoice
    }
    if (tree.awlsmithPreset !== 1 || !tree.deliverable) {
      throw new Problem(0, `${file.name} holds no preset; choose a file that Export wrote here`)
    }
    const saved = await api.savePreset(tree.name ?? file.name.replace(/\.json$/, ''), tree.deliverable, false)
    output.value = chosenOf(saved)
    emit('presets')
  } catch (error) {
    notices.fail(
      error instanceof SyntaxError
        ? new Problem(0, `${file.name} is no JSON; choose a file that Export wrote here`)
        : error,
    )
  }
}
</script>

<template>
  <div class="presets">
    <SegmentRow
      label="What it is for"
      :options="
        presets.map((one) => ({
          id: one.key,
          label: one.label,
          effect: one.purpose,
          test: `preset-${one.key}`,
        }))
      "
      :chosen="preset?.key"
      @choose="choose"
    />
  </div>
  <div class="own">
    <span class="purpose">{{ preset?.purpose ?? `as you set it: ${codec?.purpose ?? ''}` }}</span>
    <NameField v-if="naming" name="" label="Name of the preset" :longest="60" @done="save" />
    <template v-else>
      <v-btn v-if="!preset || output.tags" class="link" variant="plain" @click="naming = true"
        >Save as a preset</v-btn
      >
      <template v-if="preset?.id">
        <v-btn class="link" variant="plain" @click="makeDefault(preset)">
          {{ preset.isDefault ? 'No longer the first choice' : 'Make it the first choice' }}
        </v-btn>
        <v-btn class="link" variant="plain" @click="forget(preset)">Forget it</v-btn>
      </template>
      <v-btn class="link" variant="plain" title="As a file, for another machine" @click="exported">
        Export
      </v-btn>
      <v-btn class="link" variant="plain" title="A file that Export wrote" @click="picker?.click()">
        Take in…
      </v-btn>
      <input ref="picker" type="file" accept=".json" hidden aria-label="Take in a preset" @change="taken" />
    </template>
  </div>
  <v-select :model-value="output.codec" :items="choices" label="Codec" @update:model-value="take" />
  <div v-if="codec && codec.containers.length > 1" class="line">
    <span class="label">Container</span>
    <SegmentRow
      label="Container"
      :options="codec.containers.map((one) => ({ id: one.ending, label: one.label }))"
      :chosen="output.container"
      @choose="contain"
    />
  </div>
  <CodecControls
    v-if="codec"
    :codec="codec"
    :settings="output.settings"
    @change="(settings) => (output = { ...output, settings })"
  />
  <v-btn
    v-if="codec && codec.qualities.length > 0 && trial"
    class="link try"
    variant="plain"
    :aria-expanded="isTrying"
    title="Tries several qualities on a little of it: how small, and what is lost"
    data-test="curve"
    @click="isTrying = !isTrying"
  >
    {{ isTrying ? 'Hide size against quality' : 'Size against quality…' }}
  </v-btn>
  <SizeCurve
    v-if="isTrying && trial && codec && codec.qualities.length > 0"
    :clip="trial.clip"
    :request="{ ...trial.request, deliverable: output }"
    :codec="codec"
    @choose="(quality) => (output = byQuality(output, quality))"
  />
  <div v-if="hasSound && container && container.sounds.length > 1" class="line">
    <span class="label">Sound</span>
    <SegmentRow
      label="Sound"
      :options="container.sounds.map((one) => ({ ...one, test: `sound-${one.id}` }))"
      :chosen="output.sound"
      @choose="(id) => (output = { ...output, sound: id })"
    />
    <span v-if="isStretched && output.sound !== 'none'" class="purpose">
      stretched to the picture at its pitch
    </span>
    <span v-else class="purpose">{{ sound?.effect }}</span>
  </div>
  <p v-else-if="hasSound && container" class="purpose">{{ container.label }} holds no sound</p>
  <div v-if="hasSubtitles && container && container.subtitles.length > 0" class="line">
    <span class="label">Subtitles</span>
    <SegmentRow
      label="Subtitles"
      :options="container.subtitles.map((one) => ({ ...one, test: `subtitles-${one.id}` }))"
      :chosen="output.subtitles ?? 'attached'"
      @choose="(id) => (output = { ...output, subtitles: id })"
    />
    <span class="purpose">{{ subtitles?.effect }}</span>
  </div>
  <TagFields
    :model-value="output.tags"
    @update:model-value="(tags) => (output = tags ? { ...output, tags } : withoutTags(output))"
  />
</template>

<style scoped>
.presets,
.own {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 14px;
}

.purpose {
  color: var(--quiet);
  margin: 0;
}

.own .purpose {
  margin-right: auto;
}

.try {
  justify-self: start;
}

.line {
  display: grid;
  grid-template-columns: 72px auto 1fr;
  gap: 12px;
  align-items: center;
}
</style>
