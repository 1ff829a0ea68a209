import type { components } from './schema';

type Schemas = components['schemas'];

/** A document with more precise types of some members. */
type Precise<Document, Members> = Omit<Document, keyof Members> & Members;

export type Draft = Precise<
  Schemas['DraftDocument'],
  {
    sections: Section[];
    zones: NamedObject[];
    addresses: NamedObject[];
    services: NamedObject[];
    hostLists: NamedObject[];
    schedules: NamedObject[];
    deviceStates: NamedObject[];
    ratePlans: RatePlan[];
    notices: Notice[];
    checks: SavedCheck[];
  }
>;
export type Rule = Precise<
  Schemas['RuleDocument'],
  { id: string; name: string; verdict: Verdict; opening?: Opening; log?: Logging }
>;
export type Section = Precise<
  Schemas['SectionDocument'],
  { id: string; name: string; rules?: Rule[] }
>;
export type Criterion = Schemas['CriterionDocument'];
export type NamedObject = Precise<Schemas['ObjectDocument'], { name: string }>;
export type Place = Schemas['PlaceDocument'];
/** An edit of a draft, by its kind; as `EditDocument`, with the members that each kind needs. */
export type Edit =
  | { kind: 'insertRules'; rules: Rule[]; place: Place }
  | { kind: 'replaceRules'; rules: Rule[] }
  | { kind: 'deleteRules'; ids: string[] }
  | { kind: 'moveRules'; ids: string[]; place: Place }
  | { kind: 'insertSection'; id: string; name: string; before?: string; tail?: boolean }
  | { kind: 'renameSection'; id: string; name: string }
  | { kind: 'moveSection'; id: string; before?: string }
  | { kind: 'deleteSection'; id: string }
  | { kind: PutObjectKind; object: NamedObject; replaces?: string }
  | { kind: 'putRatePlan'; ratePlan: RatePlan; replaces?: string }
  | { kind: 'putNotice'; notice: Notice; replaces?: string }
  | { kind: 'setLineCapacity'; capacity?: string }
  | { kind: 'setTimeZone'; name: string }
  | { kind: 'setBreadth'; tooBroad: Schemas['BreadthDocument'] }
  | { kind: 'putCheck'; check: SavedCheck; replaces?: string; before?: string }
  | { kind: 'deleteCheck'; name: string }
  | { kind: 'deleteObject'; objectKind: ObjectKind | HandlingKind; name: string }
  | {
      kind: 'putVocabulary';
      vocabulary: { coordinate: string; edition: string; values?: string[] };
    }
  | { kind: 'deleteVocabulary'; name: string }
  | { kind: 'putFeed'; pinned: PinnedFeed }
  | { kind: 'deleteFeed'; name: string }
  | { kind: 'putCommon'; common?: { rulebase?: string; revision?: number } }
  | { kind: 'restore'; name: string }
  | { kind: 'batch'; edits: Edit[] };
type PutObjectKind = (typeof PUT_EDITS)[ObjectKind];
export type PutObject = Extract<Edit, { kind: PutObjectKind }>;
/** The rules of an edit that has any. */
export const rulesIn = (edit: Edit): Rule[] => ('rules' in edit ? edit.rules : []);
export type Change = Precise<Schemas['ChangeDocument'], { edit: Edit; inverse?: Edit }>;
export type Standing = Schemas['StandingDocument'];
export type Finding = Schemas['FindingDocument'];
export type ProbeAnswer = Schemas['ProbeAnswer'];
export type Person = Schemas['Person'];
export type RulebaseSummary = Schemas['RulebaseSummary'];
export type RulebaseKind = RulebaseSummary['kind'];
export type BelowDocument = Schemas['BelowDocument'];
export type CommonEffect = Schemas['CommonEffect'];
export type AccountSummary = Schemas['AccountSummary'];
export type Imported = Schemas['Imported'];
export type Exported = Schemas['Exported'];
export type AlikeObjects = Schemas['AlikeObjects'];
export type RemovalEffect = Precise<
  Schemas['RemovalEffect'],
  { rules: { before: Rule; after: Rule }[] }
>;
export type SavedCheck = Precise<
  Schemas['CheckDocument'],
  { name: string; connection: string; verdict: Verdict }
>;
export type CheckState = Schemas['CheckState'];
export type Repair = Precise<Schemas['RepairDocument'], { edit: Edit }>;
export type ReadSchedule = Schemas['ReadSchedule'];
export type TermOption = Schemas['TermOption'];
export type Catalogue = Schemas['CatalogueDocument'];
export type Application = Schemas['ApplicationDocument'] & {
  name: string;
  summary: string;
  category: string;
  risk: number;
  usefulness: number;
};
export type EditionSummary = Schemas['EditionSummary'];
export type ImportedEdition = Schemas['ImportedEdition'];
export type FeedSummary = Schemas['FeedSummary'];
export type FeedEditionSummary = Schemas['FeedEditionSummary'];
export type FeedEditionReport = Schemas['FeedEditionReport'];
export type FeedSettings = Schemas['FeedSettings'];
export type PinnedFeed = Schemas['PinnedFeed'];
export type EditionEffect = Schemas['EditionEffect'];
/** What comes in editions, by the coordinate that it is of. */
export type Editioned = 'application' | 'person';
export type DirectoryState = Schemas['DirectoryState'];
export type People = Schemas['People'];
export type PersonEntry = Schemas['PersonEntry'];
export type SignedIn = Schemas['SignedIn'];
export type DecidingRules = Schemas['DecidingRules'];
export type CaptureSummary = Schemas['CaptureSummary'];
export type RecognisedCapture = Schemas['RecognisedCapture'];
export type RecognisedConnection = Schemas['RecognisedConnection'];
export type Signature = Schemas['SignatureDocument'];
export type SignatureTrialResult = Schemas['SignatureTrialResult'];
export type ObjectKind = 'zone' | 'address' | 'service' | 'host list' | 'schedule' | 'device state';
/** The lists of a draft's objects, by their kind. */
export const OBJECT_LISTS = {
  zone: 'zones',
  address: 'addresses',
  service: 'services',
  'host list': 'hostLists',
  schedule: 'schedules',
  'device state': 'deviceStates',
} as const satisfies Record<ObjectKind, keyof Draft>;
export const PUT_EDITS = {
  zone: 'putZone',
  address: 'putAddress',
  service: 'putService',
  'host list': 'putHostList',
  schedule: 'putSchedule',
  'device state': 'putDeviceState',
} as const satisfies Record<ObjectKind, Schemas['EditDocument']['kind']>;
export type Review = Schemas['ReviewDocument'];
export type RevisionSummary = Schemas['RevisionSummary'];
export type ScheduleRequest = Schemas['ScheduleRequest'];
export type NamedState = Schemas['NamedState'];
/** A state to which a draft can go back: the number of a revision, or the name of a state. */
export type RestoredState = { revision: number } | { state: string };
export type GatewaySummary = Schemas['GatewaySummary'];
export type Rollout = Schemas['Rollout'];
export type FirstGateways = Schemas['FirstGateways'];
export type EnrolmentToken = Schemas['EnrolmentToken'];
export type Overview = Schemas['Overview'];
export type Publishing = Schemas['PublishingDocument'];
export type ReviewComment = Schemas['ReviewComment'];
export type AuditEntry = Schemas['AuditEntry'];
export type RuleHits = Schemas['RuleHits'];
export type LogRow = Schemas['LogRow'];
export type LogPage = Schemas['LogPage'];
export type LogState = Schemas['LogState'];
export type LogSender = Schemas['LogSender'];
export type PublishRequest = Schemas['PublishRequest'];
export type QuestionProgress = Schemas['QuestionProgress'];
export type RatePlan = Precise<Schemas['RatePlanDocument'], { name: string; counted: Counted }>;
export type Notice = Precise<
  Schemas['NoticeDocument'],
  { name: string; heading: string; text: string }
>;
export type FloorSum = Schemas['FloorSum'];
/** The group of connections to which a ceiling or a floor applies. */
export type Counted = 'all rules' | 'each rule' | 'each source';
/** Things that rules name but do not match by. */
export type HandlingKind = 'rate plan' | 'notice';
export type Verdict = 'allow' | 'drop' | 'reject' | 'caution';
export type Opening = 'sealed' | 'opened';
export type Logging = 'off' | 'start' | 'end' | 'both';

/** What the server says of a request that it cannot serve (RFC 9457). */
export interface ProblemBody {
  title: string;
  status: number;
  detail: string;
  faults?: { path: string; expected: string; found: string }[];
  conflict?: { what: string; key: string; by: string; version: number; at: string };
}
export type AcceptedFinding = Schemas['AcceptedFinding'];
export type NewAcceptance = Schemas['NewAcceptance'];
export type RulePair = Schemas['RulePairDocument'];
export type HoldingObject = Schemas['HoldingObject'];
export type FoundRules = Schemas['FoundRules'];
export type Placement = Schemas['PlacementDocument'];
export type RulebaseDocument = Schemas['RulebaseDocument'];
export type EditEffect = Schemas['EditEffect'];
export type ReachAnswer = Schemas['ReachDocument'];
export type RuleShares = Schemas['RuleSharesDocument'];
export type ZoneMatrix = Schemas['ZoneMatrixDocument'];
export type Coverage = Schemas['CoverageDocument'];
export type SuggestedChecks = Schemas['SuggestedChecks'];
export type CheckLine = Schemas['CheckLine'];
