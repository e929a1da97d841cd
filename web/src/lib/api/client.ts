/** The typed client; every call answers with data or a list of problems, never an exception. */
import createClient from 'openapi-fetch'
import { begun } from '../waiting.svelte'
import type { components, paths } from './schema'

/** A server that cannot be reached answers like one that refuses, with this status. */
export const UNREACHABLE = 599
/** The data is being written by another program just now: asking again helps. */
export const BUSY = 503

const TRIES = 5
const PAUSE_MS = 400

/** This page's own name, kept over a reload: undo takes back what this page did, not what another tab did. */
let page = ownName()

export const pageName = (): string => page

/** Take another name: a tab that was duplicated has the other's. */
export function rename(): void {
  page = kept(freshName())
}

function ownName(): string {
  try {
    return sessionStorage.getItem('page') ?? kept(freshName())
  } catch {
    return freshName()
  }
}

function kept(name: string): string {
  try {
    sessionStorage.setItem('page', name)
  } catch {
    // without storage it is another after a reload
  }
  return name
}

/** A name that nothing else has. */
export function freshName(): string {
  return crypto.getRandomValues(new Uint32Array(3)).join('-').slice(0, 40)
}

const away = () =>
  new Response(
    JSON.stringify({ problems: [{ where: '', field: '', sentence: 'The server does not answer.' }] }),
    { status: UNREACHABLE, headers: { 'content-type': 'application/json' } },
  )

/** What comes from another server in ours's place (a page to log in, a proxy's error) is no answer of ours. */
const ours = (answer: Response) =>
  answer.status === 204 || /\bjson\b/.test(answer.headers.get('content-type') ?? '')

async function reach(request: Request): Promise<Response> {
  const ended = begun()
  try {
    const answer = await fetch(request).catch(away)
    return ours(answer) ? answer : away()
  } finally {
    ended()
  }
}

const written: (() => void)[] = []
/** Be told whenever the server has taken a change of this page's. */
export const onwritten = (tell: () => void): void => void written.push(tell)

/** Send a request once: for one that is asked again elsewhere where the data is busy. */
export async function once(request: Request): Promise<Response> {
  request.headers.set('x-page', page)
  const answer = await reach(request)
  if (request.method !== 'GET' && answer.ok) for (const tell of written) tell()
  return answer
}

/** Ask what nobody waits for, and what changes nothing. */
export const inPassing = (request: Request): Promise<Response> => fetch(request).catch(away)

/** Ask, and ask again for a while where the data is busy. */
async function ask(request: Request): Promise<Response> {
  for (let turn = 1; ; turn++) {
    const answer = await once(request.clone())
    if (answer.status !== BUSY || turn === TRIES) return answer
    await new Promise((resolve) => setTimeout(resolve, PAUSE_MS))
  }
}

const client = createClient<paths>({ baseUrl: '/', fetch: ask })

/** The same call, of which an answer that was cut short counts as none. */
function whole<F extends (...args: never[]) => Promise<unknown>>(call: F): F {
  const guarded = async (...args: Parameters<F>) => {
    try {
      return await call(...args)
    } catch {
      const response = away()
      return { error: await response.clone().json(), response }
    }
  }
  return guarded as F
}

export const api = {
  GET: whole(client.GET),
  PUT: whole(client.PUT),
  POST: whole(client.POST),
  DELETE: whole(client.DELETE),
}

/** A file as the body of a request, as it is. */
export const asItIs = (body: Blob) => ({ body: body as never, bodySerializer: () => body as never })

type PatchQuery = paths['/api/frame']['post']['parameters']['query']
/** What a patch of a frame comes to. */
export const patchOf = (frame: Blob, query: PatchQuery) =>
  api.POST('/api/frame', {
    params: { query },
    ...asItIs(frame),
    headers: { 'content-type': 'image/jpeg' },
  })

type Schemas = components['schemas']
export type Setup = Schemas['Setup-Output']
export type AmbientSpec = Schemas['AmbientSpec-Output']
export type Reading = Schemas['Reading-Output']
export type ExposureAim = Schemas['ExposureAim-Output']
export type Lens = Schemas['Lens-Output']
export type Motion = Schemas['Motion-Output']
export type Light = Schemas['Light-Output']
export type Modifier = Schemas['Modifier-Output']
export type Body = Schemas['Body-Output']
export type Trigger = Schemas['Trigger-Output']
export type LensKit = Schemas['LensKit-Output']
export type Battery = Schemas['Battery-Output']
export type Filter = Schemas['Filter-Output']
export type Solved = Schemas['SolvedSetup']
export type Answer = Schemas['Answer']
export type QuantityIn = Schemas['QuantityIn']
export type Lanes = Schemas['Lanes']
export type StageText = Schemas['StageText']
export type LeversText = Schemas['LeversText']
export type LeverText = Schemas['LeverText']
export type StepText = Schemas['StepText']
export type Arc = Schemas['Arc']
export type MethodCard = Schemas['MethodCard']
export type LaneDetail = Schemas['LaneDetail']
export type Preferences = Schemas['Preferences-Output']
export type DayText = Schemas['DayText']
export type TimingText = Schemas['TimingText']
export type MethodKind = MethodCard['kind']
export type Scales = Schemas['Scales']
export type FieldText = Schemas['FieldText']
export type InHand = Schemas['InHand']
export type ChangeText = Schemas['ChangeText']
export type DurationPoint = Schemas['DurationPoint']
export type LadderText = Schemas['LadderText']
export type Seen = Schemas['Seen-Output']
export type UnitLine = Schemas['UnitLine']
export type GlanceText = Schemas['GlanceText']
export type MapText = Schemas['MapText']
export type ModifiersText = Schemas['ModifiersText']
export type PlayText = Schemas['PlayText']
export type PracticeMove = Schemas['BenchMove']
export type PracticeControl = Schemas['Control']
export type FrameShown = Schemas['FrameShown']
export type ReviewText = Schemas['ReviewText']
export type DrillText = Schemas['DrillText']
export type LeapText = Schemas['LeapText']
export type CaughtText = Schemas['CaughtText']
export type SpecUnit = Schemas['SpecUnit']
export type SpecChoice = Schemas['SpecChoice']
export type NeedsText = Schemas['NeedsText']
export type RequestText = Schemas['RequestText']
export type TypicalSection = Schemas['TypicalSection']
export type Tick = Schemas['Tick']
export type Stand = Schemas['Stand-Output']
export type ImportOut = Schemas['ImportOut']
export type Job = Schemas['Job-Output']
export type Brief = Job['brief']
export type BriefText = Schemas['BriefText']
export type BoardText = Schemas['BoardText']
export type BoardUnit = Schemas['UnitText']
export type KitText = Schemas['KitText']
export type DayPlanText = Schemas['DayPlanText']
export type SayOut = Schemas['SayOut']
export type DayHelp = Schemas['DayHelp']
export type WayText = Schemas['WayText']
export type HoursText = Schemas['HoursText']
export type BurstText = Schemas['BurstText']
export type CompareText = Schemas['CompareText']
export type LogEntry = Schemas['LogEntry-Output']
export type LogText = Schemas['LogText']
export type ReadingToTake = Schemas['ReadingToTake']
export type SetText = Schemas['SetText']
export type SetLightText = Schemas['SetLightText']
export type PatchText = Schemas['PatchText']
export type PhoneOut = Schemas['PhoneOut']
export type PackText = Schemas['PackText']
export type SheetText = Schemas['SheetText']
export type VariantsText = Schemas['VariantsText']
export type UnreadableOut = Schemas['UnreadableOut']
export type Problem = Schemas['ProblemOut']
export interface Stored<T> {
  id: string
  revision: number
  job_id: string | null
  doc: T
  line: string
}

/** The problems of a refusal. */
export function problemsOf(error: unknown, otherwise = 'The server could not answer.'): Problem[] {
  const found = (error as { problems?: Problem[] } | null | undefined)?.problems
  return Array.isArray(found) && found.length ? found : [{ where: '', field: '', sentence: otherwise }]
}

/** Problems in their sentences. */
export const sentences = (problems: Problem[] = []): string =>
  problems.map((problem) => problem.sentence).join(' ')

/** The sentences of a refusal. */
export const sentenceOf = (error: unknown): string => sentences(problemsOf(error))
