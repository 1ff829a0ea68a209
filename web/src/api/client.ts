import { whileOpen } from './questions';
import { canWaitForSession, untilSignedIn } from './sessionEnd';
import type {
  CheckLine,
  Coverage,
  ReachAnswer,
  RuleShares,
  SuggestedChecks,
  ZoneMatrix,
  Rule,
  FirstGateways,
  Rollout,
  ReviewComment,
  BelowDocument,
  CommonEffect,
  RulebaseKind,
  DecidingRules,
  Catalogue,
  Change,
  CheckState,
  DirectoryState,
  Draft,
  Edit,
  EditionEffect,
  Editioned,
  Exported,
  FeedEditionReport,
  FeedSettings,
  Imported,
  ImportedEdition,
  AccountSummary,
  CaptureSummary,
  EditionSummary,
  FeedSummary,
  EnrolmentToken,
  GatewaySummary,
  PublishRequest,
  AuditEntry,
  Publishing,
  Overview,
  LogPage,
  LogState,
  AcceptedFinding,
  EditEffect,
  HoldingObject,
  RulePair,
  NewAcceptance,
  FoundRules,
  Placement,
  RulebaseDocument,
  RuleHits,
  Review,
  NamedState,
  RestoredState,
  ScheduleRequest,
  RevisionSummary,
  RulebaseSummary,
  People,
  Person,
  ProbeAnswer,
  ProblemBody,
  RecognisedCapture,
  Signature,
  SignedIn,
  TermOption,
  SignatureTrialResult,
  QuestionProgress,
  RatePlan,
  ReadSchedule,
  Repair,
  AlikeObjects,
  HandlingKind,
  FloorSum,
  ObjectKind,
  RemovalEffect,
} from './types';

/** The server refused; `body` says why. */
export class Problem extends Error {
  constructor(readonly body: ProblemBody) {
    super(body.detail);
  }
}

/** The server could not be reached. */
export class Unreachable extends Error {}

/** The user cancelled the question. */
export class Cancelled extends Error {}

/** Tells this page's changes from those of another page of the same person. */
export const clientId = crypto.randomUUID();

interface Options {
  /** A file to send as it is, instead of a body in JSON. */
  raw?: Blob;
  type?: string;
  /** The same for a change that is sent again after its answer was lost; it then acts once. */
  key?: string;
  /** Names a question, whose progress can be asked for under this name. */
  question?: string;
  signal?: AbortSignal;
}

/** Most ids of rules in one URL, whose line may have 4,096 characters. */
const MOST_IN_URL = 60;
const MOST_TRIES = 5;
const LONGEST_WAIT_S = 10;

/** How long to wait before the same request may be served; null if that would not help. */
function waitFor(response: Response, path: string, tried: number): number | null {
  const seconds = Number(response.headers.get('Retry-After'));
  const mayWait = [429, 503].includes(response.status) && seconds > 0 && path !== '/session';
  return mayWait && tried < MOST_TRIES ? Math.min(seconds, LONGEST_WAIT_S) * 1000 : null;
}

async function call<T>(
  method: string,
  path: string,
  body?: unknown,
  { raw, type = 'application/json', key, question, signal }: Options = {},
): Promise<T> {
  for (let tried = 1; ; tried++) {
    let response: Response;
    try {
      response = await fetch(`/api${path}`, {
        method,
        headers: {
          'X-Iron-Sieve': clientId,
          ...(key ? { 'Idempotency-Key': key } : {}),
          ...(question ? { 'X-Question': question } : {}),
          ...(body !== undefined || raw ? { 'Content-Type': type } : {}),
        },
        body: raw ?? (body === undefined ? undefined : JSON.stringify(body)),
        signal,
      });
    } catch {
      signal?.throwIfAborted();
      throw new Unreachable('The server does not answer.');
    }
    if (response.status === 401 && path !== '/session' && canWaitForSession()) {
      await untilSignedIn(signal);
      continue;
    }
    const wait = waitFor(response, path, tried);
    if (wait !== null) {
      await new Promise((resolve) => setTimeout(resolve, wait));
      signal?.throwIfAborted();
      continue;
    }
    if (response.status === 204) {
      return undefined as T;
    }
    if (!response.ok) {
      throw new Problem(await problemOf(response));
    }
    return (await response.json()) as T;
  }
}

/**
 * Asks something that may take long: it is listed as open meanwhile, and can be cancelled.
 *
 * @param what the answer, as a noun
 */
function ask<T>(
  what: string,
  method: string,
  path: string,
  { body, signal }: { body?: unknown; signal?: AbortSignal } = {},
): Promise<T> {
  const own = new AbortController();
  const id = crypto.randomUUID();
  const asked = call<T>(method, path, body, {
    question: id,
    signal: signal ? AbortSignal.any([signal, own.signal]) : own.signal,
  });
  const cancel = () => own.abort(new Cancelled('Cancelled.'));
  return whileOpen({ id, what, cancel }, asked);
}

async function problemOf(response: Response): Promise<ProblemBody> {
  try {
    const body = (await response.json()) as ProblemBody;
    if (body.detail) {
      return body;
    }
  } catch {
    // Not JSON: something before the server answered.
  }
  if (response.status >= 502) {
    throw new Unreachable('The server does not answer.');
  }
  const title = response.status === 401 ? 'Not signed in' : 'Refused';
  return { title, status: response.status, detail: `${title} (${response.status}).` };
}

const object = (kind: ObjectKind | HandlingKind, name: string) =>
  `${encodeURIComponent(kind)}/${encodeURIComponent(name)}`;
const feedEdition = (name: string, edition: string) =>
  `/feeds/${encodeURIComponent(name)}/editions/${encodeURIComponent(edition)}`;
const pinnedFeed = (name: string, edition: string) =>
  `/feeds/${encodeURIComponent(name)}/${encodeURIComponent(edition)}`;
const draft = (id: number) => `/rulebases/${id}/draft`;

export const api = {
  person: () => call<Person>('GET', '/session'),
  signIn: (name: string, password: string) => call<Person>('POST', '/session', { name, password }),
  signOut: () => call<void>('DELETE', '/session'),
  setUp: (body: { token: string; name: string; displayName: string; password: string }) =>
    call<Person>('POST', '/setup', body),

  questionProgress: (id: string) => call<QuestionProgress>('GET', `/questions/${id}`),

  rulebases: () => call<RulebaseSummary[]>('GET', '/rulebases'),
  addRulebase: (name: string, kind: RulebaseKind) =>
    call<Imported>('POST', '/rulebases', { name, kind }),
  importRulebase: (name: string, file: Blob) =>
    call<Imported>('POST', `/rulebases/import?name=${encodeURIComponent(name)}`, undefined, {
      raw: file,
    }),
  exportRfc8519: (id: number) => call<Exported>('GET', `${draft(id)}/rfc8519`),
  exportDocument: (id: number) => call<object>('GET', `${draft(id)}/document`),

  draft: (id: number) => ask<Draft>('Rules', 'GET', draft(id)),
  edit: (id: number, version: number, edit: Edit, key: string) =>
    call<Change>('PATCH', draft(id), { version, edit }, { key }),
  discard: (id: number, version: number) => call<void>('POST', `${draft(id)}/discard`, { version }),
  states: (id: number) => call<NamedState[]>('GET', `${draft(id)}/states`),
  nameState: (id: number, version: number, name: string) =>
    call<void>('POST', `${draft(id)}/states`, { version, name }),
  deleteState: (id: number, name: string) =>
    call<void>('DELETE', `${draft(id)}/states/${encodeURIComponent(name)}`),
  restore: (id: number, version: number, to: RestoredState, rules?: string[]) =>
    call<void>('POST', `${draft(id)}/restore`, { version, ...to, rules }),
  undo: (id: number, key: string) => call<Change>('POST', `${draft(id)}/undo`, undefined, { key }),
  redo: (id: number, key: string) => call<Change>('POST', `${draft(id)}/redo`, undefined, { key }),
  changes: (id: number, before?: number) =>
    call<Change[]>('GET', `${draft(id)}/changes${before ? `?before=${before}` : ''}`),
  probe: (id: number, line: string, signal?: AbortSignal) =>
    ask<ProbeAnswer>('Probe', 'POST', `${draft(id)}/probe`, { body: { line }, signal }),
  terms: (id: number, of: string[], text: string) =>
    call<TermOption[]>(
      'GET',
      `${draft(id)}/terms?${new URLSearchParams([...of.map((word) => ['of', word]), ['text', text]]).toString()}`,
    ),
  termSizes: (id: number) =>
    call<Record<string, Record<string, number>>>('GET', `${draft(id)}/terms/sizes`),
  placement: (id: number, rule: string, signal?: AbortSignal) =>
    ask<Placement>('Places', 'GET', `${draft(id)}/rules/${encodeURIComponent(rule)}/placement`, {
      signal,
    }),
  accepted: (id: number) => call<AcceptedFinding[]>('GET', `${draft(id)}/accepted`),
  accept: (id: number, finding: NewAcceptance) =>
    call<void>('POST', `${draft(id)}/accepted`, finding),
  withdrawAccepted: (id: number, rule: string, kind: string) =>
    call<void>('DELETE', `${draft(id)}/accepted/${encodeURIComponent(rule)}/${kind}`),
  /** What two rules share, and what each matches alone. */
  beside: (id: number, rule: string, other: string, signal?: AbortSignal) =>
    ask<RulePair>(
      'Comparison',
      'GET',
      `${draft(id)}/rules/${encodeURIComponent(rule)}/beside/${encodeURIComponent(other)}`,
      { signal },
    ),
  /** What decides the connections of a reach question. */
  reach: (id: number, question: string, signal?: AbortSignal) =>
    ask<ReachAnswer>(
      'Reach question',
      'GET',
      `${draft(id)}/reach?${new URLSearchParams({ question }).toString()}`,
      { signal },
    ),
  zoneMatrix: (id: number, signal?: AbortSignal) =>
    ask<ZoneMatrix>('Zone matrix', 'GET', `${draft(id)}/reach/matrix`, { signal }),
  /** How much each rule decides, where each kind of connection counts alike. */
  ruleShares: (id: number, signal?: AbortSignal) =>
    ask<RuleShares>('Shares', 'GET', `${draft(id)}/reach/shares`, { signal }),
  /** Which small mistakes in the rules the checks would notice. */
  coverage: (id: number, signal?: AbortSignal) =>
    ask<Coverage>('Coverage', 'GET', `${draft(id)}/checks/coverage`, { signal }),
  /** Checks that notice every small mistake in some rules. */
  suggestedChecks: (id: number, rules: string[]) =>
    ask<SuggestedChecks>(
      'Checks',
      'GET',
      `${draft(id)}/checks/suggested?${new URLSearchParams(rules.map((rule) => ['rule', rule])).toString()}`,
    ),
  /** What some lines mean that may become checks. */
  readChecks: (id: number, lines: string[]) =>
    ask<{ results: CheckLine[] }>('Checks', 'POST', `${draft(id)}/checks/read`, {
      body: { lines },
    }),
  /** The objects that hold an address or a service. */
  holdingObjects: (id: number, value: string, signal?: AbortSignal) =>
    ask<HoldingObject[]>(
      'Search',
      'GET',
      `${draft(id)}/objects/holding?${new URLSearchParams({ value }).toString()}`,
      { signal },
    ),
  /** What an edit of the rules would change. */
  effect: (id: number, edit: Edit, signal?: AbortSignal) =>
    ask<EditEffect>('Effect', 'POST', `${draft(id)}/effect`, { body: edit, signal }),
  /** The rules that match connections with an address, or of a service. */
  rulesWith: (id: number, what: 'address' | 'service', value: string, signal?: AbortSignal) =>
    ask<FoundRules>(
      'Filter',
      'GET',
      `${draft(id)}/rules/matching/${what}?${new URLSearchParams({ value }).toString()}`,
      { signal },
    ),
  repairs: (id: number, rule: string, finding: string, signal?: AbortSignal) =>
    ask<Repair[]>(
      'Repairs',
      'GET',
      `${draft(id)}/rules/${encodeURIComponent(rule)}/repairs/${finding}`,
      { signal },
    ),
  review: (id: number, signal?: AbortSignal) =>
    ask<Review>('Review', 'GET', `${draft(id)}/review`, { signal }),
  compareRevisions: (id: number, earlier: number, later: number, signal?: AbortSignal) =>
    ask<Review>('Comparison', 'GET', `/rulebases/${id}/revisions/${later}/since/${earlier}`, {
      signal,
    }),
  revisions: (id: number) => call<RevisionSummary[]>('GET', `/rulebases/${id}/revisions`),
  revision: (id: number, number: number) =>
    call<RulebaseDocument>('GET', `/rulebases/${id}/revisions/${number}`),
  revisionRules: (id: number, number: number, signal?: AbortSignal) =>
    ask<Draft>('Analysis', 'GET', `/rulebases/${id}/revisions/${number}/rules`, { signal }),
  gateways: (id: number) => call<GatewaySummary[]>('GET', `/rulebases/${id}/gateways`),
  rollout: (id: number) => call<Rollout>('GET', `/rulebases/${id}/rollout`),
  finishRollout: (id: number) => call<void>('POST', `/rulebases/${id}/rollout/finish`),
  stopRollout: (id: number) => call<void>('POST', `/rulebases/${id}/rollout/stop`),
  addGateway: (id: number, name: string) =>
    call<EnrolmentToken>('POST', `/rulebases/${id}/gateways`, { name }),
  revokeGateway: (id: number, gateway: number) =>
    call<void>('DELETE', `/rulebases/${id}/gateways/${gateway}`),
  overview: (id: number, signal?: AbortSignal) =>
    ask<Overview>('Overview', 'GET', `/rulebases/${id}/overview`, { signal }),
  hits: (id: number) => call<RuleHits[]>('GET', `/rulebases/${id}/hits`),
  log: (id: number, filter: Record<string, string>, limit: number) =>
    call<LogPage>(
      'GET',
      `/rulebases/${id}/log?${new URLSearchParams({ ...filter, limit: `${limit}` }).toString()}`,
    ),
  audit: (filter: Record<string, string>, behind: number | undefined, limit: number) =>
    call<AuditEntry[]>(
      'GET',
      `/audit?${new URLSearchParams({
        ...filter,
        ...(behind !== undefined && { behind: `${behind}` }),
        limit: `${limit}`,
      }).toString()}`,
    ),
  logState: (id: number) => call<LogState>('GET', `/rulebases/${id}/log/state`),
  below: (id: number) => call<BelowDocument[]>('GET', `/rulebases/${id}/below`),
  effectBelow: (id: number, other: number, signal?: AbortSignal) =>
    ask<CommonEffect>('Effect', 'GET', `/rulebases/${id}/below/${other}`, { signal }),
  reviewBelow: (id: number, other: number, signal?: AbortSignal) =>
    ask<Review>('Review', 'GET', `${draft(id)}/review/below/${other}`, { signal }),
  chooseCommon: (id: number, version: number, rulebase?: number) =>
    call<void>('PUT', `${draft(id)}/common`, { version, rulebase }),
  publish: (id: number, request: PublishRequest) =>
    call<RevisionSummary>('POST', `/rulebases/${id}/revisions`, request),
  comments: (id: number) => call<ReviewComment[]>('GET', `${draft(id)}/comments`),
  commentsOfRevision: (id: number, number: number) =>
    call<ReviewComment[]>('GET', `/rulebases/${id}/revisions/${number}/comments`),
  addComment: (id: number, rule: string, text: string) =>
    call<void>('POST', `${draft(id)}/comments`, { rule, text }),
  deleteComment: (id: number, comment: number) =>
    call<void>('DELETE', `${draft(id)}/comments/${comment}`),
  /** The text of rules, given in their order; asked in parts, since a URL has a limit. */
  rulesText: async (id: number, rules: string[]) => {
    const parts: string[] = [];
    for (let at = 0; at < rules.length; at += MOST_IN_URL) {
      const some = rules.slice(at, at + MOST_IN_URL).map((rule) => ['id', rule]);
      const query = new URLSearchParams(some).toString();
      parts.push((await call<{ text: string }>('GET', `${draft(id)}/rules/text?${query}`)).text);
    }
    return parts.join('\n');
  },
  readRules: (id: number, text: string) =>
    call<{ rules: Rule[]; missing: { kind: string; name: string }[] }>(
      'POST',
      `${draft(id)}/rules/text`,
      { text },
    ),
  publishing: (id: number) => call<Publishing>('GET', `/rulebases/${id}/publishing`),
  requireApproval: (id: number, fourEyes: boolean) =>
    call<void>('PUT', `/rulebases/${id}/publishing`, { fourEyes }),
  askApproval: (id: number, request: PublishRequest) =>
    call<void>('PUT', `${draft(id)}/approval`, request),
  approve: (id: number, version: number, digest: string, first?: FirstGateways) =>
    call<RevisionSummary>('POST', `${draft(id)}/approval`, { version, digest, first }),
  schedulePublish: (id: number, request: ScheduleRequest) =>
    call<void>('PUT', `${draft(id)}/scheduled`, request),
  cancelScheduled: (id: number) => call<void>('DELETE', `${draft(id)}/scheduled`),
  withdrawRequest: (id: number) => call<void>('DELETE', `${draft(id)}/approval`),
  checks: (id: number, signal?: AbortSignal) =>
    ask<CheckState[]>('Checks', 'GET', `${draft(id)}/checks`, { signal }),
  floorsWith: (id: number, ratePlan: RatePlan, replaces?: string) =>
    call<FloorSum>('POST', `${draft(id)}/objects/floors`, { ratePlan, replaces }),
  floors: (id: number, signal?: AbortSignal) =>
    ask<FloorSum>('Guaranteed bandwidth', 'GET', `${draft(id)}/objects/floors`, { signal }),
  alikeObjects: (id: number, signal?: AbortSignal) =>
    ask<AlikeObjects[]>('Equal objects', 'GET', `${draft(id)}/objects/alike`, { signal }),
  effectOfRemoval: (
    id: number,
    kind: ObjectKind | HandlingKind,
    name: string,
    signal?: AbortSignal,
  ) =>
    ask<RemovalEffect>('Effect', 'GET', `${draft(id)}/objects/${object(kind, name)}/removal`, {
      signal,
    }),
  removeObject: (id: number, kind: ObjectKind | HandlingKind, name: string, version: number) =>
    call<Change>('DELETE', `${draft(id)}/objects/${object(kind, name)}?version=${version}`),
  readCalendar: (file: Blob) =>
    call<ReadSchedule[]>('POST', '/schedules/read', undefined, {
      raw: file,
      type: 'text/calendar',
    }),
  calendarUrl: (id: number, schedule?: string) =>
    `/api${draft(id)}/schedules${schedule ? `/${encodeURIComponent(schedule)}` : ''}`,
  eventsUrl: (id: number) => `/api${draft(id)}/events`,

  editions: () => call<EditionSummary[]>('GET', '/catalogue'),
  edition: (name: string) => call<Catalogue>('GET', `/catalogue/${encodeURIComponent(name)}`),
  importEdition: (file: Blob) =>
    call<ImportedEdition>('POST', '/catalogue', undefined, { raw: file }),
  effectOfEdition: (id: number, of: Editioned, name: string, signal?: AbortSignal) =>
    ask<EditionEffect>('Effect', 'GET', `${draft(id)}/editions/${of}/${encodeURIComponent(name)}`, {
      signal,
    }),
  takeEdition: (id: number, of: Editioned, name: string, version: number) =>
    call<Change>('PUT', `${draft(id)}/editions/${of}/${encodeURIComponent(name)}`, { version }),

  feeds: () => call<FeedSummary[]>('GET', '/feeds'),
  addFeed: (body: { name: string; kind: string; settings: FeedSettings }) =>
    call<void>('POST', '/feeds', body),
  changeFeed: (name: string, settings: FeedSettings) =>
    call<void>('PUT', `/feeds/${encodeURIComponent(name)}`, { settings }),
  removeFeed: (name: string) => call<void>('DELETE', `/feeds/${encodeURIComponent(name)}`),
  fetchFeed: (name: string) =>
    call<FeedSummary[]>('POST', `/feeds/${encodeURIComponent(name)}/fetch`),
  uploadFeed: (name: string, file: Blob) =>
    call<FeedSummary[]>('POST', `/feeds/${encodeURIComponent(name)}/upload`, undefined, {
      raw: file,
      type: 'application/octet-stream',
    }),
  feedEdition: (name: string, edition: string) =>
    call<FeedEditionReport>('GET', feedEdition(name, edition)),
  decideFeedEdition: (name: string, edition: string, offer: boolean) =>
    call<FeedSummary[]>('PUT', `${feedEdition(name, edition)}/decision`, { offer }),
  effectOfFeed: (id: number, name: string, edition: string, signal?: AbortSignal) =>
    ask<EditionEffect>('Effect', 'GET', `${draft(id)}${pinnedFeed(name, edition)}`, { signal }),
  takeFeed: (id: number, name: string, edition: string, version: number) =>
    call<Change>('PUT', `${draft(id)}${pinnedFeed(name, edition)}`, { version }),

  captures: () => call<CaptureSummary[]>('GET', '/captures'),
  readCapture: (file: File) =>
    call<CaptureSummary>(
      'POST',
      `/captures?${new URLSearchParams({ name: file.name }).toString()}`,
      undefined,
      { raw: file, type: 'application/octet-stream' },
    ),
  recognised: (id: number, upTo: number, edition: string) =>
    call<RecognisedCapture>(
      'GET',
      `/captures/${id}?${new URLSearchParams({ edition, upTo: `${upTo}` }).toString()}`,
    ),
  trySignature: (
    id: number,
    upTo: number,
    edition: string,
    application: string,
    signature: Signature,
  ) =>
    call<SignatureTrialResult>('POST', `/captures/${id}/try?upTo=${upTo}`, {
      edition,
      application,
      signature,
    }),
  addSignature: (from: string, edition: string, application: string, signature: Signature) =>
    call<ImportedEdition>('POST', `/catalogue/${encodeURIComponent(from)}/signatures`, {
      edition,
      application,
      signature,
    }),

  directory: () => call<DirectoryState>('GET', '/directory'),
  readDirectory: () => call<DirectoryState>('POST', '/directory/read'),
  people: (snapshot: string, text: string, limit: number) =>
    call<People>(
      'GET',
      `/directory/${encodeURIComponent(snapshot)}/people?${new URLSearchParams({ text, limit: `${limit}` }).toString()}`,
    ),
  signInsOf: (person: string) =>
    call<SignedIn[]>('GET', `/sign-ins?${new URLSearchParams({ person }).toString()}`),
  rulesOfPerson: (id: number, name: string, signal?: AbortSignal) =>
    ask<DecidingRules>('Deciding rules', 'GET', `${draft(id)}/people/${encodeURIComponent(name)}`, {
      signal,
    }),
  rulesOfApplication: (id: number, name: string, signal?: AbortSignal) =>
    ask<DecidingRules>(
      'Deciding rules',
      'GET',
      `${draft(id)}/applications/${encodeURIComponent(name)}`,
      { signal },
    ),

  accounts: () => call<AccountSummary[]>('GET', '/accounts'),
  addAccount: (body: { name: string; displayName: string; role: string; password: string }) =>
    call<AccountSummary>('POST', '/accounts', body),
  changeAccount: (name: string, body: { role?: string; disabled?: boolean; password?: string }) =>
    call<AccountSummary>('PATCH', `/accounts/${encodeURIComponent(name)}`, body),
};
