import { received } from '@/view/line'
import type { components } from './schema'

type Schemas = components['schemas']
export type ClipView = Schemas['ClipView']
export type ClipFacts = Schemas['ClipFacts']
export type ConditionFacts = Schemas['ConditionFacts']
export type Finding = Schemas['FindingView']
export type CurvesView = Schemas['CurvesView']
export type TakeView = Schemas['TakeView']
export type SavedRecipe = Schemas['SavedRecipe']
export type PinView = Schemas['PinView']
export type PeeksView = Schemas['PeeksView']
export type ProofView = Schemas['ProofView']
export type FiguresView = Schemas['FiguresView']
export type StepsView = Schemas['StepsView']
export type TakeFigures = Schemas['TakeFigures']
export type PlaceView = Schemas['PlaceView']
export type PixelView = Schemas['PixelView']
export type ScopesView = Schemas['ScopesView']
export type RenderView = Schemas['RenderView']
export type PlanView = Schemas['PlanView']
export type WorkerView = Schemas['WorkerView']
export type TrialView = Schemas['TrialView']
export type CurvePoint = Schemas['CurvePoint']
export type Way = Schemas['Way']
export type WatchedView = Schemas['WatchedView']
export type StepView = PlanView['steps'][number]
export type Waiting = Schemas['Waiting']
export type AnalysisView = Schemas['AnalysisView']
export type PlacementView = Schemas['PlacementView']
export type StepDescription = Schemas['StepDescription']
export type ParamDescription = Schemas['ParamDescription']
export type DeliverableChoice = Schemas['DeliverableChoice']
export type TableView = Schemas['TableView']
export type CodecDescription = Schemas['CodecDescription']
export type PresetDescription = Schemas['PresetDescription']
export type ModelView = Schemas['ModelView']
export type MachineView = Schemas['MachineView']
export type StorageUse = Schemas['StorageUse']
export type FolderListing = Schemas['Listing']
export type FolderEntry = Schemas['Entry']
export type SessionView = Schemas['SessionView']
export type DemoMaking = Schemas['Making']

/** One wrong setting of a recipe: which step (from 0, or -1), which key, and a sentence. */
export interface RecipeProblem {
  step: number
  key: string
  sentence: string
}

/** What the server refused or failed at, in a sentence; status 0 when it could not be reached at all. */
export class Problem extends Error {
  constructor(
    readonly status: number,
    sentence: string,
    readonly problems: RecipeProblem[] = [],
  ) {
    super(sentence)
  }
}

/** A name of this open page: what it asks for anew stops what it asked for before, and nothing of another window. */
export const pageName = Math.random().toString(36).slice(2, 12)

const signedOutListeners = new Set<() => void>()

/** Hears that the session has ended; returns the way to stop. */
export function onSignedOut(listener: () => void): () => void {
  signedOutListeners.add(listener)
  return () => signedOutListeners.delete(listener)
}

/** Tells everybody that this page is signed out. */
export function tellSignedOut() {
  signedOutListeners.forEach((listener) => listener())
}

const AWAY = 'the server does not answer; it may be starting again. This page tries on by itself'

export function xsrfToken(cookies: string = document.cookie): string {
  const pair = cookies.split('; ').find((part) => part.startsWith('XSRF-TOKEN='))
  return pair ? decodeURIComponent(pair.slice('XSRF-TOKEN='.length)) : ''
}

/** Reads a problem out of an answer, whoever wrote it: the application, or something in between. */
export function asProblem(status: number, body: unknown): Problem {
  if (typeof body === 'object' && body !== null && 'detail' in body && typeof body.detail === 'string') {
    const list = 'problems' in body && Array.isArray(body.problems) ? (body.problems as RecipeProblem[]) : []
    return new Problem(status, body.detail, list)
  }
  return new Problem(status, status >= 500 ? AWAY : `the server answered with status ${status}`)
}

async function send(method: string, path: string, body?: unknown, signal?: AbortSignal): Promise<Response> {
  const headers: Record<string, string> = {
    Accept: 'application/json, image/png, image/jpeg',
    'X-Page': pageName,
  }
  if (method !== 'GET') {
    headers['X-XSRF-TOKEN'] = xsrfToken()
  }
  if (body !== undefined) {
    headers['Content-Type'] = body instanceof Blob ? 'application/octet-stream' : 'application/json'
  }
  let response: Response
  try {
    response = await fetch(path, {
      method,
      headers,
      signal: signal ?? null,
      body: body === undefined ? null : body instanceof Blob ? body : JSON.stringify(body),
    })
  } catch (error) {
    if (error instanceof DOMException && error.name === 'AbortError') {
      throw error
    }
    throw new Problem(0, AWAY)
  }
  if (response.ok) {
    return response
  }
  if (response.status === 401) {
    tellSignedOut()
  }
  throw asProblem(response.status, await response.json().catch(() => undefined))
}

async function json<T>(method: string, path: string, body?: unknown, signal?: AbortSignal): Promise<T> {
  const response = await send(method, path, body, signal)
  return (await response.json()) as T
}

export interface StillRequest {
  frame: number
  /** Output frames after the first one made of that frame. */
  later?: number
  recipe?: Recipe
  part?: { x: number; y: number; width: number; height: number }
  reduce: number
  viewer: string
  /** Shows the clip's reference instead of the clip. */
  reference?: boolean
  /** Paints what lies beyond black and white in colours of its own. */
  marked?: boolean
  /** How many of the first steps are kept as they are while others are tried. */
  held?: number
  /** With loss, in a tenth of the bytes. */
  quick?: boolean
}

/** A part of a frame that is seen, in source pixels. */
export interface Seen extends Rect {
  recipe: Recipe
  frame: number
  later?: number
}

export interface Rect {
  readonly x: number
  readonly y: number
  readonly width: number
  readonly height: number
}

export interface BatchOrder {
  takes: { takeId: string; wholeClip: boolean }[]
  deliverables: DeliverableChoice[]
  /** Of the files' names, with words in braces. */
  pattern?: string
  /** When the first may begin. */
  notBefore?: string
  name?: string
}

export interface RecipeStep {
  step: string
  on: boolean
  settings: Record<string, number | string>
}

export interface Recipe {
  awlsmith: 1
  steps: RecipeStep[]
}

export const api = {
  session: () => json<SessionView>('GET', '/api/session'),
  signIn: (password: string) => json<SessionView>('POST', '/api/session', { password }),
  signOut: () => send('DELETE', '/api/session'),
  demo: () => json<DemoMaking>('GET', '/api/demo'),
  machine: () => json<MachineView>('GET', '/api/machine'),
  shareMachine: (share: MachineView['share']) => json<MachineView>('PUT', '/api/machine', share),
  models: () => json<ModelView[]>('GET', '/api/models'),
  measureModel: (id: string, mode: string) => json<ModelView>('POST', '/api/models/speeds', { id, mode }),
  steps: () => json<StepDescription[]>('GET', '/api/steps'),
  tables: () => json<TableView[]>('GET', '/api/tables'),
  addTable: (file: File) => json<TableView>('PUT', `/api/tables?name=${encodeURIComponent(file.name)}`, file),
  removeTable: (hash: string) => send('DELETE', `/api/tables/${hash}`),
  codecs: () => json<CodecDescription[]>('GET', '/api/codecs'),
  presets: () => json<PresetDescription[]>('GET', '/api/presets'),
  clips: () => json<ClipView[]>('GET', '/api/clips'),
  clip: (id: string) => json<ClipView>('GET', `/api/clips/${id}`),
  rename: (id: string, title: string) => json<ClipView>('PATCH', `/api/clips/${id}`, { title }),
  folders: () => json<string[]>('GET', '/api/folders'),
  folder: (root: number, path: string) =>
    json<FolderListing>('GET', `/api/folders/${root}?path=${encodeURIComponent(path)}`),
  link: (root: number, path: string) => json<ClipView>('POST', `/api/folders/${root}/clips`, { path }),
  /** @param fill decodes everything, makes up lost frames and keeps sound in step */
  joinClips: (clips: string[], title: string) => json<ClipView>('POST', '/api/clips/join', { clips, title }),
  repair: (id: string, fill: boolean) => json<ClipView>('POST', `/api/clips/${id}/repair?fill=${fill}`),
  gather: (root: number, order: { path: string; name: string; ending: string; rate: string }) =>
    json<ClipView>('POST', `/api/folders/${root}/series`, order),
  aside: () => json<ClipView[]>('GET', '/api/clips/aside'),
  putAside: (id: string) => send('POST', `/api/clips/${id}/aside`),
  takeBack: (id: string) => json<ClipView>('POST', `/api/clips/${id}/back`),
  /** For good. */
  removeClip: (id: string) => send('DELETE', `/api/clips/${id}`),
  examine: (id: string) => json<ClipView>('POST', `/api/clips/${id}/examination`),
  stopExamining: (id: string) => json<ClipView>('DELETE', `/api/clips/${id}/examination`),
  curves: (id: string, points: number) =>
    json<CurvesView>('GET', `/api/clips/${id}/examination/curves?points=${points}`),
  takes: (clip: string) => json<TakeView[]>('GET', `/api/clips/${clip}/takes`),
  changeTake: (
    id: string,
    change: { recipe: Recipe; inFrame?: number; outFrame?: number; version: number },
  ) => json<TakeView>('PUT', `/api/takes/${id}`, change),
  addTakes: (clip: string, takes: { name?: string; recipe: Recipe }[], like?: string) =>
    json<TakeView[]>('POST', `/api/clips/${clip}/takes`, { takes, ...(like ? { like } : {}) }),
  undoTake: (id: string, version: number) => json<TakeView>('POST', `/api/takes/${id}/undo`, { version }),
  redoTake: (id: string, version: number) => json<TakeView>('POST', `/api/takes/${id}/redo`, { version }),
  labelTake: (id: string, label: { name?: string; verdict?: TakeView['verdict'] }) =>
    json<TakeView>('PATCH', `/api/takes/${id}`, label),
  removeTake: (id: string) => send('DELETE', `/api/takes/${id}`),
  recipes: () => json<SavedRecipe[]>('GET', '/api/recipes'),
  saveRecipe: (name: string, recipe: Recipe) => json<SavedRecipe>('POST', '/api/recipes', { name, recipe }),
  removeRecipe: (id: string) => send('DELETE', `/api/recipes/${id}`),
  /** Gives the first take of each its recipe; a sentence comes back for every clip that did not get one. */
  treatAlike: (clips: string[], way: Way) => json<string[]>('POST', '/api/takes/alike', { clips, way }),
  /** What new clips begin with. */
  firstRecipe: () => json<Way>('GET', '/api/first-recipe'),
  setFirstRecipe: (way: Way) => json<Way>('PUT', '/api/first-recipe', way),
  watched: () => json<WatchedView[]>('GET', '/api/watched'),
  watch: (wish: {
    root: number
    path: string
    way: Way
    deliverables: DeliverableChoice[]
    pattern: string
  }) => json<WatchedView>('POST', '/api/watched', wish),
  activateWatched: (id: string, active: boolean) => send('POST', `/api/watched/${id}/active`, { active }),
  retryWatched: (id: string) => send('POST', `/api/watched/${id}/retry`),
  removeWatched: (id: string) => send('DELETE', `/api/watched/${id}`),
  pins: (clip: string) => json<PinView[]>('GET', `/api/clips/${clip}/pins`),
  dropPin: (clip: string, pin: Rect & { name?: string; frame: number }) =>
    json<PinView>('POST', `/api/clips/${clip}/pins`, pin),
  changePin: (id: string, change: Partial<Rect & { name: string; frame: number }>) =>
    json<PinView>('PATCH', `/api/pins/${id}`, change),
  removePin: (id: string) => send('DELETE', `/api/pins/${id}`),
  compareSteps: (clip: string, seen: Seen, signal?: AbortSignal) =>
    json<StepsView>('POST', `/api/clips/${clip}/compare/steps`, seen, signal),
  pixel: (clip: string, seen: Seen, signal?: AbortSignal) =>
    json<PixelView[]>('POST', `/api/clips/${clip}/compare/pixel`, seen, signal),
  scopes: (clip: string, seen: Seen, signal?: AbortSignal) =>
    json<ScopesView[]>('POST', `/api/clips/${clip}/compare/scopes`, seen, signal),
  places: (clip: string, recipe: Recipe, frame: number) =>
    json<PlaceView[]>('POST', `/api/clips/${clip}/compare/places`, { recipe, frame }),
  compareTake: (clip: string, recipe: Recipe, frames: number[], viewer: string, signal?: AbortSignal) =>
    json<TakeFigures>('POST', `/api/clips/${clip}/compare/take`, { recipe, frames, viewer }, signal),
  /** Another clip, the one it had last, or none. */
  refer: (clip: string, to: { clip?: string; known?: boolean }) =>
    json<ClipView>('PUT', `/api/clips/${clip}/reference`, to),
  proofs: (clip: string) => json<ProofView[]>('GET', `/api/clips/${clip}/proofs`),
  prove: (
    clip: string,
    order: Rect & { takeId: string; takeName: string; recipe: Recipe; from: number; end: number },
  ) => json<ProofView>('POST', `/api/clips/${clip}/proofs`, order),
  stopProof: (id: string) => json<ProofView>('POST', `/api/proofs/${id}/stop`),
  compareProof: (id: string, look: 'wipe' | 'pair', captions: string) =>
    json<ProofView>('POST', `/api/proofs/${id}/comparison`, { look, captions }),
  proofAgainst: (id: string, other: string) =>
    json<ProofView>('POST', `/api/proofs/${id}/against`, { other }),
  removeProof: (id: string) => send('DELETE', `/api/proofs/${id}`),
  /** The next bytes of a proof's file; whole when there will be no more behind them. */
  proofBytes: async (id: string, from: number, signal: AbortSignal) => {
    const response = await send('GET', `/api/proofs/${id}/bytes?from=${from}`, undefined, signal)
    const whole = response.headers.get('Proof-Whole') === 'true'
    return { bytes: await response.arrayBuffer(), whole }
  },
  plan: (
    clip: string,
    request: { recipe: Recipe; deliverable: DeliverableChoice; inFrame?: number; outFrame?: number },
    signal?: AbortSignal,
  ) => json<PlanView>('POST', `/api/clips/${clip}/plan`, request, signal),
  /** How long it takes and how large it is, found by making a little of it; some seconds. */
  trial: (
    clip: string,
    request: { recipe: Recipe; deliverable: DeliverableChoice; inFrame?: number; outFrame?: number },
    signal?: AbortSignal,
  ) => json<TrialView>('POST', `/api/clips/${clip}/trial`, request, signal),
  /** Size and likeness at one rate factor; the first of several takes some seconds. */
  curve: (
    clip: string,
    request: {
      recipe: Recipe
      deliverable: DeliverableChoice
      inFrame?: number
      outFrame?: number
      quality: number
    },
    signal?: AbortSignal,
  ) => json<CurvePoint>('POST', `/api/clips/${clip}/curve`, request, signal),
  /** What the newest frame of one that runs looks like. @param frame that tells one from the other */
  renderPicture: (id: string, frame: number) => `/api/renders/${id}/picture?frame=${frame}`,
  /** No more points are waited for. */
  enoughOfCurve: () => send('DELETE', '/api/curves'),
  /** Where most is lost, at its own pixels; without a quality, what was treated. */
  curvePicture: (curve: string, quality?: number) =>
    `/api/curves/${curve}/picture${quality === undefined ? '' : `?quality=${quality}`}`,
  /** Where the source's picture lies in one treated frame, for recipes in which it moves. */
  placement: (
    clip: string,
    request: { recipe: Recipe; frame: number; later: number },
    signal?: AbortSignal,
  ) => json<PlacementView>('POST', `/api/clips/${clip}/placement`, request, signal),
  /** Looks through the clip for what the recipe's steps wait for. */
  analyse: (clip: string, recipe: Recipe) => send('POST', `/api/clips/${clip}/analyses`, { recipe }),
  stopAnalysis: (clip: string, id: string) =>
    json<AnalysisView>('DELETE', `/api/clips/${clip}/analyses/${id}`),
  /** @param impatient gives up with SlowLine when it would take long */
  still: async (
    clip: string,
    request: StillRequest,
    signal?: AbortSignal,
    impatient = false,
  ): Promise<ImageBitmap> => {
    const response = await send('POST', `/api/clips/${clip}/stills`, request, signal)
    return createImageBitmap(await received(response, impatient), {
      colorSpaceConversion: 'none',
      premultiplyAlpha: 'none',
    })
  },
  peeks: (clip: string) => json<PeeksView>('GET', `/api/clips/${clip}/peeks`),
  /** A picture that is only looked at in passing. */
  picture: async (url: string): Promise<ImageBitmap> =>
    createImageBitmap(await (await send('GET', url)).blob()),
  renders: () => json<RenderView[]>('GET', '/api/renders'),
  /** Every take in every form; all of them or none. */
  order: (order: BatchOrder) => json<RenderView[]>('POST', '/api/batches', order),
  /** What a file would be called. */
  nameOf: (
    request: { takeId: string; deliverable: DeliverableChoice; wholeClip: boolean; pattern: string },
    signal?: AbortSignal,
  ) => json<{ fileName: string }>('POST', '/api/renders/name', request, signal),
  pauseRender: (id: string) => json<RenderView>('POST', `/api/renders/${id}/pause`),
  resumeRender: (id: string) => json<RenderView>('POST', `/api/renders/${id}/resume`),
  renderAgain: (id: string) => json<RenderView>('POST', `/api/renders/${id}/again`),
  /** The finished file as a clip on the shelf. */
  shelveRender: (id: string) => json<ClipView>('POST', `/api/renders/${id}/clip`),
  workers: () => json<WorkerView[]>('GET', '/api/workers'),
  /** The token is told here alone. */
  addWorker: (name: string) => json<{ token: string }>('POST', '/api/workers', { name }),
  removeWorker: (id: string) => send('DELETE', `/api/workers/${id}`),
  savePreset: (name: string, deliverable: DeliverableChoice, isDefault: boolean) =>
    json<PresetDescription>('POST', '/api/presets', { name, deliverable, isDefault }),
  removePreset: (id: string) => send('DELETE', `/api/presets/${id}`),
  cancelRender: (id: string) => json<RenderView>('POST', `/api/renders/${id}/cancel`),
  retryRender: (id: string) => json<RenderView>('POST', `/api/renders/${id}/retry`),
  firstRender: (id: string) => json<RenderView>('POST', `/api/renders/${id}/first`),
  earlierRender: (id: string) => json<RenderView>('POST', `/api/renders/${id}/earlier`),
  nameRender: (id: string, fileName: string) =>
    json<RenderView>('POST', `/api/renders/${id}/name`, { fileName }),
  removeRender: (id: string) => send('DELETE', `/api/renders/${id}`),
  /** Takes the finished file off the disk; its row stays. */
  clearRender: (id: string) => json<RenderView>('POST', `/api/renders/${id}/clear`),
  storage: () => json<StorageUse>('GET', '/api/storage'),
  /** Takes finished files off the disk. @param days since they were finished, and more */
  clearStorage: (days: number) => json<{ files: number }>('POST', '/api/storage/clear', { days }),
}
