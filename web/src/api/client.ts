/** Calls to the server. Every failure is a {@link Failure} that says what is wrong in words. */
import type {
  Arrange,
  Arranged,
  AtHand,
  BinnedJob,
  BlobView,
  BroughtDrawing,
  CatalogueEntry,
  Change,
  DrawingParts,
  FaceView,
  FieldChange,
  FileInfo,
  FoldAsk,
  FoldedDrawing,
  FoldMoment,
  FoldView,
  FontView,
  FreeAsk,
  FreedView,
  Job,
  JobPiece,
  JobSummary,
  KeptKey,
  LengthEntry,
  LineDrawing,
  LineKey,
  LineUp,
  LogbookView,
  LogChange,
  LogEntry,
  ListView,
  MarkChoiceView,
  Meta,
  OpenJob,
  OrderChoice,
  PickAsk,
  PickedView,
  PlannedLines,
  Preview,
  Problem,
  ReadLength,
  Record as WorkshopRecord,
  RecordDrawing,
  RecordKind,
  ReturnedView,
  ReworkStep,
  ToolingAsk,
  CorrectionAsk,
  CorrectionView,
  FreezeAsk,
  MachineWish,
  QueueView,
  RowsAsk,
  RunAsk,
  RunView,
  WishAsk,
  RehearsalAsk,
  RehearsalView,
  ToolingView,
  Traced,
  TraceLook,
  TrialAsk,
  TrialView,
  Unit,
  Workshop,
  WorkshopState,
} from './generated/types';
import { known, wholeJob, wholePreview } from './views';

/** A request that did not succeed. */
export class Failure extends Error {
  readonly problem: Problem;

  constructor(problem: Problem, options?: ErrorOptions) {
    super(problem.detail, options);
    this.problem = problem;
  }

  get isConflict(): boolean {
    return /conflict$/.test(this.problem.type);
  }
}

export const unreachable: Problem = {
  type: '/problems/unreachable',
  title: 'The server does not answer',
  status: 0,
  detail:
    'Aptum’s server does not answer. Nothing you see is lost: start it again, then try again.',
  errors: [],
  instance: null,
};

async function call<T>(method: string, path: string, body?: unknown, signal?: AbortSignal) {
  const init: RequestInit = { method };
  if (signal) init.signal = signal;
  if (body instanceof Blob) {
    init.body = body;
  } else if (body !== undefined) {
    init.body = JSON.stringify(body);
    init.headers = { 'Content-Type': 'application/json' };
  }
  let answer: Response;
  try {
    answer = await fetch(`/api${path}`, init);
  } catch (error) {
    if (signal?.aborted) throw error;
    throw new Failure(unreachable);
  }
  const text = await answer.text();
  if (!answer.ok) {
    throw new Failure(asProblem(text, answer));
  }
  return (text ? JSON.parse(text) : undefined) as T;
}

export function asProblem(text: string, answer: Response): Problem {
  try {
    return JSON.parse(text) as Problem;
  } catch {
    return {
      ...unreachable,
      status: answer.status,
      detail: `The server answers ${answer.status}.`,
    };
  }
}

const open = async (method: string, path: string, body?: unknown) =>
  wholeJob(await call<OpenJob>(method, path, body));

export const api = {
  meta: () => call<Meta>('GET', '/meta'),
  workshop: () => call<Workshop>('GET', '/workshop'),
  workshopState: () => call<WorkshopState>('GET', '/workshop/state'),
  addRecord: (version: number, record: WorkshopRecord, unit: Unit) =>
    call<WorkshopState>('POST', '/workshop/records', { version, record, unit }),
  changeRecord: (version: number, id: string, record: WorkshopRecord, unit: Unit) =>
    call<WorkshopState>('PUT', `/workshop/records/${encodeURIComponent(id)}`, {
      version,
      record,
      unit,
    }),
  removeRecord: (version: number, kind: RecordKind, id: string) =>
    call<WorkshopState>(
      'DELETE',
      `/workshop/records/${kind}/${encodeURIComponent(id)}?version=${version}`,
    ),
  undoWorkshop: (version: number) => call<WorkshopState>('POST', '/workshop/undo', { version }),
  redoWorkshop: (version: number) => call<WorkshopState>('POST', '/workshop/redo', { version }),
  drawRecord: (record: WorkshopRecord, unit: Unit, signal: AbortSignal) =>
    call<RecordDrawing>('POST', '/workshop/drawing', { record, unit }, signal),
  stopNesting: (id: number) => call<undefined>('DELETE', `/jobs/${id}/nest`),
  arrange: (job: Job, arrange: Arrange, signal?: AbortSignal) =>
    call<Arranged>('POST', '/arrange', { job, arrange }, signal),
  compareMarks: (job: Job, signal: AbortSignal) =>
    call<MarkChoiceView[]>('POST', '/marks/compare', job, signal),
  orderChoices: (job: Job, signal: AbortSignal) =>
    call<OrderChoice[]>('POST', '/order', job, signal),
  jobs: () => call<JobSummary[]>('GET', '/jobs'),
  createJob: (job: Job) => open('POST', '/jobs', job),
  importJob: (file: Blob) => open('POST', '/jobs/import', file),
  openJob: (id: number) => open('GET', `/jobs/${id}`),
  saveJob: (id: number, version: number, changes: FieldChange[]) =>
    open('PUT', `/jobs/${id}`, { version, changes, known: known() }),
  undo: (id: number, version: number) =>
    open('POST', `/jobs/${id}/undo`, { version, known: known() }),
  redo: (id: number, version: number) =>
    open('POST', `/jobs/${id}/redo`, { version, known: known() }),
  copyJob: (id: number) => open('POST', `/jobs/${id}/copy`),
  binned: () => call<BinnedJob[]>('GET', '/bin'),
  emptyBin: () => call<number>('DELETE', '/bin'),
  removeJob: (id: number) => call<number>('DELETE', `/bin/${id}`),
  enter: (passphrase: string) => call<boolean>('POST', '/enter', { passphrase }),
  binJob: (id: number) => call<undefined>('DELETE', `/jobs/${id}`),
  unbinJob: (id: number) => open('POST', `/jobs/${id}/unbin`),
  addBlob: (file: Blob, page = 1) => call<BlobView>('POST', `/blobs?page=${page}`, file),
  addFont: (file: Blob) => call<FontView>('POST', '/fonts', file),
  parts: (blob: string, signal: AbortSignal) =>
    call<DrawingParts>('GET', `/blobs/${blob}/parts`, undefined, signal),
  rework: (from: string, steps: ReworkStep[]) =>
    call<BlobView>('POST', '/pictures', { from, steps }),
  traceLook: (traced: Traced, unit: Unit, signal: AbortSignal) =>
    call<TraceLook>('POST', '/traces', { traced, unit }, signal),
  startFromPicture: (blob: string, name: string, width: number) =>
    call<Job>('POST', '/traces/start', { blob, name, width }),
  motifsApart: (job: Job, piece: string) =>
    call<JobPiece[]>('POST', '/traces/apart', { job, piece }),
  bringDrawing: (file: File, page = 1) => {
    const query = new URLSearchParams({ name: file.name, page: String(page) });
    return call<BroughtDrawing>('POST', `/drawings?${query.toString()}`, file);
  },
  returned: (id: number, file: File, how?: string) => {
    const query = new URLSearchParams({ name: file.name, ...(how ? { how } : {}) });
    return call<ReturnedView>('POST', `/jobs/${id}/returned?${query.toString()}`, file);
  },
  trial: (ask: TrialAsk, signal: AbortSignal) => call<TrialView>('POST', '/trial', ask, signal),
  logbook: (text: string) => call<LogbookView>('GET', `/logbook?text=${encodeURIComponent(text)}`),
  log: (entry: LogEntry) => call<number>('POST', '/logbook', entry),
  changeLog: (id: number, change: LogChange) => call<undefined>('PUT', `/logbook/${id}`, change),
  unlog: (id: number) => call<undefined>('DELETE', `/logbook/${id}`),
  tooling: (ask: ToolingAsk, signal: AbortSignal) =>
    call<ToolingView>('POST', '/tooling', ask, signal),
  run: (id: number, signal: AbortSignal) =>
    call<RunView>('GET', `/jobs/${id}/run`, undefined, signal),
  freeze: (id: number, version: number) =>
    call<RunView>('POST', `/jobs/${id}/prints`, { version } satisfies FreezeAsk),
  changeRun: (print: number, ask: RunAsk) => call<RunView>('PUT', `/prints/${print}/run`, ask),
  queue: () => call<QueueView>('GET', '/queue'),
  orderQueue: (prints: number[]) => call<QueueView>('PUT', '/queue', { prints }),
  putInQueue: (jobs: number[]) => call<QueueView>('POST', '/queue', { jobs }),
  putRowsInQueue: (job: number) =>
    call<QueueView>('POST', '/queue/rows', { job } satisfies RowsAsk),
  asPrinted: (print: number) => open('POST', `/prints/${print}/job`),
  printThere: (print: number) => call<string>('POST', `/prints/${print}/print`),
  correct: (ask: CorrectionAsk) => call<CorrectionView>('POST', '/corrections', ask),
  wish: (print: number, wish: MachineWish) =>
    call<boolean>('PUT', `/prints/${print}/send`, { wish } satisfies WishAsk),
  rehearse: (ask: RehearsalAsk, signal: AbortSignal) =>
    call<RehearsalView>('POST', '/rehearsal', ask, signal),
  pickLine: (ask: PickAsk, signal?: AbortSignal) =>
    call<PickedView | null>('POST', '/lines/pick', ask, signal),
  setFree: (ask: FreeAsk) => call<FreedView>('POST', '/drawings/free', ask),
  lineKeys: () => call<KeptKey[]>('GET', '/keys'),
  applyKey: (drawing: LineDrawing, key: LineKey) =>
    call<LineKey>('POST', '/keys', { drawing, key }),
  readList: (file: File, told: { coding?: string; separator?: string; head?: boolean }) => {
    const query = new URLSearchParams({ name: file.name });
    for (const [name, value] of Object.entries(told)) query.set(name, String(value));
    return call<ListView>('POST', `/lists?${query.toString()}`, file);
  },
  row: (job: Job, piece: string, row: number, signal: AbortSignal) =>
    call<FaceView>('POST', '/row', { job, piece, row }, signal),
  lineUp: (job: Job, piece: string, layers: string[], how: LineUp) =>
    call<Change[]>('POST', '/layers/line-up', { job, piece, layers, how }),
  files: (id: number) => call<FileInfo[]>('GET', `/jobs/${id}/files`),
  preview: async (job: Job, changes: FieldChange[], signal?: AbortSignal) => {
    const draft = { job, changes, known: known() };
    const seen = await call<Preview>('POST', '/preview', draft, signal);
    return { job: seen.job ?? job, preview: wholePreview(seen) };
  },
  plan: (job: Job, run: number, signal: AbortSignal) =>
    call<PlannedLines[]>('POST', '/plan', { job, run }, signal),
  catalogue: (hand: AtHand) => call<CatalogueEntry[]>('POST', '/catalogue', hand),
  fold: (ask: FoldAsk, signal: AbortSignal) => call<FoldView>('POST', '/fold', ask, signal),
  folded: (moment: FoldMoment, signal: AbortSignal) =>
    call<FoldedDrawing>('POST', '/folded', moment, signal),
  readLength: (entry: LengthEntry, signal: AbortSignal) =>
    call<ReadLength>('POST', '/lengths', entry, signal),
};
