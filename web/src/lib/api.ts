import type {
  Amended,
  AmendRequest,
  GaugeRequest,
  Gauged,
  KeptPhoto,
  KeptPhotos,
  Usual,
  Bill,
  BoardLine,
  Compared,
  Day,
  BuildRequest,
  Built,
  Advised,
  AdviseRequest,
  Explained,
  Examples,
  ExplainRequest,
  Fences,
  Exported,
  ExportRequest,
  Told,
  Ways,
  WaysRequest,
  Alternatives,
  AlternativesRequest,
  BackupRequest,
  Keeping,
  PinRequest,
  Places,
  TidyingRequest,
  Log,
  Looks,
  Catalogue,
  CreateRequest,
  Drawing,
  Drawn,
  DrawRequest,
  End,
  Head,
  Help,
  History,
  Job,
  JobList,
  JobState,
  Pages,
  Plan,
  Printing,
  Problem,
  Reading,
  EditRequest,
  TableRequest,
  TableRows,
  Saved,
  SaveRequest,
  Changed,
  ImportPreview,
  ImportRequest,
  OfficeRequest,
  PegReading,
  PegRequest,
  PegTest,
  ReshapeRequest,
  Squared,
  View,
  SquareRequest,
  WalkReading,
  WalkRequest,
  Schedule,
  SkyRequest,
  WeatherRead,
  WeatherRequest,
} from '../gen/api'
import type { Core } from './core'
import * as msg from '../gen/messages'

/** The core of this window: loaded once the page has been seen, where it can run. */
export const own: { core?: Core } = {}
const core = () => (own.core?.ready ? own.core : undefined)

/** The revision that a change is made to, and of which database. */
export interface Base {
  base: number
  generation?: string
}

/** The server answered, and said no. */
export class Refused extends Error {
  constructor(readonly problem: Problem) {
    super(problem.detail)
  }
}

/** The server did not answer, or cannot for now: it is worth asking again. */
export class Gone extends Error {
  constructor(readonly problem?: Problem) {
    super(problem ? `${problem.title}. ${problem.detail}` : msg.common_mallow_is_not_answering)
  }
}

/** What is worth asking again is no refusal. */
const no = (problem: Problem) => (problem.status >= 500 ? new Gone(problem) : new Refused(problem))

/** How long a window waits, in milliseconds: for what is kept, for a save, for what is planned (which the
 *  server gives up sooner by itself), for files, for the whole database; and for the next piece of a stream. */
const LIMIT = { ask: 5_000, save: 10_000, plan: 30_000, file: 100_000, all: 900_000, idle: 15_000 }

/** The page that is shown: what it asked for is given up when it is left. */
let page = new AbortController()
export function leavePage() {
  page.abort()
  page = new AbortController()
}

/** What nobody waits for any more: its page is gone, and whatever would go on from it. */
const never = <T>() => new Promise<T>(() => undefined)

async function call<T>(
  method: string,
  path: string,
  body?: unknown,
  signal?: AbortSignal,
  limit: keyof typeof LIMIT = method === 'GET' ? 'ask' : 'save',
): Promise<T> {
  const json = body !== undefined
  return request<T>(
    path,
    {
      method,
      headers: json ? { 'Content-Type': 'application/json' } : {},
      body: json ? JSON.stringify(body) : undefined,
    },
    signal,
    limit,
  )
}

/** Sends a request, and gives it up in time. A save goes on when its page is left. */
async function request<T>(
  path: string,
  init: RequestInit,
  signal: AbortSignal | undefined,
  limit: keyof typeof LIMIT,
): Promise<T> {
  const left = page.signal
  const ends = [AbortSignal.timeout(LIMIT[limit])]
  if (signal) ends.push(signal)
  if (limit !== 'save') ends.push(left)
  try {
    const answer = await fetch('/api' + path, { ...init, signal: AbortSignal.any(ends) })
    if (answer.status === 204) return undefined as T
    const said: unknown = await answer.json()
    if (answer.ok) return said as T
    throw no(said as Problem)
  } catch (e) {
    if (e instanceof Refused || e instanceof Gone) throw e
    if (signal?.aborted) throw e
    if (limit !== 'save' && left.aborted) return never<T>()
    throw new Gone()
  }
}

/** Asks the core: here where it runs, else on the server. */
async function asked<T>(name: string, body: unknown, signal?: AbortSignal): Promise<T> {
  const here = core()
  if (here) {
    let answer: unknown
    const problem = await here.ask(name, body, signal, (a) => (answer = a))
    if (!problem) return answer as T
    if (problem.status < 500) throw new Refused(problem)
  }
  return call<T>('POST', '/' + name, body, signal, 'plan')
}

/** Asks for what takes longer: the server, which works out many things at once; here where it is not there. */
async function askedLong<T>(
  name: string,
  body: unknown,
  signal?: AbortSignal,
  limit: 'plan' | 'file' = 'plan',
): Promise<T> {
  try {
    return await call<T>('POST', '/' + name, body, signal, limit)
  } catch (e) {
    if (e instanceof Gone && core()) return asked<T>(name, body, signal)
    throw e
  }
}

/** The same for a call that answers bit by bit. */
async function askedEach<T>(name: string, body: unknown, signal: AbortSignal, each: (one: T) => void) {
  try {
    await stream<T>('/' + name, body, signal, each)
  } catch (e) {
    const here = core()
    if (!(e instanceof Gone && here)) throw e
    const problem = await here.ask(name, body, signal, (a) => each(a as T))
    if (problem) throw no(problem)
  }
}

/** A stream that says nothing for so long is given up: the server says something sooner. */
function patience() {
  const idle = new AbortController()
  let timer: ReturnType<typeof setTimeout>
  const heard = () => {
    clearTimeout(timer)
    timer = setTimeout(() => idle.abort(), LIMIT.idle)
  }
  heard()
  return { signal: idle.signal, heard, over: () => clearTimeout(timer) }
}

/** Takes an answer that comes line by line, each as soon as it is there. The last line says that it is whole,
 *  or why it is not; one that ends without it broke off. */
async function stream<T>(path: string, body: unknown, signal: AbortSignal, each: (one: T) => void) {
  const waits = patience()
  const left = page.signal
  try {
    const answer = await fetch('/api' + path, {
      method: 'POST',
      signal: AbortSignal.any([signal, left, waits.signal]),
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify(body),
    })
    if (!answer.ok) throw no((await answer.json()) as Problem)
    const reader = answer.body!.pipeThrough(new TextDecoderStream()).getReader()
    for (let rest = ''; ;) {
      const { value, done } = await reader.read()
      waits.heard()
      if (done) throw new Gone()
      const lines = (rest + value).split('\n')
      rest = lines.pop()!
      for (const line of lines) {
        if (!line) continue // the server is still at it
        const said = JSON.parse(line) as T | End
        if (!isEnd(said)) each(said)
        else if (said.end === 'done') return
        else throw said.problem ? no(said.problem) : new Gone()
      }
    }
  } catch (e) {
    if (signal.aborted) return
    if (e instanceof Refused || e instanceof Gone) throw e
    if (left.aborted) return never<void>()
    throw new Gone()
  } finally {
    waits.over()
  }
}

const isEnd = (said: unknown): said is End => typeof said === 'object' && said !== null && 'end' in said

export const api = {
  reshape: (req: ReshapeRequest) => asked<Changed>('reshape', req),
  looks: (req: AlternativesRequest) => askedLong<Looks>('looks', req),
  alternatives: (req: AlternativesRequest) => askedLong<Alternatives>('alternatives', req),
  square: (req: SquareRequest) => asked<Squared>('square', req),
  pegs: (req: PegRequest) => asked<PegTest>('pegs', req),
  askOffice: (req: OfficeRequest) => call<Changed>('POST', '/office/ask', req),
  officeMarks: (req: OfficeRequest) => call<Changed>('POST', '/office/marks', req),
  importFile: (req: ImportRequest) => askedLong<ImportPreview>('import', req, undefined, 'file'),
  exportFile: (req: ExportRequest) => askedLong<Exported>('export', req, undefined, 'file'),
  walk: (req: WalkRequest, signal: AbortSignal, each: (r: WalkReading) => void) =>
    stream('/rod/walk', req, signal, each),
  /** Every crew's days, and how far the planning is. */
  board: (signal: AbortSignal, each: (l: BoardLine) => void) => stream('/board', {}, signal, each),
  walkPegs: (signal: AbortSignal, each: (r: PegReading) => void) => stream('/rod/pegs', {}, signal, each),
  list: (query: { words?: string; skip?: number; most?: number; bin?: boolean } = {}, signal?: AbortSignal) =>
    call<JobList>(
      'GET',
      `/jobs?${new URLSearchParams(Object.entries(query).map(([k, v]) => [k, String(v)]))}`,
      undefined,
      signal,
    ),
  keeping: () => call<Keeping>('GET', '/keeping'),
  backUp: () => call<Keeping>('POST', '/keeping/backups', {}, undefined, 'all'),
  putBack: (name: string) =>
    call<Keeping>('POST', '/keeping/restore', { name } satisfies BackupRequest, undefined, 'all'),
  setTidying: (on: boolean) => call<Keeping>('PUT', '/keeping/tidying', { on } satisfies TidyingRequest),
  pin: (id: string, revision: number, pinned: boolean) =>
    call<void>('POST', `/jobs/${id}/pin`, { revision, pinned } satisfies PinRequest),
  get: (id: string) => call<JobState>('GET', `/jobs/${id}`),
  head: (id: string) => call<Head>('GET', `/jobs/${id}/head`),
  help: () => call<Help>('GET', '/help'),
  place: (code: string) => call<Places>('GET', `/places/${encodeURIComponent(code)}`).then((p) => p.found),
  examples: () => call<Examples>('GET', '/examples'),
  fences: (system: string) => call<Fences>('GET', `/fences?system=${system}`),
  create: (req: CreateRequest) => call<JobState>('POST', '/jobs', req),
  edit: (id: string, req: EditRequest) => call<Saved>('PATCH', `/jobs/${id}`, req),
  save: (id: string, req: SaveRequest) => call<JobState>('PUT', `/jobs/${id}`, req),
  undo: (id: string, from: Base) => call<JobState>('POST', `/jobs/${id}/undo`, from),
  redo: (id: string, from: Base) => call<JobState>('POST', `/jobs/${id}/redo`, from),
  restore: (id: string, from: Base, revision: number) =>
    call<JobState>('POST', `/jobs/${id}/restore`, { ...from, revision }),
  /** A page of a job's revisions, the newest first: of those before a number, or of all. */
  history: (id: string, before = 0) => call<History>('GET', `/jobs/${id}/history?before=${before}`),
  delete: (id: string) => call<void>('DELETE', `/jobs/${id}`),
  undelete: (id: string) => call<void>('POST', `/jobs/${id}/undelete`, {}),
  pages: (id: string, query: string) =>
    call<Pages>('GET', `/jobs/${id}/pages?${query}`, undefined, undefined, 'file'),
  print: (id: string, query: string, signal: AbortSignal, each: (p: Printing) => void) =>
    stream(`/jobs/${id}/print?${query}`, {}, signal, each),
  /** A plan's figures and findings. */
  plan: async (doc: Job, views: View[]): Promise<{ plan: Plan; drawings: (Drawing | null)[] }> => {
    const here = core()
    if (here) {
      const { plan, drawings, problem } = await here.plan(doc, views)
      if (plan) return { plan, drawings: drawings ?? [] }
      if (problem && problem.status < 500) throw new Refused(problem)
    }
    const [plan, drawn] = await Promise.all([
      call<Plan>('POST', '/plan', doc, undefined, 'plan'),
      views.length
        ? call<Drawn>('POST', '/draw', { doc, views } satisfies DrawRequest, undefined, 'plan')
        : { drawings: [] },
    ])
    return { plan, drawings: drawn.drawings }
  },
  /** Drawings of a plan, in the order of their views. */
  draw: (req: DrawRequest) => asked<Drawn>('draw', req),
  /** What is said beside them. */
  tell: (doc: Job, signal?: AbortSignal) => asked<Told>('tell', doc, signal),
  bill: (doc: Job, signal?: AbortSignal) => asked<Bill>('bill', doc, signal),
  /** A run with other bays, lengths and heights, against their waste. */
  compare: (req: AlternativesRequest, signal?: AbortSignal) => askedLong<Compared>('compare', req, signal),
  /** What stands above ground on a run, and its cut lists. */
  build: (req: BuildRequest, signal?: AbortSignal) => asked<Built>('build', req, signal),
  /** The day on which the job's concrete is poured. */
  pour: (doc: Job, signal?: AbortSignal) => asked<Day>('pour', doc, signal),
  /** The job's work laid out in days. */
  days: (doc: Job, signal?: AbortSignal) => asked<Schedule>('days', doc, signal),
  /** What was seen on site against the plan. */
  record: (doc: Job, signal?: AbortSignal) => asked<Log>('record', doc, signal),
  /** The same, with what the pour and the days say of the pace. */
  forecast: (doc: Job, signal?: AbortSignal) => asked<Log>('forecast', doc, signal),
  /** What finished jobs say of how the crew works. */
  usual: () => call<Usual>('GET', '/usual', undefined, undefined, 'file'),
  /** What a simulated tape, level or inclinometer measures at a post. */
  gauge: (req: GaugeRequest) => call<Gauged>('POST', '/device', req, undefined, 'plan'),
  photos: (id: string) => call<KeptPhotos>('GET', `/jobs/${id}/photos`).then((p) => p.photos),
  addPhoto: (id: string, photo: Blob) =>
    request<KeptPhoto>(
      `/jobs/${id}/photos`,
      { method: 'POST', body: photo, headers: { 'Content-Type': photo.type } },
      undefined,
      'file',
    ),
  deletePhoto: (id: string, photo: string) =>
    call<void>('DELETE', `/jobs/${id}/photos/${encodeURIComponent(photo)}`),
  /** What can be done about what differs from the plan. */
  amend: (req: AmendRequest, signal?: AbortSignal) => askedLong<Amended>('amend', req, signal),
  /** Hourly weather read from a file. */
  readWeather: (req: WeatherRequest) => asked<WeatherRead>('weather', req),
  /** The job with the simulated weather office's hours. */
  askWeather: (req: SkyRequest) => call<Changed>('POST', '/weather/ask', req),
  /** The ways out of findings, each as soon as it is worked out. */
  advise: (req: AdviseRequest, signal: AbortSignal, each: (one: Advised) => void) =>
    askedEach('advise', req, signal, each),
  table: (req: TableRequest, signal?: AbortSignal) => asked<TableRows>('table', req, signal),
  explain: (req: ExplainRequest, signal?: AbortSignal) => asked<Explained>('explain', req, signal),
  ways: (req: WaysRequest, signal?: AbortSignal) => askedLong<Ways>('ways', req, signal),
  catalogue: () => call<Catalogue>('GET', '/catalogue'),
  /** Reads an entry as the field that it is typed into asks. */
  tape: (text: string, system: string, field: string, signal?: AbortSignal) =>
    core()
      ? asked<Reading>('tape', { text, system, field }, signal)
      : call<Reading>('GET', `/tape?${new URLSearchParams({ text, system, field })}`, undefined, signal),
}
