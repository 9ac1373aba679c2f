/* Written by make generate from the Go types. Do not edit. */

export type Text = Part[]
/**
 * The rule with its inputs and its value.
 */
export type Text1 = Part[]
/**
 * The explanation in one sentence.
 */
export type Text2 = Part[]

export interface MallowAPI {
  job?: Job
  plan?: Plan
  jobState?: JobState
  jobList?: JobList
  history?: History
  createRequest?: CreateRequest
  saveRequest?: SaveRequest
  moveRequest?: MoveRequest
  reading?: Reading
  problem?: Problem
  catalogue?: Catalogue
  edit?: Edit
}
export interface Job {
  /**
   * Version of the job document.
   */
  mallow: 1
  name: string
  units: Units
  site?: Site
  /**
   * Fence lines. This version plans one.
   *
   * @minItems 1
   * @maxItems 1
   */
  lines: Line[]
}
export interface Units {
  /**
   * System that lengths are printed and bare numbers are read in. Lengths in this document are millimetres either way.
   */
  system: 'imperial' | 'metric'
  /**
   * Smallest mark on the tape: 1/2, 1/4, 1/8, 1/16 or 1/32 in, or 1, 5 or 10 mm.
   */
  smallestMark: number
}
export interface Site {
  /**
   * Depth the ground freezes to, by the local building office. Left out: not asked yet.
   */
  frostDepth?: number
}
export interface Line {
  id: string
  /**
   * Whether the last run ends where the first starts. This version plans open lines.
   */
  closed?: boolean
  /**
   * Straight stretches, in order. This version plans one.
   *
   * @minItems 1
   * @maxItems 1
   */
  runs: Run[]
}
export interface Run {
  id: string
  name?: string
  /**
   * Centre to centre of the two end posts, measured level. Left out: not measured yet.
   */
  length?: number
  /**
   * Turn at this run's start. This version plans one straight run.
   */
  turn?: 0
  /**
   * Ground heights in order of station, straight in between. Left out: taken as level.
   *
   * @maxItems 20000
   */
  ground?: GroundPoint[]
  /**
   * Gates in order of station.
   *
   * @maxItems 1000
   */
  gates?: Gate[]
  /**
   * Reserved: this version cannot keep posts out of a stretch.
   *
   * @maxItems 0
   */
  keepOuts?: Reserved[]
  /**
   * Reserved: this version cannot hold a post where it stands.
   *
   * @maxItems 0
   */
  fixedPosts?: Reserved[]
  fence?: Fence
  post?: Post
  spacing?: Spacing
  grade?: Grade
  hole?: Hole
  setting?: Setting
}
export interface GroundPoint {
  /**
   * Station: level distance from the centre of the run's first post.
   */
  at: number
  /**
   * Ground height above any one datum.
   */
  height: number
}
export interface Gate {
  id: string
  name?: string
  /**
   * Station of the middle of the opening.
   */
  at: number
  /**
   * Clear opening between the faces of the two gate posts.
   */
  opening: number
  /**
   * Least gap under the leaf, over the highest ground across the opening. Usual: 4 in or 100 mm.
   */
  gap?: number
}
export interface Reserved {}
export interface Fence {
  /**
   * From the lowest fence part to the top. Usual: 6 ft or 1800 mm.
   */
  height?: number
  /**
   * Least gap between ground and fence. Usual: 2 in or 50 mm.
   */
  gapLeast?: number
  /**
   * Most gap between ground and fence. Usual: 3 in or 75 mm.
   */
  gapMost?: number
}
export interface Post {
  shape?: 'square' | 'round'
  /**
   * Side of a square post, or outside diameter of a round one.
   */
  width?: number
  /**
   * An open hollow post: it fills with concrete, up to the concrete's top, as it is set.
   */
  hollow?: boolean
  /**
   * Wall thickness of a hollow post.
   */
  wall?: number
  /**
   * How far the post stands above the fence's top.
   */
  above?: number
  /**
   * Spare length to cut off after setting.
   */
  trim?: number
  /**
   * Lengths the posts are sold in.
   *
   * @minItems 1
   * @maxItems 40
   */
  stock?: number[]
}
export interface Spacing {
  /**
   * Most spacing, centre to centre. Usual: 96 in for 8 ft lumber, or 2400 mm.
   */
  most?: number
}
export interface Grade {
  look?: 'level' | 'stepped' | 'raked'
  /**
   * What gives where both gaps cannot be held: fill under the low places, cut the high ones, or half and half.
   */
  give?: 'fill' | 'cut' | 'both'
  /**
   * How far a raked panel can lean out of square over one bay. Left out: no limit.
   */
  rack?: number
}
export interface Hole {
  /**
   * Hole width as a multiple of the post's width. Usual: 3.
   */
  widthFactor?: number
  /**
   * Auger diameters to be had.
   *
   * @minItems 1
   * @maxItems 40
   */
  augers?: number[]
  /**
   * Added below the frost depth. Many add 6 in or 150 mm.
   */
  frostMargin?: number
  /**
   * Share of the whole post's length that stands in the ground.
   */
  share?: 'none' | 'quarter' | 'third' | 'half'
  /**
   * Never shallower than this. Usual: 24 in or 600 mm.
   */
  floor?: number
  /**
   * Added to the floor for each unit of fence height over 4 ft: 0.25 is 3 in per foot.
   */
  floorPerHeight?: number
  /**
   * Gate posts go this much deeper.
   */
  gateExtraDepth?: number
  /**
   * Gate post holes are this much wider, before rounding up to an auger.
   */
  gateExtraWidth?: number
  /**
   * End posts go this much deeper.
   */
  endExtraDepth?: number
  /**
   * Depth is rounded up to a multiple of this, so that one mark on the digger's handle serves. 0: not rounded.
   */
  roundDepthTo?: number
  /**
   * Hole width set by hand, over all rules.
   */
  width?: number
  /**
   * Depth of the post's foot set by hand, over all rules.
   */
  depth?: number
}
export interface Setting {
  /**
   * Gravel under the post's foot, dug below the depth that the rules ask for.
   */
  gravel?: number
  /**
   * Soil over the concrete: how far below ground the concrete stops.
   */
  cover?: number
  /**
   * Bag of dry concrete, by its name in the catalogue: 40lb, 50lb, 60lb, 80lb, 20kg, 25kg.
   */
  bag?: string
  /**
   * Concrete bought beyond what is computed, as a fraction.
   */
  waste?: number
}
export interface Plan {
  /**
   * Version of the plan document.
   */
  mallow: number
  name: string
  units: Units
  runs: PlannedRun[]
  totals: Totals1
  findings: Finding[]
  cautions: Caution[]
  /**
   * The rules that the reasons name, each once.
   */
  rules: Step[]
  /**
   * Explanations; the figures' why fields are places in this list.
   */
  reasons: Why[]
}
export interface PlannedRun {
  id: string
  name: string
  /**
   * JSON pointer of the run in the job document.
   */
  path: string
  /**
   * Level, centre to centre of the end posts.
   */
  length: number
  /**
   * Its posts are hollow: drawn as metal.
   */
  hollow: boolean
  /**
   * The same along the ground.
   */
  slopeLength: number
  /**
   * Frost depth; left out when it is not known.
   */
  frost?: number
  ground: GroundPoint[]
  segments: Segment[]
  posts: PlannedPost[]
  bays: PlannedBay[]
  gates: PlannedGate[]
  totals: Totals
}
export interface Segment {
  from: number
  to: number
  gate?: string
  bays: number
  each: number
  why: number
}
export interface PlannedPost {
  id: string
  kind: 'end' | 'gate' | 'line'
  gate?: string
  /**
   * Centre of the post, level from the run's start.
   */
  station: number
  /**
   * The same along the ground.
   */
  slopeTape: number
  /**
   * Height of the ground above the datum.
   */
  ground: number
  /**
   * Height of the post's top above the datum.
   */
  top: number
  /**
   * How much post shows above ground.
   */
  reveal: number
  holeWidth: number
  /**
   * Depth to dig, with the gravel.
   */
  holeDepth: number
  /**
   * Depth of the post's foot: its embedment.
   */
  foot: number
  /**
   * Gravel under the foot.
   */
  gravel: number
  /**
   * Height of the concrete.
   */
  concrete: number
  gravelVolume: number
  concreteVolume: number
  /**
   * Bags to pour, as a decimal.
   */
  bags: number
  /**
   * Length of post needed: reveal, embedment and trim.
   */
  needed: number
  /**
   * Stock length to take; left out when none is long enough.
   */
  stock?: number
  /**
   * To cut off: stock less reveal and embedment.
   */
  cutOff?: number
  why: PostWhy
}
export interface PostWhy {
  station: number
  top: number
  holeWidth: number
  holeDepth: number
  concrete: number
  stock: number
}
export interface PlannedBay {
  id: string
  gate?: string
  from: string
  to: string
  centreToCentre: number
  /**
   * Between the posts' faces.
   */
  clear: number
  /**
   * Heights above the datum; for a gate, of the leaf's bottom.
   */
  bottomStart: number
  bottomEnd: number
  topStart: number
  topEnd: number
  gapLeast: Gap
  gapMost: Gap
  cut?: Earth
  fill?: Earth1
  why: BayWhy
}
export interface Gap {
  gap: number
  at: number
}
/**
 * Ground to cut so that the least gap holds; left out where it does.
 */
export interface Earth {
  depth: number
  at: number
}
/**
 * Ground to fill so that the most gap holds; left out where it does.
 */
export interface Earth1 {
  depth: number
  at: number
}
export interface BayWhy {
  spacing: number
  gap: number
}
export interface PlannedGate {
  id: string
  name: string
  /**
   * JSON pointer of the gate in the job document.
   */
  path: string
  at: number
  opening: number
  /**
   * Its first post.
   */
  first: string
  second: string
  bay: string
  /**
   * Height of the leaf: from its gap up to the fence's top line.
   */
  leaf: number
}
/**
 * Totals of the run. Bags are rounded up once for the run.
 */
export interface Totals {
  posts: number
  kinds: KindCount[]
  stock: Stock[]
  /**
   * Posts for which no stock length is long enough.
   */
  stockShort: number
  holes: Holes[]
  /**
   * In the holes.
   */
  concrete: number
  /**
   * With waste.
   */
  concreteToBuy: number
  /**
   * Name of the bag; empty when the job's bag is not in the catalogue.
   */
  bag: string
  bagsExact: number
  /**
   * Rounded up once for the whole.
   */
  bags: number
  bagsMass: number
  /**
   * Tamped, in the holes.
   */
  gravel: number
  /**
   * Loose, as bought.
   */
  gravelLoose: number
  gravelMass: number
  why: TotalsWhy
}
export interface KindCount {
  kind: 'end' | 'gate' | 'line'
  count: number
}
export interface Stock {
  length: number
  count: number
}
export interface Holes {
  width: number
  depth: number
  count: number
}
export interface TotalsWhy {
  concrete: number
  gravel: number
}
/**
 * Totals of the job. Bags are rounded up once for the job.
 */
export interface Totals1 {
  posts: number
  kinds: KindCount[]
  stock: Stock[]
  /**
   * Posts for which no stock length is long enough.
   */
  stockShort: number
  holes: Holes[]
  /**
   * In the holes.
   */
  concrete: number
  /**
   * With waste.
   */
  concreteToBuy: number
  /**
   * Name of the bag; empty when the job's bag is not in the catalogue.
   */
  bag: string
  bagsExact: number
  /**
   * Rounded up once for the whole.
   */
  bags: number
  bagsMass: number
  /**
   * Tamped, in the holes.
   */
  gravel: number
  /**
   * Loose, as bought.
   */
  gravelLoose: number
  gravelMass: number
  why: TotalsWhy
}
export interface Finding {
  /**
   * Which check spoke; stable, for programs.
   */
  rule: string
  severity: 'missing' | 'cannot' | 'check' | 'note'
  stage: 'walk' | 'space' | 'grade' | 'dig' | 'pour'
  place: Place
  /**
   * JSON pointer of the measure to enter, for what is missing.
   */
  field?: string
  says: Text
  remedies?: Remedy[]
}
export interface Place {
  run?: string
  post?: string
  bay?: string
  gate?: string
}
export interface Part {
  kind: 'text' | 'length' | 'tape' | 'small' | 'bulk' | 'number'
  text?: string
  /**
   * Millimetres, cubic metres or a plain number, by kind.
   */
  value?: number
}
export interface Remedy {
  says: Text
  edits: Edit[]
}
export interface Edit {
  /**
   * JSON pointer into the job document.
   */
  path: string
  /**
   * The new value; null takes the field away.
   */
  value: {
    [k: string]: unknown
  }
}
export interface Caution {
  stage: 'walk' | 'space' | 'grade' | 'dig' | 'pour'
  says: Text
}
export interface Step {
  /**
   * Name of the rule.
   */
  rule: string
  says: Text1
  governs: boolean
  source: Source
  settings?: RuleSetting[]
}
export interface Source {
  kind: 'published' | 'common practice' | 'from memory' | 'geometry' | 'yours'
  name?: string
}
export interface RuleSetting {
  /**
   * JSON pointer into the job document.
   */
  path: string
  name: string
  kind: 'length' | 'ratio' | 'choice'
  /**
   * Value in use; millimetres for lengths; left out when not set.
   */
  value?: number | string
  /**
   * Usual value of the catalogue; left out when there is none.
   */
  usual?: number | string
  /**
   * The job's value differs from the usual one.
   */
  changed: boolean
  choices?: string[]
}
export interface Why {
  figure: string
  sentence: Text2
  /**
   * The rules that spoke: places in the plan's list of rules.
   */
  rules: number[]
  /**
   * What the first steps asked for, in their order, where rules compete.
   */
  asked?: number[]
  caution?: string
}
export interface JobState {
  id: string
  revision: number
  doc: Job
  /**
   * What this revision changed.
   */
  what: string
  savedAt: string
  canUndo: boolean
  canRedo: boolean
  /**
   * Fields of the document that are kept but not used.
   */
  unknown: string[]
}
export interface JobList {
  jobs: JobSummary[]
}
export interface JobSummary {
  id: string
  name: string
  savedAt: string
  deleted: boolean
  /**
   * Why the job cannot be read, if it cannot.
   */
  problem?: string
  units: Units
  outline: Silhouette
  posts: number
  bags: number
  bagName: string
  /**
   * Measures still to be entered.
   */
  missing: number
  /**
   * Findings that cannot be built or want a look.
   */
  problems: number
}
export interface Silhouette {
  length: number
  /**
   * Station and height of each break point.
   */
  ground: number[][]
  /**
   * Station, ground and top of each post.
   */
  posts: number[][]
  /**
   * Hollow posts: drawn as metal.
   */
  hollow: boolean
  bays: Outline[]
}
export interface Outline {
  /**
   * Bottom and top at its first post, bottom and top at its second.
   *
   * @minItems 4
   * @maxItems 4
   */
  corners: number[]
  gate: boolean
}
export interface History {
  revisions: RevisionSummary[]
}
export interface RevisionSummary {
  number: number
  /**
   * 0 for the first.
   */
  parent: number
  what: string
  savedAt: string
  current: boolean
}
export interface CreateRequest {
  name?: string
  system?: 'imperial' | 'metric'
  doc?: Job
  what?: string
}
export interface SaveRequest {
  base: number
  doc: Job
  what: string
}
export interface MoveRequest {
  base: number
  revision?: number
}
export interface Reading {
  ok: boolean
  length: number
  /**
   * A number without a unit.
   */
  bare: boolean
  /**
   * What a number without a unit could also mean.
   */
  others: OtherReading[]
  /**
   * The part that was not understood.
   */
  part?: string
  /**
   * Why it was not understood.
   */
  why?: string
}
export interface OtherReading {
  text: string
  length: number
}
export interface Problem {
  title: string
  status: number
  detail: string
  fields?: FieldError[]
  current?: JobState1
}
export interface FieldError {
  field: string
  given: string
  allowed: string
}
/**
 * The job as it stands, when a change was made against an older revision.
 */
export interface JobState1 {
  id: string
  revision: number
  doc: Job
  /**
   * What this revision changed.
   */
  what: string
  savedAt: string
  canUndo: boolean
  canRedo: boolean
  /**
   * Fields of the document that are kept but not used.
   */
  unknown: string[]
}
export interface Catalogue {
  bags: Bag[]
  posts: PostSize[]
  /**
   * The usual run of each system: what a document leaves out.
   */
  runs: {
    [k: string]: Run
  }
  /**
   * The usual gate of each system.
   */
  gates: {
    [k: string]: Gate
  }
  /**
   * The smallest marks of each system's tapes, in millimetres.
   */
  marks: {
    [k: string]: number[]
  }
}
export interface Bag {
  id: string
  name: string
  system: 'imperial' | 'metric'
  mass: number
  yield: number
  source: Source
}
export interface PostSize {
  name: string
  system: 'imperial' | 'metric'
  shape: 'square' | 'round'
  width: number
  hollow: boolean
  wall: number
  source: Source
}
