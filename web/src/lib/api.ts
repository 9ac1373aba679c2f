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

async function call<T>(method: string, path: string, body?: unknown, signal?: AbortSignal): Promise<T> {
  let answer: Response
  try {
    answer = await fetch('/api' + path, {
      method,
      signal,
      headers: body === undefined ? {} : { 'Content-Type': 'application/json' },
      body: body === undefined ? undefined : JSON.stringify(body),
    })
  } catch (e) {
    if (signal?.aborted) throw e
    throw new Gone()
  }
  if (answer.ok) return (answer.status === 204 ? undefined : await answer.json()) as T
  let problem: Problem
  try {
    problem = (await answer.json()) as Problem
  } catch {
    throw new Gone()
  }
  throw no(problem)
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
  return call<T>('POST', '/' + name, body, signal)
}

/** Asks for what takes longer: the server, which works out many things at once; here where it is not there. */
async function askedLong<T>(name: string, body: unknown, signal?: AbortSignal): Promise<T> {
  try {
    return await call<T>('POST', '/' + name, body, signal)
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

/** Takes an answer that comes line by line, each as soon as it is there. */
async function stream<T>(path: string, body: unknown, signal: AbortSignal, each: (one: T) => void) {
  let answer: Response
  try {
    answer = await fetch('/api' + path, {
      method: 'POST',
      signal,
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify(body),
    })
  } catch (e) {
    if (signal.aborted) return
    throw e instanceof TypeError ? new Gone() : e
  }
  if (!answer.ok) throw no((await answer.json()) as Problem)
  const reader = answer.body!.pipeThrough(new TextDecoderStream()).getReader()
  let rest = ''
  try {
    for (;;) {
      const { value, done } = await reader.read()
      if (done) return
      const lines = (rest + value).split('\n')
      rest = lines.pop()!
      for (const line of lines) if (line) each(JSON.parse(line) as T)
    }
  } catch (e) {
    if (!signal.aborted) throw e instanceof TypeError ? new Gone() : e
  }
}

export const api = {
  reshape: (req: ReshapeRequest) => asked<Changed>('reshape', req),
  looks: (req: AlternativesRequest) => askedLong<Looks>('looks', req),
  alternatives: (req: AlternativesRequest) => askedLong<Alternatives>('alternatives', req),
  square: (req: SquareRequest) => asked<Squared>('square', req),
  pegs: (req: PegRequest) => asked<PegTest>('pegs', req),
  askOffice: (req: OfficeRequest) => call<Changed>('POST', '/office/ask', req),
  officeMarks: (req: OfficeRequest) => call<Changed>('POST', '/office/marks', req),
  importFile: (req: ImportRequest) => askedLong<ImportPreview>('import', req),
  exportFile: (req: ExportRequest) => askedLong<Exported>('export', req),
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
  backUp: () => call<Keeping>('POST', '/keeping/backups', {}),
  putBack: (name: string) => call<Keeping>('POST', '/keeping/restore', { name } satisfies BackupRequest),
  setTidying: (on: boolean) => call<Keeping>('PUT', '/keeping/tidying', { on } satisfies TidyingRequest),
  pin: (id: string, revision: number, pinned: boolean) =>
    call<History>('POST', `/jobs/${id}/pin`, { revision, pinned } satisfies PinRequest),
  get: (id: string) => call<JobState>('GET', `/jobs/${id}`),
  head: (id: string) => call<Head>('GET', `/jobs/${id}/head`),
  help: () => call<Help>('GET', '/help'),
  place: (code: string) => call<Places>('GET', `/places/${encodeURIComponent(code)}`).then((p) => p.found),
  examples: () => call<Examples>('GET', '/examples'),
  fences: (system: string) => call<Fences>('GET', `/fences?system=${system}`),
  create: (req: CreateRequest) => call<JobState>('POST', '/jobs', req),
  edit: (id: string, req: EditRequest) => call<Saved>('PATCH', `/jobs/${id}`, req),
  save: (id: string, req: SaveRequest) => call<JobState>('PUT', `/jobs/${id}`, req),
  undo: (id: string, base: number) => call<JobState>('POST', `/jobs/${id}/undo`, { base }),
  redo: (id: string, base: number) => call<JobState>('POST', `/jobs/${id}/redo`, { base }),
  restore: (id: string, base: number, revision: number) =>
    call<JobState>('POST', `/jobs/${id}/restore`, { base, revision }),
  history: (id: string) => call<History>('GET', `/jobs/${id}/history`),
  delete: (id: string) => call<void>('DELETE', `/jobs/${id}`),
  undelete: (id: string) => call<void>('POST', `/jobs/${id}/undelete`, {}),
  pages: (id: string, query: string) => call<Pages>('GET', `/jobs/${id}/pages?${query}`),
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
      call<Plan>('POST', '/plan', doc),
      views.length ? call<Drawn>('POST', '/draw', { doc, views } satisfies DrawRequest) : { drawings: [] },
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
  usual: () => call<Usual>('GET', '/usual'),
  /** What a simulated tape, level or inclinometer measures at a post. */
  gauge: (req: GaugeRequest) => call<Gauged>('POST', '/device', req),
  photos: (id: string) => call<KeptPhotos>('GET', `/jobs/${id}/photos`).then((p) => p.photos),
  addPhoto: async (id: string, photo: Blob): Promise<KeptPhoto> => {
    let answer: Response
    try {
      answer = await fetch(`/api/jobs/${id}/photos`, {
        method: 'POST',
        body: photo,
        headers: { 'Content-Type': photo.type },
      })
    } catch {
      throw new Gone()
    }
    if (!answer.ok) throw no((await answer.json()) as Problem)
    return (await answer.json()) as KeptPhoto
  },
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
