import { computed, onScopeDispose, ref, type Ref, shallowRef, watch } from 'vue'
import { api, type ClipView, Problem, type ProofView, type Recipe, type TakeView } from '@/api/client'
import { useNotices } from '@/stores/notices'
import type { usePlans } from '@/stores/usePlans'
import { isBeside, isOpen, useProofs } from '@/stores/useProofs'
import { type Did, didInMotion } from './figures'
import { clamp, type Rect } from './glass'
import { behindTheGlass } from './queue'
import { captionStrip } from './sheetPicture'
import { proofNames } from './proofNames'
import { type Sides, sidesOf } from './sides'
import { useProofPlayer } from './useProofPlayer'

/** What proofs need of the bench. */
interface Bench {
  readonly clip: ClipView
  readonly planOf: ReturnType<typeof usePlans>
  readonly take: Ref<TakeView | undefined>
  readonly state: Ref<
    { recipe: Recipe; inFrame: number | undefined; outFrame: number | undefined } | undefined
  >
  readonly sides: Ref<Sides | undefined>
  readonly save: () => Promise<void>
  /** What the glass shows of the source. */
  readonly seenPart: () => Rect | undefined
  readonly frame: Ref<number>
  /** Goes to a moment, in frames of the clip. */
  readonly goTo: (frame: number) => void
}

/** Proofs on the bench: asked for, played, compared, thrown away. */
export function useBenchProofs(bench: Bench) {
  const notices = useNotices()
  const { clip, take, state, sides, frame } = bench
  const frames = clip.frames ?? 1
  const rate = clip.facts?.ratePerSecond ?? 25
  const proofs = useProofs(clip.id, notices.fail)
  const proofSeconds = ref(2)
  const chosenProof = ref<string>()
  const proof = computed(() => proofs.proofs.value.find((one) => one.id === chosenProof.value))
  const player = useProofPlayer(proof, bench.planOf, notices.fail)
  const { moving, playing, speed } = player
  const marked = computed(() => state.value?.inFrame !== undefined || state.value?.outFrame !== undefined)

  /** The clip's frame that belongs to a proof's. */
  function clipFrame(of: ProofView, n: number): number {
    return of.fromFrame + (n * (of.endFrame - of.fromFrame)) / of.frames
  }

  watch(moving, (now) => {
    if (now && proof.value) {
      bench.goTo(clipFrame(proof.value, now.frame))
    }
  })

  /** Whether the proof that is chosen was made with settings that are no longer those at hand. */
  const isOld = computed(
    () =>
      proof.value !== undefined &&
      JSON.stringify(proof.value.recipe) !== JSON.stringify(state.value?.recipe ?? {}),
  )
  // paused, the exact frame is shown without loss, where the glass has the same to show
  watch(playing, (is) => {
    if (!is && (!proof.value || (!isOld.value && !proof.value.against))) {
      moving.value = undefined
    }
  })

  /** The glass shows the frame at rest again, whatever was played. */
  function rest() {
    player.pause()
    moving.value = undefined
  }

  async function prove() {
    const now = state.value
    const on = take.value
    const part = bench.seenPart()
    if (!now || !on || !sides.value || !part) {
      return
    }
    await bench.save()
    const length = Math.max(1, Math.round(proofSeconds.value * rate))
    const from = marked.value ? (now.inFrame ?? 0) : clamp(frame.value, 0, Math.max(0, frames - length))
    const end = marked.value ? (now.outFrame ?? frames) : Math.min(frames, from + length)
    const { placement, source } = sides.value
    const perX = placement.width / source.width
    const perY = placement.height / source.height
    const made = await proofs.prove({
      takeId: on.id,
      takeName: on.name,
      recipe: now.recipe,
      from,
      end,
      x: Math.max(0, Math.floor(placement.x + part.x * perX)),
      y: Math.max(0, Math.floor(placement.y + part.y * perY)),
      width: Math.max(2, Math.ceil(part.width * perX)),
      height: Math.max(2, Math.ceil(part.height * perY)),
    })
    choose(made)
  }

  const besides = computed(() => {
    const one = proof.value
    return one ? proofs.proofs.value.filter((other) => isBeside(one, other)) : []
  })

  function choose(made: ProofView | undefined) {
    if (made) {
      player.pause()
      chosenProof.value = made.id
    }
  }

  async function layBeside(one: ProofView, other: ProofView) {
    choose(await proofs.beside(one, other))
  }

  /** The newest other proof of the same place in the stead of the source. */
  function layNewestBeside() {
    const one = proof.value ?? proofs.proofs.value.findLast((made) => made.framesDone > 0 && !made.against)
    const other = one && proofs.proofs.value.findLast((made) => isBeside(one, made))
    if (one && other) {
      void layBeside(one, other)
    } else {
      notices.say('There is no other proof of the same place and moment: prove it with other settings first.')
    }
  }

  /** The same moment and place with the settings at hand, so that both can be laid beside each other. */
  async function proveAgain(old: ProofView) {
    const now = state.value
    const on = take.value
    if (!now || !on || !sides.value) {
      return
    }
    await bench.save()
    const was = sidesOf(old.recipe as unknown as Recipe, await bench.planOf(old.recipe as unknown as Recipe))
    const { placement } = sides.value
    const perX = placement.width / was.placement.width
    const perY = placement.height / was.placement.height
    choose(
      await proofs.prove({
        takeId: on.id,
        takeName: on.name,
        recipe: now.recipe,
        from: old.fromFrame,
        end: old.endFrame,
        x: Math.max(0, Math.round(placement.x + (old.x - was.placement.x) * perX)),
        y: Math.max(0, Math.round(placement.y + (old.y - was.placement.y) * perY)),
        width: Math.max(2, Math.round(old.width * perX)),
        height: Math.max(2, Math.round(old.height * perY)),
      }),
    )
  }

  // a proof that was asked for plays as soon as there is something of it
  watch(
    () => [proof.value?.id, (proof.value?.framesDone ?? 0) >= 12 || proof.value?.state === 'DONE'] as const,
    ([id, there], [before, was]) => {
      if (id && there && (id !== before || !was) && !playing.value) {
        void player.toggle()
      }
    },
  )

  function playOrPause() {
    const now = proof.value
    if (!now) {
      const last = proofs.proofs.value.findLast((one) => one.framesDone > 0)
      if (last) {
        chosenProof.value = last.id
      } else {
        notices.say('Nothing to play yet: Enter renders a proof of this moment.')
      }
      return
    }
    const inside = frame.value >= now.fromFrame && frame.value < now.endFrame
    const seconds = ((frame.value - now.fromFrame) / (now.endFrame - now.fromFrame)) * (now.frames / now.rate)
    void player.toggle(inside ? Math.max(0, seconds) : 0)
  }

  function nextSpeed() {
    speed.value = speed.value === 1 ? 0.5 : speed.value === 0.5 ? 0.25 : 1
  }

  /** Asks for a moving comparison with captions; it is fetched as a file once it is ready. */
  async function compareProof(one: ProofView, look: 'wipe' | 'pair') {
    const width = look === 'pair' ? 2 * one.width : one.width
    const names = proofNames(one)
    const strip = captionStrip(width, {
      left: names.left === undefined ? 'source, enlarged plainly' : `take ${names.left}`,
      middle: clip.title,
      right: `take ${names.right}`,
    })
    try {
      await api.compareProof(one.id, look, strip.toDataURL('image/png').replace(/^[^,]*,/, ''))
      fetching.value = one.id
    } catch (error) {
      notices.fail(error)
    }
  }

  const fetching = ref('')
  watch(
    () => proofs.proofs.value.find((one) => one.id === fetching.value)?.comparison,
    (made) => {
      if (made?.ready) {
        const link = document.createElement('a')
        link.href = `/api/proofs/${fetching.value}/comparison`
        link.download = `${clip.title} ${made.look}.mp4`
        link.click()
        fetching.value = ''
      } else if (made?.problem) {
        notices.fail(new Problem(0, made.problem))
        fetching.value = ''
      }
    },
  )

  async function throwAway(one: ProofView) {
    chosenProof.value = undefined
    await proofs.remove(one.id)
  }

  /** What was measured at three frames of the proof that is chosen, once it is made. */
  const figures = shallowRef<{ id: string; did: Did }>()
  const left = new AbortController()
  onScopeDispose(() => left.abort())
  watch(
    () => (proof.value && !isOpen(proof.value) && proof.value.framesDone > 0 ? proof.value : undefined),
    async (made) => {
      // laid beside another take it tells nothing of its own
      if (!made || made.against || figures.value?.id === made.id) {
        return
      }
      const last =
        made.fromFrame + Math.floor(((made.endFrame - made.fromFrame) * made.framesDone) / made.frames)
      const some = [
        made.fromFrame,
        Math.floor((made.fromFrame + last) / 2),
        Math.max(made.fromFrame, last - 2),
      ]
      const recipe = made.recipe as unknown as Recipe
      try {
        const measured = await behindTheGlass.add(
          () => api.compareTake(clip.id, recipe, some, `proof-${made.id}`, left.signal),
          left.signal,
        )
        figures.value = { id: made.id, did: didInMotion(measured) }
      } catch {
        // told beside the proof; that it could not be measured is no reason to disturb
      }
    },
  )
  const proofFigures = computed(() =>
    figures.value?.id === proof.value?.id ? figures.value?.did : undefined,
  )

  return {
    proofs,
    proofFigures,
    proof,
    chosenProof,
    proofSeconds,
    player,
    marked,
    isOld,
    rest,
    prove,
    besides,
    layBeside,
    layNewestBeside,
    proveAgain,
    playOrPause,
    nextSpeed,
    compareProof,
    throwAway,
  }
}
