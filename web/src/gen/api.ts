/* Written by make generate from the Go types. Do not edit. */

export type Text = Part[]

export interface MallowAPI {
  job?: Job
  plan?: Plan
  jobState?: JobState
  jobList?: JobList
  history?: History
  createRequest?: CreateRequest
  fences?: Fences
  examples?: Examples
  saveRequest?: SaveRequest
  replanRequest?: ReplanRequest
  replanned?: Replanned
  drawRequest?: DrawRequest
  drawn?: Drawn
  tapeRequest?: TapeRequest
  tableRequest?: TableRequest
  tableRows?: TableRows
  editRequest?: EditRequest
  saved?: Saved
  head?: Head
  moveRequest?: MoveRequest
  reading?: Reading
  problem?: Problem
  catalogue?: Catalogue
  edit?: Edit
  reshapeRequest?: ReshapeRequest
  changed?: Changed
  squareRequest?: SquareRequest
  squared?: Squared
  pegRequest?: PegRequest
  pegTest?: PegTest
  walkRequest?: WalkRequest
  walkReading?: WalkReading
  pegReading?: PegReading
  officeRequest?: OfficeRequest
  importRequest?: ImportRequest
  importPreview?: ImportPreview
  exportRequest?: ExportRequest
  exported?: Exported
  told?: Told
  bill?: Bill
  buildRequest?: BuildRequest
  built?: Built
  skyRequest?: SkyRequest
  boardLine?: BoardLine
  end?: End
  weatherRequest?: WeatherRequest
  weatherRead?: WeatherRead
  schedule?: Schedule
  pourDay?: Day
  log?: Log
  usual?: Usual
  keptPhotos?: KeptPhotos
  gaugeRequest?: GaugeRequest
  gauged?: Gauged
  amendRequest?: AmendRequest
  amended?: Amended
  compared?: Compared
  explainRequest?: ExplainRequest
  explained?: Explained
  adviseRequest?: AdviseRequest
  advised?: Advised
  waysRequest?: WaysRequest
  ways?: Ways
  alternativesRequest?: AlternativesRequest
  alternatives?: Alternatives
  looks?: Looks
  pages?: Pages
  places?: Places
  help?: Help
  printing?: Printing
  event?: Event
  keeping?: Keeping
  backupRequest?: BackupRequest
  tidyingRequest?: TidyingRequest
  pinRequest?: PinRequest
}
export interface Job {
  /**
   * Version of the job document.
   */
  mallow: 2
  name: string
  units: Units
  site?: Site
  /**
   * Fence lines, each a chain of runs.
   *
   * @minItems 1
   * @maxItems 50
   */
  lines: Line[]
  hole?: HoleRules
  setting?: SettingRules
  saw?: Saw
  /**
   * Lengths at hand from other jobs, used before new ones are bought.
   *
   * @maxItems 500
   */
  offcuts?: Offcut[]
  weather?: Weather
  pour?: Pour
  days?: Days
  notes?: string
  offer?: Offer
  /**
   * Words to find the job by.
   *
   * @maxItems 40
   */
  tags?: string[]
  /**
   * What was seen on site, in the order of writing down. A wrong fact is struck out by a later one, never erased.
   *
   * @maxItems 30000
   */
  observed?: Fact[]
  /**
   * The user's own fence systems: copies of the catalogue's with changes.
   *
   * @maxItems 200
   */
  systems?: FenceSystem[]
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
   * Whose fence it is, in free words.
   */
  customer?: string
  /**
   * Where the work is, in free words.
   */
  address?: string
  /**
   * Depth the ground freezes to, by the local building office. Left out: not asked yet.
   */
  frostDepth?: number
  frost?: FrostEstimate
  /**
   * Soil of the site, by its name in the catalogue. Left out: not known.
   */
  soil?: string
  /**
   * How open the land is to wind: B among houses and trees, C open, D by open water. Left out: C.
   */
  exposure?: 'B' | 'C' | 'D'
  /**
   * Half an inch of movement at the ground does no harm, which doubles the soil's bearing in the published formula. Left out: it may not move; new jobs have it, as most fences are designed.
   */
  movement?: boolean
  /**
   * Wind that the local code asks a fence to be built for, metres per second. Left out: not asked yet.
   */
  codeWind?: number
  crew?: Crew
  /**
   * Today's wind, metres per second, 0 or at least 0.1; it pushes strings aside.
   */
  wind?: number
  place?: EarthPlace
  before?: Before
}
export interface FrostEstimate {
  /**
   * Freezing index of the air: degree-days Celsius below freezing in a cold winter.
   */
  index: number
  /**
   * Water in the soil, per cent of its dry weight. Left out: the soil's usual.
   */
  moisture?: number
  /**
   * Dry density of the soil, kilograms per cubic metre. Left out: the soil's usual.
   */
  density?: number
  /**
   * Watts per metre and kelvin. Left out: the soil's usual.
   */
  conductivity?: number
  /**
   * Surface freezing index over that of the air: 0.5 under turf and snow, 0.7 bare, 0.9 under paving. Left out: 0.7.
   */
  surface?: number
  /**
   * Correction for the soil's heat above freezing; 1 errs on the deep side. Left out: 1.
   */
  lambda?: number
}
export interface Crew {
  /**
   * Cubic metres that one person digs by hand in an hour.
   */
  hand?: number
  /**
   * Depth that the auger drills in an hour.
   */
  auger?: number
  /**
   * Minutes to set the auger up at each hole.
   */
  setup?: number
}
export interface EarthPlace {
  /**
   * Degrees, north positive.
   */
  latitude: number
  /**
   * Degrees, east positive.
   */
  longitude: number
}
export interface Before {
  ticket?: Ticket
  /**
   * Public services are located and marked.
   */
  services?: boolean
  /**
   * The owner's own lines (irrigation, septic, gas to a patio) are found, or there are none.
   */
  private?: boolean
  /**
   * The boundary is proved: pegs found, or a surveyor's line.
   */
  boundary?: boolean
  /**
   * Left out: unknown.
   */
  permit?: 'unknown' | 'not needed' | 'applied' | 'granted'
  /**
   * The local code's figures are read: height, frost, pool rules.
   */
  code?: boolean
  /**
   * Greatest fence height that the local code allows here.
   */
  maxHeight?: number
  /**
   * Which face looks to the neighbour is settled.
   */
  neighbour?: boolean
}
export interface Ticket {
  number: string
  /**
   * Date of the request, year-month-day.
   */
  asked: string
  /**
   * First day on which the marks must be down.
   */
  clear: string
  /**
   * The office has been, and its marks are in the job.
   */
  marked?: boolean
}
export interface Line {
  id: string
  name?: string
  /**
   * The last run ends where the first starts.
   */
  closed?: boolean
  /**
   * Spread a closed line's misclosure over its corners by the compass (Bowditch) rule.
   */
  balance?: boolean
  /**
   * Bearing of the first run, degrees clockwise from north. Left out: north is not known.
   */
  bearing?: number
  /**
   * Hand on which the ground lies that the line fences in: gates swing in to it. Left out: the inner hand of a closed line, left of an open one.
   */
  inside?: 'left' | 'right'
  /**
   * Where the line's first post stands on the site's map, to the right of the map's zero (east of it, where north is known).
   */
  x?: number
  /**
   * The same, up (north).
   */
  y?: number
  /**
   * Straight stretches, in order. A run starts at the post where the one before it ends.
   *
   * @minItems 1
   * @maxItems 500
   */
  runs: Run[]
  /**
   * Pages of the field book: heights as they were written down.
   *
   * @maxItems 500
   */
  books?: Book[]
}
export interface Run {
  /**
   * Unlike that of any other run of the job.
   */
  id: string
  name?: string
  /**
   * Centre to centre of the two end posts, as taped (see taped). Left out: not measured yet.
   */
  length?: number
  /**
   * Nobody measured its length yet: it is a guess, and the plan says so.
   */
  assumed?: boolean
  /**
   * How the length, and the stations of ground heights and field books, were taped: level, or along the ground and reduced to level by the heights. Usual: level.
   */
  taped?: 'level' | 'slope'
  corner?: Corner
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
   * What is in the way of holes.
   *
   * @maxItems 1000
   */
  keepOuts?: KeepOut[]
  /**
   * Posts held at their station; the others are spaced between them.
   *
   * @maxItems 1000
   */
  fixedPosts?: FixedPost[]
  /**
   * Bays whose width is held: an odd panel, a removable bay.
   *
   * @maxItems 1000
   */
  heldBays?: HeldBay[]
  /**
   * Fence system that the run was set up from, in the catalogue or among the job's own. Its limits and cautions hold.
   */
  system?: string
  /**
   * Colour or finish, as the customer was told, in free words.
   */
  finish?: string
  fence?: Fence
  post?: Post
  terminal?: Terminal
  gatePost?: Terminal
  spacing?: Spacing
  grade?: Grade
  hole?: HoleRules
  setting?: SettingRules
  /**
   * Rules for the run's posts of one kind; they go before the run's.
   *
   * @maxItems 4
   */
  kinds?: KindRules[]
  /**
   * Single holes with rules of their own, which go before all others.
   *
   * @maxItems 2000
   */
  overrides?: HoleOverride[]
  /**
   * Soil along the run, by its name in the catalogue. Left out: the site's.
   */
  soil?: string
  string?: StringChoice
  /**
   * Parts that are not as in the run's fence system: each stands for the system's of the same id, or is added.
   *
   * @maxItems 60
   */
  parts?: FencePart[]
  curb?: Curb
  notes?: string
  /**
   * Posts of the last layout, so that the next one's keep their names. It is written when the job is saved.
   *
   * @maxItems 12000
   */
  laid?: Laid[]
  /**
   * Highest number that was given to a post of the run.
   */
  named?: number
  tolerances?: Tolerances
}
export interface Corner {
  by: 'deflection' | 'interior' | 'offset' | 'diagonal'
  /**
   * Which way the line turns, walking on.
   */
  side: 'left' | 'right'
  /**
   * Degrees. Deflection: off the straight-on line. Interior: between the two runs.
   */
  angle?: number
  /**
   * Offset: from the corner along the old line prolonged; negative back along it, for a turn of more than a right angle.
   */
  along?: number
  /**
   * Offset: from there square off to the new line.
   */
  off?: number
  /**
   * Diagonal: leg taped from the corner back along the run before. Left out: that whole run.
   */
  back?: number
  /**
   * Diagonal: leg taped along this run. Left out: the whole run.
   */
  forth?: number
  /**
   * Diagonal: straight from the end of one leg to that of the other.
   */
  diagonal?: number
}
export interface GroundPoint {
  /**
   * Unlike that of any other height of the run. Left out: given when the job is saved.
   */
  id?: string
  /**
   * Station: level distance from the centre of the run's first post.
   */
  at: number
  /**
   * Ground height above the line's datum, which is any one mark.
   */
  height: number
  /**
   * Measured twice: no slip, though its neighbours differ.
   */
  sure?: boolean
}
export interface Gate {
  id: string
  name?: string
  /**
   * Station of the middle between the two gate posts.
   */
  at: number
  /**
   * Inside measure, between the faces of the two gate posts. It counts where neither leaf nor clear is given.
   */
  opening: number
  /**
   * Width of the leaf, or of the one on the first post: the inside measure follows from it.
   */
  leaf?: number
  /**
   * Two unequal leaves: width of the one on the second post. With leaf left out, the first takes the rest.
   */
  second?: number
  /**
   * Clear way past the open leaves: the inside measure follows from it. Not together with leaf.
   */
  clear?: number
  /**
   * Usual: swing.
   */
  kind?: 'swing' | 'slide'
  /**
   * Who goes through. Left out: vehicles from 8 ft or 2.4 m of inside measure.
   */
  use?: 'walk' | 'vehicle'
  /**
   * Leaves: 1 or 2. Usual: 1, or 2 over 10 ft or 3 m of opening.
   */
  leaves?: number
  /**
   * Post that a single leaf hangs on. Usual: first.
   */
  hinge?: 'first' | 'second'
  /**
   * Way that it swings: in to the ground that the line fences in, out, or both. A sliding leaf runs on that side of the fence. Usual: in.
   */
  swing?: 'in' | 'out' | 'both'
  /**
   * How far a leaf opens before its stop, degrees from closed. Usual: 90.
   */
  open?: number
  /**
   * Slide: the post past which the leaf runs back. Usual: second.
   */
  slides?: 'first' | 'second'
  /**
   * Slide: by how much the leaf is longer than the opening. Usual: 12 in or 300 mm.
   */
  overlap?: number
  hardware?: Hardware
  /**
   * How the leaf is made, by its name in the catalogue; its weight and its brace follow from it.
   */
  make?: string
  /**
   * Thickness of a leaf. Usual: 2 in or 50 mm.
   */
  thick?: number
  /**
   * Mass of the leaf, or of the wider one, kilograms. Left out: estimated from how it is made and its size.
   */
  weight?: number
  /**
   * Hinges from the leaf's top and bottom. Usual: 8 in or 200 mm.
   */
  hingeIn?: number
  /**
   * Latch above the ground at the post that it is on. Usual: 40 in or 1000 mm.
   */
  latch?: number
  /**
   * Rising hinges: how much they lift the leaf until it is square open.
   */
  lift?: number
  /**
   * Gap under the closed leaf, over the highest ground across the opening. Usual: 4 in or 100 mm.
   */
  gap?: number
  /**
   * Least gap that must be left under the leaf anywhere on its way. Usual: 1 in or 25 mm.
   */
  least?: number
  /**
   * Packed snow that the leaf must still swing over.
   */
  snow?: number
  /**
   * How much higher a drive's middle is than its edges at the posts.
   */
  crown?: number
  /**
   * Ground on the inner side, in order of distance from the line. Left out: as on the line.
   *
   * @maxItems 40
   */
  in?: GroundLevel[]
  /**
   * The same on the outer side.
   *
   * @maxItems 40
   */
  out?: GroundLevel[]
  /**
   * The ground in the leaf's way is cut so far that the leaf clears it.
   */
  cut?: boolean
  /**
   * Free ground from the line in, to a wall or whatever stands there. 0: open.
   */
  roomIn?: number
  /**
   * From the line out to the kerb or the edge of the road. 0: no road near.
   */
  road?: number
  vehicle?: Vehicle
  /**
   * The gate is in a barrier round water. The local code decides.
   */
  pool?: boolean
  /**
   * Animals are kept behind it.
   */
  animals?: boolean
}
export interface Hardware {
  /**
   * Its name in the catalogue; left out for the user's own.
   */
  kind?: string
  /**
   * Gap between the hinge post's face and the leaf.
   */
  hinge?: number
  /**
   * Gap between the leaf and the latch post's face.
   */
  latch?: number
  /**
   * Gap between two leaves.
   */
  meeting?: number
  /**
   * From the hinge's pin to the leaf's edge.
   */
  pin?: number
  /**
   * Travel of the hinge bolt for each turn; 0: it cannot be adjusted.
   */
  pitch?: number
  /**
   * Travel that the hinge bolt has to either side.
   */
  travel?: number
}
export interface GroundLevel {
  /**
   * Unlike that of any other on its side of the gate. Left out: given when the job is saved.
   */
  id?: string
  /**
   * Square off the line.
   */
  off: number
  /**
   * Height over the ground on the line, straight out from the first post; falling is negative.
   */
  first: number
  /**
   * The same straight out from the second post. Left out: as at the first.
   */
  second?: number
}
export interface Vehicle {
  length: number
  trailer?: number
  /**
   * Of the widest that goes through, a mower or a load among them. 0: not asked.
   */
  width?: number
}
export interface KeepOut {
  id: string
  kind: 'service' | 'root' | 'rock' | 'drain' | 'footing' | 'old post' | 'no dig'
  /**
   * Which service, by its name in the catalogue.
   */
  service?: string
  name?: string
  /**
   * Station of its middle.
   */
  at: number
  /**
   * How wide it is along the run; 0 for a line that crosses.
   */
  width?: number
  /**
   * Width either side of it that is dug by hand.
   */
  hand?: number
  /**
   * Depth of its top, where it is known. It is never relied on.
   */
  depth?: number
  /**
   * Old post: it stays, and is built onto.
   */
  stays?: boolean
  /**
   * Old post that stays: how high it stands above the ground. What is built onto it is matched to it.
   */
  tall?: number
  /**
   * Old post that stays: its lower hinge, or the hole of one, above the ground. A leaf that hangs on it is hung there.
   */
  lowHinge?: number
  /**
   * The same of its upper hinge.
   */
  highHinge?: number
  /**
   * Old footing: it is dug out where a new post falls on it, and the wider hole is poured again.
   */
  repour?: boolean
  /**
   * Marked on the ground by the locating office.
   */
  marked?: boolean
}
export interface FixedPost {
  id: string
  /**
   * Station of its centre.
   */
  at: number
  /**
   * Grade post: the top changes slope here.
   */
  grade?: boolean
  /**
   * Of a post that landed: the other posts are spaced again from where it stands. Left out: it is the post that was meant to stand there, and only the bays beside it change.
   */
  respace?: boolean
  /**
   * Gap under the fence held here, where the look leans. Left out: found.
   */
  gap?: number
}
export interface HeldBay {
  id: string
  name?: string
  /**
   * Station of its first post.
   */
  at: number
  /**
   * Centre to centre.
   */
  width: number
  /**
   * It must come out again: rails and boards break at its posts, and are held by brackets that let go.
   */
  removable?: boolean
}
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
  /**
   * Share of the fence's face that is solid and catches wind: 1 for boards without gaps. Left out: 1.
   */
  solidity?: number
  /**
   * Middles of the rails above the fence's bottom, the lowest first. Left out: spread evenly, as many as the spacing's rails.
   *
   * @maxItems 12
   */
  rails?: number[]
  /**
   * Gravel boards one above the other at the foot of every bay, part of the fence's height. Their height is grade/board.
   */
  boards?: number
  /**
   * Height of a rail's section. Usual: 3 1/2 in or 90 mm.
   */
  railWidth?: number
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
   * How far the post stands above the fence's top; negative below it, as chain-link line posts do.
   */
  above?: number
  /**
   * Spare length to cut off after setting.
   */
  trim?: number
  /**
   * When the tops are cut: after the posts are set (they are bought longer by the trim), or first, to their exact length. Usual: after.
   */
  cut?: 'after' | 'first'
  /**
   * Grade mark of a metal post, under its top: it must stay above ground.
   */
  mark?: number
  /**
   * Lengths the posts are sold in.
   *
   * @minItems 1
   * @maxItems 40
   */
  stock?: number[]
}
export interface Terminal {
  shape?: 'square' | 'round'
  /**
   * Side of a square post, or outside diameter of a round one.
   */
  width?: number
  /**
   * An open hollow post.
   */
  hollow?: boolean
  /**
   * Wall thickness of a hollow post.
   */
  wall?: number
  /**
   * How far it stands above the fence's top, where that is not as far as the line posts.
   */
  above?: number
}
export interface Spacing {
  /**
   * Usual: equal.
   */
  way?:
    'equal' | 'panels between' | 'panels on faces' | 'module' | 'stock rails' | 'overlapping rails'
  /**
   * Most spacing, centre to centre. Usual: 96 in for 8 ft lumber, or 2400 mm. Where pieces of a length set the bay, the piece does.
   */
  most?: number
  /**
   * Least bay, centre to centre: a shorter remainder is a sliver, and shared over two bays. Left out: a third of the regular bay.
   */
  least?: number
  /**
   * Length of the panel, board or rail that sets the bay.
   */
  piece?: number
  /**
   * Panels between posts: play at each joint. Usual for metal panels: 3 to 5 mm.
   */
  play?: number
  /**
   * Panels between posts: how far the panel or rail goes into each post's slot or rout.
   */
  slot?: number
  /**
   * Overlapping rails: how far the tongues pass each other in a post.
   */
  overlap?: number
  /**
   * Rails on stock lengths: bays that one rail spans. Usual: 2.
   */
  span?: number
  /**
   * Rails one above the other in each bay.
   */
  rails?: number
  /**
   * Panels on faces: how thick a panel is.
   */
  thickness?: number
  /**
   * Panels on faces: how they meet at a corner. Usual: meeting.
   */
  turning?: 'meeting' | 'overlapping'
  /**
   * Panels on faces: the hand of the line that they are on, walking from its start. On the outer face of a corner they reach round the corner post. Left out: taken as the inner face at every corner.
   */
  face?: 'left' | 'right'
  /**
   * Panels on faces: at a free end the panel ends on the middle of the end post, or covers all of it. Usual: middle.
   */
  ends?: 'middle' | 'whole'
  /**
   * What is done with the remainder of a stretch. Usual: last.
   */
  remainder?: 'last' | 'first' | 'away' | 'shared' | 'all'
  /**
   * Holes may stand in the hand-dig width beside a service, clear of the pipe itself, and are dug by hand there. Left out: they stay out of it.
   */
  handDig?: boolean
  /**
   * Undisturbed soil to leave between a new hole and an old footing. Usual: 4 in or 100 mm.
   */
  soil?: number
}
export interface Grade {
  look?: 'level' | 'stepped' | 'raked' | 'rolling'
  /**
   * Stretches with another look or another height, in order of station.
   *
   * @maxItems 200
   */
  parts?: LookPart[]
  /**
   * What gives where both gaps cannot be held: fill under the low places, cut the high ones, or half and half.
   */
  give?: 'fill' | 'cut' | 'both'
  /**
   * How far a panel can lean out of square over one bay. Left out: no limit.
   */
  rack?: number
  /**
   * Raked, and gradual steps: 0 hugs the ground, 1 is as straight as the gaps allow. Left out: 0.5.
   */
  straight?: number
  /**
   * Rolling: how deep a dip or hump may be filled or cut for the sake of a straight line. Usual: 0.
   */
  dips?: number
  /**
   * Stepped: how the drops are found. Usual: least.
   */
  steps?: 'least' | 'even' | 'gradual' | 'round'
  /**
   * Round steps: drops are multiples of this. Usual: 2 in or 50 mm.
   */
  stepBy?: number
  /**
   * Stepped: the most that the top may drop at one post. Left out: no limit.
   */
  stepMost?: number
  /**
   * Round steps: by how many increments a drop may differ from the one before it. 0: by any.
   */
  stepEase?: number
  /**
   * Round steps: panels held at one height at the higher end, before the first drop.
   */
  holdLevel?: number
  /**
   * Tops over a gate: flat, or along with the line. Usual: flat.
   */
  across?: 'flat' | 'along'
  /**
   * Gap under the fence held at the run's first post: the string's end is lifted or lowered by hand. Left out: found.
   */
  startGap?: number
  /**
   * The same at its last post.
   */
  endGap?: number
  /**
   * Stepped: what closes the triangle under a panel. Usual: earth.
   */
  infill?: 'earth' | 'gravel boards' | 'boards'
  /**
   * Height of an infill board or gravel board. Usual: 6 in or 150 mm.
   */
  board?: number
  /**
   * Width of the strip along the fence that is cut or filled. Usual: 12 in or 300 mm.
   */
  strip?: number
  /**
   * Fill is placed and compacted in layers before holes are dug: its level width across the line. Left out: fill is loose, and no footing counts on it.
   */
  placed?: number
  /**
   * How the tops are brought to height on site. Usual: string.
   */
  by?: 'string' | 'laser' | 'drops' | 'sight'
  /**
   * Height of the eyes of whoever sights, or looks along the line. Usual: 5 ft 3 in or 1600 mm.
   */
  eyeHeight?: number
}
export interface LookPart {
  /**
   * Unlike that of any other part of the run. Left out: given when the job is saved.
   */
  id?: string
  /**
   * Station at which it begins; bays whose middle is in it have its look.
   */
  from: number
  /**
   * Station at which it ends.
   */
  to: number
  look: 'level' | 'stepped' | 'raked' | 'rolling'
  /**
   * Height of the fence in it: the top steps up or down to it where it begins and ends, on level ground too. Left out: the run's.
   */
  height?: number
}
export interface HoleRules {
  /**
   * Hole width as a multiple of the post's width. Usual: 3; chain link 4 for posts up to 4 in (100 mm).
   */
  widthFactor?: number
  /**
   * The same for posts over 4 in or 100 mm; 0: as the others. Chain link: 3.
   */
  wideFactor?: number
  /**
   * Width that crews dig for such a post (common practice), instead of the multiple of its width and what is added to that; 0: the multiple.
   */
  commonWidth?: number
  /**
   * By what share an auger may be narrower than the multiple of the post's width asks. Usual: 0.03, so that 18 1/2 in asks for an 18 in auger.
   */
  widthTolerance?: number
  /**
   * The multiple of the post's width is not in force: the post's corners and the tools decide.
   */
  skipFactor?: boolean
  /**
   * Auger diameters that the crew owns or can get.
   *
   * @minItems 1
   * @maxItems 40
   */
  augers?: number[]
  /**
   * The width is not rounded up to an auger.
   */
  anyWidth?: boolean
  /**
   * Round by auger or digger, or square by spade. Usual: round.
   */
  shape?: 'round' | 'square'
  /**
   * Least side of a square hole, that a spade still works in. Usual: 12 in or 300 mm.
   */
  spade?: number
  /**
   * Width of the hole's bottom where it is belled out against frost heave; 0: straight.
   */
  bell?: number
  /**
   * Height over which it widens to the bell. Usual: 12 in or 300 mm.
   */
  bellHeight?: number
  /**
   * How much wider a hand tool leaves the hole at the top than at the bottom.
   */
  taper?: number
  /**
   * Middle of the hole off the middle of the post, along the run, away from its start.
   */
  along?: number
  /**
   * The same across the run, to the left; negative to the right: away from a wall or a kerb.
   */
  across?: number
  /**
   * Gate post holes are this much wider, before rounding up to an auger.
   */
  gateExtraWidth?: number
  /**
   * The post that a leaf hangs on has a hole so much wider still.
   */
  hingeExtraWidth?: number
  /**
   * The same for end and corner posts.
   */
  endExtraWidth?: number
  /**
   * Hole width set by hand, over all rules; 0: by the rules, whatever is said farther out.
   */
  width?: number
  /**
   * Frost is not counted.
   */
  skipFrost?: boolean
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
   * The floor is not in force.
   */
  skipFloor?: boolean
  /**
   * Gate posts go this much deeper.
   */
  gateExtraDepth?: number
  /**
   * The post that a leaf hangs on goes so much deeper still.
   */
  hingeExtraDepth?: number
  /**
   * End and corner posts go this much deeper.
   */
  endExtraDepth?: number
  /**
   * Depth is rounded up to a multiple of this, so that one mark on the digger's handle serves. 0: not rounded, else at least 1 mm.
   */
  roundDepthTo?: number
  /**
   * Depth of the post's foot set by hand, over all rules; 0: by the rules, whatever is said farther out.
   */
  depth?: number
  /**
   * Posts that are driven, without a hole: none, the line posts, or all. Usual: none.
   */
  driven?: 'none' | 'line' | 'all'
  /**
   * Width and depth of a concrete collar round the head of a driven post; 0: none.
   */
  collar?: number
  /**
   * Diameter of a steel pin grouted into drilled rock under the foot; 0: none.
   */
  pin?: number
  /**
   * How far the pin goes into the rock. Usual: 8 in or 200 mm.
   */
  pinDeep?: number
  /**
   * Fields of this list that were entered in the units of a system: they are said in it.
   */
  entered?: {
    [k: string]: string
  }
}
export interface SettingRules {
  /**
   * How posts in holes are set. Usual: braced, then filled with mixed concrete.
   */
  method?: 'braced' | 'fast' | 'dry packed' | 'stabbed' | 'rock' | 'slurry' | 'layered'
  /**
   * Gravel under the concrete, dug below the depth that the rules ask for.
   */
  gravel?: number
  /**
   * How far the post's foot stands above the bottom of the concrete; negative: it reaches into the gravel, so that the end grain drains. Usual: 0.
   */
  stand?: number
  /**
   * The concrete stops below ground, under soil, or is crowned above it. Usual: cover.
   */
  top?: 'cover' | 'crown'
  /**
   * Soil over the concrete: how far below ground the concrete stops.
   */
  cover?: number
  /**
   * How high the crown stands at the post, sloped down to the hole's edge. Usual: 1 in or 25 mm.
   */
  crown?: number
  /**
   * How high the soil is mounded at the post, sloped down to the hole's edge. Usual: 1 in or 25 mm.
   */
  mound?: number
  /**
   * Rocks first, slurry over: depth of the rocks' top. Usual: 24 in or 600 mm.
   */
  rocksTo?: number
  /**
   * Clean rubble put into the concrete, as a share of it.
   */
  rubble?: number
  /**
   * Hollow posts: open at the foot, closed, or with a steel core. Usual: open.
   */
  inside?: 'open' | 'closed' | 'core'
  /**
   * Level of the concrete inside a hollow post, above ground; negative below. Left out: as high as the concrete round it; with a core, to the ground.
   */
  fillTo?: number
  /**
   * Side of the steel core, square.
   */
  core?: number
  /**
   * Wall of the core; 0: solid.
   */
  coreWall?: number
  /**
   * Bag of dry concrete, by its name in the catalogue: 40lb, 50lb, 60lb, 80lb, 20kg, 25kg.
   */
  bag?: string
  /**
   * Concrete bought beyond what is computed, as a fraction.
   */
  waste?: number
  /**
   * Posts are held at the ground by paving or a slab; it counts in the wind figure only.
   */
  restrained?: boolean
  /**
   * Fields of this list that were entered in the units of a system: they are said in it.
   */
  entered?: {
    [k: string]: string
  }
}
export interface KindRules {
  kind: 'end' | 'corner' | 'gate' | 'line'
  hole?: HoleRules
  setting?: SettingRules
}
export interface HoleOverride {
  id: string
  /**
   * Station of the hole; its rules are for the post nearest to it.
   */
  at: number
  /**
   * What was decided of a hole that was stopped; left out while nothing is.
   */
  settled?: 'as is' | 'wider' | 'belled' | 'pinned'
  hole?: HoleRules
  setting?: SettingRules
}
export interface StringChoice {
  position?: 'face' | 'off' | 'stand-off' | 'sight'
  /**
   * From the string to the posts' faces. Left out: the school's own.
   */
  off?: number
  /**
   * Which faces of the posts are lined, walking from the run's start: their straightest, turned outward.
   */
  face?: 'left' | 'right'
  /**
   * Alignment string above ground at its ends. Usual: 12 in or 300 mm.
   */
  low?: number
  /**
   * Height string, or sight mark, below the tops.
   */
  mark?: number
  ends?: 'boards' | 'stakes'
  /**
   * Boards or stakes stand this far beyond the end posts.
   */
  beyond?: number
  /**
   * Kind of string, by its name in the catalogue.
   */
  kind?: string
  /**
   * Pull on the string, newtons.
   */
  pull?: number
  /**
   * Props under the height string, evenly spaced.
   */
  props?: number
}
export interface FencePart {
  /**
   * Its own among the parts of its type.
   */
  id: string
  name: string
  /**
   * What it is bought as.
   */
  kind: 'rail' | 'board' | 'panel' | 'mesh' | 'hardware' | 'fixing' | 'finish'
  /**
   * How it is counted.
   */
  by:
    | 'post'
    | 'bay'
    | 'bay end'
    | 'stretch'
    | 'stretch end'
    | 'bands'
    | 'corner'
    | 'gate'
    | 'leaf'
    | 'hinge'
    | 'rails'
    | 'rows'
    | 'along'
    | 'gap'
    | 'roll'
    | 'spaced'
    | 'crossing'
    | 'joint'
    | 'piece'
    | 'cut end'
    | 'area'
  /**
   * Left out: in a run's own parts, where its type has one.
   */
  off?: boolean
  /**
   * How many at each place. Usual: 1; of rails, as many as the spacing says.
   */
  each?: number
  /**
   * Kinds of post at which it counts. Left out: all.
   *
   * @maxItems 4
   */
  at?: string[]
  /**
   * Parts that it goes with: whose gaps it stands at, whose pieces it fixes, whose ends or faces it coats.
   *
   * @maxItems 12
   */
  of?: string[]
  /**
   * Crossing: parts whose pieces those are fixed to; posts are called posts.
   *
   * @maxItems 12
   */
  over?: string[]
  /**
   * What a piece is as long as: post to post on centres, between their faces, as the spacing planned its pieces, the fence's height, a whole stretch between terminals, or a gate's leaf.
   */
  long?:
    'centres' | 'clear' | 'planned' | 'height' | 'stretch' | 'leaf width' | 'leaf height' | 'brace'
  /**
   * How much longer than that; negative is shorter.
   */
  more?: number
  /**
   * Bays that one piece may reach over; joints stand on posts. Usual: 1.
   */
  span?: number
  /**
   * By how much a piece may be cut short, since it has room at its joints.
   */
  give?: number
  /**
   * How many rails, by the fence's height, the lowest first.
   *
   * @maxItems 8
   */
  rows?: HeightRows[]
  /**
   * Of its face.
   */
  width?: number
  thick?: number
  /**
   * A pipe: its width is its outside diameter.
   */
  round?: boolean
  /**
   * It is as wide as the fence is high.
   */
  high?: boolean
  gap?: PartGap
  /**
   * Pieces keep their gap, and what is left is ripped from one or two of them, instead of sharing it over the gaps.
   */
  rip?: boolean
  /**
   * There is a gap at both ends too, as between two posts.
   */
  ends?: boolean
  /**
   * How the tops of upright boards are cut. Usual: flat.
   */
  top?: 'flat' | 'dog ear' | 'sloped'
  /**
   * Pieces along the fence fill every bay by itself, between its posts. Left out: they run on over the posts' faces.
   */
  perBay?: boolean
  /**
   * Faces of the fence that have it. Usual: 1.
   */
  layers?: number
  /**
   * Most distance between fixings.
   */
  spacing?: number
  /**
   * How far the first and last fixing are from the ends.
   */
  in?: number
  material?: string
  finish?: string
  /**
   * Lengths that it is sold in, or how long a roll is. Left out: it is counted by the piece.
   *
   * @maxItems 24
   */
  stock?: number[]
  /**
   * What a joint of two rolls or lengths takes.
   */
  lap?: number
  /**
   * How many are in a box.
   */
  box?: number
  /**
   * Of a piece, or of a metre where it is sold by length, kilograms.
   */
  mass?: number
  /**
   * Square metres that a litre coats once.
   */
  cover?: number
  coats?: number
  /**
   * How it is fixed or cut.
   */
  says?: string
  /**
   * Where its figures come from. Left out: common practice.
   */
  from?: string
}
export interface HeightRows {
  to: number
  rows: number
}
export interface PartGap {
  want: number
  least: number
  most: number
}
export interface Curb {
  /**
   * Usual: 12 in or 300 mm.
   */
  width?: number
  /**
   * From its top to its bottom. Usual: 4 in or 100 mm.
   */
  depth?: number
  /**
   * How far its top stands over the ground. Usual: 0, so that wheels run on it.
   */
  above?: number
  /**
   * Its middle beside the line of posts: to the left, walking on; negative is to the right.
   */
  off?: number
  /**
   * How far it goes on past the middle of an end post. Usual: half its width.
   */
  past?: number
  /**
   * Most from joint to joint; there is one at every post. Usual: 24 times its depth.
   */
  joints?: number
  /**
   * What it does at a gate. Usual: through.
   */
  gates?: 'through' | 'stops'
}
export interface Laid {
  /**
   * Unlike that of any other post of the job, now or before.
   */
  id: string
  /**
   * Station, to the millimetre.
   */
  at: number
  /**
   * What it stands by: start, end, gates/G1/first, gates/G1/second, fixedPosts/F1, heldBays/H1/first, heldBays/H1/second or keepOuts/K1. Left out: a line post.
   */
  by?: string
  /**
   * What it is called for good since it was staked; else it is called by its place in order.
   */
  label?: string
}
export interface Tolerances {
  /**
   * Off the string.
   */
  line?: number
  /**
   * A bay too long or too short, for a post that stands off its mark along the fence.
   */
  bay?: number
  /**
   * Out of plumb over the post's height, on either face.
   */
  plumb?: number
  /**
   * A hole not deep enough, or deeper than planned.
   */
  depth?: number
  /**
   * A hole narrower or wider than planned.
   */
  width?: number
  /**
   * The top mark over or under where it should be.
   */
  top?: number
  /**
   * The most that is packed out.
   */
  pack?: number
}
export interface Book {
  id: string
  kind: 'drops' | 'rises' | 'rod'
  name?: string
  /**
   * Run that a page of drops or rises is of. Pages of rod readings name it in each row.
   */
  run?: string
  /**
   * Rod: known height of the first point. Left out: taken from what is known there already, or 0.
   */
  start?: number
  /**
   * Rod: known height of the last point. Left out, and the last point is the first one again: its height.
   */
  close?: number
  /**
   * Rod: how large the closing error may be. Usual: set-ups.
   */
  allow?: 'set-ups' | 'third order'
  /**
   * Rod: spread the closing error evenly over the set-ups.
   */
  spread?: boolean
  /**
   * Rod: how far the level's line of sight climbs, millimetres for each metre, by the two-peg test. Readings with a sight distance are corrected by it.
   */
  tilt?: number
  /**
   * @maxItems 20000
   */
  rows?: BookRow[]
}
export interface BookRow {
  /**
   * Unlike that of any other row of the page. Left out: given when the job is saved.
   */
  id?: string
  /**
   * Rod: run that the point is on. Left out: a mark beside the line.
   */
  run?: string
  /**
   * Station on the run, as taped.
   */
  at?: number
  /**
   * Rod: what a point beside the line is, such as a door sill.
   */
  mark?: string
  /**
   * Drops: from the string down to the ground.
   */
  drop?: number
  /**
   * Rises: from the point before up to this one; a fall is negative. Not used in the first row.
   */
  rise?: number
  /**
   * Rod: first reading of a set-up, on a point whose height is known by now.
   */
  back?: number
  /**
   * Rod: reading in between.
   */
  side?: number
  /**
   * Rod: last reading of a set-up, on the point that the next one starts from.
   */
  fore?: number
  /**
   * Rod: distance from the level to the rod at the back reading, where the rod tells it.
   */
  backSight?: number
  /**
   * Rod: the same at the side or fore reading.
   */
  sight?: number
  /**
   * Measured twice: no slip, though its neighbours differ.
   */
  sure?: boolean
}
export interface Saw {
  /**
   * What a cut takes. Usual: 1/8 in or 3 mm.
   */
  kerf?: number
  /**
   * What is cut off every length first, so that its end is square.
   */
  trim?: number
  /**
   * Shortest offcut that is worth keeping. Usual: 2 ft or 600 mm.
   */
  keep?: number
}
export interface Offcut {
  id: string
  /**
   * Of its section, the wider side.
   */
  width: number
  /**
   * The narrower side; of a pipe the same as its width.
   */
  thick: number
  length: number
  count: number
  /**
   * What it is, or where it lies.
   */
  note?: string
}
export interface Weather {
  /**
   * Where it is from: an office's station, a file, or empty for typed in.
   */
  source?: string
  /**
   * When the office was asked, RFC 3339.
   */
  fetched?: string
  /**
   * In order of time.
   *
   * @maxItems 2000
   */
  hours?: WeatherHour[]
  /**
   * Typed in: they count where no hours are known.
   *
   * @maxItems 90
   */
  days?: WeatherDay[]
  /**
   * Typed days: how many hours the clock is ahead of UTC. Left out: as the hours say it, or 0.
   */
  offset?: number
}
export interface WeatherHour {
  /**
   * RFC 3339 with the site's own offset, so that a change of the clocks is in it: 2027-05-03T07:00:00-05:00.
   */
  at: string
  /**
   * Degrees Celsius, in the shade.
   */
  temp: number
  /**
   * Relative, as a share. Left out: not known.
   */
  humidity?: number
  /**
   * Metres per second. Left out: not known.
   */
  wind?: number
  /**
   * Share of full sun: 0 clouded or night. Left out: not known.
   */
  sun?: number
  /**
   * Millimetres in the hour after it. Left out: not known.
   */
  rain?: number
}
export interface WeatherDay {
  /**
   * Year-month-day.
   */
  date: string
  /**
   * Degrees Celsius at 7.
   */
  morning: number
  /**
   * At 14, when it is warmest.
   */
  noon: number
  /**
   * At 4 in the night after it, when it is coldest.
   */
  night: number
  humidity?: number
  wind?: number
  sun?: number
  /**
   * Millimetres in the whole day.
   */
  rain?: number
}
export interface Pour {
  /**
   * Year-month-day. Left out: not set yet.
   */
  date?: string
  /**
   * When the crew is ready to pour, by the site's clock: 07:30. Usual: 07:30.
   */
  from?: string
  /**
   * When the last post is to be in. Usual: 16:00.
   */
  to?: string
  /**
   * When the crew stops for lunch. Usual: 12:00.
   */
  lunch?: string
  /**
   * Minutes. Usual: 30.
   */
  lunchFor?: number
  /**
   * How concrete comes. Left out: by truck where posts are stabbed, else in bags.
   */
  by?: 'truck' | 'bags' | 'site'
  /**
   * Hands on the pour. Usual: 3.
   */
  people?: number
  /**
   * The crew's own rates, where they are not the usual ones.
   *
   * @maxItems 20
   */
  rates?: PourRate[]
  /**
   * The crew's own minutes of one person to place and screed a meter of mowing curb. Left out: as usual.
   */
  curb?: number
  /**
   * Most that a truck brings, cubic metres. Usual: 10 yd³ or 7.5 m³.
   */
  carries?: number
  /**
   * Minutes from the plant to the site. Usual: 30.
   */
  transit?: number
  /**
   * The holes are dry, and are not wetted before the pour.
   */
  dryBed?: boolean
  /**
   * Footings are covered with blankets or straw for the nights after.
   */
  covered?: boolean
  /**
   * The mix is ordered warm, with hot water.
   */
  warm?: boolean
}
export interface PourRate {
  method: 'braced' | 'fast' | 'dry packed' | 'stabbed' | 'rock' | 'driven' | 'slurry' | 'layered'
  /**
   * Minutes of one person to fill the hole and bring the post to its place.
   */
  place: number
}
export interface Days {
  /**
   * First day on which the crew can come, year-month-day. Left out: not set yet.
   */
  start?: string
  /**
   * Hands of the crew. Usual: 3.
   */
  people?: number
  /**
   * When it leaves, by the site's clock. Usual: 07:00.
   */
  from?: string
  /**
   * When it is back. Usual: 16:00.
   */
  to?: string
  /**
   * Minutes to the site, and as long back. Usual: 30.
   */
  travel?: number
  /**
   * Days on which nobody works, year-month-day, beside Sundays.
   *
   * @maxItems 200
   */
  rest?: string[]
  /**
   * Whose days these are: jobs of one crew are held against each other on the board.
   */
  crew?: string
  /**
   * Days on which the crew is on another job, year-month-day.
   *
   * @maxItems 200
   */
  taken?: string[]
  /**
   * Saturdays are working days.
   */
  saturdays?: boolean
  /**
   * Holes are dug by hand; left out: by machine, where it may and can.
   */
  byHand?: boolean
  /**
   * An inspector sees the holes before anything is poured.
   */
  inspected?: boolean
  /**
   * Tasks that begin on a day that was chosen; the rest follows.
   *
   * @maxItems 60
   */
  moves?: TaskMove[]
  /**
   * The crew's own rates, where they are not the usual ones.
   *
   * @maxItems 60
   */
  rates?: TaskRate[]
}
export interface TaskMove {
  task: string
  date: string
}
export interface TaskRate {
  task: string
  minutes: number
}
export interface Offer {
  /**
   * Day on which work begins: year-month-day.
   */
  start?: string
  /**
   * Day on which it is done, not before the first.
   */
  end?: string
  /**
   * The old fence is taken down and hauled off. Left out, as of the others: not said.
   */
  oldFence?: 'yes' | 'no'
  /**
   * Brush and roots along the line are cleared.
   */
  clearing?: 'yes' | 'no'
  /**
   * Soil from the holes is hauled off.
   */
  soil?: 'yes' | 'no'
  /**
   * The permit and its fee.
   */
  permit?: 'yes' | 'no'
  /**
   * A surveyor finds the property line.
   */
  survey?: 'yes' | 'no'
  /**
   * Stain or paint.
   */
  finish?: 'yes' | 'no'
  /**
   * Lawn and beds are made good.
   */
  lawn?: 'yes' | 'no'
  /**
   * Rock and old footings found in holes are broken out.
   */
  rock?: 'yes' | 'no'
  /**
   * What else is included, in free words.
   */
  also?: string
  /**
   * What else is not included, in free words.
   */
  not?: string
}
export interface Fact {
  id: string
  /**
   * What it is about: job, run/R1, post/R1.7 or gate/R1/G2, by ids.
   */
  on: string
  what:
    | 'landed'
    | 'rock'
    | 'water'
    | 'root'
    | 'service'
    | 'depth'
    | 'width'
    | 'plumb'
    | 'line'
    | 'lean'
    | 'top'
    | 'gravel'
    | 'bags'
    | 'sag'
    | 'cut'
    | 'staked'
    | 'dug'
    | 'set'
    | 'poured'
    | 'built'
    | 'note'
    | 'decided'
    | 'struck out'
  /**
   * Station on the run at which it was seen: where a post landed, where a hole was dug. It goes along when the run is split, joined or turned round.
   */
  at?: number
  /**
   * What was measured: millimetres, cubic metres, or a count.
   */
  value?: number
  /**
   * What it was read in: it is said back so.
   */
  unit?: 'mm' | 'cm' | 'm' | 'in' | 'ft' | 'ft-in' | 'L' | 'm3' | 'yd3' | 'bags'
  /**
   * Date and time, RFC 3339; left out where it is not known.
   */
  when?: string
  who?: string
  note?: string
  /**
   * Decided: the earlier fact that something is done about.
   */
  answers?: string
  /**
   * Decided: what is done, by its name in the advice.
   */
  way?: string
  /**
   * Note: the photograph that shows it, by its id among the job's.
   */
  photo?: string
  /**
   * The run was turned round since it was measured: left is right now, and on is back.
   */
  turned?: boolean
  /**
   * Struck out: the earlier fact that was wrong.
   */
  strikes?: string
}
export interface FenceSystem {
  id: string
  name: string
  /**
   * Catalogue system that a user's own one is a copy of.
   */
  from?: string
  /**
   * Unit system that its sizes are made in.
   */
  system: 'imperial' | 'metric'
  /**
   * What it is, in a sentence.
   */
  says?: string
  /**
   * What its posts are made of, in a word.
   */
  material?: string
  /**
   * What its bays look like: boards upright, slats across, pickets, bars, mesh, one sheet, or nothing between the rails. Left out: by its posts.
   */
  face?: 'boards' | 'slats' | 'pickets' | 'bars' | 'mesh' | 'sheet' | 'open'
  /**
   * A bare gate: no fence beside it.
   */
  gate?: boolean
  fence: Fence
  post: Post
  terminal?: Terminal
  spacing: Spacing
  grade: Grade
  hole?: HoleRules
  setting?: SettingRules
  /**
   * What it asks of posts of one kind.
   *
   * @maxItems 4
   */
  kinds?: KindRules[]
  /**
   * Ways to set its posts, the usual one first.
   *
   * @minItems 1
   * @maxItems 8
   */
  allowed: string[]
  /**
   * Ways that must not be used, and why.
   *
   * @maxItems 8
   */
  forbidden?: Forbidden[]
  /**
   * Kinds of post that must stand in concrete: those that take the pull.
   *
   * @maxItems 4
   */
  inConcrete?: string[]
  /**
   * Ways that makers rule out and crews use all the same: a choice, with its caution.
   *
   * @maxItems 8
   */
  mind?: Forbidden[]
  /**
   * What its material cannot be asked to do: cut posts, drill posts, drive posts, mortice posts, rack, cut wide, cut high. How far panels rack is grade/rack; what is never filled, neverFilled; how its posts may be set, allowed and forbidden.
   *
   * @maxItems 12
   */
  cannot?: string[]
  /**
   * Its hollow posts are never filled, but round a steel core up to the ground.
   */
  neverFilled?: boolean
  /**
   * @maxItems 12
   */
  cautions?: string[]
  tolerances?: Tolerances
  /**
   * What stands above ground, part by part. Of a user's own type, left out: those of the type that it is a copy of.
   *
   * @maxItems 60
   */
  parts?: FencePart[]
  /**
   * Order in which it is put together.
   *
   * @maxItems 40
   */
  steps?: string[]
}
export interface Forbidden {
  method: 'braced' | 'fast' | 'dry packed' | 'stabbed' | 'rock' | 'driven' | 'slurry' | 'layered'
  why: string
}
export interface Plan {
  /**
   * Version of the plan document.
   */
  mallow: number
  name: string
  units: Units
  /**
   * The fence lines on the map.
   */
  lines: PlannedLine[]
  /**
   * All lines' runs, line after line.
   */
  runs: PlannedRun[]
  before: Clearance
  totals: Totals
  /**
   * The bill of the job, rounded up once; left out where only figures are asked for.
   */
  items?: Item[]
  findings: Finding[]
  /**
   * What can hurt someone; left out where only figures are asked for.
   */
  cautions?: Caution[]
  levels?: RuleLevel
  /**
   * The rules that the reasons name, each once; left out likewise.
   */
  rules?: Step[]
  /**
   * Explanations; the figures' why fields are places in this list; left out likewise.
   */
  reasons?: Why[]
}
export interface PlannedLine {
  id: string
  name: string
  /**
   * JSON pointer of the line in the job document.
   */
  path: string
  closed: boolean
  /**
   * Hand on which the ground lies that it fences in.
   */
  inside: 'left' | 'right'
  /**
   * Place of its first run in the plan's list of runs; the others follow.
   */
  first: number
  runs: number
  /**
   * Of all its runs, level.
   */
  length: number
  /**
   * In order, its two ends among them when it is open.
   */
  corners: PlannedCorner[]
  closing?: Closing
  loop?: HeightLoop
  /**
   * What each page of rod readings comes to.
   */
  books: BookCheck[]
}
export interface PlannedCorner {
  place: MapPlace
  /**
   * Run that ends here.
   */
  before?: string
  /**
   * Run that starts here.
   */
  after?: string
  /**
   * JSON pointer of the corner's measures in the job document.
   */
  path?: string
  /**
   * The post that stands here, in the run that ends here or else in the one that starts.
   */
  post?: string
  /**
   * Degrees off the straight-on line, left positive; left out at an end, and while it is not known.
   */
  turn?: number
  /**
   * Degrees between the two runs.
   */
  interior?: number
  /**
   * Way it turns; left out when straight.
   */
  side?: 'left' | 'right'
  /**
   * The turn was measured; else it follows from closing, or is still missing.
   */
  measured: boolean
  square?: Squaring
  why?: number
}
export interface MapPlace {
  x: number
  y: number
}
export interface Squaring {
  /**
   * Along the run before.
   */
  legA: number
  /**
   * Along the run after.
   */
  legB: number
  diagonal: number
  /**
   * A right angle to the tape's mark.
   */
  right: boolean
  three?: ThreeFourFive
  /**
   * Diagonal across both whole runs, to check with.
   */
  whole: number
  /**
   * By offset instead: from the corner along the run before, prolonged; negative is back along it.
   */
  along: number
  /**
   * From there square off, to the end of the second leg.
   */
  off: number
  a: MapPlace
  b: MapPlace
}
export interface ThreeFourFive {
  /**
   * How many units the 1 of 3-4-5 stands for.
   */
  times: number
  /**
   * Along the run before.
   */
  legA: number
  /**
   * Along the run after.
   */
  legB: number
  long: number
}
export interface Closing {
  perimeter: number
  /**
   * From the start to where the measures end, to the right.
   */
  x: number
  /**
   * The same, up.
   */
  y: number
  miss: number
  /**
   * One part in so many; left out when nothing is missed.
   */
  ratio?: number
  /**
   * Degrees by which the turns miss closing, when all were measured.
   */
  angleSum?: number
  spread: boolean
  legs: Balance[]
  why?: number
}
export interface Balance {
  run: string
  taped: number
  balanced: number
  /**
   * Degrees clockwise from the map's up.
   */
  bearing: number
  balancedBearing: number
  endBefore: MapPlace
  endAfter: MapPlace
}
export interface HeightLoop {
  error: number
  allowance: number
}
export interface BookCheck {
  book: string
  /**
   * Of each row's point, over the page's first.
   */
  heights: number[]
  /**
   * Height of the line of sight at each set-up.
   */
  setups: number[]
  sumBack: number
  sumFore: number
  closed: boolean
  error: number
  allowance: number
  circuit: number
}
export interface PlannedRun {
  id: string
  name: string
  /**
   * JSON pointer of the run in the job document.
   */
  path: string
  /**
   * Line that it is on.
   */
  line: string
  /**
   * Level distance along the line to its first post.
   */
  start: number
  from: MapPlace
  to: MapPlace
  /**
   * Degrees clockwise from the map's up.
   */
  bearing: number
  /**
   * Level, centre to centre of the end posts.
   */
  length: number
  /**
   * What reducing the slope tape to level took off.
   */
  correction?: number
  /**
   * Its posts are hollow: drawn as metal.
   */
  hollow: boolean
  /**
   * Name of its fence type.
   */
  type?: string
  /**
   * What its bays look like, by its fence type.
   */
  face?: 'boards' | 'slats' | 'pickets' | 'bars' | 'mesh' | 'sheet' | 'open'
  /**
   * The same along the ground.
   */
  slopeLength: number
  /**
   * Frost depth; left out when it is not known.
   */
  frost?: number
  /**
   * Share of the fence's face that is solid and catches wind.
   */
  solid: number
  /**
   * It is an estimate, not the local office's figure.
   */
  frostEstimated?: boolean
  /**
   * Its holes, each kind once.
   */
  cards: HoleCard[]
  /**
   * The rules for holes as they come out for the run, for each kind of post, and for the single posts that have their own.
   */
  levels?: RuleLevel[]
  /**
   * Some height of it was measured; else its ground is taken as level, or as its neighbours have it.
   */
  measured: boolean
  ground: PlannedGround[]
  /**
   * The ground as it will be, once the plan's cuts and fills are made; left out where it stays as it is.
   */
  finished?: PlannedGround[]
  inTheWay: InTheWay[]
  string?: RunString
  /**
   * What to keep in mind where its posts are lined up and set.
   */
  reminders?: Caution[]
  segments: Segment[]
  posts: PlannedPost[]
  bays: PlannedBay[]
  /**
   * Looks that its panels cannot have, and why.
   */
  looksRefused: {
    [k: string]: string
  }
  way:
    'equal' | 'panels between' | 'panels on faces' | 'module' | 'stock rails' | 'overlapping rails'
  /**
   * Where every rail is broken; empty where rails are not laid on stock lengths.
   */
  rails: RailRow[]
  setOut?: SetOut
  topLine?: TopLine
  gates: PlannedGate[]
  /**
   * Gates that can be put into it, and where each would go.
   */
  addGate?: NewGate[]
  totals: Totals
  /**
   * The bill of the run by itself; left out where only figures are asked for.
   */
  items?: Item[]
  curb?: CurbPlan
  /**
   * Of the stages that stand on the finished run, by their names.
   */
  parts?: {
    [k: string]: unknown
  }
}
export interface HoleCard {
  width: number
  /**
   * To dig.
   */
  depth: number
  /**
   * Of the concrete, or of what the post is packed in: what is held against the frost depth.
   */
  bottom: number
  /**
   * Of the post.
   */
  foot: number
  /**
   * By how much the ground is cut here afterwards; negative: filled loose, which holds nothing. The other depths are below the ground that is dug.
   */
  lowered?: number
  /**
   * By how much fill, placed and compacted, has raised the ground before it is dug: depths are below its top.
   */
  placed?: number
  /**
   * How wide, level and across the line, placed fill must be for the hole to count on it. Without placed it is not.
   */
  placedWide?: number
  /**
   * The bottom below the ground as it will be.
   */
  underFinished: number
  /**
   * Frost depth below today's ground: it follows the ground as it will be. Left out when it is not known or not counted.
   */
  frost?: number
  /**
   * The bottom lies above the frost depth.
   */
  heaves: boolean
  /**
   * Square from above, dug by spade.
   */
  square: boolean
  /**
   * The crew has an auger of its width.
   */
  auger: boolean
  /**
   * The hole's width from the ground down, straight in between.
   */
  cuts: HoleCut[]
  /**
   * Middle of the hole off that of the post, along the run.
   */
  along?: number
  /**
   * The same across it, to the left.
   */
  across?: number
  /**
   * Least room between post and hole.
   */
  least: number
  /**
   * Width of the post.
   */
  post: number
  /**
   * A round post.
   */
  round: boolean
  hollow: boolean
  wall: number
  /**
   * Least width of a hole that the post goes into.
   */
  holds: number
  /**
   * Side of the steel core in a hollow post.
   */
  core?: number
  /**
   * Diameter of the pin in the rock under the foot.
   */
  pin?: number
  /**
   * How far the pin goes into the rock.
   */
  pinned?: number
  method: 'braced' | 'fast' | 'dry packed' | 'stabbed' | 'rock' | 'driven' | 'slurry' | 'layered'
  /**
   * From the bottom up.
   */
  layers: HoleLayer[]
  dug: number
  gravel: number
  stone: number
  concrete: number
  /**
   * Put back.
   */
  soil: number
  /**
   * To carry away, loosened.
   */
  spoil: number
  /**
   * Name of the bag; empty when it is not in the catalogue.
   */
  bag: string
  bags: number
  /**
   * Stabbed posts: depth below ground up to which the hole is filled before the post goes in; the post then brings the mix to its level.
   */
  fillTo?: number
  /**
   * What to do, in order.
   */
  steps?: Text[]
}
export interface HoleCut {
  depth: number
  width: number
}
export interface HoleLayer {
  kind:
    | 'gravel'
    | 'concrete'
    | 'rocks in slurry'
    | 'large stone'
    | 'middle stone'
    | 'small stone'
    | 'soil'
    | 'mound'
    | 'crown'
    | 'inside the post'
  /**
   * Depth of its top; negative is above ground.
   */
  from: number
  /**
   * Depth of its bottom.
   */
  to: number
  /**
   * In place, without the post.
   */
  volume: number
  /**
   * Concrete in it.
   */
  concrete: number
  /**
   * Rocks, stone or rubble in it.
   */
  stone: number
}
export interface Part {
  kind:
    | 'text'
    | 'length'
    | 'tape'
    | 'small'
    | 'bulk'
    | 'number'
    | 'wind'
    | 'mass'
    | 'force'
    | 'moment'
    | 'pressure'
    | 'temperature'
    | 'drying'
  text?: string
  /**
   * Millimetres, cubic metres, metres per second, kilograms, newtons, newton metres, pascals, degrees Celsius, kilograms to the square metre and hour, hours or a plain number, by kind.
   */
  value?: number
  /**
   * Of a length: it is said in the units of this system, as it was entered; without it in the job's. Of words: they are said in jobs of this system only.
   */
  system?: 'imperial' | 'metric'
}
export interface RuleLevel {
  level: 'job' | 'run' | 'kind' | 'post'
  name: string
  kind?: 'end' | 'corner' | 'gate' | 'line'
  /**
   * The post that a single hole's rules are for.
   */
  post?: string
  /**
   * JSON pointer of what holds this level's own rules in the job document.
   */
  path: string
  /**
   * The document has it; else it is made with its first rule.
   */
  there: boolean
  /**
   * The value in force for each field, such as hole/floor.
   */
  values: {
    [k: string]: unknown
  }
  /**
   * Where each was said.
   */
  from: {
    [k: string]: string
  }
  /**
   * Choices that the run's fence system rules out here, by field and value, and why.
   */
  refused: {
    [k: string]: {
      [k: string]: string
    }
  }
  /**
   * Fields that were entered in the units of a system.
   */
  entered: {
    [k: string]: string
  }
}
export interface PlannedGround {
  /**
   * Station, level.
   */
  at: number
  height: number
  /**
   * JSON pointer of the entry that this height comes from; left out for what lies between entries.
   */
  path?: string
  /**
   * What one more in that entry makes of the height: 1, -1, or left out where the entry moves other points too.
   */
  sign?: number
}
export interface InTheWay {
  id: string
  kind: 'service' | 'root' | 'rock' | 'drain' | 'footing' | 'old post' | 'no dig'
  /**
   * What it is, in words.
   */
  name: string
  path: string
  from: number
  to: number
  /**
   * Where digging by hand begins.
   */
  handFrom: number
  handTo: number
  depth?: number
  /**
   * Name of the colour of its marks in the interface; left out for what is no service.
   */
  colour?: string
  stays: boolean
  /**
   * Old footing that is dug out and poured again.
   */
  repour: boolean
  marked: boolean
}
export interface RunString {
  position: 'face' | 'off' | 'stand-off' | 'sight'
  face: 'left' | 'right'
  ends: 'boards' | 'stakes'
  /**
   * Name of the string.
   */
  kind: string
  /**
   * Newtons.
   */
  pull: number
  /**
   * From the string to the near face of every post: the one constant to hold.
   */
  toFace: number
  toCentre: number
  beyond: number
  /**
   * Of the alignment string, tie to tie.
   */
  span: number
  from: MapPlace
  to: MapPlace
  /**
   * Height of the alignment string's tie above the datum.
   */
  lowStart: number
  lowEnd: number
  /**
   * Height string below the tops.
   */
  mark: number
  /**
   * Height of the height string at the first post, above the datum.
   */
  highStart: number
  highEnd: number
  /**
   * Of the height string at mid-span, without props.
   */
  sag: number
  props: number
  /**
   * Most sag with the props that are set.
   */
  sagPropped: number
  /**
   * Props that keep the sag within what is let go.
   */
  propsFor: number
  sagAllowed: number
  /**
   * Of the alignment string at mid-span, in today's wind.
   */
  drift: number
  driftAllowed: number
  /**
   * Longest span that holds its line in today's wind; sight along the posts on a longer one. Left out without wind.
   */
  sightFrom?: number
  /**
   * Line the posts up by eye.
   */
  sight: boolean
  /**
   * The hanging height string from end to end, prop to prop.
   */
  hang: Hang[]
  posts: StringPost[]
  /**
   * Posts in the order of setting.
   */
  order: string[]
  /**
   * Far post that is sighted at.
   */
  target: string
  why?: RunStringWhy
}
export interface Hang {
  at: number
  /**
   * Pulled straight, from prop to prop, above the datum.
   */
  height: number
  /**
   * How far it hangs under that.
   */
  sag: number
}
export interface StringPost {
  post: string
  /**
   * Alignment string above ground here, sagging.
   */
  low: number
  /**
   * Of the height string here, on its props.
   */
  sag: number
  /**
   * Of the alignment string here.
   */
  drift: number
  /**
   * Height string above ground here, sagging, or the line of sight.
   */
  high: number
  /**
   * The post's mark over that; negative is under it.
   */
  mark: number
}
export interface RunStringWhy {
  constant: number
  sag: number
  drift: number
}
export interface Caution {
  stage: 'walk' | 'string' | 'space' | 'grade' | 'gates' | 'dig' | 'pour' | 'build'
  says: Text
}
export interface Segment {
  from: number
  to: number
  gate?: string
  bays: number
  /**
   * The regular bay, centre to centre.
   */
  each: number
  /**
   * Bays of another length.
   */
  odd: number
  /**
   * By how much the oddest bay departs.
   */
  uneven: number
  /**
   * How far the farthest post is off its regular place.
   */
  shift: number
  why?: number
  /**
   * What is in the way that no layout could keep clear of: planned as if it were not there.
   */
  givenUp?: string[]
}
export interface PlannedPost {
  /**
   * Its own for good, however the others are spaced: facts and links name it so.
   */
  id: string
  /**
   * What it is called, in order along the run; unlike that of any other post of the run.
   */
  label: string
  /**
   * What it stands by, such as gates/G1/first or fixedPosts/F1; left out for a line post.
   */
  by?: string
  kind: 'end' | 'corner' | 'gate' | 'line'
  gate?: string
  /**
   * Held post of the run that it is.
   */
  held?: string
  /**
   * It is set already, and stands there.
   */
  landed?: boolean
  /**
   * Old post that it is: no hole, no new post.
   */
  stays?: string
  /**
   * How far it stands off its regular place.
   */
  shift?: number
  /**
   * How far it landed off its mark: only the bays beside it changed.
   */
  off?: number
  /**
   * Its own section: side, or diameter of a round post. An old post's where it was measured.
   */
  width: number
  /**
   * A round post.
   */
  round?: boolean
  /**
   * A hollow post.
   */
  hollow?: boolean
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
   * A grade post: the top changes slope here.
   */
  grade?: boolean
  /**
   * Height of the post's top above the datum.
   */
  top: number
  /**
   * How much post shows above ground, at its middle.
   */
  reveal: number
  /**
   * The same at the face towards the run's start: a post stays plumb on a slope, so its faces differ.
   */
  revealBefore: number
  /**
   * The same at its other face.
   */
  revealAfter: number
  /**
   * Reference mark above ground, so far below the fence's top: everything on the post is measured from it.
   */
  mark: number
  /**
   * By how much the fence's top goes up here from the bay before to the one after; negative is down.
   */
  step: number
  /**
   * Height over which the panels on both sides meet on the post.
   */
  overlap: number
  /**
   * Holes or routs for the rails, the lowest first; left out where rails do not go into posts.
   */
  holes?: RailHole[]
  /**
   * A gate leaf hangs on it.
   */
  hung?: boolean
  /**
   * It is driven; a hole is only that of its collar.
   */
  driven?: boolean
  /**
   * Old footing that is dug out and poured again with this hole.
   */
  repoured?: string
  /**
   * Run that ends at this corner post: it is dug and counted there.
   */
  shared?: string
  /**
   * What its hole runs into.
   */
  inWay?: string[]
  /**
   * What it must be dug by hand for.
   */
  hand?: string[]
  /**
   * Height of the ground as it will be, once the plan's cuts and fills are made.
   */
  finished: number
  holeWidth: number
  /**
   * Depth to dig from the ground that is dug, with the gravel: today's, or the top of fill that was placed first.
   */
  holeDepth: number
  /**
   * Depth of the concrete's bottom below the ground that is dug; the gravel lies under it.
   */
  bottom: number
  /**
   * The same below the ground as it will be: what the rules of depth ask for.
   */
  underFinished: number
  /**
   * The bottom lies above the frost depth.
   */
  heaves: boolean
  /**
   * Depth of the post's foot: its embedment.
   */
  foot: number
  /**
   * Gravel under the concrete.
   */
  gravel: number
  /**
   * Height of the concrete round the post; 0 where there is none.
   */
  concrete: number
  /**
   * Place of its hole among the run's cards; -1 for an old post that stays.
   */
  card: number
  /**
   * Single hole of the run whose rules it has.
   */
  spot?: string
  stopped?: Stopped
  wind?: PostWind
  gravelVolume: number
  /**
   * Rocks, stone and rubble.
   */
  stoneVolume: number
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
  /**
   * It is cut before it is set, to needed.
   */
  cutFirst?: boolean
  why?: PostWhy
}
export interface RailHole {
  /**
   * Of the bay before; left out at the run's first post and beside a gate.
   */
  before?: number
  /**
   * Of the bay after.
   */
  after?: number
}
export interface Stopped {
  what: 'rock' | 'water' | 'root'
  depth: number
  /**
   * Bottom that the rules ask for.
   */
  wanted: number
  /**
   * Gust at the limit as it is, metres per second.
   */
  asIs: number
  /**
   * Gust at the limit had it reached that depth, metres per second.
   */
  planned: number
  settled?: 'as is' | 'wider' | 'belled' | 'pinned'
  /**
   * How wide the hole would have to be, no deeper, for the same gust; 0: no width that can be dug.
   */
  same: number
  /**
   * What each way out gives, in the same measure; left out where only figures are asked for.
   */
  ways?: WayOut[]
}
export interface WayOut {
  /**
   * Stable, for programs.
   */
  id: string
  name: Text
  says: Text
  /**
   * At the limit, metres per second.
   */
  gust: number
  /**
   * Its bottom is below the frost depth, or none is known.
   */
  frost: boolean
  /**
   * More than the hole takes as it is.
   */
  concrete: number
  edits: Edit[]
  cost?: Cost
}
export interface Edit {
  /**
   * JSON pointer into the job document; - as its last part adds to the end of a list.
   */
  path: string
  /**
   * The new value; null takes the field away.
   */
  value: {
    [k: string]: unknown
  }
}
export interface Cost {
  posts: number
  cutPieces: number
  concrete: number
  bags: number
  oddBays: number
  /**
   * Length of all posts together, as bought.
   */
  stock?: number
}
export interface PostWind {
  /**
   * Metres per second.
   */
  gust: number
  wider?: WindTry
  deeper?: WindTry
  leaf?: LeafPull
  why?: number
}
export interface WindTry {
  /**
   * The hole's width, or depth to dig.
   */
  size: number
  gust: number
}
export interface LeafPull {
  mass: number
  estimated: boolean
  width: number
  /**
   * Newton metres: its weight times half its width.
   */
  moment: number
  /**
   * Gust with the leaf closed, metres per second: half the leaf's face pushes the post; its weight pulls along the fence.
   */
  closed: number
  /**
   * Gust with the leaf open across the fence: its weight leans the post the way that the wind does.
   */
  open: number
  /**
   * Share of the footing's limit that the leaf's weight takes alone.
   */
  share: number
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
  /**
   * That of the post that it ends at, after a b.
   */
  id: string
  /**
   * What it is called: as its first post.
   */
  label: string
  gate?: string
  from: string
  to: string
  centreToCentre: number
  /**
   * Between the posts' faces.
   */
  clear: number
  /**
   * Not the stretch's regular bay.
   */
  odd?: boolean
  /**
   * Held bay of the run that it is.
   */
  held?: string
  /**
   * Length of the panel, board or rail in it, where one sets the bay.
   */
  piece?: number
  /**
   * That piece is cut from a full one.
   */
  pieceCut?: boolean
  /**
   * Panels on faces: from the first post's middle to where the panel begins, at a corner.
   */
  lead?: number
  /**
   * The same at the second post.
   */
  trail?: number
  /**
   * Ends of an overlapping rail whose tongue is trimmed, at terminals.
   */
  trims?: number
  /**
   * Heights above the datum; for a gate, of the leaf's bottom.
   */
  bottomStart: number
  bottomEnd: number
  topStart: number
  topEnd: number
  look: 'level' | 'stepped' | 'raked' | 'rolling'
  /**
   * How far the top rises over the bay, centre to centre; negative is falling.
   */
  lean: number
  /**
   * The same as an angle, degrees.
   */
  angle: number
  /**
   * True length along the slope of the bay's top, face to face of its posts: what a rail between them is cut to.
   */
  long: number
  /**
   * Gap under the fence at the face of its first post.
   */
  faceStart: number
  /**
   * The same at the face of its second post.
   */
  faceEnd: number
  /**
   * Centre to centre along the ground, as a tape lies on the slope.
   */
  onGround: number
  gapLeast: Gap
  gapMost: Gap
  cut?: Earth
  fill?: Earth
  /**
   * Gravel boards that belong to the fence, one above the other at its foot.
   */
  boards?: number
  /**
   * Height of one, and of an infill board.
   */
  board?: number
  infill?: PanelInfill
  why?: BayWhy
}
export interface Gap {
  gap: number
  at: number
}
export interface Earth {
  /**
   * Where it is deepest.
   */
  depth: number
  /**
   * Station where it is deepest.
   */
  at: number
  /**
   * Area seen from the side, square metres; times the strip's width it is the soil.
   */
  section: number
}
export interface PanelInfill {
  kind: 'gravel boards' | 'boards'
  /**
   * Face to face of the posts.
   */
  long: number
  /**
   * Height at the first post's face: from the panel's bottom to the least gap over the ground.
   */
  start: number
  /**
   * The same at the second post's face.
   */
  end: number
  /**
   * Greatest height.
   */
  most: number
  /**
   * Boards one under the other.
   */
  boards: number
  /**
   * Height of one.
   */
  board: number
  /**
   * How deep gravel boards are let into the high ground; 0 for boards cut to the slope.
   */
  let: number
  /**
   * For boards cut to the slope: where to mark them, from the first post's face.
   */
  marks: InfillMark[]
}
export interface InfillMark {
  /**
   * From the first post's face, level.
   */
  at: number
  /**
   * Below the panel's bottom.
   */
  under: number
}
export interface BayWhy {
  spacing: number
  gap: number
  lean: number
}
export interface RailRow {
  /**
   * From the ground up, 1 first.
   */
  row: number
  pieces: RailPiece[]
}
export interface RailPiece {
  /**
   * Post that it begins on.
   */
  from: string
  to: string
  length: number
  /**
   * Cut from a full rail.
   */
  cut: boolean
}
export interface SetOut {
  /**
   * Length of the tape that is reckoned with.
   */
  tape: number
  /**
   * From the string to each post's middle.
   */
  offset: number
  /**
   * From the first post to the last, level: the list is right when it ends here.
   */
  check: number
  /**
   * Pins driven where the tape ends, from which it is pulled on.
   */
  pins: TapePin[]
  /**
   * In taping order.
   */
  marks: SetOutMark[]
  /**
   * Spacer sticks that set posts without a tape, the most used first.
   */
  sticks: Stick[]
}
export interface TapePin {
  /**
   * Level, from the first post.
   */
  at: number
  /**
   * The same along the ground.
   */
  slope: number
  /**
   * The post that stands there, where one does.
   */
  post?: string
}
export interface SetOutMark {
  post: string
  /**
   * From the first post, tape held level.
   */
  level: number
  /**
   * From the first post, tape on the ground.
   */
  slope: number
  /**
   * Pin that it is read from, 1 first; 0: the first post.
   */
  pin?: number
  /**
   * What the level tape reads from that pin.
   */
  past: number
  /**
   * The same along the ground.
   */
  pastSlope: number
  /**
   * Check measure: from the far end, level.
   */
  back: number
  backSlope: number
  /**
   * From the post before, centre to centre; 0 at the first.
   */
  bay: number
  /**
   * From the post before, face to face.
   */
  clear: number
}
export interface Stick {
  length: number
  /**
   * How many bays it sets.
   */
  bays: number
  /**
   * First bay that it sets.
   */
  first: string
}
export interface TopLine {
  /**
   * The way that the run is set by.
   */
  by: 'string' | 'laser' | 'drops' | 'sight'
  /**
   * Reference mark below the fence's top, the same on every post.
   */
  mark: number
  /**
   * Height of the laser's level plane above the datum.
   */
  laser: number
  /**
   * Post with the highest top: the level string is tied there, at its top.
   */
  high: string
  /**
   * Height of the eyes.
   */
  eye: number
  /**
   * Strings to pull: from each end, gate and grade post to the next.
   */
  pieces: TopPiece[]
  posts: TopPost[]
  /**
   * Middles of the rails above the fence's bottom, the lowest first.
   */
  rails: number[]
  /**
   * The story stick, from the top down.
   */
  stick: StickMark[]
  limit?: TopLimit
  /**
   * What to do on site, in order.
   */
  steps?: Text[]
  why?: number
}
export interface TopPiece {
  from: string
  to: string
  /**
   * Along the string.
   */
  length: number
  /**
   * From its first top to its last; negative is falling.
   */
  rise: number
  /**
   * At its middle, without props.
   */
  sag: number
  /**
   * That keep the sag within what is let go.
   */
  props: Prop[]
}
export interface Prop {
  /**
   * Station.
   */
  at: number
  /**
   * Of its head above the ground there.
   */
  height: number
}
export interface TopPost {
  post: string
  /**
   * From the laser's mark up to the cut; negative is down.
   */
  laser: number
  /**
   * From the level string down to the top.
   */
  drop: number
  /**
   * The top over the string of its piece, as it hangs on its props; negative is under it.
   */
  string: number
  /**
   * How far the top lies over the line of sight between the tops of its piece's ends; negative: drop it by so much.
   */
  sight: number
}
export interface StickMark {
  name: string
  kind: 'cut' | 'top' | 'mark' | 'rail' | 'hole' | 'bracket' | 'board' | 'bottom' | 'ground'
  /**
   * From the reference mark up; negative is down.
   */
  up: number
  /**
   * Lower edge of what has a height; else the same.
   */
  to: number
}
export interface TopLimit {
  post: string
  /**
   * How much higher the fence could be before its longest stock is too short; negative: it is too short by so much.
   */
  spare: number
  stock: number
}
export interface PlannedGate {
  id: string
  name: string
  /**
   * JSON pointer of the gate in the job document.
   */
  path: string
  at: number
  /**
   * Inside measure, between the faces of its posts.
   */
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
  kind: 'swing' | 'slide'
  use: 'walk' | 'vehicle'
  swing: 'in' | 'out' | 'both'
  /**
   * Measure that the others follow from.
   */
  sizedBy: 'leaf' | 'clear' | 'inside'
  /**
   * Clear way past the open leaves.
   */
  clear: number
  /**
   * Centre to centre of its posts.
   */
  centre: number
  /**
   * Outside to outside of its posts.
   */
  outside: number
  /**
   * Width of its posts.
   */
  post: number
  /**
   * Height of the closed leaf's bottom above the datum.
   */
  bottom: number
  /**
   * Highest ground across the opening, above the datum.
   */
  highest: number
  /**
   * Angle at which a leaf meets its own post, degrees from closed; 180 where it never does.
   */
  meets: number
  /**
   * How far its leaves open, degrees.
   */
  open: number
  /**
   * Measures that prove the two posts before anything is hung.
   */
  checks?: GateCheck[]
  /**
   * The one on the first post first.
   */
  leaves: GateLeaf[]
  runBack?: RunBack
  setBack?: SetBack
  /**
   * Post lengths that can be had, and how deep each would stand.
   */
  lengths: PostLength[]
  latch?: HangMark
  /**
   * How it is hung, in order.
   */
  steps?: GateStep[]
  /**
   * What to look at after a week.
   */
  after?: GateStep[]
  /**
   * What is ordered for it.
   */
  order?: GateStep[]
  why?: GateWhy
}
export interface GateCheck {
  name: string
  length: number
  says: Text
}
export interface GateLeaf {
  /**
   * That it hangs on.
   */
  post: string
  /**
   * Which of the gate's posts that is.
   */
  end: 'first' | 'second'
  width: number
  /**
   * At its hinges.
   */
  height: number
  /**
   * At its other edge.
   */
  tipHeight: number
  thick: number
  /**
   * Station of its hinges' pins.
   */
  pin: number
  /**
   * From the pins to its near edge.
   */
  heel: number
  /**
   * From the pins to its far edge.
   */
  reach: number
  /**
   * Closed, it lies toward the run's end.
   */
  ahead: boolean
  lift: number
  mass: number
  estimated: boolean
  /**
   * Newton metres that it pulls its post over with.
   */
  moment: number
  /**
   * Between its outer hinges.
   */
  spacing: number
  /**
   * Newtons: what the top hinge is pulled out with and the bottom one pushed in; 0 where the hinges do not fit.
   */
  pull: number
  /**
   * Its hinges are where an old post has them.
   */
  given?: boolean
  /**
   * The lowest first.
   */
  hinges: HangMark[]
  /**
   * What it is propped on while it is hung: under its hinge end, then under its tip.
   */
  blocks: Block[]
  brace?: LeafBrace
  adjust?: Adjusting
  /**
   * The sides that it swings to.
   */
  sides: LeafSide[]
}
export interface HangMark {
  name: string
  post: string
  /**
   * Above the ground at the post.
   */
  above: number
  /**
   * Below the post's reference mark; negative is above it.
   */
  fromMark: number
  /**
   * Above the leaf's bottom.
   */
  onLeaf: number
  /**
   * Way that a hinge's pin points.
   */
  pin?: 'up' | 'down'
}
export interface Block {
  name: string
  height: number
  /**
   * Station.
   */
  at: number
}
export interface LeafBrace {
  kind: 'strut' | 'tie' | 'unbraced'
  /**
   * From corner to corner of the leaf.
   */
  length: number
  /**
   * Degrees from level.
   */
  angle: number
  says?: Text
}
export interface Adjusting {
  drop: number
  /**
   * How far the top hinge's bolt is turned in, or the bottom hinge is packed out.
   */
  in: number
  /**
   * 0 where the hinge has no thread.
   */
  turns: number
  /**
   * What the bolt has.
   */
  travel: number
  enough: boolean
  says?: Text
}
export interface LeafSide {
  side: 'in' | 'out'
  /**
   * Least gap under the leaf on its way; negative where it strikes.
   */
  gap: number
  /**
   * Where that is: degrees from closed.
   */
  angle: number
  /**
   * Where that is: from the pins.
   */
  out: number
  /**
   * Least gap that must be left, snow among it.
   */
  wanted: number
  /**
   * No less than that is left anywhere on its way.
   */
  clears: boolean
  /**
   * Angle from which on less than that is left; left out where it never is.
   */
  short?: number
  /**
   * Angle at which it touches the ground.
   */
  touch?: number
  /**
   * Ground to cut so that it clears, where it is deepest; 0 for none.
   */
  cut: number
  /**
   * Volume of that.
   */
  earth: number
  /**
   * The job says that it is cut: the other figures are with the ground cut.
   */
  isCut: boolean
  struck?: Struck
  hold: HoldBack
  /**
   * Of the profiles.
   */
  angles: number[]
  /**
   * Distances from the pins at which the ground is given.
   */
  outs: number[]
  /**
   * Under the leaf at each of the angles.
   */
  ground: LeafGround[]
  /**
   * The swept ground on the map.
   */
  outline: MapPlace[]
}
export interface Struck {
  what: string
  angle: number
}
export interface HoldBack {
  /**
   * Square off the line.
   */
  off: number
  /**
   * From the hinge post's middle along the run, toward the gate's other post; negative is away from it.
   */
  along: number
}
export interface LeafGround {
  /**
   * Height of the leaf's bottom above the datum.
   */
  bottom: number
  /**
   * Of the ground, at the distances of the profile.
   */
  heights: number[]
  /**
   * Least gap there.
   */
  gap: number
  /**
   * Where that is.
   */
  out: number
}
export interface RunBack {
  /**
   * How far it reaches past the post.
   */
  past: number
  /**
   * What there is to the run's end.
   */
  room: number
  /**
   * Station at which it begins.
   */
  from: number
  to: number
  post: string
  /**
   * Least gap under the leaf on its way.
   */
  gap: number
  /**
   * Station of it.
   */
  at: number
}
export interface SetBack {
  needed: number
  /**
   * What there is; 0 where it was not measured.
   */
  road: number
}
export interface PostLength {
  post: string
  length: number
  /**
   * How much of it stands in the ground: its length less reveal and trim.
   */
  foot: number
  /**
   * What the rules ask for.
   */
  asked: number
  enough: boolean
  taken: boolean
  /**
   * Set the run's gate posts as deep as this length reaches.
   */
  edits: Edit[]
}
export interface GateStep {
  says: Text
}
export interface GateWhy {
  inside: number
  clear: number
  swing: number
  pull: number
}
export interface NewGate {
  id: string
  name: string
  says: Text
  /**
   * That put it there; empty where it is refused.
   */
  edits: Edit[]
  /**
   * Its name in the document, once it is there.
   */
  gate: string
  refused?: string
}
export interface Totals {
  /**
   * To be set. A corner post is counted in the run that ends there.
   */
  posts: number
  /**
   * Old posts that stay and are built onto.
   */
  reused: number
  /**
   * Panels, rails, or bays of boards, whole and cut; of rails every one, in every row.
   */
  pieces: number
  /**
   * Of these, cut from a full one.
   */
  cutPieces: number
  /**
   * Posts of the run that are counted in another run.
   */
  elsewhere: number
  kinds: KindCount[]
  stock: Stock[]
  /**
   * Posts by kind and stock length.
   */
  kindStock: KindStock[]
  /**
   * Posts for which no stock length is long enough.
   */
  stockShort: number
  holes: HoleCount[]
  hours: Hours
  /**
   * In the holes and the mowing curb.
   */
  concrete: number
  /**
   * Of it in the mowing curb.
   */
  curbConcrete?: number
  /**
   * Of the mowing curb, along the ground.
   */
  curbLength?: number
  /**
   * With the waste that is given.
   */
  concreteToBuy: number
  /**
   * Share bought beyond what the holes take; -1 where it is not the same for all.
   */
  waste: number
  /**
   * One for each kind of bag; empty when the bag is not in the catalogue.
   */
  bagKinds: BagCount[]
  /**
   * Of all kinds.
   */
  bags: number
  truck: TruckLoad
  mix: SiteMix
  /**
   * Tamped, in the holes.
   */
  gravel: number
  /**
   * Loose, as bought.
   */
  gravelLoose: number
  gravelMass: number
  gravelBags: Parcels
  gravelBulk: Parcels
  /**
   * Rocks, packing stone and rubble, in the holes.
   */
  stone: number
  /**
   * The same, loose, as bought.
   */
  stoneLoose: number
  stoneMass: number
  /**
   * The holes, as the soil lies.
   */
  dug: number
  /**
   * Of it put back over the concrete.
   */
  soilBack: number
  /**
   * To carry away, loosened.
   */
  spoil: number
  /**
   * Soil to cut along the fence, as it lies.
   */
  cut: number
  /**
   * Soil to fill along the fence, tamped.
   */
  fill: number
  /**
   * Boards that close triangles under level panels.
   */
  infillBoards: number
  /**
   * Posts at which a leaning top changes slope, where that is counted.
   */
  gradePosts: number
  /**
   * Posts at which the top steps.
   */
  steps: number
  why?: TotalsWhy
}
export interface KindCount {
  kind: 'end' | 'corner' | 'gate' | 'line'
  count: number
}
export interface Stock {
  length: number
  count: number
}
export interface KindStock {
  kind: 'end' | 'corner' | 'gate' | 'line'
  /**
   * Left out: longer than any stock.
   */
  length?: number
  count: number
}
export interface HoleCount {
  width: number
  depth: number
  square: boolean
  count: number
  /**
   * Hours of one person to dig them all by hand.
   */
  byHand: number
  /**
   * Hours by auger, and by hand what an auger must not or cannot dig.
   */
  byAuger: number
}
export interface Hours {
  /**
   * Hours of one person, all by hand.
   */
  byHand: number
  /**
   * Hours by auger, with what has to be dug by hand.
   */
  byAuger: number
  /**
   * Holes that no auger may or can dig.
   */
  hand: number
}
export interface BagCount {
  /**
   * Its name.
   */
  bag: string
  exact: number
  count: number
  mass: number
}
export interface TruckLoad {
  order: number
  /**
   * So little that a charge for a short load is usual.
   */
  short: boolean
  /**
   * Load under which that is so.
   */
  under: number
}
export interface SiteMix {
  cement: number
  /**
   * Bags of cement, as a decimal.
   */
  bags: number
  bag: string
  /**
   * Loose.
   */
  sand: number
  /**
   * Loose.
   */
  stone: number
  water: number
}
export interface Parcels {
  name: string
  exact: number
  count: number
}
export interface TotalsWhy {
  concrete: number
  gravel: number
  hours: number
  spoil: number
}
export interface Item {
  /**
   * Its name: the same in the bill of a run and of the job, and as long as its kind and size stay.
   */
  id: string
  kind:
    | 'post'
    | 'panel'
    | 'rail'
    | 'board'
    | 'mesh'
    | 'gate leaf'
    | 'hardware'
    | 'fixing'
    | 'finish'
    | 'concrete'
    | 'form'
    | 'gravel'
    | 'stone'
    | 'spoil'
    | 'soil'
    | 'labour'
  /**
   * Heading under which it is read.
   */
  group: string
  /**
   * The stage of the work that needs it.
   */
  stage: 'walk' | 'string' | 'space' | 'grade' | 'gates' | 'dig' | 'pour' | 'build'
  /**
   * What it is called.
   */
  what: string
  name: Text
  /**
   * How much, unrounded, in its unit.
   */
  exact: number
  unit: 'pieces' | 'm3' | 'h' | 'm'
  /**
   * Of one piece, as bought; left out where it is none, or longer than any stock.
   */
  length?: number
  /**
   * Pieces of it that are cut from a full one.
   */
  cut?: number
  /**
   * Share of it that is bought beyond what is built in; -1 where that is not the same everywhere.
   */
  waste?: number
  /**
   * Ways to buy it, the usual one first; rounded up here and nowhere else.
   */
  bought: Buy[]
  /**
   * What each run takes of it.
   */
  runs: Share[]
  /**
   * Where its pieces go.
   */
  goes?: Lot[]
  /**
   * Figure of the totals that explains it: concrete, gravel, hours or spoil.
   */
  why?: string
}
export interface Buy {
  /**
   * pieces, hours, bags, bulk bags, truck, mix, loose, boxes, rolls, lengths or tins.
   */
  by: string
  /**
   * What it is called on its line: the item, or how else it is bought.
   */
  what: string
  /**
   * How many are bought: whole pieces or bags, or cubic metres in the steps that a truck is ordered in.
   */
  count: number
  many: Text
  of?: Text
}
export interface Share {
  run: string
  exact: number
}
export interface Lot {
  run: string
  /**
   * Posts, bays or gates.
   */
  at: string[]
  /**
   * As it is built in; 0 where that is not a length.
   */
  length: number
  cut?: boolean
}
export interface CurbPlan {
  width: number
  /**
   * From its top to its bottom.
   */
  depth: number
  /**
   * How far its top stands over the ground.
   */
  above: number
  /**
   * Its middle to the left of the posts', walking on.
   */
  off: number
  /**
   * How far it goes on past the middle of an end post.
   */
  past: number
  /**
   * Most from joint to joint.
   */
  most: number
  gates: 'through' | 'stops'
  /**
   * Stretches without a break.
   */
  parts: CurbPart[]
  /**
   * What is poured from post to post.
   */
  pours: CurbPour[]
  /**
   * On the forms, in order: posts and joints.
   */
  marks: CurbMark[]
  /**
   * Of all stretches; at a corner to where the two middles meet.
   */
  length: number
  /**
   * Without the posts, and without what is counted in the holes.
   */
  concrete: number
  /**
   * With the run's waste.
   */
  buy: number
  waste: number
  /**
   * Concrete in its section that is counted in the holes.
   */
  inHoles: number
  /**
   * Trench beside the holes, as the soil lies.
   */
  dug: number
  /**
   * Both sides, and the ends.
   */
  forms: number
  stakes: number
  /**
   * Form boards for this run alone.
   */
  boards: number
  /**
   * Length of a form board.
   */
  board: number
  /**
   * Least gap from its top to the fence's bottom.
   */
  least: number
  /**
   * Bay with the least gap; empty where no fence stands over it.
   */
  leastAt: string
  /**
   * Least concrete beside a post.
   */
  beside: number
  /**
   * Post with the least; empty where none stands in it.
   */
  besideAt: string
}
export interface CurbPart {
  /**
   * Before zero where it begins before the first post.
   */
  from: number
  to: number
  /**
   * Station of its beginning, level.
   */
  begin: number
  /**
   * Station of its end, level.
   */
  stop: number
  /**
   * It goes on round a corner at its start.
   */
  start?: boolean
  /**
   * It goes on round a corner at its end.
   */
  end?: boolean
}
export interface CurbPour {
  bay: string
  length: number
  volume: number
  buy: number
}
export interface CurbMark {
  at: number
  /**
   * Left out for a joint between posts.
   */
  post?: string
  joint?: boolean
}
export interface Clearance {
  ready: boolean
  checks: Check[]
}
export interface Check {
  id: 'services' | 'private' | 'boundary' | 'permit' | 'code' | 'neighbour'
  name: string
  done: boolean
  says: Text
}
export interface Finding {
  /**
   * Its name, by which its ways out are asked for.
   */
  id?: string
  /**
   * Which check spoke; stable, for programs.
   */
  rule: string
  severity: 'missing' | 'cannot' | 'check' | 'note'
  stage: 'walk' | 'string' | 'space' | 'grade' | 'gates' | 'dig' | 'pour' | 'build' | 'days'
  place: Place
  /**
   * JSON pointer of the measure to enter, for what is missing.
   */
  field?: string
  says: Text
  remedies?: Remedy[]
}
export interface Place {
  line?: string
  run?: string
  post?: string
  bay?: string
  gate?: string
}
export interface Remedy {
  says: Text
  edits: Edit[]
  cost?: Cost
}
export interface Step {
  /**
   * Name of the rule.
   */
  rule: string
  says: Text
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
  kind: 'length' | 'ratio' | 'percent' | 'per height' | 'choice' | 'switch'
  /**
   * Value in use; millimetres for lengths; left out when not set.
   */
  value?: number | string | boolean
  /**
   * Usual value of the catalogue; left out when there is none.
   */
  usual?: number | string | boolean
  /**
   * The job's value differs from the usual one.
   */
  changed: boolean
  choices?: string[]
  /**
   * Where it was said: the nearest of post, kind of post, run, fence system, job, or the usual value.
   */
  from?: string
}
export interface Why {
  figure: string
  sentence: Text
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
  /**
   * Which database the revision is of: another one after each restore of a backup.
   */
  generation: string
  doc: Job
  /**
   * What this revision changed.
   */
  what: string
  savedAt: string
  canUndo: boolean
  canRedo: boolean
  name: string
  /**
   * What the document said when it was of an older version that this one cannot say, one sentence each.
   */
  left?: string[]
  /**
   * Why the document cannot be planned: it opens to be read, put back or taken out only.
   */
  problem?: string
  /**
   * The same, field by field.
   */
  wrong?: FieldError[]
  /**
   * Fields of the document that are kept but not used.
   */
  unknown: string[]
  /**
   * What was saved was laid over another window's change: the document has both.
   */
  merged?: boolean
}
export interface FieldError {
  field: string
  given: string
  allowed: string
}
export interface JobList {
  jobs: JobSummary[]
  /**
   * Jobs that fit, on all pages.
   */
  count: number
  /**
   * Jobs in the bin.
   */
  binned: number
}
export interface JobSummary {
  id: string
  name: string
  savedAt: string
  deleted: boolean
  /**
   * When a deleted job may go from the bin for good.
   */
  goneAt?: string
  /**
   * What follows is not worked out yet; an event tells when it is.
   */
  pending: boolean
  /**
   * Why the job cannot be read or planned, if it cannot.
   */
  problem?: string
  units: Units
  outline: Silhouette
  posts: number
  bags: number
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
   * Stations of its two posts.
   *
   * @minItems 2
   * @maxItems 2
   */
  ends: number[]
  /**
   * Bottom and top at its first post, bottom and top at its second.
   *
   * @minItems 4
   * @maxItems 4
   */
  corners: number[]
  gate: boolean
  /**
   * Not the regular bay, or its piece is cut.
   */
  odd: boolean
}
export interface History {
  revisions: RevisionSummary[]
  /**
   * There are older ones: ask for those before the last of these.
   */
  more: boolean
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
  /**
   * Kept however old it gets.
   */
  pinned: boolean
}
export interface CreateRequest {
  name?: string
  system?: 'imperial' | 'metric'
  doc?: Job
  what?: string
  /**
   * A job that is there to try, counted from 1.
   */
  example?: number
  answers?: Answers
}
export interface Answers {
  /**
   * Left out: the fence and its length.
   */
  name?: string
  system: 'imperial' | 'metric'
  /**
   * Fence type, by its id in the catalogue; left out: usual values.
   */
  fence?: string
  /**
   * Left out: the type's own.
   */
  height?: number
  /**
   * Left out: 60 ft or 20 m are assumed, 12 ft or 3.6 m between the posts of a bare gate, and the plan says so.
   */
  length?: number
  /**
   * Left out: none.
   */
  gate?: 'walk' | 'drive'
  /**
   * How much lower the far end is; left out: flat.
   */
  fall?: number
  /**
   * Frost depth; left out: estimated from the winter.
   */
  frost?: number
  /**
   * What the frost is estimated from where its depth is not known; left out: cold.
   */
  winter?: 'mild' | 'cold' | 'severe'
}
export interface Fences {
  fences: FenceType[]
  /**
   * How long a run of no type is taken to be that nobody measured.
   */
  assumed: number
}
export interface FenceType {
  id: string
  name: string
  says?: string
  /**
   * The height that it usually has.
   */
  height: number
  /**
   * How long a run of it is taken to be that nobody measured.
   */
  assumed: number
  /**
   * It is a bare gate, with no fence beside it.
   */
  gate?: boolean
  drawing?: Drawing
}
export interface Drawing {
  width: number
  /**
   * What the drawing takes of the frame's.
   */
  height: number
  x: Axis
  y: Axis
  layers: DrawnLayer[]
  marks: DrawnMark[]
  /**
   * What its marks look like, by their class: paths in pixels about their place.
   */
  signs: {
    [k: string]: string
  }
  labels: Placed[]
  /**
   * Labels that there was no room for.
   */
  left?: number
}
export interface Axis {
  /**
   * Where the zero lies.
   */
  zero: number
  /**
   * Pixels of a millimetre.
   */
  scale: number
}
export interface DrawnLayer {
  class: string
  material?: string
  /**
   * Name of the colour of a service's marks.
   */
  hue?: string
  /**
   * Closed shapes; else lines.
   */
  area?: boolean
  /**
   * Of its lines, millimetres of the real thing; left out where that is a matter of looks.
   */
  thick?: number
  /**
   * Least width that a shape is drawn with, pixels.
   */
  least?: number
  shapes: DrawnShape[]
}
export interface DrawnShape {
  of?: string
  /**
   * x and y by turns, millimetres; up is positive.
   */
  points: number[]
}
export interface DrawnMark {
  class: string
  hue?: string
  of?: string
  at: DrawnPoint
  /**
   * Degrees, leftward.
   */
  turn?: number
}
export interface DrawnPoint {
  x: number
  y: number
}
export interface Placed {
  class: string
  of?: string
  /**
   * What it says; a second line is set smaller.
   */
  lines: Text[]
  strong?: boolean
  at: DrawnPoint
  to?: DrawnPoint
  /**
   * Where the line of the measure lies, pixels: down the frame, or across it for an upright one; left out: on the drawing.
   */
  rule?: number
  /**
   * Which way it does not go along.
   */
  fixed?: 'x' | 'y'
  /**
   * Of its anchor.
   */
  x: number
  /**
   * Of the first line's foot.
   */
  y: number
  anchor: 'start' | 'middle' | 'end'
  /**
   * Degrees rightward, about its anchor.
   */
  turn?: number
  /**
   * Line to its place, x and y by turns.
   */
  lead?: number[]
}
export interface Examples {
  names: string[]
}
export interface SaveRequest {
  base: number
  /**
   * Of the base revision. Where it is left out, the number alone says which is meant.
   */
  generation?: string
  from?: Job
  doc: Job
  what: string
}
export interface ReplanRequest {
  doc: Job
  /**
   * Number of the plan that the asker has; 0 for none.
   */
  after: number
  /**
   * Drawings of it that are wanted with it.
   */
  views?: View[]
}
export interface View {
  of:
    | 'elevation'
    | 'map'
    | 'hole'
    | 'front'
    | 'above'
    | 'side'
    | 'swing'
    | 'drop'
    | 'stick'
    | 'along'
    | 'bay'
    | 'strips'
  run: string
  /**
   * From the side: the whole line that the run is on, corner after corner.
   */
  whole?: boolean
  /**
   * What it stresses.
   */
  stress?:
    | 'walk'
    | 'string'
    | 'space'
    | 'grade'
    | 'gates'
    | 'dig'
    | 'pour'
    | 'build'
    | 'paper'
    | 'as built'
  /**
   * From the side: the stretch that is drawn, of which what is beyond is left out.
   */
  from?: number
  to?: number
  /**
   * The corridor that the fence's bottom runs in.
   */
  least?: number
  most?: number
  /**
   * How far each post is at a time of the pour.
   */
  set?: SetPost[]
  /**
   * The hole, by its place among the run's cards.
   */
  card?: number
  /**
   * The bottom that the rules ask for, of a hole that was stopped.
   */
  wanted?: number
  /**
   * Nothing is said beside it.
   */
  bare?: boolean
  /**
   * The bay, by its id.
   */
  bay?: string
  /**
   * A bay: what hangs on posts and rails is drawn above them.
   */
  apart?: boolean
  gate?: string
  /**
   * A gate's front shows what is needed to hang it; else the measures of its opening.
   */
  hang?: boolean
  /**
   * The leaf, by the post that it hangs on.
   */
  leaf?: string
  /**
   * How far it is open, degrees: in is positive, out negative.
   */
  angle?: number
  /**
   * From the line to the kerb.
   */
  road?: number
  /**
   * From the line to what ends the room inside.
   */
  room?: number
  /**
   * Along the line: from its last post.
   */
  fromEnd?: boolean
  /**
   * 1 shows all of it.
   */
  closer?: number
  /**
   * How far the eye stands beside the line.
   */
  aside?: number
  /**
   * How far it stands back from the end post.
   */
  back?: number
  frame: Frame
}
export interface SetPost {
  run: string
  post: string
  /**
   * Its concrete is in.
   */
  in: boolean
  /**
   * What stands under its hole.
   */
  says: string
}
export interface Frame {
  width: number
  height: number
  x?: Axis
  y?: Axis
  /**
   * Kept free over the drawing.
   */
  top?: number
  bottom?: number
  /**
   * Most times that heights may be drawn larger than lengths; left out: 1.
   */
  stretch?: number
}
export interface Replanned {
  number: number
  /**
   * Ids of all runs, in their order.
   */
  runs: string[]
  plan: Plan
  /**
   * The drawings that were asked for, in their order.
   */
  drawings?: Drawing[]
}
export interface DrawRequest {
  doc: Job
  views: View[]
}
export interface Drawn {
  drawings: Drawing[]
}
export interface TapeRequest {
  text: string
  system: 'imperial' | 'metric'
  field?: string
}
export interface TableRequest {
  doc: Job
  table: 'setout' | 'posts' | 'bays' | 'holes' | 'gates' | 'pour' | 'curb'
  run: string
  from: number
  most: number
  /**
   * Column, by its id, whose order the rows are in; left out: the order of the line.
   */
  sort?: string
  /**
   * The largest first.
   */
  down?: boolean
  /**
   * Only rows in which this is read.
   */
  find?: string
}
export interface TableRows {
  name: string
  columns: Column[]
  rows: TableRow[]
  /**
   * How many rows there are in all.
   */
  count: number
}
export interface Column {
  /**
   * What files call it, with the unit behind it.
   */
  id: string
  /**
   * What people call it.
   */
  name: string
  kind:
    | 'text'
    | 'words'
    | 'count'
    | 'number'
    | 'flag'
    | 'tape'
    | 'short'
    | 'rise'
    | 'soil'
    | 'small'
    | 'mass'
    | 'moment'
    | 'force'
    | 'wind'
    | 'degrees'
  /**
   * Figure of the row's post or bay that explains it.
   */
  why?: string
  /**
   * What the table is read for.
   */
  main?: boolean
}
export interface TableRow {
  post?: string
  bay?: string
  /**
   * Lengths in millimetres, all else in words; null where there is nothing to say.
   */
  cells: unknown[]
}
export interface EditRequest {
  base: number
  /**
   * Of the base revision.
   */
  generation?: string
  /**
   * @maxItems 1000
   */
  edits: Edit[]
  what: string
}
export interface Saved {
  revision: number
  generation: string
  savedAt: string
  canUndo: boolean
  canRedo: boolean
  unknown: string[]
  /**
   * Edits that the server made on top: the names of posts.
   */
  made: Edit[]
  state?: JobState
}
export interface Head {
  revision: number
  generation: string
}
export interface MoveRequest {
  base: number
  /**
   * Of the base revision.
   */
  generation?: string
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
   * Of the units that it was written in.
   */
  system?: 'imperial' | 'metric'
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
  /**
   * Ways out: edits on top of the change that was refused.
   */
  ways?: Mend[]
  /**
   * Fields that another window changed to another value.
   */
  clashes?: Clash[]
  merged?: Job
  current?: JobState
}
export interface Mend {
  says: string
  edits: Edit[]
}
export interface Clash {
  /**
   * JSON pointer into the merged document.
   */
  path: string
  mine?: unknown
  theirs?: unknown
}
export interface Catalogue {
  bags: Bag[]
  posts: PostSize[]
  /**
   * The usual run of each system, with every choice and measure that a document leaves out as the rules take it.
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
  site: Site
  book: Book
  strings: StringKind[]
  services: Service[]
  /**
   * Ways to set a post.
   */
  methods: MethodChoice[]
  /**
   * For each system and each way of spacing that goes by a piece: the piece that is usual, with its joints.
   */
  ways: {
    [k: string]: {
      [k: string]: Spacing
    }
  }
  /**
   * What fields are chosen from, by their place in a run, the site, a page of the field book or the rules for holes: spacing/way, site/exposure, books/allow, hole/share.
   */
  choices: {
    [k: string]: Choice[]
  }
  /**
   * Kinds of fact that are seen on site, and what belongs to each.
   */
  sights: Sight[]
  /**
   * The rules for holes, in the order in which they are shown.
   */
  rules: Rule[]
  /**
   * Fence systems of both unit systems.
   */
  systems: CatalogueSystem[]
  soils: Soil[]
  supply: Supply
  /**
   * Hinges and latches, of both unit systems.
   */
  hardware: HardwareSet[]
  /**
   * Ways that gate leaves are made.
   */
  makes: LeafMake[]
  /**
   * Sheets that can be printed, in their order.
   */
  sheets: SheetKind[]
  /**
   * Whom sheets go to.
   */
  sets: SheetSet[]
  /**
   * What customers ask about: fields of the job's offer, each included, not included or not said.
   */
  offers: Choice[]
  /**
   * The smallest marks of each system's tapes, in millimetres.
   */
  marks: {
    [k: string]: number[]
  }
  /**
   * By how much posts may usually differ from the plan, by unit system.
   */
  tolerances: {
    [k: string]: Tolerances
  }
  /**
   * What can be decided about something that differs, by short names.
   */
  todo: Choice[]
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
export interface StringKind {
  id: string
  name: string
  /**
   * Newtons for each metre.
   */
  weight: number
  diameter: number
  /**
   * Usual pull, newtons.
   */
  pull: number
  /**
   * Pull that it stands without breaking, newtons.
   */
  most: number
  source: Source
}
export interface Service {
  id: string
  name: string
  /**
   * Of its marks on the ground, in words.
   */
  colour: string
  /**
   * Name of that colour in the interface.
   */
  token: string
  /**
   * Width either side of a mark that is dug by hand.
   */
  hand: number
  /**
   * Usual outside diameter, where it was not measured.
   */
  diameter: number
  /**
   * Public: the locating office marks it. Others are the owner's to find.
   */
  office: boolean
  source: Source
}
export interface MethodChoice {
  id: string
  name: string
  /**
   * As what was done: set ...
   */
  done: string
  /**
   * What it gives and costs.
   */
  costs: string
  /**
   * It sets a post in a hole.
   */
  hole: boolean
}
export interface Choice {
  value: string
  name: string
  /**
   * What it gives and costs.
   */
  costs?: string
}
export interface Sight {
  what: string
  measures?: 'length' | 'volume' | 'count'
  /**
   * The most that it can be; the least is 0, or as much below it where it can lie on either side.
   */
  most?: number
  /**
   * It can be negative.
   */
  sides?: boolean
  /**
   * It lies on one of two hands as the line is walked: with a station, it changes hands when the run is turned round.
   */
  handed?: boolean
  /**
   * It has a station.
   */
  placed?: boolean
  /**
   * What it can be about: job, run, post, gate.
   */
  about: string[]
}
export interface Rule {
  /**
   * Its place in what a level says, such as hole/floor.
   */
  field: string
  name: string
  entry: 'length' | 'ratio' | 'percent' | 'per height' | 'switch' | 'choice'
  part: 'depth' | 'added' | 'width' | 'filling' | 'top' | 'hinge'
  /**
   * Posts that it is for; left out: all.
   */
  posts?: 'gate' | 'end'
  /**
   * Stays empty while the rules decide.
   */
  byHand?: boolean
  /**
   * Said for a run or the whole job, not for single posts.
   */
  whole?: boolean
  where?: Condition
}
export interface Condition {
  field: string
  /**
   * Any of these choices; left out: more than nothing.
   */
  is?: string[]
  /**
   * None of these choices.
   */
  not?: string[]
}
export interface CatalogueSystem {
  id: string
  name: string
  /**
   * Catalogue system that a user's own one is a copy of.
   */
  from?: string
  /**
   * Unit system that its sizes are made in.
   */
  system: 'imperial' | 'metric'
  /**
   * What it is, in a sentence.
   */
  says?: string
  /**
   * What its posts are made of, in a word.
   */
  material?: string
  /**
   * What its bays look like: boards upright, slats across, pickets, bars, mesh, one sheet, or nothing between the rails. Left out: by its posts.
   */
  face?: 'boards' | 'slats' | 'pickets' | 'bars' | 'mesh' | 'sheet' | 'open'
  /**
   * A bare gate: no fence beside it.
   */
  gate?: boolean
  fence: Fence
  post: Post
  terminal?: Terminal
  spacing: Spacing
  grade: Grade
  hole?: HoleRules
  setting?: SettingRules
  /**
   * What it asks of posts of one kind.
   *
   * @maxItems 4
   */
  kinds?: KindRules[]
  /**
   * Ways to set its posts, the usual one first.
   *
   * @minItems 1
   * @maxItems 8
   */
  allowed: string[]
  /**
   * Ways that must not be used, and why.
   *
   * @maxItems 8
   */
  forbidden?: Forbidden[]
  /**
   * Kinds of post that must stand in concrete: those that take the pull.
   *
   * @maxItems 4
   */
  inConcrete?: string[]
  /**
   * Ways that makers rule out and crews use all the same: a choice, with its caution.
   *
   * @maxItems 8
   */
  mind?: Forbidden[]
  /**
   * What its material cannot be asked to do: cut posts, drill posts, drive posts, mortice posts, rack, cut wide, cut high. How far panels rack is grade/rack; what is never filled, neverFilled; how its posts may be set, allowed and forbidden.
   *
   * @maxItems 12
   */
  cannot?: string[]
  /**
   * Its hollow posts are never filled, but round a steel core up to the ground.
   */
  neverFilled?: boolean
  /**
   * @maxItems 12
   */
  cautions?: string[]
  tolerances?: Tolerances
  /**
   * What stands above ground, part by part. Of a user's own type, left out: those of the type that it is a copy of.
   *
   * @maxItems 60
   */
  parts?: FencePart[]
  /**
   * Order in which it is put together.
   *
   * @maxItems 40
   */
  steps?: string[]
  source: Source
}
export interface Soil {
  id: string
  name: string
  says: string
  /**
   * Lateral bearing, pounds per square foot for each foot of depth.
   */
  bearing: number
  /**
   * By what fraction it grows when it is dug.
   */
  bulking: number
  /**
   * How long it takes to dig, against easy soil.
   */
  digging: number
  /**
   * Dry, kilograms per cubic metre.
   */
  density: number
  /**
   * Water, per cent of the dry weight.
   */
  moisture: number
  /**
   * Watts per metre and kelvin, between frozen and not.
   */
  conductivity: number
  source: Source
}
export interface Supply {
  crew: CrewRate
  truck: Truck
  mix: Mix
  gravelBags: {
    [k: string]: Parcel
  }
  bulkBags: {
    [k: string]: Parcel
  }
  /**
   * Share of a layer of rocks that is room between them.
   */
  voids: number
  /**
   * Mass of a gate leaf where it is not known, kilograms for each square metre.
   */
  leaf: number
  /**
   * Shear that a steel pin is counted with, newtons for each square millimetre.
   */
  pinStrength: number
}
export interface CrewRate {
  /**
   * Cubic metres an hour that one person digs by hand.
   */
  hand: number
  /**
   * Depth an hour by auger.
   */
  auger: number
  /**
   * Minutes at each hole to set the auger up.
   */
  setup: number
  source: Source
}
export interface Truck {
  imperial: Order
  metric: Order
  source: Source
}
export interface Order {
  step: number
  short: number
}
export interface Mix {
  cement: number
  sand: number
  stone: number
  /**
   * Loose dry volume for one of concrete in place.
   */
  dry: number
  /**
   * Mass of water for one of cement.
   */
  water: number
  /**
   * Of loose cement, kilograms per cubic metre.
   */
  density: number
  /**
   * Bags of cement: name and mass.
   */
  bags: {
    [k: string]: CementBag
  }
  source: Source
}
export interface CementBag {
  name: string
  mass: number
}
export interface Parcel {
  name: string
  volume: number
}
export interface HardwareSet {
  name: string
  says: string
  system: 'imperial' | 'metric'
  takes: Hardware
  /**
   * Posts that it goes on: solid ones, hollow square ones (square), hollow round ones (round).
   */
  posts: string[]
  /**
   * Heaviest leaf that it is for, kilograms.
   */
  most: number
  source: Source
}
export interface LeafMake {
  id: string
  name: string
  /**
   * Kilograms for each square metre of face.
   */
  area: number
  /**
   * Kilograms for each metre of frame, round the edge and along the brace.
   */
  metre: number
  brace: 'strut' | 'tie' | 'unbraced'
  /**
   * What a leaf is made of and hung with, in each unit system.
   */
  parts?: {
    [k: string]: FencePart[]
  }
  source: Source
}
export interface SheetKind {
  id: string
  name: string
  stage: string
  of: 'job' | 'run' | 'gate'
}
export interface SheetSet {
  id: string
  name: string
  /**
   * What is in it, in words.
   */
  says: string
  kinds: string[]
}
export interface ReshapeRequest {
  doc: Job
  op: Op
}
export interface Op {
  do:
    | 'add run'
    | 'remove run'
    | 'move run'
    | 'split'
    | 'join'
    | 'reverse'
    | 'close'
    | 'open'
    | 'resize'
    | 'correct length'
    | 'outfit'
    | 'move corner'
    | 'add line'
    | 'remove line'
    | 'set off'
  /**
   * The line, by its id.
   */
  line: string
  /**
   * The run, by its id; for a corner, the run that starts there, left out for the end of an open line.
   */
  run?: string
  /**
   * Move run: the run that it comes to stand after; left out, it comes first.
   */
  after?: string
  /**
   * Split: level station. Resize and correct length: the new length, as taped. Set off: how far to the left of where it is; negative is to the right.
   */
  at?: number
  /**
   * Outfit: the fence system, in the catalogue or among the job's own; left out, none. Without a run it is for all runs of the line.
   */
  system?: string
  place?: MapPlace
}
export interface Changed {
  doc: Job
  /**
   * What was changed, for the history.
   */
  what: string
}
export interface SquareRequest {
  legA: number
  /**
   * Along the run whose string is moved.
   */
  legB: number
  /**
   * Degrees wanted between the runs.
   */
  angle: number
  /**
   * Diagonal as taped.
   */
  taped?: number
  /**
   * Length of the run whose string is moved.
   */
  far: number
  /**
   * Smallest mark of the tape.
   */
  mark: number
  system: 'imperial' | 'metric'
}
export interface Squared {
  diagonal: number
  three?: ThreeFourFive
  check?: SquareCheck
}
export interface SquareCheck {
  /**
   * What the diagonal should be, exactly.
   */
  diagonal: number
  /**
   * The angle that stands there, degrees.
   */
  angle: number
  /**
   * Its difference from the wanted one, degrees; positive is too open.
   */
  error: number
  /**
   * How far the far end of the run is out, square to it.
   */
  farEnd: number
  /**
   * How far the string is to be moved at the end of the taped leg.
   */
  atLeg: number
  /**
   * In: toward the other run; out: away from it.
   */
  move: 'none' | 'in' | 'out'
  /**
   * The diagonal is right to the tape's mark.
   */
  within: boolean
}
export interface PegRequest {
  midA: number
  midB: number
  endA: number
  endB: number
  farA: number
  farB: number
}
export interface PegTest {
  /**
   * True height of peg B over peg A.
   */
  difference: number
  /**
   * How far the line of sight climbs, millimetres for each metre; falling is negative.
   */
  tilt: number
  /**
   * What that makes at 30 m, 100 ft.
   */
  atThirty: number
  passes: boolean
}
export interface WalkRequest {
  doc: Job
  /**
   * The line, by its id.
   */
  line: string
  /**
   * From reading to reading.
   */
  every: number
}
export interface WalkReading {
  stop: Stop
  reading: number
  sight: number
  number: number
  of: number
  /**
   * Row of the field book's page that it stands in, from 0.
   */
  row: number
  entry: BookRow
}
export interface Stop {
  run: string
  /**
   * Station on the run, as taped.
   */
  at: number
  look: 'back' | 'side' | 'fore'
  /**
   * Set-up of the level, from 0.
   */
  setup: number
}
export interface PegReading {
  name: 'midA' | 'midB' | 'endA' | 'endB'
  reading: number
  sight: number
}
export interface OfficeRequest {
  doc: Job
  /**
   * Today, year-month-day.
   */
  day: string
}
export interface ImportRequest {
  doc: Job
  name: string
  text: string
  /**
   * Line, by its id, whose fence the new runs are built like, and which is replaced if asked.
   */
  line: string
  replace: boolean
  /**
   * Run that heights at stations belong to.
   */
  run?: string
  unit?: 'm' | 'mm' | 'ft' | 'in'
  /**
   * How far off a straight run points may lie.
   */
  off: number
  /**
   * Ground points that matter less are left out.
   */
  thin: number
}
export interface ImportPreview {
  format: 'csv' | 'gpx' | 'geojson'
  shape: 'profile' | 'plan'
  origin?: EarthPlace
  /**
   * How the file was read, for people.
   */
  understood: string[]
  points: FilePoint[]
  /**
   * Rows that could not be used; the first 200.
   */
  bad: BadRow[]
  badCount: number
  /**
   * Points that can be used; the list of points holds the first dozen.
   */
  count: number
  notes?: string[]
  /**
   * Corners of the line it makes.
   */
  places: MapPlace[]
  /**
   * Of its runs.
   */
  lengths?: number[]
  closed: boolean
  /**
   * Of a profile.
   */
  ground: GroundPoint[]
  /**
   * Ground points.
   */
  kept: number
  /**
   * Why it cannot be taken in as it is.
   */
  problem?: string
  what: string
  doc?: Job
}
export interface FilePoint {
  /**
   * Line of the file, from 1.
   */
  row: number
  /**
   * On the map, east; of a profile, the station.
   */
  x: number
  /**
   * On the map, north.
   */
  y: number
  height?: number
  /**
   * The file says that it is a corner.
   */
  corner?: boolean
  name?: string
}
export interface BadRow {
  /**
   * Line of the file, from 1.
   */
  row: number
  text: string
  why: string
}
export interface ExportRequest {
  doc: Job
  /**
   * dxf, svg, gpx, waypoints, geojson, csv, json, ground of one run, or a table.
   */
  what: string
  run?: string
  line: number
  view?: 'elevation' | 'map' | 'asbuilt' | 'strips'
  /**
   * For the file's name; 0 where the document is not kept as it is.
   */
  revision: number
}
export interface Exported {
  name: string
  type: string
  text: string
}
export interface Told {
  cautions: Caution[]
  levels: RuleLevel
  /**
   * In the plan's order.
   */
  runs: RunTold[]
}
export interface RunTold {
  run: string
  reminders: Caution[]
  /**
   * The rules for holes as they come out for the run, for each kind of post, and for the single posts that have their own.
   */
  levels: RuleLevel[]
  /**
   * Gates that can be put into it, and where each would go.
   */
  addGate: NewGate[]
  /**
   * What to do at each kind of hole, in order.
   */
  cards: Text[][]
  gates: GateTold[]
  /**
   * What to do on site to set the tops, in order.
   */
  tops: Text[]
}
export interface GateTold {
  /**
   * Measures that show that its two posts stand right, before anything is hung.
   */
  checks: GateCheck[]
  braces: LeafBrace[]
  /**
   * How each leaf's tip is lifted; null where it has not dropped.
   */
  adjust: Adjusting[]
  steps: GateStep[]
  after: GateStep[]
  order: GateStep[]
}
export interface Bill {
  items: Item[]
  /**
   * In the order of the plan.
   */
  runs: RunBill[]
}
export interface RunBill {
  run: string
  name: string
  items: Item[]
}
export interface BuildRequest {
  doc: Job
  run: string
  /**
   * Cut lists of the run by itself, as the truck goes; left out: of the whole job.
   */
  alone?: boolean
}
export interface Built {
  run: string
  /**
   * Name of its fence type; left out where it has none, and no parts are known.
   */
  type?: string
  /**
   * Those that count for nothing, and those left out, among them.
   */
  parts: BuiltPart[]
  /**
   * Order in which the type is put together.
   */
  steps: string[]
  /**
   * What a cut takes.
   */
  kerf: number
  /**
   * Shortest offcut that is kept.
   */
  keep: number
  /**
   * Of the run, or of the whole job.
   */
  cuts: CutList[]
}
export interface BuiltPart {
  part: FencePart
  /**
   * The run has it otherwise than its type, or the type has none.
   */
  own?: boolean
  /**
   * Of the gates' leaves.
   */
  gates?: boolean
  count: number
  width?: number
  /**
   * Of what comes by length.
   */
  laid?: number
  /**
   * Square metres that a finish coats.
   */
  area?: number
  joints?: number
  /**
   * Between pieces side by side: the spacer; the least of it where stretches differ.
   */
  gap?: number
  /**
   * The most of it, where stretches differ.
   */
  gapTo?: number
  /**
   * Gaps that are a mark wider.
   */
  wider?: number
  /**
   * Pieces that are ripped.
   */
  ripped?: number
  /**
   * The longest first.
   */
  lengths?: PartLength[]
  /**
   * Lengths beyond those that are listed.
   */
  more?: number
  /**
   * A whole number fills every bay as the gap may be.
   */
  fits: boolean
}
export interface PartLength {
  long: number
  /**
   * What they are ripped to.
   */
  wide?: number
  count: number
}
export interface CutList {
  /**
   * Of the item in the bill.
   */
  id: string
  what: string
  name: Text
  says: Text
  width: number
  thick: number
  /**
   * Lengths that it is sold in.
   */
  stock: number[]
  /**
   * Lengths are joined end to end, as rolls are.
   */
  joined?: boolean
  wants: Want[]
  /**
   * Bars with the same cuts once.
   */
  bars: Bar[]
  /**
   * Of all bars together, offcuts not among them.
   */
  bought: number
  /**
   * Of all pieces together.
   */
  used: number
  /**
   * Of offcuts that are worth keeping.
   */
  kept: number
  /**
   * Share of what is cut up that is neither built in nor worth keeping: ends and kerf.
   */
  waste: number
  /**
   * No way to cut buys less than this in all.
   */
  bound: number
  /**
   * No way to cut buys less than this one.
   */
  proved: boolean
  /**
   * Pieces that no length that is sold gives.
   */
  short?: Want[]
  /**
   * By how much pieces are cut short, since more come from a length so.
   */
  snug?: number
}
export interface Want {
  /**
   * What they are.
   */
  part: string
  run: string
  /**
   * Bay that they begin in; left out for parts of gates.
   */
  from?: string
  /**
   * Bay that they end in, where that is another.
   */
  to?: string
  gate?: string
  /**
   * From the ground up, 1 first.
   */
  row?: number
  long: number
  /**
   * What they are ripped to.
   */
  wide?: number
  count: number
}
export interface Bar {
  length: number
  count: number
  /**
   * At hand from another job.
   */
  offcut?: boolean
  /**
   * In the order of cutting, the longest first.
   */
  cuts: BarCut[]
  /**
   * Of each.
   */
  left: number
  /**
   * What is left is worth keeping.
   */
  keep?: boolean
}
export interface BarCut {
  long: number
  /**
   * From one bar.
   */
  each: number
  /**
   * What they are ripped to, where they all are.
   */
  wide?: number
  /**
   * The same in words: part, run, bays, rows.
   */
  where: string
  /**
   * Where those of all the bars go.
   */
  goes: Want[]
}
export interface SkyRequest {
  doc: Job
  /**
   * Time zone of the site, by its name in the zone database.
   */
  zone: string
  /**
   * Today, year-month-day: from then on where the pour has no day yet.
   */
  day: string
}
export interface BoardLine {
  done: number
  of: number
  board?: Board
}
export interface Board {
  crews: CrewDays[]
  /**
   * Jobs with a first day that are beyond what one board takes.
   */
  left: number
  /**
   * Jobs that could not be read or planned.
   */
  wrong: BoardWrong[]
}
export interface CrewDays {
  /**
   * Empty: of the jobs that name none, which are taken as one crew's.
   */
  name: string
  /**
   * The one that starts first goes first; the others keep clear of it.
   */
  jobs: OnBoard[]
}
export interface OnBoard {
  id: string
  name: string
  revision: number
  /**
   * As the job stands.
   */
  days: OnJob[]
  /**
   * Left out: some tasks have no place.
   */
  finish?: string
  /**
   * Days on which its crew is on a job that goes first too.
   */
  clash: BoardHit[]
  clear?: BoardClear
}
export interface OnJob {
  date: string
  from: string
  to: string
  tasks: string[]
}
export interface BoardHit {
  date: string
  /**
   * Name of the job that goes first.
   */
  other: string
}
export interface BoardClear {
  /**
   * Days to keep clear of: the job's /days/taken.
   */
  taken: string[]
  days: OnJob[]
  /**
   * Left out: some tasks have no place then.
   */
  finish?: string
}
export interface BoardWrong {
  id: string
  name: string
  why: string
}
export interface End {
  end: 'done' | 'failed'
  problem?: Problem
}
export interface WeatherRequest {
  text: string
  /**
   * Hours that the site's clock is ahead of UTC, for times without an offset.
   */
  offset: number
}
export interface WeatherRead {
  hours: WeatherHour[]
  /**
   * Columns and rows that were not used.
   */
  notes: string[]
}
export interface Schedule {
  /**
   * Left out: not set yet.
   */
  start?: string
  /**
   * The last day.
   */
  finish?: string
  people: number
  /**
   * When the crew leaves, as entered or as usual.
   */
  from: string
  to: string
  /**
   * Minutes each way.
   */
  travel: number
  /**
   * Hours of the whole crew on site.
   */
  hours: number
  trips: number
  /**
   * Every order was weighed: nothing ends earlier.
   */
  best: boolean
  /**
   * Day of the pour where it was found by the weather; left out where it is set, or the weather is not known.
   */
  pour?: string
  /**
   * Nothing could end before this day; where not every order was weighed.
   */
  bound?: string
  tasks: AgendaTask[]
  days: OnDay[]
  /**
   * What nobody works on, and what is waited for.
   */
  waits: AgendaWait[]
  /**
   * Tasks that have no place.
   */
  left: string[]
  /**
   * What would end earlier.
   */
  sooner: Sooner[]
  asks: DayAsk[]
  findings: Finding[]
}
export interface AgendaTask {
  id: string
  name: string
  says?: string
  /**
   * Of what it counts.
   */
  count: number
  /**
   * Minutes of one person for each.
   */
  each: number
  /**
   * Its minutes are a rate that can be changed; the others follow from the holes or the pour.
   */
  rated?: boolean
  /**
   * Of the whole crew.
   */
  hours: number
  /**
   * It begins on a day that was chosen.
   */
  moved?: boolean
  /**
   * Day and time, by the site's clock; left out where it has no place.
   */
  begin?: string
  end?: string
  /**
   * Earliest that it could begin, by what it waits for: day and time.
   */
  after?: string
}
export interface OnDay {
  date: string
  hours: number
  /**
   * On site from, by the site's clock.
   */
  from: string
  to: string
  parts: AgendaPart[]
  /**
   * What is on the truck.
   */
  load: Carried[]
  /**
   * Who comes beside the crew: truck, machine, inspector, office.
   */
  who: string[]
  /**
   * What is looked at before leaving.
   */
  checks: string[]
  cautions: Text[]
  /**
   * Degrees Celsius; left out where the weather is not known.
   */
  low?: number
  high?: number
  /**
   * Millimetres while the crew is there.
   */
  rain?: number
}
export interface AgendaPart {
  task: string
  name: string
  from: string
  to: string
  hours: number
  /**
   * It goes on another day.
   */
  more?: boolean
  /**
   * Posts that it is about, by run and name.
   */
  posts?: string[]
}
export interface Carried {
  what: string
  many: Text
  of: Text
}
export interface AgendaWait {
  for: string
  /**
   * Day and time.
   */
  until: string
  /**
   * By what crews usually wait: the weather is not known for so long.
   */
  usual?: boolean
}
export interface Sooner {
  says: Text
  edits: Edit[]
  cost?: Cost
  finish: string
  /**
   * By how many days earlier.
   */
  days: number
  /**
   * Hours of one person more, or fewer.
   */
  hours: number
}
export interface DayAsk {
  /**
   * JSON pointer of what to enter.
   */
  field: string
  says: Text
}
export interface Day {
  /**
   * Left out: not set yet.
   */
  date?: string
  from?: string
  to?: string
  lunch?: string
  lunchEnd?: string
  /**
   * Left out where the place on earth is not known.
   */
  sunrise?: string
  sunset?: string
  by: 'truck' | 'bags' | 'site'
  clock: DayClock
  /**
   * Degrees Celsius under which concrete is protected.
   */
  protect: number
  people: number
  /**
   * What is poured, by the mix.
   */
  mixes: DayMix[]
  /**
   * The day's weather and what it does to the mix, half hour by half hour; empty where the weather is not known.
   */
  curve: DayHour[]
  /**
   * Of the truck; empty where concrete is mixed on site.
   */
  loads: DayLoad[]
  /**
   * In the order in which they are set.
   */
  posts: DayPost[]
  /**
   * Mowing curb, bay by bay, each run's after its posts.
   */
  curb: DayCurb[]
  /**
   * That the crew takes for all of it.
   */
  minutes: number
  /**
   * Posts, and bays of curb, that are not set in the days that were looked at.
   */
  left: string[]
  /**
   * On which concrete is poured.
   */
  days: number
  /**
   * How fast each kind of work goes that there is on the day.
   */
  rates: DayRate[]
  /**
   * Posts that the crew sets in an hour.
   */
  perHour: number
  /**
   * Posts that one load bears on this day before it stiffens, at its best; 0 where it is not known.
   */
  bears: number
  order: DayOrder
  /**
   * When everything that was poured may be loaded.
   */
  waits: DayWait[]
  /**
   * The weather of the pour is known.
   */
  known: boolean
  /**
   * What is still to be entered.
   */
  asks: DayAsk[]
  findings: Finding[]
}
export interface DayClock {
  from: string
  to: string
  lunch: string
  /**
   * Minutes.
   */
  transit: number
}
export interface DayMix {
  id: string
  name: string
  says: string
  posts: number
  /**
   * In the holes.
   */
  volume: number
  /**
   * With waste.
   */
  buy: number
  source: Source
}
export interface DayHour {
  at: string
  /**
   * Degrees Celsius.
   */
  temp: number
  /**
   * Minutes that what comes then can be worked.
   */
  works: number
  /**
   * Evaporation, kilograms to the square metre and hour; left out where humidity or wind is not known.
   */
  dries?: number
  /**
   * It dries so fast that it cracks.
   */
  cracks?: boolean
  /**
   * Metres per second.
   */
  wind?: number
  humidity?: number
  /**
   * Millimetres in the hour.
   */
  rain?: number
  /**
   * Between sunrise and sunset; true where the place is not known.
   */
  light: boolean
}
export interface DayLoad {
  comes: string
  /**
   * When its last post is in.
   */
  done: string
  /**
   * Until when it could be worked.
   */
  worked: string
  /**
   * With waste.
   */
  volume: number
  /**
   * Rounded up to what is ordered.
   */
  order: number
  /**
   * So little that a charge for a short load is usual.
   */
  short?: boolean
  posts: string[]
  /**
   * Bays of mowing curb.
   */
  curb: string[]
  /**
   * Degrees Celsius when it comes.
   */
  temp?: number
}
export interface DayPost {
  run: string
  post: string
  kind: string
  method: string
  mix: string
  /**
   * From 1; 0 where it is mixed on site.
   */
  load: number
  /**
   * When it is set; left out where it is not.
   */
  at?: string
  done?: string
  /**
   * With waste.
   */
  volume: number
  /**
   * Of its mix, as a decimal.
   */
  bags?: number
  /**
   * To mix, or to pour into the hole.
   */
  water?: number
  /**
   * Stabbed: how high the concrete stands over the hole's bottom before the post is pushed in.
   */
  fill?: number
  /**
   * Stabbed: how much it rises when the post is in.
   */
  rises?: number
  /**
   * Stabbed: when to come back for its height and plumb, before it stiffens.
   */
  back?: string
  /**
   * When a finger no longer sinks in, about: trowel, or cover with soil.
   */
  finish?: string
  /**
   * When it may be loaded, one for each wait.
   */
  ready: DayReady[]
}
export interface DayReady {
  id: string
  /**
   * Left out: beyond what is known of the weather.
   */
  at?: string
}
export interface DayCurb {
  run: string
  bay: string
  /**
   * From 1; 0 where it is mixed on site.
   */
  load: number
  /**
   * When it is placed and screeded; left out where it is not.
   */
  at?: string
  done?: string
  length: number
  /**
   * With waste.
   */
  volume: number
  /**
   * As a decimal.
   */
  bags?: number
  /**
   * To mix.
   */
  water?: number
  /**
   * When a finger no longer sinks in, about: trowel, edge, cut the joints, broom.
   */
  finish?: string
}
export interface DayRate {
  /**
   * Way in which posts are set; left out for the mowing curb.
   */
  method?: string
  name: string
  /**
   * Of one person for a post, or for a meter of curb.
   */
  minutes: number
  usual: number
  /**
   * It is the crew's own.
   */
  own?: boolean
}
export interface DayOrder {
  /**
   * Of all loads, as ordered.
   */
  volume: number
  slumpLeast?: number
  slumpMost?: number
  /**
   * Largest stone that goes between post and hole.
   */
  stone?: number
  bags: BagOrder[]
  /**
   * Site mix: bags of cement.
   */
  cement?: number
  sand?: number
  gravel?: number
  /**
   * Bags that are mixed in an hour.
   */
  bagsPerHour?: number
}
export interface BagOrder {
  bag: string
  count: number
  /**
   * Of all of them.
   */
  mass: number
  pallets: number
  /**
   * To one bag.
   */
  water: number
}
export interface DayWait {
  id: string
  name: string
  /**
   * Of the strength of 28 days.
   */
  share: number
  /**
   * By the weather; left out where it is not known for so long.
   */
  at?: string
  /**
   * After the last post.
   */
  hours?: number
  /**
   * Hours that crews commonly wait in such weather, from and to.
   *
   * @minItems 2
   * @maxItems 2
   */
  usual: number[]
  /**
   * The usual hours are those below 15 °C (60 °F).
   */
  cool: boolean
}
export interface Log {
  /**
   * In the order of the lines; a corner post once.
   */
  posts: RecordPost[]
  /**
   * Posts that are so far, or further.
   */
  staked: number
  dug: number
  set: number
  poured: number
  built: number
  /**
   * Id of the first post that is least far; left out where all are built.
   */
  next?: string
  /**
   * Deviations on which something is to be decided.
   */
  open: number
  bags?: RecordBags
  findings: Finding[]
  /**
   * What was done and found on each day; what has no time is on none.
   */
  days: Daily[]
  /**
   * How fast it goes.
   */
  paces: Pace[]
  /**
   * What differs most of each kind, the worst first.
   */
  worst: Worst[]
  /**
   * Rails that were cut, against their bays as they are now.
   */
  cut: CutRail[]
  /**
   * What is to be done before the crew leaves for good.
   */
  punch: Punch[]
  /**
   * When to come back; empty while the last day is not known.
   */
  later: Reminder[]
}
export interface RecordPost {
  run: string
  id: string
  label: string
  /**
   * 0 nothing yet, 1 staked, 2 dug, 3 set, 4 poured, 5 built.
   */
  stage: number
  /**
   * Depth to dig.
   */
  planned: number
  depth?: number
  width?: number
  /**
   * Beside the string.
   */
  off?: number
  /**
   * Out of plumb over its height.
   */
  plumb?: number
  bags?: number
  gravel?: number
  /**
   * What stopped the hole, or was met in it: rock, water, root or service.
   */
  hit?: string
  /**
   * Depth at which it was met.
   */
  hitAt?: number
  /**
   * The same across the fence.
   */
  across?: number
  /**
   * Its top mark over where it should be.
   */
  top?: number
  /**
   * Station at which it was measured to stand.
   */
  at?: number
  /**
   * At which it stands by the plan, as it follows what was measured.
   */
  station: number
  /**
   * What differs from the plan, whether it is let go or not.
   */
  deviations: Deviation[]
  notes: string[]
  /**
   * Of the last that was written down, RFC 3339.
   */
  when?: string
  who?: string
}
export interface Deviation {
  /**
   * Where it was seen.
   */
  fact: string
  /**
   * landed, line, plumb, lean, depth, width or top; rock, water or root for a hole that was stopped.
   */
  what: string
  /**
   * Along the fence: on is more; a hole: deeper or wider is more; a top: over is more.
   */
  by: number
  /**
   * So much is let go.
   */
  allowed: number
  state: 'let go' | 'open' | 'decided' | 'spaced'
  /**
   * What was decided.
   */
  way?: string
  says: Text
}
export interface RecordBags {
  /**
   * For the whole job, as planned.
   */
  bought: number
  used: number
  /**
   * In which they were counted.
   */
  holes: number
  /**
   * For those holes.
   */
  planned: number
  /**
   * For the whole job, if it goes on so.
   */
  expect: number
  /**
   * Enough holes were counted to go by.
   */
  sure: boolean
  /**
   * Whole bags that lack; 0 where they last.
   */
  short: number
  /**
   * Post that they do not last to, by its label.
   */
  by?: string
}
export interface Daily {
  /**
   * Year-month-day.
   */
  date: string
  /**
   * When the first thing was written down.
   */
  from: string
  /**
   * When the last was.
   */
  to: string
  who: string[]
  done: DailyDone[]
  /**
   * What differed from the plan, with what was decided.
   */
  found: DailyFound[]
  notes: DailyNote[]
  bags: number
  /**
   * In which bags were counted.
   */
  holes: number
  gravel: number
  /**
   * Things that were written down on the day and struck out since.
   */
  struck: number
  /**
   * Degrees Celsius; left out where the weather is not known.
   */
  low?: number
  high?: number
  /**
   * Millimetres.
   */
  rain?: number
}
export interface DailyDone {
  what: 'staked' | 'dug' | 'set' | 'poured' | 'built' | 'cut'
  run: string
  /**
   * Their labels, in the order of the line; empty where it is the run or a gate.
   */
  posts: string[]
  /**
   * The gate that is built.
   */
  gate?: string
}
export interface DailyFound {
  run: string
  /**
   * Its label.
   */
  post: string
  says: Text
  state: 'let go' | 'open' | 'decided' | 'spaced'
  way?: string
}
export interface DailyNote {
  /**
   * Label of its post; empty where it is about no post.
   */
  on: string
  run?: string
  says: string
  photo?: string
}
export interface Pace {
  what: 'dug' | 'set' | 'poured'
  /**
   * That it rests on.
   */
  posts: number
  /**
   * Of the whole crew, for one.
   */
  minutes: number
  /**
   * The same, as planned for those posts.
   */
  planned: number
  /**
   * Posts that are not so far yet.
   */
  left: number
  /**
   * Of the whole crew, that they take: as planned for them, times what those before took over their plan.
   */
  hours: number
  /**
   * Enough were timed to go by.
   */
  sure: boolean
}
export interface Worst {
  /**
   * Where it was seen.
   */
  fact: string
  /**
   * landed, line, plumb, lean, depth, width or top; rock, water or root for a hole that was stopped.
   */
  what: string
  /**
   * Along the fence: on is more; a hole: deeper or wider is more; a top: over is more.
   */
  by: number
  /**
   * So much is let go.
   */
  allowed: number
  state: 'let go' | 'open' | 'decided' | 'spaced'
  /**
   * What was decided.
   */
  way?: string
  says: Text
  run: string
  /**
   * Its id.
   */
  post: string
  label: string
}
export interface CutRail {
  fact: string
  run: string
  /**
   * Label of the bay that they were cut for.
   */
  bay: string
  /**
   * As cut.
   */
  long: number
  /**
   * What the bay needs now.
   */
  needs: number
  fits: boolean
  /**
   * To cut off, where they fit.
   */
  trim: number
  /**
   * Bay in which rails that no longer fit can be used, by its label; left out where there is none.
   */
  use?: string
  /**
   * To cut off there.
   */
  off: number
}
export interface Punch {
  run: string
  /**
   * Its id.
   */
  post?: string
  /**
   * Of the post, or name of the gate.
   */
  label?: string
  says: Text
}
export interface Reminder {
  /**
   * Stable, for programs: gates or spring.
   */
  id: string
  /**
   * Year-month-day.
   */
  date: string
  says: Text
}
export interface Usual {
  dig: Learned
  set: Learned
  bags: Learned
  jobs: number
  /**
   * Share of concrete beyond what is computed, as it comes of the bags: within what a job takes.
   */
  waste: number
  crew?: Crew
}
export interface Learned {
  value: number
  posts: number
}
export interface KeptPhotos {
  photos: KeptPhoto[]
}
export interface KeptPhoto {
  id: string
  taken: string
  width: number
  height: number
  /**
   * Bytes.
   */
  size: number
}
export interface GaugeRequest {
  doc: Job
  /**
   * Its id.
   */
  post: string
  /**
   * What is measured.
   */
  of: 'gap' | 'line' | 'depth' | 'width' | 'plumb' | 'lean' | 'top'
}
export interface Gauged {
  device: 'tape' | 'level' | 'inclinometer'
  value: number
}
export interface AmendRequest {
  doc: Job
  /**
   * Id of one post, whatever was decided there. Left out: all of which something is to be decided.
   */
  post?: string
}
export interface Amended {
  deviations: Amending[]
}
export interface Amending {
  /**
   * Its id.
   */
  post: string
  /**
   * Fact that says what differs.
   */
  fact: string
  says: Text
  /**
   * The cheapest sound way first.
   */
  ways: Way[]
}
export interface Way {
  /**
   * Stable, for programs; kept with the decision.
   */
  id: string
  name: Text
  says?: Text
  /**
   * Of one person, about.
   */
  minutes: number
  cost?: Cost
  /**
   * Posts that stand elsewhere then.
   */
  moves: Move[]
  edits: Edit[]
}
export interface Move {
  post: string
  label: string
  from: number
  to: number
}
export interface Compared {
  run: string
  /**
   * As it is first, then the least waste.
   */
  choices: StockChoice[]
}
export interface StockChoice {
  /**
   * Stable, for programs.
   */
  id: string
  name: Text
  /**
   * It is how the run is planned.
   */
  now: boolean
  /**
   * What takes it.
   */
  edits: Edit[]
  /**
   * Share of all lengths that is neither built in nor worth keeping.
   */
  waste: number
  /**
   * Of all lengths together.
   */
  bought: number
  posts: number
  bays: number
  /**
   * To cut.
   */
  pieces: number
}
export interface ExplainRequest {
  doc: Job
  figure: Figure
}
export interface Figure {
  /**
   * Line, for its corners and its closing.
   */
  line?: string
  /**
   * Run; left out for the whole job's totals and for a line's figures.
   */
  run?: string
  of:
    | 'post'
    | 'bay'
    | 'segment'
    | 'gate'
    | 'string'
    | 'tops'
    | 'part'
    | 'totals'
    | 'corner'
    | 'closing'
  /**
   * Of the post, bay or gate; of a corner the run that starts there; the place of the segment in its list.
   */
  id?: string
  /**
   * Which of its figures: a post's station, top, holeWidth, holeDepth, concrete, stock or gust; a bay's spacing, gap or lean; a gate's inside, clear, swing or pull; a string's constant, sag or drift; concrete, gravel, hours or spoil in all.
   */
  what?: string
}
export interface Explained {
  figure: string
  sentence: Text
  /**
   * The rules that spoke.
   */
  steps: Step[]
  /**
   * What the first steps asked for, in their order, where rules compete.
   */
  asked?: number[]
  caution?: string
}
export interface AdviseRequest {
  doc: Job
  findings?: string[]
}
export interface Advised {
  /**
   * Name of the finding.
   */
  id: string
  remedies: Remedy[]
  more?: Finding
}
export interface WaysRequest {
  doc: Job
  run: string
  post: string
}
export interface Ways {
  ways: WayOut[]
}
export interface AlternativesRequest {
  doc: Job
  run: string
}
export interface Alternatives {
  run: string
  layouts: Alternative[]
}
export interface Alternative {
  /**
   * Stable, for programs.
   */
  id: string
  name: string
  says: Text
  /**
   * What takes it; empty for the layout as it is.
   */
  edits: Edit[]
  cost: Cost
  posts: number
  bags: number
  /**
   * Pieces cut.
   */
  cut: number
  /**
   * Odd bays.
   */
  odd: number
  /**
   * Holes that run into something, and demands given up.
   */
  clashes: number
  drawing: Silhouette
}
export interface Looks {
  run: string
  looks: LookChoice[]
}
export interface LookChoice {
  /**
   * Stable, for programs.
   */
  id: string
  name: string
  says: Text
  /**
   * It is how the run is planned.
   */
  now: boolean
  /**
   * What takes it.
   */
  edits: Edit[]
  cost: Cost
  /**
   * Soil to cut.
   */
  cut: number
  /**
   * Soil to fill.
   */
  fill: number
  /**
   * Deepest cut or fill.
   */
  deepest: number
  /**
   * Longest post that is needed.
   */
  longest: number
  /**
   * Posts for which no stock length is long enough.
   */
  stockShort: number
  /**
   * Posts at which the top steps or changes slope.
   */
  breaks: number
  /**
   * Panels that would lean more than they can.
   */
  racked: number
  /**
   * Greatest step of the top at a post.
   */
  mostStep: number
  posts: number
  /**
   * Posts to buy, by length, the shortest first.
   */
  stock: Stock[]
  bags: number
  /**
   * Infill boards.
   */
  boards: number
  drawing: Silhouette
}
export interface Pages {
  count: number
  width: number
  height: number
}
export interface Places {
  found: Found[]
}
export interface Found {
  /**
   * Of the job.
   */
  name: string
  /**
   * Address on this server.
   */
  path: string
}
export interface Help {
  stages: Stage[]
  terms: Term[]
}
export interface Stage {
  id: string
  name: string
  about: string
}
export interface Term {
  term: string
  means: string
}
export interface Printing {
  done?: number
  of?: number
  /**
   * Token to fetch the file with.
   */
  ready?: string
  name?: string
  /**
   * Another file is being written first.
   */
  waiting?: boolean
}
export interface Event {
  job?: string
  /**
   * The job's current revision.
   */
  revision?: number
  /**
   * What the revision changed.
   */
  what?: string
  kind: 'saved' | 'deleted' | 'put back' | 'described' | 'reset'
}
export interface Keeping {
  /**
   * Data folder.
   */
  folder: string
  /**
   * Size of the database.
   */
  bytes: number
  jobs: number
  revisions: number
  /**
   * What is the matter with the database, and what to do.
   */
  trouble?: string
  /**
   * In the data folder, the newest first.
   */
  backups: KeptBackup[]
  replica?: ReplicaState
  trial?: TrialState
  /**
   * A demo: gone when it stops.
   */
  throwaway: boolean
  tidying: TidyingState
}
export interface KeptBackup {
  name: string
  why: string
  at: string
  bytes: number
}
export interface ReplicaState {
  at: string
  /**
   * Why it takes nothing, and what to do.
   */
  wrong?: string
  /**
   * Since when it is as it is.
   */
  since?: string
  /**
   * When it last had all that was saved.
   */
  held?: string
  /**
   * Something that was saved is not there yet.
   */
  behind: boolean
}
export interface TrialState {
  at: string
  name: string
  jobs: number
  failed?: string
  /**
   * When one was last put back well.
   */
  held?: string
}
export interface TidyingState {
  on: boolean
  /**
   * When it may go; left out before it is announced.
   */
  due?: string
  revisions: number
  /**
   * From the bin.
   */
  jobs: number
}
export interface BackupRequest {
  name: string
}
export interface TidyingRequest {
  on: boolean
}
export interface PinRequest {
  revision: number
  pinned: boolean
}
