import { api, type ClipView, Problem, type Recipe } from '@/api/client'
import { suggested } from '@/view/condition'

/**
 * Gives the first take of several clips a recipe.
 *
 * @param from the clip whose recipe they get; none gives each what its own condition suggests
 * @returns a sentence for every clip that did not get one
 */
export async function treatAlike(clips: ClipView[], from: ClipView | undefined): Promise<string[]> {
  const wrong: string[] = []
  const copied = from ? ((await api.takes(from.id))[0]?.recipe as unknown as Recipe | undefined) : undefined
  for (const clip of clips) {
    const condition = clip.examination?.condition
    const recipe = from ? copied : condition && suggested(condition)
    if (!recipe) {
      wrong.push(`${clip.title} has not been examined yet`)
      continue
    }
    try {
      const [take] = await api.takes(clip.id)
      if (take) {
        await api.changeTake(take.id, {
          recipe,
          version: take.version,
          ...(take.inFrame === undefined ? {} : { inFrame: take.inFrame }),
          ...(take.outFrame === undefined ? {} : { outFrame: take.outFrame }),
        })
      }
    } catch (error) {
      wrong.push(`${clip.title}: ${error instanceof Problem ? error.message : String(error)}`)
    }
  }
  return wrong
}
