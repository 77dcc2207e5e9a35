// .x.mts
import v8 from "node:v8";
import { readFileSync as readFileSync2 } from "node:fs";

// tests/support/demo-rows.ts
import { readdirSync, readFileSync } from "node:fs";
import path from "node:path";

// src/formats/archive/documents.ts
import { z as z16 } from "zod";

// src/core/shell/job/entities/fields.ts
import { z } from "zod";
var id = z.uuid();
var at = z.iso.datetime().refine((iso) => iso >= "1900" && iso < "2200", { message: "a date between 1900 and 2200" });
var UNKEPT = /[\0\p{Cs}]/u;
var words = z.string().refine((text4) => !UNKEPT.test(text4), { message: "holds a sign that cannot be kept" });
var code = words.trim().min(1).max(40);
var line = words.trim().max(200);
var name = line.min(1);
var text = words.max(2e4);
var author = words.trim().min(1).max(80);
var personId = id.nullable().default(null);
var count = z.int().min(0);
var version = z.int().min(1);
var length = z.number().min(-1e5).max(1e5);
var limit = z.number().positive().max(1e3);
var SIDES = ["left", "right", "centre"];
var side = z.enum(SIDES);
var measure = z.enum(["tip", "level"]);

// src/core/shell/job/entities/bench.ts
import { z as z2 } from "zod";
var BENCH_KINDS = ["fixture", "clamps", "ownFrame", "stands"];
var bench = z2.strictObject({ id, name, kind: z2.enum(BENCH_KINDS) });
var size = length.min(0);
var benchVersion = z2.strictObject({
  id,
  benchId: id,
  number: z2.int().min(1),
  /** Length of the rails, mm. */
  rails: size,
  /** Distance of two holes along them, and where the first stands. */
  pitch: length.positive(),
  firstHole: size,
  /** A beam: its length across, its width along, its top over the rails, and how many there are. */
  span: size,
  beamWidth: size,
  beamTop: size,
  beams: count.max(200),
  /** How far fore and aft of its beam's middle a head can stand, and the room a tower needs across. */
  reach: size,
  footprint: size,
  note: line,
  validFrom: at
});
var SHELF_KINDS = ["piece", "head", "clamp", "stand"];
var shelfItem = z2.strictObject({
  id,
  benchVersionId: id,
  kind: z2.enum(SHELF_KINDS),
  code,
  height: size,
  count: count.max(1e3),
  /** How far its screw, or its thread, goes, mm. */
  travel: size,
  /** How far one turn lifts, mm; empty where it is shimmed or fixed. */
  threadPitch: length.positive().nullable(),
  /** Holes it fits, mm across; empty: any. */
  fitsLeast: size.nullable(),
  fitsMost: size.nullable(),
  /** Play of a head in its hole, mm. */
  clearance: size,
  /** kg; empty where nobody knows. */
  rating: length.positive().nullable()
});

// src/core/shell/job/entities/finding.ts
import { z as z3 } from "zod";
var FINDING_SORTS = [
  "other",
  "oldWeld",
  "metalThickness",
  "coatingThickness",
  "crease",
  "crack",
  "rust",
  "filler",
  "notSeen",
  "pressTest"
];
var WELD_GRADES = ["fused", "lyingOnTop", "cracked"];
var findingDetail = z3.strictObject({
  entryId: id,
  sort: z3.enum(FINDING_SORTS),
  /** How an old weld holds. */
  grade: z3.enum(WELD_GRADES).nullable(),
  /** Thickness before and after, mm. */
  before: length.positive().nullable(),
  after: length.positive().nullable(),
  weight: z3.enum(["structural", "cosmetic"]).nullable(),
  /** Seen on one side: the other is still to be looked at. */
  otherSide: z3.boolean()
});
var decisionDetail = z3.strictObject({
  entryId: id,
  hours: z3.number().min(0).max(1e4).nullable(),
  ownerSays: z3.enum(["yes", "no"]).nullable(),
  ownerSaidAt: at.nullable()
});
var partTag = z3.strictObject({
  id,
  jobId: id,
  number: count.min(1),
  part: name,
  takenFrom: line,
  state: line,
  shelf: line,
  /** It is not scrapped before this. */
  keepUntil: line,
  at,
  author,
  personId,
  version
});

// src/core/shell/job/entities/fitting.ts
import { z as z4 } from "zod";
var HUNG_KINDS = ["door", "bonnet", "bootLid", "tailgate", "wing", "skin"];
var EDGES = ["front", "rear", "top", "bottom", "left", "right"];
var hungPanel = z4.strictObject({
  id,
  jobId: id,
  kind: z4.enum(HUNG_KINDS),
  side,
  /** From edge to edge over its middle, mm: along the car, or across it where the panel lies across; and the other way. */
  long: length.positive(),
  high: length.positive(),
  /** The edge its hinges are on; empty where it is bolted or set. */
  hungAt: z4.enum(EDGES).nullable(),
  /** No gap gets smaller than this through the swing, mm. */
  leastGap: length.min(0),
  /** It is not the one that stays: its gaps open again when the final one comes. */
  standIn: z4.boolean(),
  /** Its mountings say for certain where it belongs, or it is known good: others are judged by it. */
  sure: z4.boolean(),
  /** It is left loose until this other panel is set. */
  floatsUntilId: id.nullable(),
  note: text,
  version
});
var panelSeam = z4.strictObject({
  hungId: id,
  seamId: id,
  edge: z4.enum(EDGES),
  /** Its first station is at the far end: the rear, the top or the right one. */
  turned: z4.boolean()
});
var SETTING_KINDS = ["slot", "shims", "bend", "hold"];
var SETTING_WAYS = ["long", "high", "out"];
var panelSetting = z4.strictObject({
  id,
  hungId: id,
  ordinal: count,
  name,
  kind: z4.enum(SETTING_KINDS),
  /** Where on the panel, from its middle along its length and its height, mm. */
  x: length,
  y: length,
  /** The way it moves that place; empty where it moves no rigid panel and its effect was read. */
  way: z4.enum(SETTING_WAYS).nullable(),
  /** From where it hangs now, mm or turns; of a hold nothing. */
  least: length,
  most: length,
  /** Empty where anything between is possible; of shims what the shelf has is possible. */
  step: length.positive().nullable(),
  /** What is in there now beyond what the maker puts there, mm; negative where some is left out. */
  inNow: length
});
var settingEffect = z4.strictObject({ settingId: id, stationId: id, gap: length, flush: length });
var bodyPacker = z4.strictObject({
  id,
  jobId: id,
  name,
  /** The whole pack, from the thinnest to the thickest that is allowed there. */
  least: length,
  most: length,
  /** Empty where it is made of the shims on the shelf, or of anything where there are none. */
  step: length.positive().nullable(),
  inNow: length
});
var packerEffect = z4.strictObject({ packerId: id, stationId: id, gap: length, flush: length });
var shim = z4.strictObject({ id, jobId: id, thickness: limit, pieces: count.max(1e3) });
var MEASURED_THINGS = ["panel", "opening"];
var SHAPE_LENGTHS = ["low", "highUp", "front", "rear", "down", "up", "twist"];
var panelMeasure = z4.strictObject({
  id,
  hungId: id,
  thing: z4.enum(MEASURED_THINGS),
  what: z4.enum(SHAPE_LENGTHS),
  wanted: length,
  value: length,
  /** One standard deviation of what is read less what is wanted. */
  sd: limit,
  at,
  author,
  personId
});
var OPENING_CORNERS = ["firstLow", "lastLow", "lastHigh", "firstHigh"];
var openingCorner = z4.strictObject({ hungId: id, corner: z4.enum(OPENING_CORNERS), pointId: id });
var allowance = z4.strictObject({
  id,
  jobId: id,
  /** Empty where it is of every seam. */
  seamId: id.nullable(),
  name,
  /** What is added to the gap, and to the flush, once it is there. */
  gap: length,
  flush: length,
  fitted: z4.boolean()
});
var panelJoint = z4.strictObject({
  hungId: id,
  /** Its name is what it is known by: one panel has no two of a name. */
  name,
  /** The edge of the panel it runs along; empty where it is along none. */
  edge: z4.enum(EDGES).nullable(),
  /** The joint of the cut plan that it is; empty where it was never cut. */
  jointId: id.nullable()
});
var letGo = z4.strictObject({
  id,
  hungId: id,
  /** The name of the joint. */
  place: name,
  sprung: length,
  /** More than this is relieved before it is tacked. */
  most: limit,
  at,
  author,
  personId
});
var FIXING_KINDS = ["dowel", "screw", "pin", "hole", "tack", "tab"];
var fixing = z4.strictObject({
  id,
  hungId: id,
  kind: z4.enum(FIXING_KINDS),
  name,
  /** The name of the joint it is at; empty where it is of the whole panel. */
  joint: name.nullable(),
  place: line,
  closedAt: at.nullable(),
  closedBy: line
});
var lap = z4.strictObject({
  id,
  jobId: id,
  overId: id,
  /** Empty where it is no panel: a bracket, a face that wants paint. */
  underId: id.nullable(),
  what: line,
  /** What is under it is done. */
  done: z4.boolean()
});
var CHECK_KINDS = [
  "offset",
  "angle",
  "profile",
  "swage",
  "jointStep",
  "latch",
  "lamp",
  "bumper",
  "lidSeal",
  "screenWidth",
  "screenDiagonal"
];
var fitCheck = z4.strictObject({
  id,
  jobId: id,
  /** The panel it is of; empty where it is of the shell. */
  hungId: id.nullable(),
  kind: z4.enum(CHECK_KINDS),
  place: name,
  /** mm; of an angle degrees. */
  wanted: length,
  under: length.min(0),
  over: length.min(0)
});
var fitReading = z4.strictObject({ id, checkId: id, value: length, sd: limit, at, author, personId });
var TRIM_KINDS = ["edge", "hole", "bead", "spot"];
var trim = z4.strictObject({
  id,
  hungId: id,
  kind: z4.enum(TRIM_KINDS),
  place: name,
  edge: name,
  isAt: length,
  mustBe: length,
  done: z4.boolean()
});
var HOLDING_RUNGS = ["off", "gripped", "clamped", "pinned", "dowelled", "tacked", "welded"];

// src/core/shell/job/entities/gauge.ts
import { z as z5 } from "zod";
var finest = length.min(0.01);
var gaugePart = z5.strictObject({
  id,
  jobId: id,
  code,
  name,
  /** How well its holes are known, one standard deviation on each axis, mm. */
  sd: finest,
  version
});
var partHole = z5.strictObject({
  id,
  gaugePartId: id,
  code,
  x: length,
  y: length,
  z: length,
  /** Play of its bolt, mm. */
  clearance: finest
});
var partCheck = z5.strictObject({
  id,
  gaugePartId: id,
  fromHoleId: id,
  toHoleId: id,
  value: length.positive()
});

// src/core/shell/job/entities/log.ts
import { z as z12 } from "zod";

// src/core/shell/record-document.ts
import { z as z11 } from "zod";

// src/core/shell/components.ts
var COMPONENTS = ["mash", "sway", "sag", "diamond", "spread", "twist"];

// src/core/shell/job/entities/work.ts
import { z as z6 } from "zod";
var BRACE_ENDS = ["doubled", "flange", "skin", "bolted"];
var BRACE_KINDS = ["weldedTube", "adjustable", "boltedFrame", "slip", "prop", "part"];
var brace = z6.strictObject({
  id,
  jobId: id,
  fromPointId: id,
  toPointId: id,
  kind: z6.enum(BRACE_KINDS),
  /** The tube it is made of; empty where it is only told in the note. */
  sectionId: id.nullable(),
  /** What each end sits on: no brace is stiffer than its ends. */
  fromEnd: z6.enum(BRACE_ENDS),
  toEnd: z6.enum(BRACE_ENDS),
  /** What pads and nuts take off its length at each end, mm. */
  fromOff: length,
  toOff: length,
  /** How far one turn of its threaded end lengthens it, mm, negative where the thread is left-handed; empty: no thread. */
  threadPitch: length.nullable(),
  /** Of a part that stays: how stiff it is between its two places, N/mm; empty: as such parts usually are. */
  stiffness: z6.number().positive().max(1e6).nullable(),
  /** What a slip brace holds before it slides; what a prop is pressed in with: N. Empty where nobody said. */
  force: z6.number().positive().max(1e6).nullable(),
  /** The stages before which it goes in and comes out; empty: before the first, and after the last. */
  stageInId: id.nullable(),
  stageOutId: id.nullable(),
  roundId: id.nullable(),
  note: text,
  version
});
var braceDimension = z6.strictObject({ braceId: id, dimensionId: id });
var PULL_ATTACHMENTS = ["plate", "tab", "clamp", "hook", "strap", "bolt", "jack"];
var PULL_ANCHORS = ["tower", "floor"];
var pull = z6.strictObject({
  id,
  jobId: id,
  pointId: id,
  /** Of a jack or strap between two places the point that takes the opposite force. */
  againstPointId: id.nullable(),
  roundId: id,
  /** Wanted movement of the point in chart axes, mm. */
  aimX: length,
  aimY: length,
  aimZ: length,
  /** Direction of the force, chart axes, of any length; empty: along the aim. */
  dirX: length.nullable(),
  dirY: length.nullable(),
  dirZ: length.nullable(),
  /** Where it takes hold of the metal; empty while nobody said. */
  attach: z6.enum(PULL_ATTACHMENTS).nullable(),
  /** What takes the chain: a tower, which takes it at any height, or an anchor in the floor; empty while nobody said. */
  anchor: z6.enum(PULL_ANCHORS).nullable(),
  /** From the metal to the anchor, mm. */
  chain: length.positive().nullable(),
  /** What the weakest of chain, clamp and anchor is rated for, N. */
  rated: z6.number().positive().max(1e6).nullable(),
  /** Effective area of the ram's piston, mm². */
  ramArea: z6.number().positive().max(1e5).nullable(),
  /** Pulls of one group are loaded together, a little each in turn; empty: by itself. */
  together: line,
  /** Where and how the shell is held, in words; the points are rows of their own. */
  heldAt: line,
  note: text,
  version
});
var stroke = z6.strictObject({
  id,
  pullId: id,
  ordinal: count,
  /** Under load, mm. */
  target: length,
  /** Where it is expected to rest, and two standard deviations of that, mm. */
  rest: length,
  plusMinus: length.positive(),
  at,
  author,
  personId
});
var WAYS = ["along", "across", "up"];
var springBack = z6.strictObject({
  id,
  jobId: id,
  ordinal: count,
  section: z6.enum(["front", "centre", "rear"]),
  side,
  /** The way it was pulled, most of all. */
  way: z6.enum(WAYS),
  by: length,
  /** How much of the stroke stayed. */
  gained: length,
  /** The job it was read on. */
  car: name
});
var HOLD_KINDS = ["clamp", "head", "chain", "bolt", "weld", "stand"];
var hold = z6.strictObject({
  id,
  itemId: id,
  pointId: id,
  kind: z6.enum(HOLD_KINDS),
  /** What it is rated for, N; empty where nobody knows. */
  rating: z6.number().positive().max(1e6).nullable()
});
var plate = z6.strictObject({
  id,
  itemId: id,
  pointId: id,
  /** Of the force, more than none and less than all. */
  share: z6.number().gt(0).lt(1)
});
var minutes = z6.int().min(0).max(1e6);
var RUNGS = ["look", "setUp", "measure", "brace", "cut", "pull", "fit", "weld", "verify"];
var step = z6.strictObject({
  id,
  jobId: id,
  rung: z6.enum(RUNGS),
  ordinal: count,
  title: name,
  note: text,
  /** What must be measured or photographed before it; empty where nothing must. */
  needs: line,
  /** What the program itself sees done, and the step with it. */
  doneBy: z6.enum(["signing"]).nullable().default(null),
  /** The item of work it is about: a panel, a joint, a pull; empty where it is about none. */
  itemId: id.nullable(),
  /** Work, min; empty where nobody said. */
  minutes: minutes.nullable(),
  /** From the end of its work until what needs it can begin: curing, drying, a part on order; min, at 20 °C where it cures. */
  waits: minutes.nullable(),
  /** How warm it is where it cures, °C; empty where warmth is no matter to it. */
  curesAt: z6.number().min(-20).max(80).nullable(),
  /** What needs it must be begun so long after its work ends, min; empty where it keeps. */
  keeps: minutes.nullable(),
  /** While it waits it is looked after so often, min: wetted anew, turned, read. */
  tendEvery: minutes.nullable(),
  noise: z6.boolean(),
  outdoor: z6.boolean(),
  notBefore: at.nullable(),
  version
});
var stepNeed = z6.strictObject({ stepId: id, needsId: id });
var stepPerson = z6.strictObject({ stepId: id, personId: id });
var booking = z6.strictObject({
  id,
  stepId: id,
  minutes: z6.int().min(-6e4).max(6e4).refine((value) => value !== 0),
  at,
  author,
  personId,
  note: line
});
var WORKER_KINDS = ["person", "tool"];
var dayMinute = z6.int().min(0).max(1440);
var ROLES = ["measure", "plan", "sign"];
var person = z6.strictObject({
  id,
  name,
  kind: z6.enum(WORKER_KINDS),
  /** Days of the week; 1 is Monday. */
  days: z6.array(z6.int().min(1).max(7)),
  starts: dayMinute,
  ends: dayMinute,
  /** When they may make noise. */
  noiseStarts: dayMinute,
  noiseEnds: dayMinute,
  retiredAt: at.nullable(),
  roles: z6.array(z6.enum(ROLES)),
  /** Says who may do what, and lets devices in. */
  owner: z6.boolean()
});
var closedDay = z6.strictObject({ id, day: z6.iso.date(), kind: z6.enum(["closed", "wet"]), name: line });
var timer = z6.strictObject({
  id,
  jobId: id,
  name,
  stepId: id.nullable(),
  ringsAt: at,
  at,
  author,
  personId,
  heardAt: at.nullable(),
  heardBy: line
});
var STEP_EVENTS = ["begun", "curing", "missing", "done", "dropped", "reopened"];
var stepEvent = z6.strictObject({
  id,
  stepId: id,
  kind: z6.enum(STEP_EVENTS),
  /** When the curing or the waiting is over. */
  until: at.nullable(),
  at,
  author,
  personId,
  note: line
});
var BRACE_EVENTS = ["planned", "fitted", "loosened", "removed"];
var PULL_EVENTS = ["planned", "cleared", "loaded", "released", "done", "abandoned"];

// src/core/shell/record-made.ts
import { z as z10 } from "zod";

// src/core/shell/job/entities/plan.ts
import { z as z8 } from "zod";

// src/core/shell/job/entities/round.ts
import { z as z7 } from "zod";
var INSTRUMENT_KINDS = [
  "tape",
  "tram",
  "digitalTram",
  "caliper",
  "feeler",
  "heightStick",
  "plumb",
  "fixtureHead",
  "other"
];
var instrument = z7.strictObject({ id, name, kind: z7.enum(INSTRUMENT_KINDS) });
var instrumentVersion = z7.strictObject({
  id,
  instrumentId: id,
  number: z7.int().min(1),
  /** One standard deviation, mm: constant + perMetre · length in metres. */
  sdConstant: z7.number().positive().max(100),
  sdPerMetre: z7.number().min(0).max(100),
  zeroOffset: length,
  startMark: length,
  steel: z7.boolean(),
  /** Lengths of its pointers, mm, as a list: `50 120 300`. */
  pointers: line.default(""),
  /** When it was last held against a standard. */
  checkedAt: at.nullable().default(null),
  note: line,
  validFrom: at
});
var STATE_KINDS = [
  "asFound",
  "stripped",
  "braced",
  "cut",
  "pulled",
  "fitted",
  "clamped",
  "tacked",
  "oneSide",
  "welded",
  "cold",
  "bracesOut",
  "onWheels"
];
var shellState = z7.strictObject({
  id,
  jobId: id,
  kind: z7.enum(STATE_KINDS),
  note: line,
  reachedAt: at
});
var SUPPORT_KINDS = ["fixtureBench", "sillClamps", "ownFrame", "spit", "stands"];
var support = z7.strictObject({
  id,
  jobId: id,
  kind: z7.enum(SUPPORT_KINDS),
  suspension: z7.enum(["off", "onUnloaded", "loaded"]),
  note: line
});
var round = z7.strictObject({
  id,
  jobId: id,
  number: z7.int().min(1),
  name,
  stateId: id,
  supportId: id,
  instrumentVersionId: id,
  temperature: z7.number().min(-40).max(60).nullable(),
  author,
  personId,
  startedAt: at,
  closedAt: at.nullable(),
  /** Another shell of the kind that this round was taken on; empty for the job's own. */
  shell: line.default(""),
  /** The set-up it stood on; empty where none was planned. */
  setUpId: id.nullable().default(null),
  version
});
var roundControl = z7.strictObject({ roundId: id, pointId: id });
var QUANTITIES = ["length", "width", "height", "distance", "gap", "flush", "fixture"];
var FITS = ["free", "tight", "none", "centred", "beside"];
var TOWARDS = ["front", "rear", "left", "right", "up", "down"];
var reading = z7.strictObject({
  id,
  /** Readings typed in one line share it. */
  lineId: id,
  roundId: id,
  sequence: count,
  instrumentVersionId: id,
  author,
  personId,
  takenAt: at,
  receivedAt: at,
  raw: words.min(1).max(200),
  quantity: z7.enum(QUANTITIES),
  /** Millimetres; for a fixture head the clearance it has in its hole, for a hole of a part how far beside the point is. */
  value: length,
  phase: z7.enum(["none", "underLoad", "released"]),
  measure: measure.nullable(),
  pointId: id.nullable(),
  toPointId: id.nullable(),
  stationId: id.nullable(),
  pullId: id.nullable(),
  /** Pointer lengths of a tram gauge at either end, mm. */
  pointerFrom: z7.number().min(0).max(2e3).nullable().default(null),
  pointerTo: z7.number().min(0).max(2e3).nullable().default(null),
  /** How a fixture head, or a hole of a part, fits the point. */
  fit: z7.enum(FITS).nullable().default(null),
  /** The hole of a part bolted up as a gauge, and which way from it the point lies. */
  partHoleId: id.nullable().default(null),
  toward: z7.enum(TOWARDS).nullable().default(null)
});
var readingStrike = z7.strictObject({
  id,
  readingId: id,
  struckAt: at,
  author,
  personId,
  reason: line.min(1),
  /** The line that was typed instead. */
  replacedByLineId: id.nullable()
});
var readingKeep = z7.strictObject({ id, readingId: id, at, author, personId, reason: line.min(1) });
var CONDITIONS = ["buried", "suspension", "gone", "worn", "oval", "rusty", "rebuilt", "clear"];
var pointCondition = z7.strictObject({
  id,
  roundId: id,
  pointId: id,
  kind: z7.enum(CONDITIONS),
  at,
  author,
  personId
});
var roundEvent = z7.strictObject({
  id,
  roundId: id,
  kind: z7.enum(["closed", "opened"]),
  at,
  author,
  personId,
  reason: text
});
var morningCheck = z7.strictObject({
  id,
  jobId: id,
  roundId: id,
  instrumentVersionId: id,
  at,
  author,
  personId
});
var morningReading = z7.strictObject({
  id,
  morningCheckId: id,
  fromPointId: id,
  toPointId: id,
  measure,
  value: length.positive(),
  /** What it was expected to be, and one standard deviation of reading less expectation, mm, as shown when it was typed. */
  expected: length,
  sd: z7.number().positive().max(1e3)
});

// src/core/shell/job/entities/plan.ts
var WORK_KINDS = [
  ...["setUp", "panel", "stage", "brace", "joint", "pull", "hung", "crack", "stiffener", "blasting"]
];
var workItem = z8.strictObject({ id, jobId: id, kind: z8.enum(WORK_KINDS), code, name, version });
var WORK_EVENTS = [
  "ticked",
  "unticked",
  "adjusted",
  "idle",
  "carrying",
  "checked",
  "planned",
  "fitted",
  "loosened",
  "removed",
  "passed",
  "turned",
  "cleared",
  "loaded",
  "released",
  "done",
  "abandoned",
  "off",
  "gripped",
  "clamped",
  "pinned",
  "dowelled",
  "tacked",
  "welded"
];
var workEvent = z8.strictObject({
  id,
  itemId: id,
  kind: z8.enum(WORK_EVENTS),
  key: line,
  at,
  author,
  personId,
  reason: line,
  /** Of a mount that was checked its height, mm; of a brace how many quarter turns it is turned in all; empty otherwise. */
  value: length.nullable().default(null)
});
var degrees = z8.number().min(-180).max(180);
var setUp = z8.strictObject({
  id,
  jobId: id,
  benchVersionId: id,
  suspension: support.shape.suspension,
  /** As the scale says, kg, and where it acts, chart axes; empty where it is estimated. */
  kilograms: length.positive().nullable(),
  centreX: length.nullable(),
  centreY: length.nullable(),
  /** Where the chart's zero stands on the bench, bench axes, mm. */
  x: length,
  y: length,
  z: length,
  /** How it is turned about the bench’s axes, degrees. */
  turnX: degrees.default(0),
  turnY: degrees.default(0),
  turnZ: degrees.default(0),
  /** Whether its sills have a pinch flange that a clamp can hold; empty while nobody said. */
  flange: z8.enum(["has", "hasNot"]).nullable().default(null),
  /** The two points whose plumb marks carry the centre line on a floor. */
  lineFromId: id.nullable().default(null),
  lineToId: id.nullable().default(null),
  version
});
var mount = z8.strictObject({
  id,
  setUpId: id,
  ordinal: count,
  pointId: id.nullable(),
  name: line,
  x: length.nullable(),
  y: length.nullable(),
  z: length.nullable(),
  /** Hole of the rails its beam is put at by hand; empty: wherever is best. */
  hole: count.nullable(),
  /** How far the floor under it stands over (+) or under (−) the floor's plane, mm; empty where it was not read. */
  floor: length.nullable().default(null),
  /** What it is built of, as decided; empty while it is only planned. */
  headId: id.nullable(),
  lift: length.nullable()
});
var mountPiece = z8.strictObject({ id, mountId: id, ordinal: count, shelfItemId: id });
var PANEL_CHOICES = ["patch", "partPanel", "wholePanel", "remade"];
var panel = z8.strictObject({
  id,
  jobId: id,
  part: name,
  side,
  /** The stage it comes out in; empty while nobody said. */
  stageId: id.nullable(),
  /** Its place in the order in which the panels of its stage come out. */
  ordinal: count,
  /** What takes its place, and why. */
  choice: z8.enum(PANEL_CHOICES).nullable(),
  reason: text,
  /** Where the join runs, in words. */
  joinedAt: line,
  hours: z8.number().positive().max(1e4).nullable(),
  price: z8.number().min(0).max(1e7).nullable(),
  ownersWord: line,
  /** The metal was hit, or pulled half straight: it may spring when it is cut. */
  stressed: z8.boolean(),
  version
});
var panelPoint = z8.strictObject({ panelId: id, pointId: id, fate: z8.enum(["goes", "stays"]) });
var platformPoint = z8.strictObject({ jobId: id, pointId: id, meetsId: id.nullable() });

// src/core/shell/job/entities/welding.ts
import { z as z9 } from "zod";
var WELD_KINDS = ["plug", "spot", "butt", "lap", "braze", "bond"];
var WELD_PROCESSES = ["mig", "tig", "gas", "resistance"];
var WELD_SCHOOLS = ["coolest", "centre", "oneEnd", "backStep", "inTurn"];
var FREE_ENDS = ["both", "first", "last", "none"];
var weldSeam = z9.strictObject({
  id,
  jobId: id,
  kind: z9.enum(WELD_KINDS),
  /** Empty where nothing is melted: a bonded joint. */
  process: z9.enum(WELD_PROCESSES).nullable(),
  /** mm */
  long: length.positive(),
  /** How wide the flange is, mm; empty where there is none. */
  flange: limit.nullable(),
  /** From one to the next, mm; empty where it is as the factory had it. */
  pitch: limit.nullable(),
  /** Datum points at its ends. */
  firstPointId: id.nullable(),
  lastPointId: id.nullable(),
  /** The end, or both, that may still move: it shrinks towards there. */
  freeEnd: z9.enum(FREE_ENDS),
  school: z9.enum(WELD_SCHOOLS),
  /** The seam on the other side that it is laid in turn with, a place here and a place there; said of one of the two. */
  inTurnWithId: id.nullable(),
  /** Of a bonded joint: how long its adhesive stays open, and how long it is clamped, min. */
  openFor: limit.nullable(),
  clampedFor: z9.number().positive().max(1e5).nullable(),
  version
});
var STRETCH_KINDS = ["corner", "double", "void", "unreachable", "brass", "lead"];
var weldStretch = z9.strictObject({
  id,
  seamId: id,
  what: z9.enum(STRETCH_KINDS),
  starts: length.min(0),
  ends: length.min(0)
});
var MARK_RUNS = ["along", "across"];
var weldMark = z9.strictObject({
  id,
  seamId: id,
  /** With the seam, near its ends; or across it. */
  runs: z9.enum(MARK_RUNS),
  /** mm */
  before: length.positive(),
  cold: length.positive(),
  /** One standard deviation of the difference, mm. */
  sd: limit,
  at,
  author,
  personId
});
var crack = z9.strictObject({
  id,
  jobId: id,
  place: name,
  /** From end to end as it is seen, mm. */
  long: length.positive(),
  thickness: limit,
  /** One end of it runs out at an edge: there is one end to drill. */
  toEdge: z9.boolean(),
  process: z9.enum(["mig", "tig", "gas"]),
  /** Why it cracked, as far as anybody knows. */
  cause: text,
  version
});
var STIFFENER_KINDS = ["doubler", "rib", "gusset"];
var stiffener = z9.strictObject({
  id,
  jobId: id,
  kind: z9.enum(STIFFENER_KINDS),
  /** The member of the structure it is put on, by its code. */
  part: line.min(1),
  /** Of a gusset: the member it ties it to. */
  otherPart: line,
  /** How far it runs along the member; of a gusset how long each of its legs is, mm. */
  long: length.positive(),
  /** Of a doubler how wide, of a rib how wide and how high it stands, mm; a gusset has neither. */
  width: limit.nullable(),
  height: limit.nullable(),
  thickness: limit,
  version
});
var axleReading = z9.strictObject({
  id,
  jobId: id,
  roundId: id,
  leftBase: length.positive(),
  rightBase: length.positive(),
  /** From the left front wheel to the right rear one, and from the right front one to the left rear one. */
  leftDiagonal: length.positive().nullable(),
  rightDiagonal: length.positive().nullable(),
  frontTrack: length.positive(),
  rearTrack: length.positive(),
  /** Of each of these, one standard deviation. */
  sd: limit,
  /** By how much the wheelbases may differ, and how far the rear axle may stand aside, at most. */
  most: limit,
  at,
  author,
  personId
});
var NEW_WELD_SEAM = {
  ...{ flange: null, pitch: null, firstPointId: null, lastPointId: null, freeEnd: "both", school: "coolest" },
  ...{ inTurnWithId: null, openFor: null, clampedFor: null, version: 1 }
};

// src/core/shell/record-made.ts
var text2 = z10.string();
var mm = z10.number();
var verdict = z10.enum(["inside", "outside", "undecided"]);
var setUp2 = z10.strictObject({
  code: text2,
  bench: text2,
  suspension: text2,
  kilograms: z10.number().nullable(),
  /** What stands under each place, from the beam up. */
  mounts: z10.array(z10.strictObject({ at: text2, on: z10.array(text2), lift: mm.optional() }))
});
var cut = z10.strictObject({
  part: text2,
  choice: z10.enum(PANEL_CHOICES).nullable(),
  joinedAt: text2,
  state: z10.enum(["planned", "out", "tacked", "in"]),
  lines: z10.array(z10.strictObject({ label: text2, edge: text2, distance: mm, readBack: mm.nullable() }))
});
var weld = z10.strictObject({
  panel: text2,
  beside: text2,
  kind: z10.enum(WELD_KINDS),
  process: z10.enum(WELD_PROCESSES).nullable(),
  long: mm,
  sheets: z10.array(mm),
  places: z10.int(),
  laid: z10.int(),
  shrank: z10.array(z10.strictObject({ runs: z10.enum(MARK_RUNS), by: mm }))
});
var history = z10.strictObject({
  code: text2,
  name: text2,
  reference: mm.optional(),
  values: z10.array(z10.strictObject({ round: z10.int(), value: mm, plusMinus: mm }))
});
var axleFigure = z10.strictObject({ value: mm, plusMinus: mm, verdict });
var axles = z10.strictObject({
  round: text2,
  leftBase: mm,
  rightBase: mm,
  plusMinus: mm,
  stand: z10.strictObject({
    difference: axleFigure,
    turned: z10.strictObject({ degrees: z10.number(), plusMinus: z10.number() }),
    aside: axleFigure.optional(),
    contradiction: z10.number().optional()
  })
});
var made = {
  setUps: z10.array(setUp2).optional(),
  cuts: z10.array(cut).optional(),
  fitted: z10.array(z10.strictObject({ code: text2, name: text2, rung: z10.enum(HOLDING_RUNGS) })).optional(),
  welds: z10.array(weld).optional(),
  cracks: z10.array(z10.strictObject({ code: text2, place: text2, long: mm, done: z10.int(), of: z10.int() })).optional(),
  stiffeners: z10.array(
    z10.strictObject({ code: text2, kind: z10.enum(STIFFENER_KINDS), on: text2, kilograms: z10.number(), isOn: z10.boolean() })
  ).optional(),
  /** Every dimension that more than one round measured. */
  history: z10.array(history).optional(),
  axles: axles.optional()
};
var conformity = z10.strictObject({
  round: z10.int(),
  verdict: z10.enum(["conforms", "except", "undecided", "doesNot", "notGiven"]),
  judged: z10.int(),
  outside: z10.int(),
  undecided: z10.int(),
  exceptions: z10.array(z10.strictObject({ code: text2, deviation: mm, reason: text2, author: text2, at: text2 })),
  still: z10.array(
    z10.discriminatedUnion("kind", [
      z10.strictObject({ kind: z10.literal("bracesIn"), codes: z10.array(text2).readonly() }),
      z10.strictObject({ kind: z10.literal("closeOut"), names: z10.array(text2).readonly() }),
      z10.strictObject({ kind: z10.literal("otherSupport"), first: text2 }),
      z10.strictObject({ kind: z10.enum(["notCold", "onBench", "axlesUnread"]) })
    ])
  )
});

// src/core/shell/sections.ts
var SECTIONS = ["front", "centre", "rear"];

// src/core/shell/record-document.ts
var text3 = z11.string();
var mm2 = z11.number();
var vector = z11.tuple([mm2, mm2, mm2]).readonly();
var verdict2 = z11.enum(["inside", "outside", "undecided"]);
var round2 = z11.strictObject({
  number: z11.int(),
  name: text3,
  state: text3,
  support: text3,
  suspension: text3,
  supportNote: text3,
  instruments: z11.array(text3),
  temperature: z11.number().nullable(),
  author: text3,
  startedAt: text3,
  readings: z11.int(),
  struck: z11.int(),
  control: z11.array(text3),
  rms: mm2.optional()
});
var point = z11.strictObject({
  code: text3,
  name: text3,
  position: vector,
  deviation: vector,
  plusMinus: vector,
  limit: mm2,
  verdict: verdict2,
  control: z11.boolean()
});
var dimension = z11.strictObject({
  code: text3,
  name: text3,
  ends: text3,
  measure: text3,
  reference: mm2,
  measured: mm2,
  deviation: mm2,
  plusMinus: mm2,
  limit: mm2,
  verdict: verdict2,
  accepted: z11.boolean()
});
var gap = z11.strictObject({
  /** The round that read it last. */
  round: z11.int().optional(),
  seam: text3,
  name: text3,
  side: text3,
  station: z11.int(),
  quantity: text3,
  measured: mm2,
  target: mm2,
  plusMinus: mm2,
  verdict: verdict2
});
var component = z11.strictObject({ name: z11.enum(COMPONENTS), amount: mm2, sd: mm2, significant: z11.boolean() });
var found = z11.strictObject({
  round: z11.int(),
  roundName: text3,
  sections: z11.array(
    z11.strictObject({
      section: z11.enum(SECTIONS),
      hinge: mm2,
      end: mm2,
      /** What lies at the hinge. */
      near: text3,
      onlySide: z11.enum(["left", "right"]).optional(),
      components: z11.array(component),
      alike: z11.array(z11.tuple([z11.enum(COMPONENTS), z11.enum(COMPONENTS)]).readonly())
    })
  ),
  /** Points that moved by themselves. */
  local: z11.array(
    z11.strictObject({ code: text3, side: z11.enum(["left", "centre", "right"]), movement: vector, sd: vector })
  ),
  /** Hinges that could be tried: none where too few points were located. */
  hinges: z11.int()
});
var changes = z11.strictObject({
  earlier: z11.int(),
  later: z11.int(),
  cautions: z11.array(z11.enum(["support", "suspension", "instrument", "control"])),
  rows: z11.array(
    z11.strictObject({
      code: text3,
      name: text3,
      change: mm2,
      plusMinus: mm2,
      verdict: z11.enum(["held", "moved", "undecided"])
    })
  )
});
var brace2 = z11.strictObject({
  code: text3,
  ends: text3,
  kind: z11.enum(BRACE_KINDS),
  section: text3,
  length: mm2.optional(),
  state: z11.enum(BRACE_EVENTS),
  holds: z11.array(text3)
});
var pull2 = z11.strictObject({
  code: text3,
  point: text3,
  aim: vector,
  distance: mm2,
  heldAt: text3,
  springBacks: z11.array(mm2),
  /** What it went against, how it took hold, and its strokes along the aim; records signed before these came have none. */
  against: text3.optional(),
  attach: z11.enum(["plate", "tab", "clamp", "hook", "strap", "bolt", "jack"]).optional(),
  strokes: z11.array(z11.strictObject({ loaded: mm2, rested: mm2, mark: mm2.optional() })).optional(),
  by: z11.array(text3).optional(),
  state: z11.enum(["planned", "loaded", "released", "done", "abandoned"]).optional()
});
var doubt = z11.strictObject({
  round: z11.int(),
  subject: text3,
  value: mm2,
  cause: text3.optional()
});
var stepDone = z11.strictObject({
  rung: text3,
  title: text3,
  state: z11.enum(["done", "dropped"]),
  at: text3,
  author: text3
});
var takenBack = z11.strictObject({ what: text3, reason: text3, at: text3, author: text3 });
var morning = z11.strictObject({
  at: text3,
  author: text3,
  round: z11.int(),
  verdict: z11.enum(["still", "moved"]),
  readings: z11.array(z11.strictObject({ ends: text3, change: mm2, plusMinus: mm2 }))
});
var OPEN_KINDS = [
  "openRound",
  "doubt",
  "undecided",
  "unmeasured",
  "loose",
  "plannedBrace",
  "braceIn",
  "closeOut",
  "unreadPull",
  "notSeen",
  "otherSide",
  "openStep"
];
var open = z11.strictObject({ kind: z11.enum(OPEN_KINDS), subject: text3, reason: text3 });
var entry = z11.strictObject({
  kind: z11.enum(["finding", "decision", "assumption"]),
  text: text3,
  reason: text3,
  author: text3,
  at: text3,
  about: z11.array(text3),
  overturnedBy: text3.optional(),
  finding: findingDetail.omit({ entryId: true }).optional(),
  decision: decisionDetail.omit({ entryId: true }).optional()
});
var tag = z11.strictObject({
  number: z11.int(),
  part: text3,
  takenFrom: text3,
  state: text3,
  shelf: text3,
  keepUntil: text3
});
var recordDocument = z11.strictObject({
  format: z11.literal("vinkel.record/1"),
  madeAt: text3,
  job: z11.strictObject({
    name: text3,
    shell: text3,
    identityNumber: text3,
    owner: text3,
    shop: text3,
    bench: text3,
    driverSide: text3,
    startedAt: text3
  }),
  references: z11.array(z11.strictObject({ kind: text3, name: text3, source: text3, trust: mm2, edition: z11.int().optional() })),
  rounds: z11.array(round2),
  final: z11.strictObject({
    round: z11.int(),
    points: z11.array(point),
    dimensions: z11.array(dimension),
    gaps: z11.array(gap)
  }).optional(),
  found: found.optional(),
  changes: changes.optional(),
  braces: z11.array(brace2),
  pulls: z11.array(pull2),
  log: z11.array(entry),
  doubts: z11.array(doubt).optional(),
  steps: z11.array(stepDone).optional(),
  takenBack: z11.array(takenBack).optional(),
  parts: z11.array(tag).optional(),
  mornings: z11.array(morning).optional(),
  /** What is open; with a reason each in a signed record. */
  open: z11.array(open).optional(),
  ...made,
  conformity: conformity.optional(),
  photographs: z11.array(
    z11.strictObject({
      id: z11.uuid(),
      name: text3,
      author: text3,
      at: text3,
      width: z11.int(),
      height: z11.int()
    })
  ),
  lines: z11.array(z11.tuple([vector, vector]).readonly())
});

// src/core/shell/job/entities/log.ts
var ENTRY_KINDS = ["finding", "decision", "assumption"];
var logEntry = z12.strictObject({
  id,
  jobId: id,
  kind: z12.enum(ENTRY_KINDS),
  text: text.min(1),
  reason: text,
  author,
  personId,
  at,
  roundId: id.nullable(),
  supersedes: id.nullable(),
  /** What would overturn an assumption. */
  overturnedBy: text.default("")
});
var logSubject = z12.strictObject({
  id,
  entryId: id,
  pointId: id.nullable(),
  dimensionId: id.nullable(),
  acceptedDeviation: length.nullable(),
  referenceId: id.nullable()
});
var photograph = z12.strictObject({
  id,
  jobId: id,
  entryId: id.nullable(),
  name,
  mediaType: z12.enum(["image/jpeg", "image/png", "image/webp", "image/avif", "image/gif", "image/tiff"]),
  bytes: z12.int().positive(),
  width: z12.int().positive(),
  height: z12.int().positive(),
  sha256: z12.string().regex(/^[0-9a-f]{64}$/),
  author,
  personId,
  at
});
var signedRecord = z12.strictObject({
  id,
  jobId: id,
  number: z12.int().min(1),
  signedBy: author,
  personId,
  signedAt: at,
  snapshot: recordDocument,
  /** SHA-256 of what is signed (see `signedContent`); empty where it was signed before that was kept. */
  hash: z12.string().regex(/^[0-9a-f]{64}$/).nullable().default(null)
});

// src/core/shell/job/entities/reference.ts
import { z as z13 } from "zod";
var REFERENCE_KINDS = [
  "chart",
  "sisterCar",
  "mirroredSide",
  "earlierRound",
  "keptPart",
  "plannedChange"
];
var reference = z13.strictObject({
  id,
  jobId: id,
  kind: z13.enum(REFERENCE_KINDS),
  name,
  source: text,
  /** One standard deviation of its figures, mm; 0 where they are right by definition. */
  trust: z13.number().min(0).max(1e3),
  rank: count,
  roundId: id.nullable(),
  createdAt: at,
  /** Editions of one reference; only the one in use is judged by. */
  edition: version.default(1),
  /** The first edition. */
  editionOf: id.nullable().default(null),
  inUse: z13.boolean().default(true)
});
var referenceRound = z13.strictObject({ referenceId: id, roundId: id });
var figureSd = z13.number().min(0).max(1e3).nullable().default(null);
var referencePoint = z13.strictObject({
  id,
  referenceId: id,
  pointId: id,
  x: length,
  y: length,
  z: length,
  tolerance: limit,
  sd: figureSd,
  version
});
var referenceDimension = z13.strictObject({
  id,
  referenceId: id,
  dimensionId: id,
  value: length.positive(),
  tolerance: limit,
  sd: figureSd,
  version
});
var referenceStation = z13.strictObject({
  id,
  referenceId: id,
  stationId: id,
  quantity: z13.enum(["gap", "flush"]),
  value: length,
  tolerance: limit,
  sd: figureSd,
  version
});
var referenceChoice = z13.strictObject({
  id,
  jobId: id,
  pointId: id.nullable(),
  dimensionId: id.nullable(),
  /** Empty: back to the ranks. */
  referenceId: id.nullable(),
  at,
  author,
  personId,
  reason: line
});

// src/core/shell/job/entities/shell.ts
import { z as z14 } from "zod";
var BODY_TYPES = ["twoDoor", "fourDoor", "estate", "open", "pickupCab", "onPlatform"];
var job = z14.strictObject({
  id,
  name,
  shell: line,
  identityNumber: line,
  owner: line,
  shop: line,
  driverSide: z14.enum(["left", "right"]),
  bench: line,
  note: text,
  startedAt: at,
  /** Not worked on: it stands apart in the list. */
  putAwayAt: at.nullable().default(null),
  /** The picture its points were chosen on, where there is no chart. */
  body: z14.enum(BODY_TYPES).nullable().default(null),
  /** Typed measures that bring the picture to this shell's size, mm. */
  wheelbase: length.positive().nullable().default(null),
  track: length.positive().nullable().default(null),
  height: length.positive().nullable().default(null),
  version
});
var POINT_KINDS = ["shell", "bolt", "punch", "drawn"];
var point2 = z14.strictObject({
  id,
  jobId: id,
  code,
  name: line,
  side,
  holeDiameter: z14.number().positive().max(500).nullable(),
  /** The point it stands beside and is measured instead of. */
  substituteForId: id.nullable().default(null),
  /** A belt anchorage or a suspension mounting takes a bolt; paint and blasting take what is only drawn. */
  kind: z14.enum(POINT_KINDS).default("shell"),
  /** Meant to be the mirror image of the point opposite. */
  mirrored: z14.boolean().default(true),
  /** The place on the body's picture it was chosen at; empty where it was not. */
  place: line.default(""),
  version
});
var dimension2 = z14.strictObject({
  id,
  jobId: id,
  code,
  name: line,
  fromPointId: id,
  toPointId: id,
  measure,
  version
});
var memberLine = z14.strictObject({ id, jobId: id, fromPointId: id, toPointId: id });
var SEAM_SIGHTS = ["line", "shut", "hidden"];
var seam = z14.strictObject({
  id,
  jobId: id,
  code,
  name: line,
  side,
  /** Seams of the two sides that are compared share this; empty where there is no other side. */
  pairing: line,
  /** How much people see of it: the swage line or a top edge, a shut line, or a bottom edge where an error hides. */
  sight: z14.enum(SEAM_SIGHTS),
  /** The points of the shell near its first and its last station, for drawing it where it is; empty while nobody said. */
  fromPointId: id.nullable(),
  toPointId: id.nullable(),
  version
});
var seamStation = z14.strictObject({
  id,
  seamId: id,
  number: z14.int().min(1).max(99),
  name: line
});
var change = z14.strictObject({
  id,
  jobId: id,
  /** What one action changed together. */
  batch: id,
  /** Table and identity of the row. */
  tableName: line,
  rowId: id,
  /** Null where the row was made, or taken out. */
  before: z14.record(z14.string(), z14.unknown()).nullable(),
  after: z14.record(z14.string(), z14.unknown()).nullable(),
  at,
  author,
  personId
});
var WITHDRAWABLE = ["work_item", "work_event", "step_event", "seam", "log_entry", "part_tag"];
var withdrawal = z14.strictObject({
  id,
  jobId: id,
  tableName: z14.enum(WITHDRAWABLE),
  rowId: id,
  kind: z14.enum(["withdrawn", "restored"]),
  at,
  author,
  personId,
  reason: line
});
var NEW_POINT = {
  ...{ holeDiameter: null, substituteForId: null, kind: "shell", mirrored: true, place: "", version: 1 }
};

// src/core/shell/job/entities/structure.ts
import { z as z15 } from "zod";
var section = z15.strictObject({
  id,
  name,
  /** Outside, mm; a tube that is as wide as high is square. */
  width: length.positive(),
  height: length.positive(),
  wall: length.positive(),
  material: z15.enum(["mildSteel", "highStrength"]),
  /** The length of the bars it is bought in, mm; empty where nobody said. */
  stock: length.min(0).nullable()
});
var structure = z15.strictObject({
  id,
  jobId: id,
  edition: z15.int().min(1),
  /** What it was begun from: the picture of a body, the lines of the chart, or a file. */
  template: z15.enum([...BODY_TYPES, "lines", "file"]),
  at,
  author,
  personId
});
var node = z15.strictObject({
  id,
  structureId: id,
  code,
  name: line,
  x: length,
  y: length,
  z: length,
  /** The point of the chart it stands at; empty where it has none. */
  pointId: id.nullable()
});
var condition = z15.number().min(0.01).max(1);
var member = z15.strictObject({
  id,
  structureId: id,
  code,
  name: line,
  fromNodeId: id,
  toNodeId: id,
  width: length.positive(),
  height: length.positive(),
  /** Thickness of its sheet, mm. */
  wall: length.positive(),
  condition
});
var shearPanel = z15.strictObject({
  id,
  structureId: id,
  code,
  name: line,
  aNodeId: id,
  bNodeId: id,
  cNodeId: id,
  dNodeId: id,
  thickness: length.positive(),
  condition
});
var pressTest = z15.strictObject({
  id,
  jobId: id,
  fromPointId: id,
  toPointId: id,
  /** N */
  force: length.positive(),
  /** mm, and one standard deviation of it. */
  opened: length.positive(),
  sd: length.positive(),
  at,
  author,
  personId
});
var stage = z15.strictObject({ id, jobId: id, ordinal: count, version });
var panelPart = z15.strictObject({
  panelId: id,
  /** Of the member or sheet, the same in every edition. */
  code,
  share: z15.number().min(0.05).max(1)
});
var JOINT_KINDS = ["spots", "plugs", "seam", "brazed", "leaded", "bonded", "bolted"];
var joint = z15.strictObject({
  id,
  jobId: id,
  panelId: id,
  beside: name,
  kind: z15.enum(JOINT_KINDS),
  /** Sheets that meet, mm. */
  thicknessA: length.positive().nullable(),
  thicknessB: length.positive().nullable(),
  factorySpots: count.max(1e4).nullable(),
  version
});
var cutLine = z15.strictObject({
  id,
  panelId: id,
  label: code,
  /** The edge that stays, in words. */
  edge: name,
  distance: length,
  /** What was read of the marked line; empty until it was. */
  readBack: length.nullable(),
  /** Where a piece is spliced in: how wide the saw cuts it, and the gap left at the joint; empty where none is. */
  kerf: length.min(0).nullable(),
  gap: length.min(0).nullable()
});
var TEMPLATE_SOURCES = ["card", "paper", "goodPart"];
var template = z15.strictObject({
  id,
  jobId: id,
  /** The panel it is for; empty where it is for none in particular. */
  panelId: id.nullable(),
  name,
  /** What it was taken with, or from. */
  source: z15.enum(TEMPLATE_SOURCES),
  /** Where from, in words. */
  takenFrom: line,
  /** The face of the metal it lies on. */
  face: z15.enum(["outside", "inside"]),
  /** It is for the other side: turned over before it is marked from. */
  mirrored: z15.boolean(),
  version
});
var templatePoint = z15.strictObject({ id, templateId: id, ordinal: count, x: length, y: length });
var keepOut = z15.strictObject({
  id,
  jobId: id,
  name,
  /** The panel that takes this way in; empty where it is always so. */
  panelId: id.nullable(),
  minX: length,
  minY: length,
  minZ: length,
  maxX: length,
  maxY: length,
  maxZ: length,
  /** The straight move the box is swept along; nothing where it stands. */
  moveX: length,
  moveY: length,
  moveZ: length
});
var ADVICE_KINDS = ["brace", "stage", "gate", "pull"];
var adviceTaken = z15.strictObject({
  id,
  jobId: id,
  kind: z15.enum(ADVICE_KINDS),
  /** What it is about: for a brace the codes of its two ends, for a pull its point and which way. */
  key: line,
  /** What it rested on: round, edition. */
  basis: line,
  shown: line,
  choice: z15.enum(["taken", "declined", "allowed"]),
  reason: line,
  at,
  author,
  personId
});
var CHECK_AFTER = ["cut", "bracesOut", "offBench", "onWheels"];
var DOOR_SHUTS = ["closes", "drags", "springsBack"];
var removalCheck = z15.strictObject({
  id,
  jobId: id,
  after: z15.enum(CHECK_AFTER),
  /** The stage whose metal came out. */
  stageId: id.nullable(),
  /** How the door shuts, and its two gaps that say so, mm; empty where nobody tried. */
  door: z15.enum(DOOR_SHUTS).nullable(),
  frontGap: length.nullable(),
  rearGap: length.nullable(),
  at,
  author,
  personId
});
var removalReading = z15.strictObject({
  id,
  checkId: id,
  fromPointId: id,
  toPointId: id,
  /** Tip to tip, mm. */
  value: length.positive(),
  instrumentVersionId: id
});

// src/core/shell/job/job-rows.ts
var JOB_TABLES = {
  jobs: job,
  instruments: instrument,
  instrumentVersions: instrumentVersion,
  benches: bench,
  benchVersions: benchVersion,
  shelfItems: shelfItem,
  sections: section,
  people: person,
  closedDays: closedDay,
  points: point2,
  dimensions: dimension2,
  memberLines: memberLine,
  seams: seam,
  seamStations: seamStation,
  shellStates: shellState,
  supports: support,
  workItems: workItem,
  setUps: setUp,
  rounds: round,
  roundControls: roundControl,
  roundEvents: roundEvent,
  references: reference,
  referencePoints: referencePoint,
  referenceDimensions: referenceDimension,
  referenceStations: referenceStation,
  referenceRounds: referenceRound,
  referenceChoices: referenceChoice,
  pulls: pull,
  strokes: stroke,
  springBacks: springBack,
  holds: hold,
  plates: plate,
  hungPanels: hungPanel,
  panelSeams: panelSeam,
  panelSettings: panelSetting,
  settingEffects: settingEffect,
  shims: shim,
  bodyPackers: bodyPacker,
  packerEffects: packerEffect,
  panelMeasures: panelMeasure,
  openingCorners: openingCorner,
  allowances: allowance,
  laps: lap,
  fitChecks: fitCheck,
  fitReadings: fitReading,
  trims: trim,
  stages: stage,
  panels: panel,
  panelPoints: panelPoint,
  platformPoints: platformPoint,
  gaugeParts: gaugePart,
  partHoles: partHole,
  partChecks: partCheck,
  readings: reading,
  readingStrikes: readingStrike,
  readingKeeps: readingKeep,
  pointConditions: pointCondition,
  braces: brace,
  braceDimensions: braceDimension,
  steps: step,
  stepEvents: stepEvent,
  stepNeeds: stepNeed,
  stepPeople: stepPerson,
  bookings: booking,
  timers: timer,
  logEntries: logEntry,
  logSubjects: logSubject,
  photographs: photograph,
  signedRecords: signedRecord,
  changes: change,
  withdrawals: withdrawal,
  findingDetails: findingDetail,
  decisionDetails: decisionDetail,
  partTags: partTag,
  morningChecks: morningCheck,
  morningReadings: morningReading,
  workEvents: workEvent,
  mounts: mount,
  mountPieces: mountPiece,
  structures: structure,
  nodes: node,
  members: member,
  shearPanels: shearPanel,
  pressTests: pressTest,
  panelParts: panelPart,
  joints: joint,
  panelJoints: panelJoint,
  letGos: letGo,
  fixings: fixing,
  weldSeams: weldSeam,
  weldStretches: weldStretch,
  weldMarks: weldMark,
  cracks: crack,
  stiffeners: stiffener,
  axleReadings: axleReading,
  cutLines: cutLine,
  templates: template,
  templatePoints: templatePoint,
  keepOuts: keepOut,
  adviceTaken,
  removalChecks: removalCheck,
  removalReadings: removalReading
};
var JOB_TABLE_NAMES = Object.keys(JOB_TABLES);
var emptyJobRows = () => Object.fromEntries(JOB_TABLE_NAMES.map((table) => [table, []]));
function theJob(rows2) {
  const [job2] = rows2.jobs;
  if (!job2) throw new Error("the rows hold no job");
  return job2;
}

// src/core/shell/job/ladder-order.ts
var byLadder = (a, b) => RUNGS.indexOf(a.rung) - RUNGS.indexOf(b.rung) || a.ordinal - b.ordinal;
function chained(steps) {
  const inOrder2 = steps.toSorted(byLadder);
  return inOrder2.slice(1).map(({ id: id2 }, i) => ({ stepId: id2, needsId: inOrder2[i].id }));
}

// src/core/shell/job/upgrades.ts
var ROWS_VERSION = 12;
var STEPS = {
  // Mounts and edges, which no screen could make, went; what holds a pull became rows, and there were none before.
  1: ({ features: _, ...rows2 }) => ({
    ...rows2,
    ...Array.isArray(rows2.readings) ? { readings: rows2.readings.map(withoutFeature) } : {}
  }),
  // Who closed a round and what was changed by hand were not kept before: there is nothing to bring along.
  2: (rows2) => rows2,
  // The step that signing does was known by its title alone.
  3: (rows2) => ({ ...rows2, ...Array.isArray(rows2.steps) ? { steps: rows2.steps.map(doneBySigning) } : {} }),
  // Benches and set-ups came: there were none before.
  4: (rows2) => rows2,
  // Braces became items of work and what happened to them its events; a section told in words stays in the note.
  5: bracesAsWork,
  // Pulls became items of work too, what happened to them its events, and what holds a pull holds of an item.
  6: pullsAsWork,
  // Bars through several plates came, what a pull is anchored to, and where a seam lies: there was none of it before.
  7: (rows2) => {
    const [pulls, seams] = [listed(rows2, "pulls"), listed(rows2, "seams")];
    return {
      ...rows2,
      ...pulls ? { pulls: pulls.map((pull3) => ({ ...pull3, anchor: null })) } : {},
      ...seams ? { seams: seams.map((seam2) => ({ ...seam2, ...UNPLACED_SEAM })) } : {}
    };
  },
  // The joints of a panel that is fitted were known by the words they were let go under; how long a step takes was not said.
  8: (rows2) => {
    const [letGos, fixings, steps] = ["letGos", "fixings", "steps"].map((table) => listed(rows2, table));
    const joints = new Map(
      (letGos ?? []).map(({ hungId, place: place2 }) => [`${String(hungId)} ${String(place2)}`, { hungId, place: place2 }])
    );
    return {
      ...rows2,
      ...joints.size > 0 ? {
        panelJoints: [...joints.values()].map(({ hungId, place: place2 }) => ({
          hungId,
          name: place2,
          edge: null,
          jointId: null
        }))
      } : {},
      ...fixings ? { fixings: fixings.map((fixing2) => ({ ...fixing2, joint: null })) } : {},
      ...steps ? { steps: steps.map((step2) => ({ ...UNPLANNED_STEP, ...step2 })), stepNeeds: chained(steps) } : {}
    };
  },
  // Seams laid in turn came, with what joints shrank, cracks, stiffeners and axles: there were none before.
  9: (rows2) => {
    const seams = listed(rows2, "weldSeams");
    return { ...rows2, ...seams ? { weldSeams: seams.map((seam2) => ({ ...seam2, inTurnWithId: null })) } : {} };
  },
  // What people may do was not said, and what was written carried their names alone.
  10: (rows2) => {
    const people = listed(rows2, "people");
    return { ...rows2, ...people ? { people: people.map((each) => ({ ...each, roles: [], owner: false })) } : {} };
  },
  // What a point is of, parts and props as braces and the order inside a stage were not told.
  11: (rows2) => {
    const [points, braces, panels] = ["points", "braces", "panels"].map((table) => listed(rows2, table));
    return {
      ...rows2,
      ...points ? { points: points.map((point3) => ({ ...point3, kind: "shell" })) } : {},
      ...braces ? { braces: braces.map((brace3) => ({ ...brace3, stiffness: null, force: null })) } : {},
      ...panels ? { panels: panels.map((panel2) => ({ ...panel2, ordinal: 0 })) } : {}
    };
  }
};
var listed = (rows2, table) => Array.isArray(rows2[table]) ? rows2[table] : void 0;
function pullsAsWork({ pullEvents, pullHolds, ...rows2 }) {
  const pulls = listed(rows2, "pulls");
  const items = [
    ...listed(rows2, "workItems") ?? [],
    ...(pulls ?? []).map(({ id: id2, jobId, code: code2 }) => ({ id: id2, jobId, kind: "pull", code: code2, name: code2, version: 1 }))
  ];
  const events = [
    ...listed(rows2, "workEvents") ?? [],
    ...(pullEvents ?? []).map(
      ({ pullId, note, ...event }) => eventOfItem(event, pullId, note)
    )
  ];
  const withdrawals = listed(rows2, "withdrawals");
  return {
    ...rows2,
    ...items.length > 0 ? { workItems: items } : {},
    ...events.length > 0 ? { workEvents: events } : {},
    ...pulls ? { pulls: pulls.map(({ code: _, ...pull3 }) => ({ ...pull3, ...UNTOLD_PULL })) } : {},
    ...Array.isArray(pullHolds) ? { holds: pullHolds.map(({ pullId, ...hold2 }) => ({ ...hold2, itemId: pullId })) } : {},
    ...withdrawals ? { withdrawals: withdrawals.map(ofItems) } : {}
  };
}
var UNTOLD_PULL = {
  ...{ againstPointId: null, dirX: null, dirY: null, dirZ: null, attach: null },
  ...{ chain: null, rated: null, ramArea: null, together: "" }
};
var eventOfItem = (event, itemId, note) => ({
  ...event,
  ...{ itemId, key: "", reason: note, value: null }
});
function bracesAsWork({ braceEvents, ...rows2 }) {
  const list = (table) => listed(rows2, table);
  const braces = list("braces");
  const items = [
    ...(list("workItems") ?? []).map((item) => ({ ...item, version: 1 })),
    ...(braces ?? []).map(({ id: id2, jobId, code: code2 }) => ({ id: id2, jobId, kind: "brace", code: code2, name: code2, version: 1 }))
  ];
  const events = [
    ...list("workEvents") ?? [],
    ...(braceEvents ?? []).map(
      ({ braceId, note, ...event }) => eventOfItem(event, braceId, note)
    )
  ];
  const { panels, withdrawals } = { panels: list("panels"), withdrawals: list("withdrawals") };
  return {
    ...rows2,
    ...items.length > 0 ? { workItems: items } : {},
    ...events.length > 0 ? { workEvents: events } : {},
    ...braces ? { braces: braces.map(braceWithEnds) } : {},
    ...panels ? { panels: panels.map((panel2) => ({ ...panel2, ...UNDECIDED_PANEL })) } : {},
    ...withdrawals ? { withdrawals: withdrawals.map(ofItems) } : {}
  };
}
function braceWithEnds({ code: _, section: section2, note, ...brace3 }) {
  return {
    ...brace3,
    ...{ sectionId: null, fromEnd: "doubled", toEnd: "doubled", fromOff: 0, toOff: 0 },
    ...{ threadPitch: null, stageInId: null, stageOutId: null },
    note: [section2, note].filter((each) => each !== "").join("; ")
  };
}
var UNPLANNED_STEP = {
  ...{ itemId: null, minutes: null, waits: null, curesAt: null, keeps: null },
  ...{ tendEvery: null, noise: false, outdoor: false, notBefore: null }
};
var UNPLACED_SEAM = { sight: "shut", fromPointId: null, toPointId: null };
var UNDECIDED_PANEL = {
  ...{ stageId: null, choice: null, reason: "", joinedAt: "", hours: null, price: null, ownersWord: "" },
  ...{ stressed: false, version: 1 }
};
var NEW_NAME = {
  ...{ brace: "work_item", brace_event: "work_event" },
  ...{ pull: "work_item", pull_event: "work_event" }
};
var ofItems = (withdrawal2) => ({
  ...withdrawal2,
  tableName: NEW_NAME[String(withdrawal2.tableName)] ?? withdrawal2.tableName
});
var doneBySigning = (step2) => {
  const { rung, title } = step2 ?? {};
  return rung === "verify" && title === "Sign the record" ? { ...step2, doneBy: "signing" } : step2;
};
var withoutFeature = (reading2) => {
  if (typeof reading2 !== "object" || reading2 === null) return reading2;
  const { featureId: _, ...rest } = reading2;
  return rest;
};
function versionOfFormat(format, name2) {
  if (typeof format !== "string" || !format.startsWith(`${name2}/`)) return void 0;
  const version2 = Number(format.slice(name2.length + 1));
  return Number.isInteger(version2) && version2 >= 1 && version2 <= ROWS_VERSION ? version2 : void 0;
}
function upgradeRows(rows2, version2) {
  if (typeof rows2 !== "object" || rows2 === null || Array.isArray(rows2)) return rows2;
  let upgraded = rows2;
  for (let from2 = version2; from2 < ROWS_VERSION; from2++) upgraded = STEPS[from2](upgraded);
  return upgraded;
}
function upgradeDocument(document, name2) {
  if (typeof document !== "object" || document === null) return document;
  const { format, rows: rows2, ...rest } = document;
  const version2 = versionOfFormat(format, name2);
  if (version2 === void 0) return document;
  return { ...rest, format: `${name2}/${ROWS_VERSION}`, rows: upgradeRows(rows2, version2) };
}

// src/formats/faults.ts
import { parse, printParseErrorCode } from "jsonc-parser";
function parseJson(text4) {
  if (isTooDeep(text4))
    return {
      ok: false,
      faults: [{ path: "file", message: `nested more than ${MOST_DEPTH} deep: no document of ours is` }]
    };
  const errors = [];
  const value = parse(text4.replace(/^\uFEFF/, ""), errors, {
    disallowComments: true,
    allowTrailingComma: false,
    allowEmptyContent: false
  });
  const [first] = errors;
  if (!first) return { ok: true, value };
  const before = text4.slice(0, first.offset).split("\n");
  const place2 = `line ${before.length}, column ${before.at(-1).length + 1}`;
  const what = printParseErrorCode(first.error).replace(/([A-Z])/g, " $1").trim().toLowerCase();
  return { ok: false, faults: [{ path: "file", message: `not JSON: ${what} at ${place2}` }] };
}
var MOST_DEPTH = 100;
function isTooDeep(text4) {
  let depth2 = 0;
  let inString = false;
  for (let i = 0; i < text4.length; i++) {
    const sign = text4.charCodeAt(i);
    if (inString) {
      if (sign === 92) i++;
      else if (sign === 34) inString = false;
    } else if (sign === 34) inString = true;
    else if (sign === 91 || sign === 123) {
      if (++depth2 > MOST_DEPTH) return true;
    } else if (sign === 93 || sign === 125) depth2--;
  }
  return false;
}
var pathText = (path2) => path2.reduce(
  (text4, key) => typeof key === "number" ? `${text4}[${key}]` : text4 === "" ? String(key) : `${text4}.${String(key)}`,
  ""
) || "file";
function parseShape(schema, value) {
  const result = schema.safeParse(value, { error: wordIssue });
  if (result.success) return { ok: true, value: result.data };
  return { ok: false, faults: result.error.issues.flatMap(issueFaults) };
}
var TYPE_WORDS = {
  number: "a number",
  string: "text",
  array: "a list",
  object: "an object",
  record: "an object",
  boolean: "true or false",
  tuple: "a list",
  int: "a whole number"
};
var FORMAT_WORDS = {
  uuid: "not an identity this program made",
  datetime: "not a date and time",
  date: "not a date: year-month-day",
  regex: "not written as it should be"
};
var wordIssue = (issue) => {
  switch (issue.code) {
    case "invalid_type": {
      const expected = TYPE_WORDS[issue.expected] ?? issue.expected;
      return issue.input === void 0 ? `missing: expected ${expected}` : `expected ${expected}`;
    }
    case "too_big":
      return `at most ${issue.maximum}${UNIT_WORDS[issue.origin] ?? ""}`;
    case "too_small":
      if (issue.origin === "string")
        return Number(issue.minimum) <= 1 ? "type something here" : `at least ${issue.minimum} letters`;
      return issue.inclusive ? `${issue.minimum}${UNIT_WORDS[issue.origin] ?? ""} or more` : `above ${issue.minimum}`;
    case "invalid_format":
      return FORMAT_WORDS[issue.format] ?? "not written as it should be";
    case "invalid_value":
      return `one of: ${issue.values.map(String).join(", ")}`;
    case "invalid_union":
      return "none of the forms this can have";
    case "not_multiple_of":
      return `a multiple of ${issue.divisor}`;
    default:
      return void 0;
  }
};
var UNIT_WORDS = { string: " letters", array: " of them", set: " of them" };
function issueFaults(issue) {
  if (issue.code === "unrecognized_keys")
    return issue.keys.map((key) => ({
      path: pathText([...issue.path, key]),
      message: "unknown field"
    }));
  if (issue.code === "invalid_union") {
    const inside = issue.errors.filter((each) => depth(each) > 0);
    const nearest = inside.sort((a, b) => a.length - b.length || depth(b) - depth(a))[0];
    if (nearest)
      return nearest.flatMap(
        (each) => issueFaults({ ...each, path: [...issue.path, ...each.path] })
      );
  }
  return [{ path: pathText(issue.path), message: lowerFirst(issue.message) }];
}
var depth = (issues) => Math.max(0, ...issues.map((issue) => issue.path.length));
var lowerFirst = (text4) => text4.charAt(0).toLowerCase() + text4.slice(1);

// src/formats/archive/documents.ts
var ROUND_TABLES = [
  "rounds",
  "roundControls",
  "roundEvents",
  "readings",
  "readingStrikes",
  "readingKeeps",
  "pointConditions"
];
var isRoundTable = (table) => ROUND_TABLES.includes(table);
var OWN_TABLES = JOB_TABLE_NAMES.filter((table) => !isRoundTable(table));
var tablesSchema = (tables) => z16.strictObject(Object.fromEntries(tables.map((table) => [table, z16.array(JOB_TABLES[table]).default([])])));
var JOB = "vinkel.job";
var ROUND = "vinkel.round";
var jobDocument = z16.strictObject({
  format: z16.literal(`${JOB}/${ROWS_VERSION}`),
  rows: tablesSchema(OWN_TABLES)
});
var roundDocument = z16.strictObject({
  format: z16.literal(`${ROUND}/${ROWS_VERSION}`),
  rows: tablesSchema(ROUND_TABLES)
});
var JOB_PATH = "job.json";
function readArchiveDocuments(documents) {
  const rows2 = emptyJobRows();
  const faults = [];
  for (const { path: path2, text: text4 } of documents) {
    const schema = path2 === JOB_PATH ? jobDocument : roundDocument;
    const parsed = parseJson(text4);
    const current = parsed.ok && upgradeDocument(parsed.value, path2 === JOB_PATH ? JOB : ROUND);
    const shape = parsed.ok ? parseShape(schema, current) : parsed;
    if (!shape.ok) {
      faults.push(...shape.faults.map((fault) => ({ ...fault, path: `${path2} ${fault.path}` })));
      continue;
    }
    for (const [table, list] of Object.entries(shape.value.rows)) rows2[table].push(...list);
  }
  if (rows2.jobs.length !== 1 && faults.length === 0)
    faults.push({ path: JOB_PATH, message: `an archive holds one job, not ${rows2.jobs.length}` });
  return faults.length > 0 ? { ok: false, faults } : { ok: true, value: rows2 };
}

// tests/support/demo-rows.ts
function demoRows(folder) {
  const root = path.join(process.cwd(), "demo/jobs", folder);
  const paths = ["job.json", ...readdirSync(path.join(root, "rounds")).map((name2) => `rounds/${name2}`)];
  const read = readArchiveDocuments(
    paths.map((name2) => ({ path: name2, text: readFileSync(path.join(root, name2), "utf8") }))
  );
  if (!read.ok) throw new Error(JSON.stringify(read.faults.slice(0, 5)));
  return read.value;
}

// src/core/maths/grouped.ts
function grouped(rows2, key) {
  const groups = /* @__PURE__ */ new Map();
  for (const row of rows2) {
    const group = groups.get(key(row));
    if (group) group.push(row);
    else groups.set(key(row), [row]);
  }
  return groups;
}

// src/core/maths/once.ts
function once(known2, key, make) {
  if (!known2.has(key)) known2.set(key, make());
  return known2.get(key);
}
function onceFor(work) {
  const known2 = /* @__PURE__ */ new WeakMap();
  return (of) => {
    const entry2 = known2.get(of) ?? { made: work(of) };
    known2.set(of, entry2);
    return entry2.made;
  };
}

// src/core/shell/bodies/body.ts
var bothSides = (rows2) => rows2.flatMap(
  ([code2, name2, x, y, z17]) => y === 0 ? [{ code: code2, name: name2, side: "centre", at: [x, 0, z17] }] : [
    { code: `${code2}L`, name: name2, side: "left", at: [x, -y, z17] },
    { code: `${code2}R`, name: name2, side: "right", at: [x, y, z17] }
  ]
);
var linesOf = (places7, text4) => {
  const known2 = new Set(places7.map(({ code: code2 }) => code2));
  const onSide = (code2, side2) => known2.has(code2) ? code2 : `${code2}${side2}`;
  return text4.trim().split(/\s*[,\n]\s*/).flatMap((line2) => {
    const [a, b] = line2.split(" ");
    if (b === "=") return [[`${a}L`, `${a}R`]];
    const middle = known2.has(a) && known2.has(b);
    return (middle ? ["L"] : ["L", "R"]).map((side2) => [onSide(a, side2), onSide(b, side2)]);
  });
};
var membersOf = (places7, texts) => Object.keys(texts).flatMap(
  (kind) => linesOf(places7, texts[kind]).map(([from2, to]) => ({ from: from2, to, kind }))
);
var SHEET = 0.8;
var sheetsOf = (places7, text4) => {
  const known2 = new Set(places7.map(({ code: code2 }) => code2));
  return text4.trim().split("\n").flatMap((row) => {
    const [name2 = "", codes2 = ""] = row.trim().split(": ");
    const corners = codes2.split(" ");
    const whole = corners.every((code2) => known2.has(code2));
    return (whole ? [""] : ["L", "R"]).map((side2) => ({
      name: name2,
      corners: corners.map((code2) => known2.has(code2) ? code2 : `${code2}${side2}`),
      thickness: SHEET
    }));
  });
};
var skinOnBothSides = (name2, outline) => [-1, 1].map((side2) => ({ name: name2, outline: outline.map(([x, y, z17]) => [x, side2 * y, z17]) }));
var openingOnBothSides = (name2, corners) => ["L", "R"].map((side2) => ({ name: name2, corners: corners.map((code2) => `${code2}${side2}`) }));
function morphed({ places: places7, size: own2 }, size2) {
  const ratios = ["wheelbase", "track", "height"].map((measure3) => {
    const typed = size2[measure3];
    return typed === null ? void 0 : typed / own2[measure3];
  });
  const known2 = ratios.filter((ratio) => ratio !== void 0);
  const usual = known2.length > 0 ? known2.reduce((sum, ratio) => sum + ratio, 0) / known2.length : 1;
  const [x, y, z17] = ratios.map((ratio) => ratio ?? usual);
  return new Map(places7.map(({ code: code2, at: at2 }) => [code2, [at2[0] * x, at2[1] * y, at2[2] * z17]]));
}

// src/core/shell/bodies/closed-floor.ts
var unitFloor = (at2) => [
  ["F1", "Front leg end", 0, 400, 480],
  ["F2", "Front leg, behind the bumper bracket", 420, 405, 430],
  ["F3", "Strut tower, top", 640, 470, 820],
  ["F4", "Front crossmember hole", 700, 380, 250],
  ["S1", "Sill, front end", 1080, 640, 170],
  ["S2", "Sill, middle hole", 1680, 655, 160],
  ["S3", "Sill, rear end", at2.sillEnd, 645, 170],
  ["C1", "Rear seat crossmember hole", at2.crossmember, 480, 260],
  ["R1", "Rear axle mount", at2.axle, 470, 330],
  ["R4", "Rear leg end", at2.end, 430, at2.endHeight],
  ["T1", "Tunnel, front hole", 1250, 0, 330],
  ["T2", "Tunnel, rear hole", at2.tunnelEnd, 0, 300]
];
var UNIT_FLOOR_MEMBERS = {
  leg: "F1 F2, F2 F4, F4 S1, C1 R1, R1 R4, F4 T1",
  sill: "S1 S2, S2 S3",
  crossmember: "F1 =, F4 =, S3 T2, T1 S1, C1 =, S3 C1, R4 =, S2 T1",
  tunnel: "T1 T2, T2 C1",
  tower: "F2 F3, F3 A4, F4 F3"
};
var UNIT_FLOOR_SHEETS = `front floor: T1 S1 S2 T2
rear floor: T2 S2 S3 C1
boot floor: C1L R1L R1R C1R
boot floor, rear: R1L R4L R4R R1R
bulkhead: A1L A1R A4R A4L
toe board: S1L S1R A1R A1L
inner wing: F2 F4 A4 F3`;
var FRONT_POSTS = [
  ["A1", "A post, foot", 1090, 690, 300],
  ["A2", "A post, lower hinge", 1060, 700, 480],
  ["A3", "A post, upper hinge", 1070, 700, 760],
  ["A4", "Windscreen, lower corner", 1120, 620, 930],
  ["A5", "Windscreen, upper corner", 1560, 540, 1300]
];
var FRONT_POST_MEMBERS = { post: "S1 A1, A1 A2, A2 A3, A3 A4", rail: "A4 A5, A4 =, A5 =" };
var FRONT_SKIN = [
  ...skinOnBothSides("Front wing", [
    ...[
      [1055, 760, 260],
      [1e3, 770, 300],
      [960, 775, 450],
      [860, 780, 600],
      [720, 780, 660]
    ],
    ...[
      [560, 780, 640],
      [420, 775, 520],
      [370, 770, 330],
      [60, 740, 330],
      [-60, 700, 420]
    ],
    ...[
      [-70, 660, 700],
      [60, 660, 830],
      [500, 690, 880],
      [1080, 690, 930]
    ]
  ]),
  {
    name: "Bonnet",
    outline: [
      ...[
        [-60, -600, 800],
        [500, -640, 890],
        [1060, -620, 945],
        [1060, 620, 945]
      ],
      ...[
        [500, 640, 890],
        [-60, 600, 800]
      ]
    ]
  }
];
var bumper = (x, towards, z17 = 430) => ({
  name: "Bumper",
  outline: [
    ...[
      [x, -700, z17 - 60],
      [x + 60 * towards, -500, z17 - 60],
      [x + 60 * towards, 500, z17 - 60]
    ],
    ...[
      [x, 700, z17 - 60],
      [x, 700, z17 + 60],
      [x + 60 * towards, 500, z17 + 60]
    ],
    ...[
      [x + 60 * towards, -500, z17 + 60],
      [x, -700, z17 + 60]
    ]
  ]
});

// src/core/shell/bodies/estate.ts
var places = bothSides([
  ...unitFloor({ sillEnd: 2150, crossmember: 2330, axle: 3040, end: 3800, endHeight: 440, tunnelEnd: 2100 }),
  ...FRONT_POSTS,
  ["B1", "B post, foot", 2180, 690, 300],
  ["B2", "B post, striker", 2170, 705, 640],
  ["B3", "B post, at the waist", 2180, 690, 900],
  ["B4", "Cantrail over the B post", 2150, 570, 1380],
  ["D1", "Side window, lower rear corner", 3500, 650, 930],
  ["D2", "Cantrail, rear end", 3520, 560, 1350],
  ["G1", "Tailgate opening, lower corner", 3790, 560, 520],
  ["G2", "Tailgate opening, at the waist", 3760, 600, 930],
  ["G3", "Tailgate opening, upper corner", 3560, 520, 1360]
]);
var ESTATE = {
  type: "estate",
  name: "estate",
  size: { wheelbase: 2400, track: 1270, height: 1400 },
  places,
  members: membersOf(places, {
    ...UNIT_FLOOR_MEMBERS,
    ...{ post: `${FRONT_POST_MEMBERS.post}, S3 B1, B1 B2, B2 B3, B3 B4` },
    rail: `${FRONT_POST_MEMBERS.rail}, A5 B4, B4 D2, D2 G3, D1 D2, B3 D1, G3 G2, G2 G1, B4 =`,
    crossmember: `${UNIT_FLOOR_MEMBERS.crossmember}, G1 =, G3 =, G1 R4`,
    flange: "D1 G2"
  }),
  sheets: sheetsOf(
    places,
    `${UNIT_FLOOR_SHEETS}
roof: A5L B4L B4R A5R
roof, rear: B4L D2L D2R B4R
roof, edge: D2L G3L G3R D2R
side, below the waist: B1 B3 D1 G1
wheelhouse: C1 R1 D1 B3
side, corner: D1 D2 G3 G2
tail, side: G1 G2 D1 R4
tail, sill: G1L R4L R4R G1R
heelboard: S3L C1L C1R S3R`
  ),
  wheels: { frontAxle: 640, axleHeight: 260, radius: 300 },
  skin: [
    ...FRONT_SKIN,
    bumper(-90, -1),
    bumper(3850, 1),
    ...skinOnBothSides("Rear quarter", [
      ...[
        [2200, 760, 190],
        [2640, 770, 250],
        [2690, 775, 480],
        [2820, 780, 610],
        [3040, 780, 650]
      ],
      ...[
        [3260, 780, 610],
        [3390, 775, 480],
        [3430, 770, 330],
        [3800, 740, 400],
        [3840, 690, 560]
      ],
      ...[
        [3800, 660, 920],
        [2190, 710, 920]
      ]
    ])
  ],
  openings: [
    ...openingOnBothSides("Door", ["A1", "A2", "A3", "A4", "A5", "B4", "B3", "B2", "B1"]),
    ...openingOnBothSides("Side window", ["B3", "B4", "D2", "D1"]),
    { name: "Windscreen", corners: ["A4L", "A5L", "A5R", "A4R"] },
    { name: "Tailgate", corners: ["G1L", "G2L", "G3L", "G3R", "G2R", "G1R"] }
  ]
};

// src/core/shell/bodies/four-door.ts
var places2 = bothSides([
  ...unitFloor({ sillEnd: 2450, crossmember: 2560, axle: 3190, end: 3980, endHeight: 430, tunnelEnd: 2250 }),
  ...FRONT_POSTS,
  ["B1", "B post, foot", 2020, 700, 290],
  ["B2", "B post, striker", 2020, 710, 640],
  ["B3", "B post, at the waist", 2030, 695, 920],
  ["B4", "Cantrail over the B post", 2060, 565, 1380],
  ["C2", "C post, foot at the wheel arch", 2640, 690, 420],
  ["C3", "C post, striker", 2760, 700, 720],
  ["C4", "Cantrail over the C post", 2760, 545, 1350],
  ["Q1", "Rear window, lower corner", 3150, 570, 960],
  ["L1", "Boot opening, front corner", 3250, 560, 940],
  ["L2", "Boot opening, rear corner", 3920, 540, 780]
]);
var FOUR_DOOR = {
  type: "fourDoor",
  name: "closed, four doors",
  size: { wheelbase: 2550, track: 1330, height: 1400 },
  places: places2,
  members: membersOf(places2, {
    ...UNIT_FLOOR_MEMBERS,
    ...{ post: `${FRONT_POST_MEMBERS.post}, S2 B1, B1 B2, B2 B3, B3 B4, S3 C2, C2 C3, C3 C4` },
    rail: `${FRONT_POST_MEMBERS.rail}, A5 B4, B4 C4, C4 Q1, Q1 L1, L1 L2, Q1 =, C4 =, L1 =, B4 =`,
    crossmember: `${UNIT_FLOOR_MEMBERS.crossmember}, L2 =, L2 R4`,
    flange: "C3 Q1"
  }),
  sheets: sheetsOf(
    places2,
    `${UNIT_FLOOR_SHEETS}
roof: A5L B4L B4R A5R
roof, rear: B4L C4L C4R B4R
side, rear: C2 C3 L1 R1
side, tail: R1 L1 L2 R4
quarter: C3 C4 Q1 L1
parcel shelf: Q1L L1L L1R Q1R
seat bulkhead: C1L C1R Q1R Q1L
tail: L2L R4L R4R L2R
heelboard: S3L C1L C1R S3R`
  ),
  wheels: { frontAxle: 640, axleHeight: 260, radius: 300 },
  skin: [
    ...FRONT_SKIN,
    bumper(-90, -1),
    bumper(4030, 1),
    ...skinOnBothSides("Rear quarter", [
      ...[
        [2660, 760, 420],
        [2740, 770, 540],
        [2870, 780, 620],
        [3190, 780, 660],
        [3410, 780, 610]
      ],
      ...[
        [3540, 775, 480],
        [3580, 770, 330],
        [3960, 720, 400],
        [4e3, 660, 720],
        [3250, 640, 940]
      ],
      ...[
        [2780, 700, 940],
        [2760, 705, 720]
      ]
    ]),
    {
      name: "Boot lid",
      outline: [
        ...[
          [3260, -560, 945],
          [3920, -540, 790],
          [3980, -540, 540],
          [3980, 540, 540]
        ],
        ...[
          [3920, 540, 790],
          [3260, 560, 945]
        ]
      ]
    }
  ],
  openings: [
    ...openingOnBothSides("Front door", ["A1", "A2", "A3", "A4", "A5", "B4", "B3", "B2", "B1"]),
    ...openingOnBothSides("Rear door", ["B1", "B2", "B3", "B4", "C4", "C3", "C2"]),
    { name: "Windscreen", corners: ["A4L", "A5L", "A5R", "A4R"] },
    { name: "Rear window", corners: ["Q1L", "C4L", "C4R", "Q1R"] },
    { name: "Boot", corners: ["L1L", "L2L", "L2R", "L1R"] }
  ]
};

// src/core/shell/bodies/on-platform.ts
var places3 = bothSides([
  ["P1", "Platform, front end", 150, 300, 330],
  ["P2", "Platform mount, front", 900, 520, 260],
  ["P3", "Platform mount, middle", 1700, 560, 250],
  ["P4", "Platform mount, rear", 2450, 540, 270],
  ["P5", "Platform, rear axle mount", 2950, 440, 340],
  ["P6", "Platform, rear end", 3600, 380, 400],
  ["T1", "Tunnel, front hole", 1150, 0, 320],
  ["T2", "Tunnel, rear hole", 2250, 0, 300],
  ["A1", "A post, foot", 1e3, 660, 330],
  ["A2", "A post, lower hinge", 980, 680, 500],
  ["A3", "A post, upper hinge", 990, 680, 780],
  ["A4", "Windscreen, lower corner", 1050, 600, 950],
  ["A5", "Windscreen, upper corner", 1420, 520, 1320],
  ["B1", "B post, foot", 2050, 670, 330],
  ["B2", "B post, striker", 2050, 690, 660],
  ["B4", "Cantrail over the B post", 2030, 540, 1340],
  ["G1", "Rear opening, lower corner", 3550, 520, 560],
  ["G3", "Rear opening, upper corner", 3380, 480, 1300]
]);
var ON_PLATFORM = {
  type: "onPlatform",
  name: "body on a platform",
  size: { wheelbase: 2400, track: 1290, height: 1350 },
  places: places3,
  members: membersOf(places3, {
    frame: "P1 P2, P2 P3, P3 P4, P4 P5, P5 P6, P1 =, P5 =, P6 =",
    crossmember: "P2 =, P3 =, P4 =, P2 A1, P4 B1, T1 P2, T2 P4",
    ...{ tunnel: "T1 T2", sill: "A1 B1", post: "A1 A2, A2 A3, A3 A4, B1 B2, B2 B4" },
    rail: "A4 A5, A4 =, A5 =, A5 B4, B4 G3, G1 G3, G1 P6, G1 =, G3 =, B4 ="
  }),
  sheets: sheetsOf(
    places3,
    `platform: P2L P2R P3R P3L
platform, rear: P3L P3R P4R P4L
platform, tail: P4L P4R P5R P5L
bulkhead: A1L A1R A4R A4L
roof: A5L B4L B4R A5R
roof, rear: B4L G3L G3R B4R
side: B1 B4 G3 G1
side, wheelhouse: P4 B1 G1 P6`
  ),
  wheels: { frontAxle: 540, axleHeight: 280, radius: 310 },
  skin: [
    ...skinOnBothSides("Front wing", [
      ...[
        [975, 740, 330],
        [900, 760, 340],
        [850, 770, 520],
        [720, 775, 640],
        [540, 775, 670]
      ],
      ...[
        [360, 775, 640],
        [230, 770, 520],
        [190, 760, 340],
        [0, 700, 350],
        [-40, 600, 700]
      ],
      ...[
        [300, 560, 880],
        [1e3, 620, 950]
      ]
    ]),
    {
      name: "Bonnet",
      outline: [
        ...[
          [-30, -420, 720],
          [300, -540, 890],
          [1e3, -590, 965],
          [1e3, 590, 965]
        ],
        ...[
          [300, 540, 890],
          [-30, 420, 720]
        ]
      ]
    },
    ...skinOnBothSides("Rear quarter", [
      ...[
        [2070, 740, 330],
        [2560, 760, 340],
        [2600, 770, 520],
        [2750, 775, 650],
        [2940, 775, 680]
      ],
      ...[
        [3130, 775, 640],
        [3270, 770, 520],
        [3310, 760, 360],
        [3560, 640, 450],
        [3560, 600, 760]
      ],
      ...[
        [3480, 560, 900],
        [2060, 690, 930]
      ]
    ])
  ],
  openings: [
    ...openingOnBothSides("Door", ["A1", "A2", "A3", "A4", "A5", "B4", "B2", "B1"]),
    { name: "Windscreen", corners: ["A4L", "A5L", "A5R", "A4R"] },
    { name: "Rear opening", corners: ["G1L", "G3L", "G3R", "G1R"] }
  ]
};

// src/core/shell/bodies/open.ts
var places4 = bothSides([
  ...unitFloor({ sillEnd: 2050, crossmember: 2200, axle: 2880, end: 3480, endHeight: 420, tunnelEnd: 2e3 }),
  ["A1", "A post, foot", 1090, 660, 290],
  ["A2", "A post, lower hinge", 1060, 670, 440],
  ["A3", "A post, upper hinge", 1065, 670, 660],
  ["A4", "Windscreen, lower corner", 1130, 600, 840],
  ["B1", "B post, foot", 2060, 660, 290],
  ["B2", "B post, striker", 2060, 670, 560],
  ["B3", "B post, top", 2080, 655, 790],
  ["L1", "Boot opening, front corner", 2640, 500, 830],
  ["L2", "Boot opening, rear corner", 3380, 480, 680]
]);
var OPEN = {
  type: "open",
  name: "open, two seats",
  size: { wheelbase: 2250, track: 1220, height: 900 },
  places: places4,
  members: membersOf(places4, {
    ...UNIT_FLOOR_MEMBERS,
    post: "S1 A1, A1 A2, A2 A3, A3 A4, S3 B1, B1 B2, B2 B3",
    rail: "A4 =, B3 L1, L1 L2, B3 =, L1 =",
    crossmember: `${UNIT_FLOOR_MEMBERS.crossmember}, L2 =, L2 R4`
  }),
  sheets: sheetsOf(
    places4,
    `${UNIT_FLOOR_SHEETS}
rear deck: B3L L1L L1R B3R
side, below the waist: B1 B3 L1 R1
side, rear: R1 L1 L2 R4
rear bulkhead: S3L S3R B3R B3L
tail: L2L R4L R4R L2R
heelboard: S3L C1L C1R S3R`
  ),
  wheels: { frontAxle: 640, axleHeight: 250, radius: 290 },
  skin: [
    ...FRONT_SKIN,
    bumper(-90, -1),
    bumper(3530, 1),
    ...skinOnBothSides("Rear quarter", [
      ...[
        [2070, 740, 190],
        [2490, 750, 250],
        [2540, 760, 460],
        [2670, 760, 590],
        [2890, 760, 630]
      ],
      ...[
        [3110, 760, 590],
        [3240, 750, 460],
        [3280, 740, 330],
        [3480, 690, 400],
        [3510, 620, 640]
      ],
      ...[
        [2640, 600, 840],
        [2080, 690, 800]
      ]
    ]),
    {
      name: "Boot lid",
      outline: [
        ...[
          [2650, -520, 835],
          [3380, -500, 690],
          [3460, -500, 500],
          [3460, 500, 500]
        ],
        ...[
          [3380, 500, 690],
          [2650, 520, 835]
        ]
      ]
    },
    ...skinOnBothSides("Seat back", [
      ...[
        [1900, 80, 420],
        [1900, 560, 420],
        [2040, 560, 900],
        [2040, 80, 900]
      ]
    ]),
    {
      name: "Windscreen",
      outline: [
        ...[
          [1130, -590, 845],
          [1330, -500, 1110],
          [1330, 500, 1110],
          [1130, 590, 845]
        ]
      ]
    }
  ],
  openings: [
    ...openingOnBothSides("Door", ["A1", "A2", "A3", "B3", "B2", "B1"]),
    { name: "Boot", corners: ["L1L", "L2L", "L2R", "L1R"] }
  ]
};

// src/core/shell/bodies/pickup-cab.ts
var places5 = bothSides([
  ["F1", "Front leg end", 0, 400, 500],
  ["F2", "Cab mount, front", 950, 400, 420],
  ["S1", "Sill, front end", 1050, 680, 320],
  ["S3", "Sill, rear end", 2050, 690, 320],
  ["M2", "Cab mount, rear", 2080, 420, 430],
  ["R1", "Rear axle mount", 3e3, 440, 460],
  ["R4", "Rear leg end", 4100, 420, 520],
  ["T1", "Tunnel, front hole", 1250, 0, 460],
  ["A1", "A post, foot", 1060, 700, 400],
  ["A2", "A post, lower hinge", 1050, 720, 580],
  ["A3", "A post, upper hinge", 1060, 720, 900],
  ["A4", "Windscreen, lower corner", 1130, 660, 1080],
  ["A5", "Windscreen, upper corner", 1500, 590, 1480],
  ["B1", "B post, foot", 2060, 700, 400],
  ["B2", "B post, striker", 2060, 720, 760],
  ["B4", "Cantrail over the B post", 2040, 600, 1490],
  ["W1", "Rear window, lower corner", 2090, 520, 1060],
  ["W2", "Rear window, upper corner", 2070, 500, 1420]
]);
var PICKUP_CAB = {
  type: "pickupCab",
  name: "pickup cab",
  size: { wheelbase: 2700, track: 1350, height: 1500 },
  places: places5,
  members: membersOf(places5, {
    frame: "F1 F2, F2 M2, M2 R1, R1 R4, F1 =, M2 =, R1 =, R4 =",
    ...{ sill: "S1 S3", post: "S1 A1, A1 A2, A2 A3, A3 A4, S3 B1, B1 B2, B2 B4" },
    rail: "A4 A5, A4 =, A5 =, A5 B4, B4 W2, W1 W2, W1 =, W2 =, B4 =",
    crossmember: "F2 =, S3 =, F2 S1, M2 S3, T1 S1, T1 S3"
  }),
  sheets: sheetsOf(
    places5,
    `floor: F2L F2R M2R M2L
floor, side: F2 S1 S3 M2
bulkhead: A1L A1R A4R A4L
toe board: S1L S1R A1R A1L
roof: A5L B4L B4R A5R
back, below the window: S3L S3R W1R W1L
back, beside the window: B1 B4 W2 W1`
  ),
  wheels: { frontAxle: 420, axleHeight: 340, radius: 330 },
  skin: [
    ...skinOnBothSides("Front wing", [
      ...[
        [1045, 770, 420],
        [860, 780, 420],
        [800, 785, 620],
        [640, 790, 740],
        [420, 790, 780]
      ],
      ...[
        [200, 790, 740],
        [60, 785, 620],
        [10, 780, 430],
        [-250, 720, 430],
        [-290, 660, 800]
      ],
      ...[
        [-180, 640, 1e3],
        [1060, 690, 1080]
      ]
    ]),
    {
      name: "Bonnet",
      outline: [
        ...[
          [-270, -560, 990],
          [1060, -640, 1095],
          [1060, 640, 1095],
          [-270, 560, 990]
        ]
      ]
    },
    ...skinOnBothSides("Bed side", [
      ...[
        [2160, 800, 560],
        [2720, 810, 560],
        [2780, 815, 720],
        [2930, 820, 830],
        [3120, 820, 860]
      ],
      ...[
        [3310, 820, 830],
        [3460, 815, 720],
        [3520, 810, 560],
        [4200, 800, 560],
        [4200, 800, 1e3]
      ],
      ...[[2160, 800, 1e3]]
    ])
  ],
  openings: [
    ...openingOnBothSides("Door", ["A1", "A2", "A3", "A4", "A5", "B4", "B2", "B1"]),
    { name: "Windscreen", corners: ["A4L", "A5L", "A5R", "A4R"] },
    { name: "Rear window", corners: ["W1L", "W2L", "W2R", "W1R"] }
  ]
};

// src/core/shell/bodies/two-door.ts
var places6 = bothSides([
  ...unitFloor({ sillEnd: 2150, crossmember: 2330, axle: 3040, end: 3700, endHeight: 430, tunnelEnd: 2100 }),
  ...FRONT_POSTS,
  ["B1", "B post, foot", 2180, 690, 300],
  ["B2", "B post, striker", 2170, 705, 640],
  ["B3", "B post, at the waist", 2180, 690, 900],
  ["B4", "Cantrail over the B post", 2150, 560, 1310],
  ["Q1", "Rear window, lower corner", 2850, 560, 940],
  ["Q2", "Rear window, upper corner", 2560, 520, 1280],
  ["L1", "Boot opening, front corner", 2980, 540, 920],
  ["L2", "Boot opening, rear corner", 3640, 520, 760]
]);
var TWO_DOOR = {
  type: "twoDoor",
  name: "closed, two doors",
  size: { wheelbase: 2400, track: 1270, height: 1330 },
  places: places6,
  members: membersOf(places6, {
    ...UNIT_FLOOR_MEMBERS,
    ...{ post: `${FRONT_POST_MEMBERS.post}, S3 B1, B1 B2, B2 B3, B3 B4` },
    rail: `${FRONT_POST_MEMBERS.rail}, A5 B4, B4 Q2, Q2 Q1, Q1 L1, L1 L2, Q1 =, Q2 =, L1 =, B4 =`,
    crossmember: `${UNIT_FLOOR_MEMBERS.crossmember}, L2 =, L2 R4`,
    flange: "B3 Q1"
  }),
  sheets: sheetsOf(
    places6,
    `${UNIT_FLOOR_SHEETS}
roof: A5L B4L B4R A5R
roof, rear: B4L Q2L Q2R B4R
side, below the waist: B1 B3 L1 R1
side, rear: R1 L1 L2 R4
quarter: B3 B4 Q2 Q1
parcel shelf: Q1L L1L L1R Q1R
seat bulkhead: C1L C1R Q1R Q1L
tail: L2L R4L R4R L2R
heelboard: S3L C1L C1R S3R`
  ),
  wheels: { frontAxle: 640, axleHeight: 260, radius: 300 },
  skin: [
    ...FRONT_SKIN,
    bumper(-90, -1),
    bumper(3750, 1),
    ...skinOnBothSides("Rear quarter", [
      ...[
        [2200, 760, 190],
        [2640, 770, 250],
        [2690, 775, 480],
        [2820, 780, 610],
        [3040, 780, 650]
      ],
      ...[
        [3260, 780, 610],
        [3390, 775, 480],
        [3430, 770, 330],
        [3700, 720, 400],
        [3730, 660, 700]
      ],
      ...[
        [2980, 640, 920],
        [2190, 710, 920]
      ]
    ]),
    {
      name: "Boot lid",
      outline: [
        ...[
          [2990, -560, 925],
          [3640, -540, 770],
          [3700, -540, 540],
          [3700, 540, 540]
        ],
        ...[
          [3640, 540, 770],
          [2990, 560, 925]
        ]
      ]
    }
  ],
  openings: [
    ...openingOnBothSides("Door", ["A1", "A2", "A3", "A4", "A5", "B4", "B3", "B2", "B1"]),
    { name: "Windscreen", corners: ["A4L", "A5L", "A5R", "A4R"] },
    { name: "Rear window", corners: ["Q1L", "Q2L", "Q2R", "Q1R"] },
    { name: "Boot", corners: ["L1L", "L2L", "L2R", "L1R"] }
  ]
};

// src/core/shell/bodies/index.ts
var BODIES = {
  twoDoor: TWO_DOOR,
  fourDoor: FOUR_DOOR,
  estate: ESTATE,
  open: OPEN,
  pickupCab: PICKUP_CAB,
  onPlatform: ON_PLATFORM
};

// src/core/shell/by-code.ts
var ORDER = new Intl.Collator("en", { numeric: true });
var byCode = (a, b) => ORDER.compare(a, b);

// src/core/shell/mirrored-code.ts
var EXCHANGED = { L: "R", R: "L", l: "r", r: "l" };
var OWN = { left: /l(?!.*l)/i, right: /r(?!.*r)/i };
function mirroredCode(code2, side2) {
  if (side2 === "centre") return code2;
  return code2.replace(side2 ? OWN[side2] : /[lr]$/i, (letter) => EXCHANGED[letter]);
}

// src/core/maths/geometry/vector.ts
var position = (at2) => at2;
var displacement = (by) => by;
var covariance = (block) => block;
var motion = (rotation, translation) => ({ rotation, translation });
var AXES = ["x", "y", "z"];
var add = (a, b) => [a[0] + b[0], a[1] + b[1], a[2] + b[2]];
var subtract = (a, b) => [a[0] - b[0], a[1] - b[1], a[2] - b[2]];
var scale = (a, s) => [a[0] * s, a[1] * s, a[2] * s];
var dot = (a, b) => a[0] * b[0] + a[1] * b[1] + a[2] * b[2];
var cross = (a, b) => [
  a[1] * b[2] - a[2] * b[1],
  a[2] * b[0] - a[0] * b[2],
  a[0] * b[1] - a[1] * b[0]
];
var norm = (a) => Math.hypot(a[0], a[1], a[2]);
var apply = (m, v) => [dot(m[0], v), dot(m[1], v), dot(m[2], v)];
var mapAxes = (of) => [of(0), of(1), of(2)];
var from = (a, b) => displacement(subtract(b, a));
var distance = (a, b) => norm(subtract(b, a));
var levelDistance = (a, b) => Math.hypot(b[0] - a[0], b[1] - a[1]);
var place = (by, at2) => position(add(apply(by.rotation, at2), by.translation));
function centroid(points, weights) {
  let sum = [0, 0, 0];
  let total = 0;
  points.forEach((point3, i) => {
    sum = add(sum, scale(point3, weights[i]));
    total += weights[i];
  });
  return scale(sum, 1 / total);
}

// src/core/shell/references/chosen.ts
var stationKey = (stationId, quantity) => `${stationId}|${quantity}`;
var inOrder = (a, b) => a.rank - b.rank || a.createdAt.localeCompare(b.createdAt);
function chooseReferences(rows2) {
  const used = new Map(rows2.references.filter(({ inUse }) => inUse).map((reference2) => [reference2.id, reference2]));
  const byHand = new Map(
    rows2.referenceChoices.map(({ pointId, dimensionId, referenceId }) => [pointId ?? dimensionId, referenceId])
  );
  function best2(candidates2, subject) {
    const covering = /* @__PURE__ */ new Map();
    for (const row of candidates2) {
      const reference2 = used.get(row.referenceId);
      if (!reference2) continue;
      const figure = { reference: reference2, row, sd: row.sd ?? reference2.trust };
      const known2 = covering.get(subject(row));
      if (known2) known2.push(figure);
      else covering.set(subject(row), [figure]);
    }
    return new Map(
      [...covering].map(([id2, figures]) => {
        const chosen = byHand.get(id2);
        const rank = ({ reference: reference2 }) => reference2.id === chosen ? 0 : 1;
        const [first, ...others] = figures.sort((a, b) => rank(a) - rank(b) || inOrder(a.reference, b.reference));
        return [id2, { ...first, others, byHand: first.reference.id === chosen }];
      })
    );
  }
  const points = best2(rows2.referencePoints, (row) => row.pointId);
  return {
    points,
    dimensions: best2(rows2.referenceDimensions, (row) => row.dimensionId),
    stations: best2(rows2.referenceStations, (row) => stationKey(row.stationId, row.quantity))
  };
}
function referencesOfClosed(rows2, chosen, closedAt) {
  const firstOf = ({ id: id2, editionOf }) => editionOf ?? id2;
  const inUse = new Map(
    rows2.references.filter((each) => each.inUse).map((reference2) => [firstOf(reference2), reference2.edition])
  );
  const former = rows2.references.filter(
    (each) => !each.inUse && each.createdAt <= closedAt && each.edition < (inUse.get(firstOf(each)) ?? 0)
  );
  if (former.length === 0) return chosen;
  const last2 = new Map(former.toSorted((a, b) => a.edition - b.edition).map((each) => [firstOf(each), each]));
  const ids = new Set([...last2.values()].map(({ id: id2 }) => id2));
  const then = chooseReferences({
    ...rows2,
    references: rows2.references.filter(({ id: id2 }) => ids.has(id2)).map((each) => ({ ...each, inUse: true }))
  });
  return {
    points: new Map([...then.points, ...chosen.points]),
    dimensions: new Map([...then.dimensions, ...chosen.dimensions]),
    stations: new Map([...then.stations, ...chosen.stations])
  };
}
function referencePosition(references, pointId) {
  const chosen = references.points.get(pointId);
  return chosen && positionOf(chosen.row);
}
var positionOf = ({ x, y, z: z17 }) => position([x, y, z17]);
function formerPosition(rows2, pointId) {
  const madeAt = new Map(rows2.references.map(({ id: id2, createdAt }) => [id2, createdAt]));
  const had = rows2.referencePoints.filter((row) => row.pointId === pointId).sort((a, b) => (madeAt.get(b.referenceId) ?? "").localeCompare(madeAt.get(a.referenceId) ?? ""));
  return had[0] && positionOf(had[0]);
}

// src/core/shell/job/job.ts
var Job = class _Job {
  constructor(rows2) {
    this.rows = rows2;
    this.pointById = byId(rows2.points);
    this.pointByCode = new Map(rows2.points.map((point3) => [point3.code, point3]));
    this.dimensionById = byId(rows2.dimensions);
    this.versionById = byId(rows2.instrumentVersions);
    this.readingById = byId(rows2.readings);
    this.struck = new Set(rows2.readingStrikes.map(({ readingId }) => readingId));
    this.kept = new Set(rows2.readingKeeps.map(({ readingId }) => readingId));
    const valid = rows2.readings.filter(({ id: id2 }) => !this.struck.has(id2));
    this.readingsOf = grouped(
      valid.filter(({ pullId }) => pullId === null),
      ({ roundId }) => roundId
    );
    this.ofPull = grouped(
      valid.filter(({ pullId }) => pullId !== null),
      ({ pullId }) => pullId
    );
    this.stationsOf = grouped(rows2.seamStations, ({ seamId }) => seamId);
    const last2 = new Map(rows2.withdrawals.map((each) => [each.rowId, each]));
    this.takenBack = new Map([...last2].filter(([, { kind }]) => kind === "withdrawn"));
    const stands = ({ id: id2 }) => !this.takenBack.has(id2);
    const corrected = new Set(rows2.logEntries.filter(stands).map(({ supersedes }) => supersedes));
    this.itemById = byId(rows2.workItems);
    const called = rows2.braces.filter(stands).map((brace3) => ({
      ...brace3,
      code: this.itemById.get(brace3.id).code,
      // What was told of it in words before it could be a section stands in its note.
      section: rows2.sections.find(({ id: id2 }) => id2 === brace3.sectionId)?.name ?? brace3.note
    }));
    this.braces = called.toSorted((a, b) => byCode(a.code, b.code));
    this.pulls = rows2.pulls.filter(stands).map((pull3) => ({ ...pull3, code: this.itemById.get(pull3.id).code })).toSorted((a, b) => byCode(a.code, b.code));
    const happened = rows2.workEvents.filter(stands);
    this.braceEvents = eventsOf(happened, this.braces, BRACE_EVENTS).map(({ itemId, key: _, ...event }) => ({
      ...event,
      braceId: itemId
    }));
    this.pullEvents = eventsOf(happened, this.pulls, PULL_EVENTS).map(({ itemId, key: _, ...event }) => ({
      ...event,
      pullId: itemId
    }));
    this.stages = rows2.stages.filter(stands);
    const ordinal = new Map(this.stages.map((stage2) => [stage2.id, stage2.ordinal]));
    const order = ({ id: id2, stageId, ordinal: own2 }) => `${ordinal.get(stageId ?? "") ?? 999} ${own2} ${this.itemById.get(id2)?.name ?? ""}`;
    this.panels = rows2.panels.filter(stands).toSorted((a, b) => byCode(order(a), order(b)));
    this.stepEvents = rows2.stepEvents.filter(stands);
    this.seams = rows2.seams.filter(stands);
    this.hungPanels = rows2.hungPanels.filter(stands).map((panel2) => ({ ...panel2, code: this.itemById.get(panel2.id).code, name: this.itemById.get(panel2.id).name })).toSorted((a, b) => byCode(a.code, b.code));
    this.holdingEvents = eventsOf(happened, this.hungPanels, HOLDING_RUNGS).map(({ itemId, key, ...event }) => ({
      ...event,
      hungId: itemId,
      joint: key
    }));
    const codedItems = (list) => list.filter(stands).map((row) => ({ ...row, code: this.itemById.get(row.id).code })).toSorted((a, b) => byCode(a.code, b.code));
    this.cracks = codedItems(rows2.cracks);
    this.stiffeners = codedItems(rows2.stiffeners);
    this.logEntries = rows2.logEntries.filter((entry2) => stands(entry2) && !corrected.has(entry2.id));
    this.opposites = oppositePoints(rows2.points);
  }
  rows;
  pointById;
  pointByCode;
  dimensionById;
  versionById;
  readingById;
  struck;
  kept;
  readingsOf;
  ofPull;
  stationsOf;
  opposites;
  takenBack;
  /** Braces that stand: those taken back are left out, here and below. */
  braces;
  braceEvents;
  panels;
  stages;
  pulls;
  pullEvents;
  stepEvents;
  seams;
  hungPanels;
  cracks;
  stiffeners;
  /** How each panel is held, through time. */
  holdingEvents;
  /** The log as it stands: without entries taken back, and without those a later one corrects. */
  logEntries;
  itemById;
  onBody;
  ofClosed = /* @__PURE__ */ new Map();
  chosen;
  narrower = /* @__PURE__ */ new Map();
  static known = /* @__PURE__ */ new WeakMap();
  /** The job of some rows; the same one for the same rows. */
  static of(rows2) {
    const known2 = _Job.known.get(rows2);
    if (known2) return known2;
    const job2 = new _Job(rows2);
    _Job.known.set(rows2, job2);
    return job2;
  }
  /** By what is left out: the rows last asked for, the newest first. */
  static lastNarrowed = /* @__PURE__ */ new Map();
  /**
   * The job as if some of its tables were empty, for what hangs on nothing in them: the same one for as long as every other table is
   * the same, so that what is worked out of it is kept while those change.
   *
   * @param tables one list for one purpose
   */
  without(tables) {
    return once(this.narrower, tables, () => this.narrowed(tables));
  }
  narrowed(tables) {
    const before = _Job.lastNarrowed.get(tables) ?? [];
    const left = JOB_TABLE_NAMES.filter((table) => !tables.includes(table));
    const rows2 = before.find((known2) => left.every((table) => known2[table] === this.rows[table])) ?? { ...this.rows, ...Object.fromEntries(tables.map((table) => [table, []])) };
    _Job.lastNarrowed.set(tables, [rows2, ...before.filter((known2) => known2 !== rows2)].slice(0, STATES_KEPT));
    return _Job.of(rows2);
  }
  get row() {
    return theJob(this.rows);
  }
  /** @throws where the identity is no point's: the rows are not whole */
  point(id2) {
    return found2(this.pointById.get(id2), "point", id2);
  }
  pointOf(id2) {
    return id2 ? this.pointById.get(id2) : void 0;
  }
  pointCalled(code2) {
    return this.pointByCode.get(code2);
  }
  /** What a point is called; its identity where it is none of this job's. */
  code(pointId) {
    return this.pointById.get(pointId)?.code ?? pointId;
  }
  /** The point on the other side: `S2L` and `S2R`. */
  opposite(pointId) {
    return this.opposites.get(pointId);
  }
  dimension(id2) {
    return found2(this.dimensionById.get(id2), "dimension", id2);
  }
  version(id2) {
    return found2(this.versionById.get(id2), "instrument version", id2);
  }
  instrument({ instrumentId }) {
    return found2(
      this.rows.instruments.find(({ id: id2 }) => id2 === instrumentId),
      "instrument",
      instrumentId
    );
  }
  round(id2) {
    return this.rows.rounds.find((round4) => round4.id === id2);
  }
  stateOf({ stateId }) {
    return found2(
      this.rows.shellStates.find(({ id: id2 }) => id2 === stateId),
      "state",
      stateId
    );
  }
  supportOf({ supportId }) {
    return found2(
      this.rows.supports.find(({ id: id2 }) => id2 === supportId),
      "support",
      supportId
    );
  }
  reading(id2) {
    return this.readingById.get(id2);
  }
  /** Somebody decided to keep it though it is doubtful. */
  isKept(readingId) {
    return this.kept.has(readingId);
  }
  /** How something written was taken back; undefined where it stands. */
  withdrawal(rowId) {
    return this.takenBack.get(rowId);
  }
  /** The readings of a round that have not been struck, pulls' own left out, in the order they were taken. */
  standingReadings({ id: id2 }) {
    return this.readingsOf.get(id2) ?? [];
  }
  /** The further plates a pull's bar goes through. */
  platesOf({ id: id2 }) {
    return this.rows.plates.filter(({ itemId }) => itemId === id2);
  }
  /** The readings of a pull that have not been struck. */
  pullReadings({ id: id2 }) {
    return this.ofPull.get(id2) ?? [];
  }
  stations({ id: id2 }) {
    return this.stationsOf.get(id2) ?? [];
  }
  /** Where the picture of the body has the place a point was chosen at, brought to this shell's size; rough, chart axes. */
  placeOnBody(pointId) {
    const place2 = this.pointById.get(pointId)?.place;
    const { body, wheelbase, track, height } = this.row;
    if (!place2 || !body) return void 0;
    this.onBody ??= morphed(BODIES[body], { wheelbase, track, height });
    return this.onBody.get(place2);
  }
  /** An item of work: a brace, a panel, a stage. */
  item(id2) {
    return found2(this.itemById.get(id2), "item of work", id2);
  }
  /** How the shell is planned to stand, in the order it was: on clamps first, on stands later. */
  get setUps() {
    return this.rows.setUps.toSorted((a, b) => byCode(this.item(a.id).code, this.item(b.id).code));
  }
  /** How it stands now: the last set-up of which anything was built; the first where nobody ticked anything. */
  get setUpNow() {
    const built = new Set(this.rows.workEvents.flatMap(({ itemId, kind }) => kind === "ticked" ? [itemId] : []));
    return this.setUps.findLast(({ id: id2 }) => built.has(id2)) ?? this.setUps[0];
  }
  /** The rounds taken on the job's own shell. */
  get ownRounds() {
    return ownRounds(this.rows);
  }
  /** For every subject the reference it is judged by. */
  get references() {
    return this.chosen ??= chooseReferences(this.rows);
  }
  /** The same for a round: one that is closed keeps what was spoken of when it was measured. */
  referencesOf({ closedAt }) {
    if (closedAt === null) return this.references;
    const known2 = this.ofClosed.get(closedAt) ?? referencesOfClosed(this.rows, this.references, closedAt);
    this.ofClosed.set(closedAt, known2);
    return known2;
  }
};
var STATES_KEPT = 4;
var ownRounds = ({ rounds }) => rounds.filter(({ shell }) => shell === "");
function oppositePoints(points) {
  const byCode3 = new Map(points.map((point3) => [point3.code, point3]));
  return new Map(
    points.flatMap((point3) => {
      const other = byCode3.get(mirroredCode(point3.code, point3.side));
      return other && other.side === OTHER_SIDE[point3.side] ? [[point3.id, other]] : [];
    })
  );
}
function eventsOf(events, items, kinds) {
  const ids = new Set(items.map(({ id: id2 }) => id2));
  const isOf = (kind) => kinds.includes(kind);
  return events.flatMap(
    ({ id: id2, itemId, key, kind, at: at2, author: author2, reason: note }) => ids.has(itemId) && isOf(kind) ? [{ id: id2, itemId, key, kind, at: at2, author: author2, note }] : []
  );
}
var OTHER_SIDE = { left: "right", right: "left", centre: void 0 };
var byId = (rows2) => new Map(rows2.map((row) => [row.id, row]));
function found2(row, what, id2) {
  if (!row) throw new Error(`the rows hold no ${what} ${id2}`);
  return row;
}

// src/core/shell/job/apart.ts
var OFFICE = [
  ...["people", "closedDays", "bookings", "timers", "steps", "stepEvents", "stepNeeds", "stepPeople"],
  ...["photographs", "signedRecords", "changes", "decisionDetails", "partTags", "adviceTaken"]
];
var FITTING = [
  ...["hungPanels", "panelSeams", "panelSettings", "settingEffects", "shims", "bodyPackers", "packerEffects"],
  ...["panelMeasures", "openingCorners", "laps", "fitChecks", "fitReadings", "trims", "panelJoints", "letGos"],
  ...["fixings", "weldSeams", "weldStretches", "weldMarks", "cracks", "templates", "templatePoints", "cutLines"]
];
var APART_FROM_METAL = [...OFFICE, ...FITTING];
var APART_FROM_ROUNDS = [
  ...APART_FROM_METAL,
  ...["structures", "nodes", "members", "shearPanels", "pressTests", "stiffeners", "joints", "panelParts"],
  ...["braces", "braceDimensions", "keepOuts", "strokes", "springBacks", "removalChecks", "removalReadings"]
];

// src/core/maths/rigid/fit.ts
import { Matrix, SVD, determinant } from "ml-matrix";
var COLLINEAR = 1e-6;
function fitSelected(points) {
  if (points.length < 3)
    return {
      ok: false,
      reason: `an alignment needs at least three points, ${points.length} chosen: add ${3 - points.length} more`
    };
  const weights = points.map((point3) => 1 / point3.sigma ** 2);
  const from2 = centroid(
    points.map((p) => p.measured),
    weights
  );
  const to = centroid(
    points.map((p) => p.reference),
    weights
  );
  const measured = points.map((p) => subtract(p.measured, from2));
  const reference2 = points.map((p) => subtract(p.reference, to));
  if (onOneLine(measured) || onOneLine(reference2))
    return {
      ok: false,
      reason: "the points of the alignment lie on one line: add a point well off that line"
    };
  const cross2 = Matrix.zeros(3, 3);
  measured.forEach((m, i) => {
    for (let r = 0; r < 3; r++)
      for (let c = 0; c < 3; c++) cross2.set(r, c, cross2.get(r, c) + weights[i] * reference2[i][r] * m[c]);
  });
  const svd = new SVD(cross2);
  const u = svd.leftSingularVectors;
  const v = svd.rightSingularVectors;
  const sign = determinant(u) * determinant(v) < 0 ? -1 : 1;
  const rotation = u.mmul(Matrix.diag([1, 1, sign])).mmul(v.transpose());
  const rows2 = rotation.to2DArray();
  return { ok: true, motion: motion(rows2, subtract(to, apply(rows2, from2))) };
}
function onOneLine(centred) {
  const [largest2 = 0, second = 0] = new SVD(new Matrix(centred.map((v) => [...v]))).diagonal;
  return second <= COLLINEAR * Math.max(largest2, Number.MIN_VALUE);
}
function deviationOf(by, point3) {
  const d = from(point3.reference, place(by, point3.measured));
  return { id: point3.id, by: d, d: norm(d) };
}
var rootMeanSquare = (deviations) => Math.sqrt(deviations.reduce((sum, each) => sum + each.d ** 2, 0) / deviations.length);

// src/core/maths/linear/gradient.ts
function spreadBy({ size: size2, values }, row) {
  const spread = new Float64Array(size2);
  for (let p = 0; p < row.count; p++) {
    const start = row.columns[p] * size2;
    const share = row.coefficients[p];
    for (let c = 0; c < size2; c++) spread[c] += share * values[start + c];
  }
  return spread;
}
function along(spread, row) {
  let sum = 0;
  for (let p = 0; p < row.count; p++) sum += row.coefficients[p] * spread[row.columns[p]];
  return sum;
}
function varianceAlong({ size: size2, values }, row) {
  let sum = 0;
  for (let p = 0; p < row.count; p++) {
    const start = row.columns[p] * size2;
    for (let q = 0; q < row.count; q++)
      sum += row.coefficients[p] * row.coefficients[q] * values[start + row.columns[q]];
  }
  return sum;
}

// src/core/maths/linear/plain-kernel.ts
var SMALLEST_PIVOT = 1e-13;
var TILE = 3;
var products = new Float64Array(TILE * TILE);
function multiply(a, p, p1, p2, b, q, q1, q2, length2) {
  let s0 = 0;
  let s1 = 0;
  let s2 = 0;
  let t0 = 0;
  let t1 = 0;
  let t2 = 0;
  let u0 = 0;
  let u1 = 0;
  let u2 = 0;
  for (let k = 0; k < length2; k++) {
    const x = a[p + k];
    const y = a[p1 + k];
    const z17 = a[p2 + k];
    const l = b[q + k];
    const m = b[q1 + k];
    const n = b[q2 + k];
    s0 += x * l;
    s1 += x * m;
    s2 += x * n;
    t0 += y * l;
    t1 += y * m;
    t2 += y * n;
    u0 += z17 * l;
    u1 += z17 * m;
    u2 += z17 * n;
  }
  products[0] = s0;
  products[1] = s1;
  products[2] = s2;
  products[3] = t0;
  products[4] = t1;
  products[5] = t2;
  products[6] = u0;
  products[7] = u1;
  products[8] = u2;
}
function multiplyRows(a, i, b, j, size2, from2, length2) {
  const lastOfA = a.length - size2 + from2;
  const lastOfB = b.length - size2 + from2;
  const [p, q] = [i * size2 + from2, j * size2 + from2];
  const p1 = Math.min(p + size2, lastOfA);
  const q1 = Math.min(q + size2, lastOfB);
  multiply(a, p, p1, Math.min(p1 + size2, lastOfA), b, q, q1, Math.min(q1 + size2, lastOfB), length2);
}
function factorise(matrix, size2) {
  for (let i = 0; i < size2; i += TILE) {
    const last2 = Math.min(i + TILE, size2);
    for (let j = 0; j < i; j += TILE) {
      multiplyRows(matrix, i, matrix, j, size2, 0, j);
      for (let r = i; r < last2; r++) substitute(matrix, size2, r, j, TILE, products, (r - i) * TILE);
    }
    multiplyRows(matrix, i, matrix, i, size2, 0, i);
    for (let r = i; r < last2; r++) {
      substitute(matrix, size2, r, i, r - i, products, (r - i) * TILE);
      let taken = products[(r - i) * (TILE + 1)];
      for (let k = i; k < r; k++) taken += matrix[r * size2 + k] ** 2;
      const diagonal = matrix[r * size2 + r];
      const left = diagonal - taken;
      if (!(left > SMALLEST_PIVOT * diagonal)) return false;
      matrix[r * size2 + r] = Math.sqrt(left);
    }
  }
  return true;
}
function substitute(m, size2, r, j, count2, sums, at2) {
  const row = r * size2;
  for (let c = 0; c < count2; c++) {
    const column = (j + c) * size2 + j;
    let left = m[row + j + c] - sums[at2 + c];
    for (let k = 0; k < c; k++) left -= m[row + j + k] * m[column + k];
    m[row + j + c] = left / m[column + c];
  }
}
function coloured(lower, size2, noise, count2) {
  const result = new Float64Array(count2 * size2);
  for (let run = 0; run < count2; run += TILE)
    for (let i = 0; i < size2; i += TILE) {
      multiplyRows(noise, run, lower, i, size2, 0, i);
      for (let r = 0; r < TILE && run + r < count2; r++)
        for (let c = 0; c < TILE && i + c < size2; c++) {
          let sum = products[r * TILE + c];
          for (let k = i; k <= i + c; k++) sum += lower[(i + c) * size2 + k] * noise[(run + r) * size2 + k];
          result[(run + r) * size2 + i + c] = sum;
        }
    }
  return result;
}
function invert(lower, size2) {
  const columns = inverseColumns(lower, size2);
  const inverse2 = new Float64Array(size2 * size2);
  for (let i = 0; i < size2; i += TILE) {
    for (let j = 0; j <= i; j += TILE) {
      multiplyRows(columns, i, columns, j, size2, i, size2 - i);
      for (let r = 0; r < TILE && i + r < size2; r++)
        for (let c = 0; c < TILE && j + c < size2; c++)
          inverse2[(i + r) * size2 + j + c] = inverse2[(j + c) * size2 + i + r] = products[r * TILE + c];
    }
  }
  return inverse2;
}
function inverseColumns(lower, size2) {
  const columns = new Float64Array(size2 * size2);
  for (let i = 0; i < size2; i += TILE) {
    const last2 = Math.min(i + TILE, size2);
    for (let j = 0; j <= i; j += TILE) {
      multiplyRows(lower, i, columns, j, size2, j, i - j);
      for (let r = i; r < last2; r++)
        for (let c = j; c < j + TILE && c <= r; c++) {
          let sum = products[(r - i) * TILE + c - j];
          for (let k = i; k < r; k++) sum += lower[r * size2 + k] * columns[c * size2 + k];
          columns[c * size2 + r] = ((c === r ? 1 : 0) - sum) / lower[r * size2 + r];
        }
    }
  }
  return columns;
}
function product(a, b, length2) {
  const [rows2, columns] = [a.length / length2, b.length / length2];
  const result = new Float64Array(rows2 * columns);
  for (let i = 0; i < rows2; i += TILE)
    for (let j = 0; j < columns; j += TILE) {
      multiplyRows(a, i, b, j, length2, 0, length2);
      for (let r = 0; r < TILE && i + r < rows2; r++)
        for (let c = 0; c < TILE && j + c < columns; c++) result[(i + r) * columns + j + c] = products[r * TILE + c];
    }
  return result;
}
function rowTimes(values, start, v, length2) {
  let s0 = 0;
  let s1 = 0;
  let s2 = 0;
  let s3 = 0;
  let k = 0;
  for (const fours = length2 - 3; k < fours; k += 4) {
    s0 += values[start + k] * v[k];
    s1 += values[start + k + 1] * v[k + 1];
    s2 += values[start + k + 2] * v[k + 2];
    s3 += values[start + k + 3] * v[k + 3];
  }
  for (; k < length2; k++) s0 += values[start + k] * v[k];
  return s0 + s1 + (s2 + s3);
}
function solve(lower, size2, b) {
  const x = b.slice();
  for (let i = 0; i < size2; i++) x[i] = (x[i] - rowTimes(lower, i * size2, x, i)) / lower[i * size2 + i];
  for (let i = size2 - 1; i >= 0; i--) {
    const value = x[i] /= lower[i * size2 + i];
    for (let k = 0; k < i; k++) x[k] -= lower[i * size2 + k] * value;
  }
  return x;
}
var multiplier = (matrix, size2) => (v) => {
  const result = new Float64Array(size2);
  for (let i = 0; i < size2; i++) result[i] = rowTimes(matrix, i * size2, v, size2);
  return result;
};
function less(matrix, size2, u, v) {
  const left = matrix.slice();
  for (let i = 0; i < size2; i++)
    for (let term = 0; term < u.length; term += size2) {
      const own2 = u[term + i] / 2;
      const other = v[term + i] / 2;
      const row = i * size2;
      for (let k = 0; k < size2; k++) left[row + k] -= own2 * v[term + k] + other * u[term + k];
    }
  return left;
}
var plainKernel = {
  ...{ name: "plain", factorise, invert, coloured, product, solve, multiplier, less },
  // The factor's own loops are as fast.
  factoriseBlocks: () => false,
  solveBlocks: () => false
};

// src/core/maths/linear/kernel-module.ts
var KERNEL = [
  "AGFzbQEAAAABVgpgCX9/f39/f39/fwBgBn9/f39/fwBgBH9/f38AYAV/f39/fwBgA39/fwF8YAN/f38AYAd/f39/f39/AGAAAX9gDH9/f39/f3",
  "9/f39/fAF/YAJ/fwF/Aw8OAAEEAgAFBgEDAgcICQMFAwEAAQdyCwlmYWN0b3Jpc2UADAZpbnZlcnQACQhjb2xvdXJlZAANB3Byb2R1Y3QABwVz",
  "b2x2ZQAFBXRpbWVzAAMEbGVzcwAID2ZhY3RvcmlzZUJsb2NrcwALC3NvbHZlQmxvY2tzAAQEZnJlZQAKBm1lbW9yeQIACqIqDpoBAQF/IAAgAS",
  "AGbCAHakEDdGogACAGIAFBAWoiCSACQQFrIgIgAiAJShtsIAdqQQN0aiAAIAYgAUECaiIAIAIgACACSBtsIAdqQQN0aiADIAQgBmwgB2pBA3Rq",
  "IAMgBiAEQQFqIgAgBUEBayIBIAAgAUgbbCAHakEDdGogAyAGIARBAmoiACABIAAgAUgbbCAHakEDdGogCBAGC6gBAgR/AXwgACABIAJsIANqQQ",
  "N0aiEHQQAhAgNAIAIgBEgEQCAAIAEgAiADamwgA2pBA3RqIQggAkEDdCIGIAdqKwMAIAVBgAhqIAZqKwMAoSEKQQAhBgNAIAIgBkoEQCAKIAZB",
  "A3QiCSAHaisDACAIIAlqKwMAoqEhCiAGQQFqIQYMAQsLIAJBA3QiBiAHaiAKIAYgCGorAwCjOQMAIAJBAWohAgwBCwsLvAEDAnsFfwF8IAJBAX",
  "VBBHQhByACQQJ1QQV0IQUDQCAFIAZLBEAgAyAAIAZqIgj9AAQAIAEgBmoiCf0ABAD98gH98AEhAyAEIAj9AAQQIAn9AAQQ/fIB/fABIQQgBkEg",
  "aiEGDAELCyAFIAdJBHsgAyAAIAVq/QAEACABIAVq/QAEAP3yAf3wAQUgAwsgBP3wASID/SEAIAP9IQGgIQogAkEBcQR8IAogACAHaisDACABIA",
  "dqKwMAoqAFIAoLCzQBAX8DQCABIARKBEAgAyAEQQN0aiAAIAEgBGxBA3RqIAIgARACOQMAIARBAWohBAwBCwsL8AcDC38BfAF7A0AgACAMSgRA",
  "IAggDEECdCIKIAJqKAIAQQN0aiEOIAYgAyAKaigCAEEDdGohCSABIApqKAIAIg9BA3QhEEEAIQoDQCAKIA9IBEBBACELA0AgCiALSgRAIA4gCk",
  "EDdGoiDSANKwMAIAtBA3QiDSAJaisDACANIA5qKwMAoqE5AwAgC0EBaiELDAELCyAJIBBqIQkgCkEBaiEKDAELCyAEIAxBAnRqKAIAQQFqIQsD",
  "QCALIAQgDEEBakECdGooAgBIBEAgCCACIAUgC0ECdGooAgAiEUECdGooAgBBA3RqIRJBACENA0AgDSABIBFBAnRqKAIASARAIA9BBkYEQCAJ/Q",
  "AEACAO/QAEAP3yASAJ/QAEECAO/QAEEP3yAf3wASAJ/QAEICAO/QAEIP3yAf3wASIV/SEAIBX9IQGgIRQFRAAAAAAAAAAAIRRBACEKA0AgCiAP",
  "SARAIBQgCkEDdCITIAlqKwMAIA4gE2orAwCioCEUIApBAWohCgwBCwsLIBIgDUEDdGoiCiAKKwMAIBShOQMAIAkgEGohCSANQQFqIQ0MAQsLIA",
  "tBAWohCwwBCwsgDEEBaiEMDAELCyACIABBAnRqKAIAIQpBACEJA0AgCSAKSARAIAlBA3QiCyAIaiIMIAcgC2orAwAiFEQAAAAAAAAAAGEEfEQA",
  "AAAAAAAAAAUgDCsDACAUows5AwAgCUEBaiEJDAELCyAAQQFrIQcDQCAHQQBOBEAgCCAHQQJ0IgAgAmooAgBBA3RqIQsgACABaigCACINQQN0IQ",
  "4gBiAAIANqKAIAQQN0aiIPIA0gDmxqIQkgACAEaigCAEEBaiEMA0AgDCAEIAdBAWpBAnRqKAIASARAIAggAiAFIAxBAnRqKAIAIhBBAnRqKAIA",
  "QQN0aiERQQAhCgNAIAogASAQQQJ0aigCAEgEQCARIApBA3RqKwMAIRQgDUEGRgRAIAsgC/0ABAAgFP0UIhUgCf0ABAD98gH98QH9CwQAIAsgC/",
  "0ABBAgFSAJ/QAEEP3yAf3xAf0LBBAgCyAL/QAEICAVIAn9AAQg/fIB/fEB/QsEIAVBACEAA0AgACANSARAIABBA3QiEiALaiITIBMrAwAgFCAJ",
  "IBJqKwMAoqE5AwAgAEEBaiEADAELCwsgCSAOaiEJIApBAWohCgwBCwsgDEEBaiEMDAELCyANQQFrIQkDQCAJQQBKBEAgCyAJQQN0aisDACEUQQ",
  "AhAANAIAAgCUgEQCALIABBA3RqIgogCisDACAPIAkgDWwgAGpBA3RqKwMAIBSioTkDACAAQQFqIQAMAQsLIAlBAWshCQwBCwsgB0EBayEHDAEL",
  "Cwu8AgMFfwJ8AnsDQCABIANKBEAgAiADQQN0aiIEIAQrAwAgACABIANsIgRBA3RqIAIgAxACoSAAIAMgBGpBA3RqKwMAozkDACADQQFqIQMMAQ",
  "sLIAFBAWshAwNAIANBAE4EQCACIANBA3RqIgQrAwAgACABIANsIgUgA2pBA3RqKwMAoyEIIAQgCDkDACAAIAVBA3RqIQdBACEEIANBAXVBBHQh",
  "BiAI/RQhCwNAIAQgBkkEQCACIARqIgX9AAQAIQogBSAKIAsgBCAHav0ABAD98gH9DAAAAAAAAAAAAAAAAAAAAAAgCv3yAf3wAf3xAf0LBAAgBE",
  "EQaiEEDAELCyADQQFxBEAgAiAGaiIEKwMAIQkgBCAJIAggBiAHaisDAKIgCUQAAAAAAAAAAKKgoTkDAAsgA0EBayEDDAELCwvVBAMCfw17Bnwg",
  "BkEBdUEEdCEIA0AgByAISQRAIAkgACAHav0ABAAiFCADIAdq/QAEACIV/fIB/fABIQkgCiABIAdq/QAEACISIBX98gH98AEhCiALIAIgB2r9AA",
  "QAIhMgFf3yAf3wASELIAwgFCAEIAdq/QAEACIV/fIB/fABIQwgDSASIBX98gH98AEhDSAOIBMgFf3yAf3wASEOIA8gFCAFIAdq/QAEACIU/fIB",
  "/fABIQ8gECASIBT98gH98AEhECARIBMgFP3yAf3wASERIAdBEGohBwwBCwtBgAggCf0hACAJ/SEBoDkDAEGICCAM/SEAIAz9IQGgOQMAQZAIIA",
  "/9IQAgD/0hAaA5AwBBmAggCv0hACAK/SEBoDkDAEGgCCAN/SEAIA39IQGgOQMAQagIIBD9IQAgEP0hAaA5AwBBsAggC/0hACAL/SEBoDkDAEG4",
  "CCAO/SEAIA79IQGgOQMAQcAIIBH9IQAgEf0hAaA5AwAgBkEBcQRAIAEgCGorAwAhFiACIAhqKwMAIRcgBCAIaisDACEYIAUgCGorAwAhGUGACE",
  "GACCsDACAAIAhqKwMAIhogAyAIaisDACIboqA5AwBBiAhBiAgrAwAgGiAYoqA5AwBBkAhBkAgrAwAgGiAZoqA5AwBBmAhBmAgrAwAgFiAboqA5",
  "AwBBoAhBoAgrAwAgFiAYoqA5AwBBqAhBqAgrAwAgFiAZoqA5AwBBsAhBsAgrAwAgFyAboqA5AwBBuAhBuAgrAwAgFyAYoqA5AwBBwAhBwAgrAw",
  "AgFyAZoqA5AwALC64BAQV/A0AgASAHSgRAQQAhCANAIAMgCEoEQCAAIAcgASACIAggAyAEQQAgBBAAQQAhBgNAIAZBA0ggBiAHaiABSHEEQEEA",
  "IQkDQCAJQQNIIAggCWoiCiADSHEEQCAFIAogAyAGIAdqbGpBA3RqIAZBA2wgCWpBA3RBgAhqKwMAOQMAIAlBAWohCQwBCwsgBkEBaiEGDAELCy",
  "AIQQNqIQgMAQsLIAdBA2ohBwwBCwsLlwIDCH8CfAJ7A0AgASAGSgRAQQAhBwNAIAQgB0oEQCAAIAEgBmxBA3RqIQkgASAHbCIFIAZqQQN0Igwg",
  "AmorAwBEAAAAAAAA4D+iIQ0gBUEDdCIFIANqIQogAiAFaiELQQAhBSABQQF1QQR0IQggDf0UIQ8gAyAMaisDAEQAAAAAAADgP6IiDv0UIRADQC",
  "AFIAhJBEAgBSAJaiIMIAz9AAQAIA8gBSAKav0ABAD98gEgECAFIAtq/QAEAP3yAf3wAf3xAf0LBAAgBUEQaiEFDAELCyABQQFxBEAgCCAJaiIF",
  "IAUrAwAgDSAIIApqKwMAoiAOIAggC2orAwCioKE5AwALIAdBAWohBwwBCwsgBkEBaiEGDAELCwuCBAIGfwF8IAFBACADIANsQQN0/AsAA0AgAy",
  "AESgRAIARBA2oiBSADIAMgBUobIQlBACEGA0AgBCAGTgRAIAAgBCADIAEgBiADIAMgBiAEIAZrEAAgBCEFA0AgBSAJSARAIAYhBwNAIAcgBkED",
  "akggBSAHTnEEQCAFIARrQQNsIAdqIAZrQQN0QYAIaisDACEKIAQhCANAIAUgCEoEQCAKIAAgAyAFbCAIakEDdGorAwAgASADIAdsIAhqQQN0ai",
  "sDAKKgIQogCEEBaiEIDAELCyABIAMgB2wgBWpBA3RqRAAAAAAAAPA/RAAAAAAAAAAAIAUgB0YbIAqhIAAgAyAFbCAFakEDdGorAwCjOQMAIAdB",
  "AWohBwwBCwsgBUEBaiEFDAELCyAGQQNqIQYMAQsLIARBA2ohBAwBCwtBACEAA0AgACADSARAQQAhBANAIAAgBE4EQCABIAAgAyABIAQgAyADIA",
  "AgAyAAaxAAQQAhBQNAIAVBA0ggACAFaiADSHEEQEEAIQYDQCAGQQNIIAQgBmoiCCADSHEEQCACIAggACAFaiIHIANsakEDdGogBUEDbCAGakED",
  "dEGACGorAwAiCjkDACACIAcgAyAIbGpBA3RqIAo5AwAgBkEBaiEGDAELCyAFQQFqIQUMAQsLIARBA2ohBAwBCwsgAEEDaiEADAELCwsFAEHICA",
  "vGCgMUfwJ8CXsDQCAAIBBKBEAgEEECdCIMIAFqKAIAIQ0gByADIAxqKAIAQQN0aiEMQQAhDwNAIA0gD0oEQCAJIA8gAiAQQQJ0aigCAGpBA3Rq",
  "IAwgDSAPbCAPakEDdGorAwA5AwAgD0EBaiEPDAELCyAQQQFqIRAMAQsLA0AgACAWSgRAIBZBAnQiDCABaigCACIRBEAgByADIAxqKAIAQQN0ai",
  "ETIAQgFkEBakECdGooAgAgBCAMaigCACIaayEbIAIgDGooAgBBA3QiDCAIaiEYIAYgFiAaakECdGoiHCAbQQJ0aigCACEPIAkgDGohEEEAIQ0C",
  "fwNAIA0gEUgEQCATIA0gEWwgDWpBA3RqKwMAISFBACEMA0AgDCANSARAICEgEyANIBFsIAxqQQN0aisDACIgICCiIBggDEEDdGorAwCioSEhIA",
  "xBAWohDAwBCwtBACAhIAsgECANQQN0IgxqKwMAomRFDQIaIAwgGGogITkDACANQQFqIQwDQCAMIA9IBEAgEyAMIBFsIA1qQQN0aisDACEgQQAh",
  "DgNAIA0gDkoEQCAgIBMgDCARbCAOakEDdGorAwAgEyANIBFsIA5qQQN0aisDAKIgGCAOQQN0aisDAKKhISAgDkEBaiEODAELCyATIAwgEWwgDW",
  "pBA3RqICAgIaM5AwAgDEEBaiEMDAELCyANQQFqIQ0MAQsLQQELRQRAQQAPC0EBIQ4DQCAOIBtIBEAgBSAOIBpqQQJ0aigCACIMQQJ0Ig0gAWoo",
  "AgAhFCAHIAMgDWooAgBBA3RqIR0gBSAEIA1qKAIAIg1BAnRqIR4gBiAMIA1qQQJ0aiEfQQAhDwNAIA8gFEgEQEEAIRADQCAQIBFIBEAgCiAQIB",
  "RsIA9qQQN0aiATIBEgDyAcIA5BAnRqKAIAamwgEGpBA3RqKwMAIBggEEEDdGorAwCiOQMAIBBBAWohEAwBCwsgD0EBaiEPDAELC0EAIRkgDiEN",
  "A0AgDSAbSARAA0AgHiAZQQJ0aigCACAFIA0gGmpBAnRqKAIARwRAIBlBAWohGQwBCwsgHCANQQFqQQJ0aigCACAcIA1BAnRqKAIAIgxrIRcgEy",
  "AMIBFsQQN0aiEQIB0gHyAZQQJ0aigCACAUbEEDdGohDyAUQQZGIBFBBkZxBEADQCAXQQFKBEAgCiEMIA/9AAQAISIgD/0ABBAhIyAP/QAEICEk",
  "IA/9AAQwISUgD/0ABEAhJiAP/QAEUCEnQQAhEgNAIBJBMEkEQCAiIBAgEmoiFf0KAwAiKSAM/QAEACIq/fIB/fEBISIgJSAV/QoDMCIoICr98g",
  "H98QEhJSAjICkgDP0ABBAiKv3yAf3xASEjICYgKCAq/fIB/fEBISYgJCApIAz9AAQgIin98gH98QEhJCAnICggKf3yAf3xASEnIAxBMGohDCAS",
  "QQhqIRIMAQsLIA8gIv0LBAAgDyAj/QsEECAPICT9CwQgIA8gJf0LBDAgDyAm/QsEQCAPICf9CwRQIBBB4ABqIRAgD0HgAGohDyAXQQJrIRcMAQ",
  "sLCyAXQQBKBEBBACEVA0AgFSAXSARAQQAhDANAIAwgFEgEQEQAAAAAAAAAACEgQQAhEgNAIBEgEkoEQCAgIBAgESAVbCASakEDdGorAwAgCiAS",
  "IBRsIAxqQQN0aisDAKKgISAgEkEBaiESDAELCyAPIBQgFWwgDGpBA3RqIhIgEisDACAgoTkDACAMQQFqIQwMAQsLIBVBAWohFQwBCwsLIA1BAW",
  "ohDQwBCwsgDkEBaiEODAELCwsgFkEBaiEWDAELC0EBC8gCAgR/AnwDQCABIAJKBEAgAkEDaiIDIAEgASADShshBUEAIQQDQCACIARKBEAgACAC",
  "IAEgACAEIAEgAUEAIAQQACACIQMDQCADIAVIBEAgACABIAMgBEEDIAMgAmtBGGwQASADQQFqIQMMAQsLIARBA2ohBAwBCwsgACACIAEgACACIA",
  "EgAUEAIAIQACACIQMDQCADIAVIBEAgACABIAMgAiADIAJrIgQgBEEYbBABIARBBXRBgAhqKwMAIQYgAiEEA0AgAyAESgRAIAYgACABIANsIARq",
  "QQN0aisDACIGIAaioCEGIARBAWohBAwBCwsgACABIANsIANqQQN0aisDACIHIAahIgYgB0SCdklowiU8PaJkRQRAQQAPCyAAIAEgA2wgA2pBA3",
  "RqIAafOQMAIANBAWohAwwBCwsgAkEDaiECDAELC0EBC/oBAgZ/AXwDQCADIAhKBEBBACEFA0AgASAFSgRAIAIgCCADIAAgBSABIAFBACAFEABB",
  "ACEHA0AgB0EDSCAHIAhqIANIcQRAQQAhCQNAIAlBA0ggBSAJaiIKIAFIcQRAIAdBA2wgCWpBA3RBgAhqKwMAIQsgBSEGA0AgBiAKTARAIAsgAC",
  "ABIApsIAZqQQN0aisDACACIAEgByAIamwgBmpBA3RqKwMAoqAhCyAGQQFqIQYMAQsLIAQgBSAJaiABIAcgCGpsakEDdGogCzkDACAJQQFqIQkM",
  "AQsLIAdBAWohBwwBCwsgBUEDaiEFDAELCyAIQQNqIQgMAQsLCw=="
].join("");

// src/core/maths/linear/wasm-kernel.ts
var WORTH_IT = 12;
var PAGE = 65536;
function wasmKernel() {
  try {
    const bytes = Uint8Array.from(atob(KERNEL), (character) => character.charCodeAt(0));
    const { exports } = new WebAssembly.Instance(new WebAssembly.Module(bytes), {});
    return kernelOf(exports);
  } catch {
    return void 0;
  }
}
function kernelOf(wasm) {
  const start = Math.ceil(wasm.free() / 16) * 16;
  let resident;
  let residentBlocks;
  function layOut(...parts) {
    const places7 = [];
    let end = start;
    for (const part of parts) {
      places7.push(end);
      end += Math.ceil((typeof part === "number" ? 8 * part : part.byteLength) / 16) * 16;
    }
    resident = residentBlocks = void 0;
    const missing = end - wasm.memory.buffer.byteLength;
    if (missing > 0) wasm.memory.grow(Math.ceil(missing / PAGE));
    const { buffer } = wasm.memory;
    const [all, whole] = [new Float64Array(buffer), new Int32Array(buffer)];
    parts.forEach((part, i) => {
      if (part instanceof Float64Array) all.set(part, places7[i] / 8);
      else if (typeof part !== "number") whole.set(part, places7[i] / 4);
    });
    return places7;
  }
  const view = (at2, length2) => new Float64Array(wasm.memory.buffer, at2, length2);
  return {
    name: "simd",
    factorise(matrix, size2) {
      if (size2 < WORTH_IT) return plainKernel.factorise(matrix, size2);
      const [m] = layOut(matrix);
      const definite = wasm.factorise(m, size2) === 1;
      matrix.set(view(m, matrix.length));
      if (definite) resident = matrix;
      return definite;
    },
    invert(lower, size2) {
      if (size2 < WORTH_IT) return plainKernel.invert(lower, size2);
      const [l, columns, inverse2] = layOut(lower, size2 * size2, size2 * size2);
      wasm.invert(l, columns, inverse2, size2);
      return view(inverse2, size2 * size2).slice();
    },
    coloured(lower, size2, noise, count2) {
      if (size2 < WORTH_IT) return plainKernel.coloured(lower, size2, noise, count2);
      const [l, z17, result] = layOut(lower, noise, count2 * size2);
      wasm.coloured(l, size2, z17, count2, result);
      return view(result, count2 * size2).slice();
    },
    product(a, b, length2) {
      if (length2 < WORTH_IT) return plainKernel.product(a, b, length2);
      const [rows2, columns] = [a.length / length2, b.length / length2];
      const [p, q, result] = layOut(a, b, rows2 * columns);
      wasm.product(p, rows2, q, columns, length2, result);
      return view(result, rows2 * columns).slice();
    },
    solve(lower, size2, b) {
      if (size2 < WORTH_IT) return plainKernel.solve(lower, size2, b);
      const [l, x] = layOut(resident === lower ? lower.length : lower, b);
      wasm.solve(l, size2, x);
      resident = lower;
      return view(x, size2).slice();
    },
    multiplier(matrix, size2) {
      if (size2 < WORTH_IT) return plainKernel.multiplier(matrix, size2);
      let laid = false;
      return (v) => {
        const lies = laid && resident === matrix;
        const [m, vector2, result] = layOut(lies ? matrix.length : matrix, v, size2);
        wasm.times(m, size2, vector2, result);
        resident = matrix;
        laid = true;
        return view(result, size2).slice();
      };
    },
    less(matrix, size2, u, v) {
      if (size2 < WORTH_IT) return plainKernel.less(matrix, size2, u, v);
      const [m, us, vs] = layOut(matrix, u, v);
      wasm.less(m, size2, us, vs, u.length / size2);
      return view(m, matrix.length).slice();
    },
    factoriseBlocks({ widths, first, panelAt, reachAt, reach, begins }, values, pivots, nothing) {
      const widest = widths.reduce((most, width) => Math.max(most, width), 0);
      const places7 = layOut(
        ...[widths, first, panelAt, reachAt, reach, begins, values],
        ...[pivots.length, pivots.length, widest * widest]
      );
      if (wasm.factoriseBlocks(widths.length, ...places7, nothing) === 0) return false;
      values.set(view(places7[6], values.length));
      pivots.set(view(places7[7], pivots.length));
      return true;
    },
    solveBlocks({ widths, first, panelAt, reachAt, reach }, values, pivots, x) {
      if (residentBlocks?.values !== values) {
        const laid = layOut(widths, first, panelAt, reachAt, reach, values, pivots, x.length);
        residentBlocks = { values, places: laid };
      }
      const { places: places7 } = residentBlocks;
      const solution = view(places7[7], x.length);
      solution.set(x);
      wasm.solveBlocks(widths.length, ...places7);
      x.set(solution);
      return true;
    }
  };
}

// src/core/maths/linear/kernel.ts
var kernel = wasmKernel() ?? plainKernel;

// src/core/maths/linear/symmetric.ts
var Symmetric = class _Symmetric {
  constructor(size2, values) {
    this.size = size2;
    this.values = values;
  }
  size;
  values;
  static zeros(size2) {
    return new _Symmetric(size2, new Float64Array(size2 * size2));
  }
  /** A symmetric matrix of the linear-algebra package. */
  static of(matrix) {
    return new _Symmetric(matrix.rows, Float64Array.from(matrix.to1DArray()));
  }
  get(i, k) {
    return this.values[i * this.size + k];
  }
  /** Sets an element and its mirror image. */
  set(i, k, value) {
    this.values[i * this.size + k] = this.values[k * this.size + i] = value;
  }
  copy() {
    return new _Symmetric(this.size, this.values.slice());
  }
  /** Adds to the diagonal, in place. */
  addDiagonal(amount) {
    for (let i = 0; i < this.size; i++)
      this.values[i * (this.size + 1)] += typeof amount === "number" ? amount : amount(i);
    return this;
  }
  /** Adds another of the same size, in place. */
  add(other) {
    for (let i = 0; i < this.values.length; i++) this.values[i] += other.values[i];
    return this;
  }
  /** The rows and columns chosen, in their order. */
  part(chosen) {
    const { size: size2, values } = this;
    const part = new Float64Array(chosen.length ** 2);
    let at2 = 0;
    for (const row of chosen) for (const column of chosen) part[at2++] = values[row * size2 + column];
    return new _Symmetric(chosen.length, part);
  }
  /** The 3×3 block of points i and k, row major. */
  block(i, k) {
    const start = 3 * i * this.size + 3 * k;
    return [0, 1, 2].flatMap((r) => [...this.values.subarray(start + r * this.size, start + r * this.size + 3)]);
  }
  times(vector2) {
    return this.multiplier()(Float64Array.from(vector2));
  }
  /** A v for one v after the other, while the matrix stays as it is. */
  multiplier() {
    return kernel.multiplier(this.values, this.size);
  }
  /** A v for each of several v. */
  timesEach(vectors) {
    const { size: size2 } = this;
    const rows2 = new Float64Array(vectors.length * size2);
    vectors.forEach((vector2, i) => rows2.set(vector2, i * size2));
    const products2 = kernel.product(rows2, this.values, size2);
    return vectors.map((_, i) => products2.slice(i * size2, (i + 1) * size2));
  }
  /** vᵀ A v. */
  quadratic(vector2) {
    const product2 = this.times(vector2);
    let sum = 0;
    for (let i = 0; i < this.size; i++) sum += product2[i] * vector2[i];
    return sum;
  }
  /**
   * A − Σ share · (u vᵀ + v uᵀ)/2 over the terms: a change of low rank. With v left out it is u uᵀ.
   * (Sherman and Morrison 1950; Woodbury for several at once.)
   */
  less(terms) {
    const { size: size2, values } = this;
    const [first, second] = [new Float64Array(terms.length * size2), new Float64Array(terms.length * size2)];
    terms.forEach(({ u, v = u, share = 1 }, t2) => {
      for (let i = 0; i < size2; i++) first[t2 * size2 + i] = share * u[i];
      second.set(v, t2 * size2);
    });
    return terms.length === 0 ? this : new _Symmetric(size2, kernel.less(values, size2, first, second));
  }
  /** Cholesky's factor; undefined where the matrix is not positive definite. */
  factor(by = kernel) {
    return SymmetricFactor.of(this.values.slice(), this.size, by);
  }
  /** @throws where the matrix is not positive definite */
  inverse() {
    const factor = this.factor();
    if (!factor) throw new Error("the matrix is not positive definite");
    return factor.inverse();
  }
};
var SymmetricFactor = class _SymmetricFactor {
  constructor(size2, lower, by) {
    this.size = size2;
    this.lower = lower;
    this.by = by;
  }
  size;
  lower;
  by;
  /**
   * Factorises the lower triangle of `matrix` in place, which becomes the factor's own.
   *
   * @returns undefined where the matrix is not positive definite
   */
  static of(matrix, size2, by = kernel) {
    return by.factorise(matrix, size2) ? new _SymmetricFactor(size2, matrix, by) : void 0;
  }
  /** The solution of A x = b. */
  solve(b) {
    return this.by.solve(this.lower, this.size, b);
  }
  inverse() {
    return new Symmetric(this.size, this.by.invert(this.lower, this.size));
  }
  /** The smallest weight any unknown has once those before it are eliminated, as its root. */
  smallestPivot() {
    let least = Infinity;
    for (let i = 0; i < this.size; i++) least = Math.min(least, this.lower[i * (this.size + 1)]);
    return least;
  }
  /**
   * Independent noise of unit variance becomes noise whose covariance is A.
   *
   * @param noise `count` rows
   * @returns rows in the same order
   */
  coloured(noise, count2) {
    return this.by.coloured(this.lower, this.size, noise, count2);
  }
};

// src/core/maths/linear/joint.ts
var Joint = class _Joint {
  /**
   * @param ids     the points
   * @param columns first of the three columns of each in `whole`; −1 for one held fixed
   */
  constructor(ids, columns, whole, rotation) {
    this.ids = ids;
    this.columns = columns;
    this.whole = whole;
    this.rotation = rotation;
    this.turn = rotation && Float64Array.from(rotation.flat());
    this.index = new Map(ids.map((id2, i) => [id2, i]));
  }
  ids;
  columns;
  whole;
  rotation;
  index;
  /** The rotation, row major. */
  turn;
  static of(ids, columns, whole) {
    return new _Joint(ids, columns, whole);
  }
  has(id2) {
    return this.index.has(id2);
  }
  /** Covariance of two points, 3×3; of one with itself where the second is left out. */
  block(a, b = a) {
    const block = new Float64Array(9);
    this.fill(block, this.index.get(a), this.index.get(b));
    return covariance(Array.from(block));
  }
  /** Several points as one matrix, 3n×3n. */
  matrix(ids) {
    const size2 = 3 * ids.length;
    const { values } = Symmetric.zeros(size2);
    const block = new Float64Array(9);
    const places7 = ids.map((id2) => this.index.get(id2));
    for (let i = 0; i < places7.length; i++)
      for (let k = 0; k <= i; k++) {
        this.fill(block, places7[i], places7[k]);
        for (let r = 0; r < 3; r++)
          for (let c = 0; c < 3; c++) {
            values[(3 * i + r) * size2 + 3 * k + c] = block[3 * r + c];
            values[(3 * k + c) * size2 + 3 * i + r] = block[3 * r + c];
          }
      }
    return new Symmetric(size2, values);
  }
  /** The same in the axes a motion leads to: R Σ Rᵀ on every pair. */
  turned({ rotation }) {
    const { rotation: before } = this;
    const both = before ? [0, 1, 2].map(
      (r) => [0, 1, 2].map((c) => [0, 1, 2].reduce((sum, k) => sum + rotation[r][k] * before[k][c], 0))
    ) : rotation;
    return new _Joint(this.ids, this.columns, this.whole, both);
  }
  fill(block, a, b) {
    const { whole, turn } = this;
    const p = this.columns[a];
    const q = this.columns[b];
    if (p < 0 || q < 0) {
      block.fill(0);
      return;
    }
    for (let r = 0; r < 3; r++)
      for (let c = 0; c < 3; c++) block[3 * r + c] = whole.values[(p + r) * whole.size + q + c];
    if (turn) turnBlock(block, turn);
  }
};
var half = new Float64Array(9);
function turnBlock(block, turn) {
  for (let r = 0; r < 9; r += 3)
    for (let c = 0; c < 3; c++)
      half[r + c] = turn[r] * block[c] + turn[r + 1] * block[3 + c] + turn[r + 2] * block[6 + c];
  for (let r = 0; r < 9; r += 3)
    for (let c = 0; c < 3; c++)
      block[r + c] = half[r] * turn[3 * c] + half[r + 1] * turn[3 * c + 1] + half[r + 2] * turn[3 * c + 2];
}

// src/core/maths/rigid/turn.ts
function turned(v, w) {
  const { sine, versine } = factors(w);
  const wv = cross(w, v);
  const wwv = cross(w, wv);
  return mapAxes((k) => v[k] + sine * wv[k] + versine * wwv[k]);
}
function turnGradient(v, w, axis) {
  const { versine, rest } = factors(w);
  const r = turned(v, w);
  return mapAxes((k) => {
    const e = mapAxes((i) => Number(i === k));
    const we = cross(w, e);
    const wwe = cross(w, we);
    return cross(
      mapAxes((i) => e[i] + versine * we[i] + rest * wwe[i]),
      r
    )[axis];
  });
}
function addedTurn(w, by) {
  const { sine, versine } = factors(w);
  const square = dot(w, w);
  const rest = square < 1e-8 ? 1 / 12 : (1 - sine / (2 * versine)) / square;
  const wb = cross(w, by);
  const wwb = cross(w, wb);
  return mapAxes((k) => by[k] - wb[k] / 2 + rest * wwb[k]);
}
function factors(w) {
  const square = dot(w, w);
  if (square < 1e-8) return { sine: 1 - square / 6, versine: 1 / 2 - square / 24, rest: 1 / 6 - square / 120 };
  const angle = Math.sqrt(square);
  return {
    sine: Math.sin(angle) / angle,
    versine: (1 - Math.cos(angle)) / square,
    rest: (angle - Math.sin(angle)) / (angle * square)
  };
}

// src/core/survey/survey.ts
var isPair = (reading2) => reading2.kind === "distance" || reading2.kind === "plan" || reading2.kind === "rise";
var COORDINATE_AXIS = {
  station: "x",
  offset: "y",
  height: "z"
};
var pointsOf = (reading2) => isPair(reading2) ? [reading2.from, reading2.to] : [reading2.point];
var tipDistance = (value, pointers2) => pointers2 ? Math.hypot(value, pointers2[0] - pointers2[1]) : value;
function pointIndex(survey) {
  const known2 = INDICES.get(survey.points) ?? new Map(survey.points.map(({ id: id2 }, i) => [id2, i]));
  INDICES.set(survey.points, known2);
  return known2;
}
var INDICES = /* @__PURE__ */ new WeakMap();

// src/core/survey/observations.ts
var LEAST_ARM = 1e3;
var BODY_SD = 1e3;
function equationsOf(survey) {
  const index = pointIndex(survey);
  const column = new Int32Array(survey.points.length).fill(-1);
  let coordinates = 0;
  survey.points.forEach((point3, i) => {
    if (point3.hold === "fixed") return;
    column[i] = coordinates;
    coordinates += 3;
  });
  const biases = /* @__PURE__ */ new Map();
  const bodies = /* @__PURE__ */ new Map();
  const biasSigmas = [];
  const observations = [];
  survey.readings.forEach((reading2, r) => {
    const bias = reading2.bias ? biasColumn(reading2.bias.group, reading2.bias.sigma) : -1;
    const body = reading2.kind === "position" && reading2.body;
    observations.push(...observationsOf(reading2, index, r, bias, body ? bodyOf(body) : void 0));
  });
  survey.points.forEach((point3, a) => {
    const { hold: hold2 } = point3;
    if (typeof hold2 !== "number") return;
    point3.start.forEach(
      (observed, axis) => observations.push({ kind: "coordinate", a, b: -1, axis, observed, sigma: hold2, reading: -1, bias: -1 })
    );
  });
  return {
    observations,
    column,
    coordinates,
    unknowns: coordinates + biasSigmas.length,
    biasSigmas,
    bodies: [...bodies.values()]
  };
  function bodyOf({ id: id2, middle }) {
    const known2 = bodies.get(id2);
    if (known2) return known2;
    const body = { id: id2, first: biasSigmas.length, middle, arm: armOf(survey, id2, middle) };
    bodies.set(id2, body);
    biasSigmas.push(...Array.from({ length: 6 }, () => BODY_SD));
    return body;
  }
  function biasColumn(group, sigma) {
    const known2 = biases.get(group);
    if (known2 !== void 0) return known2;
    biases.set(group, biasSigmas.length);
    return biasSigmas.push(sigma) - 1;
  }
}
function withObservation(equations, observation) {
  const { observations } = equations;
  const held = observations.findIndex(({ reading: reading2 }) => reading2 < 0);
  const place2 = held < 0 ? observations.length : held;
  return { ...equations, observations: observations.toSpliced(place2, 0, observation) };
}
function observationsOf(reading2, index, r = -1, bias = -1, body) {
  if (isPair(reading2)) {
    const observed = tipDistance(reading2.value, reading2.pointers);
    const [a, b] = [index.get(reading2.from), index.get(reading2.to)];
    return [{ kind: reading2.kind, a, b, axis: -1, observed, sigma: reading2.sigma, reading: r, bias }];
  }
  const coordinate = (axis, observed, sigma) => ({
    kind: "coordinate",
    a: index.get(reading2.point),
    b: -1,
    axis,
    observed,
    sigma,
    reading: r,
    bias,
    ...body ? { on: body } : {}
  });
  return reading2.kind === "position" ? reading2.value.map((observed, axis) => coordinate(axis, observed, reading2.sigma[axis])) : [coordinate(AXES.indexOf(COORDINATE_AXIS[reading2.kind]), reading2.value, reading2.sigma)];
}
var MOST_COLUMNS = 10;
var newRow = () => ({
  count: 0,
  columns: new Int32Array(MOST_COLUMNS),
  coefficients: new Float64Array(MOST_COLUMNS),
  value: 0
});
var direction = new Float64Array(3);
function directionOf(x, a, b, axes, into) {
  const dx = x[3 * b] - x[3 * a];
  const dy = x[3 * b + 1] - x[3 * a + 1];
  const dz = axes === 3 ? x[3 * b + 2] - x[3 * a + 2] : 0;
  const length2 = Math.sqrt(dx * dx + dy * dy + dz * dz);
  const scale2 = length2 > 1e-9 ? 1 / length2 : 0;
  into[0] = scale2 === 0 ? 1 : dx * scale2;
  into[1] = dy * scale2;
  into[2] = dz * scale2;
  return length2;
}
function linearise(equations, observation, x, biases, row) {
  row.count = 0;
  const { a, b, kind, bias } = observation;
  const from2 = equations.column[a];
  if (kind === "coordinate") {
    if (observation.on) readOnBody(row, equations, observation, x, biases);
    else {
      row.value = x[3 * a + observation.axis];
      addTo(row, from2, observation.axis, 1);
    }
  } else if (kind === "rise") {
    row.value = x[3 * b + 2] - x[3 * a + 2];
    addTo(row, from2, 2, -1);
    addTo(row, equations.column[b], 2, 1);
  } else {
    row.value = directionOf(x, a, b, kind === "distance" ? 3 : 2, direction);
    for (let axis = 0; axis < 3; axis++) {
      addTo(row, from2, axis, -direction[axis]);
      addTo(row, equations.column[b], axis, direction[axis]);
    }
  }
  if (bias >= 0) {
    row.value += biases[bias];
    addTo(row, equations.coordinates, bias, 1);
  }
}
var turnOf = (biases, { first, arm }) => mapAxes((k) => biases[first + 3 + k] / arm);
var armOf = ({ readings }, id2, middle) => readings.reduce(
  (most, reading2) => reading2.kind === "position" && reading2.body?.id === id2 ? Math.max(most, norm(subtract(reading2.value, middle))) : most,
  LEAST_ARM
);
function readOnBody(row, equations, { a, axis, on }, x, biases) {
  const { first, middle, arm: far } = on;
  const back = scale(turnOf(biases, on), -1);
  const arm = mapAxes((k) => x[3 * a + k] - middle[k] - biases[first + k]);
  row.value = middle[axis] + turned(arm, back)[axis];
  const body = equations.coordinates + first;
  for (let k = 0; k < 3; k++) {
    const share = turned(
      mapAxes((i) => Number(i === k)),
      back
    )[axis];
    addTo(row, equations.column[a], k, share);
    addTo(row, body, k, -share);
  }
  turnGradient(arm, back, axis).forEach((slope, k) => addTo(row, body, 3 + k, -slope / far));
}
function addTo(row, first, offset, coefficient) {
  if (first < 0 || coefficient === 0) return;
  row.columns[row.count] = first + offset;
  row.coefficients[row.count] = coefficient;
  row.count++;
}

// src/core/survey/datum.ts
import { EigenvalueDecomposition, Matrix as Matrix2 } from "ml-matrix";
var FREE = 1e-11;
function rigidFreedoms(equations, x, biases) {
  const { column, unknowns } = equations;
  const motions = wholeMotions(x);
  const moved = motions.map((motion2) => inUnknowns(equations, motion2, x, biases));
  const sums = forbidden(equations, x, biases, motions, moved);
  if (sums.every((sum) => sum === 0)) return orthonormal(moved);
  const normal = Matrix2.from1DArray(6, 6, sums);
  const { realEigenvalues, eigenvectorMatrix } = new EigenvalueDecomposition(normal, {
    assumeSymmetric: true
  });
  const strongest = Math.max(...realEigenvalues, column.length);
  const free = realEigenvalues.flatMap(
    (value, k) => value <= FREE * strongest ? [eigenvectorMatrix.getColumn(k)] : []
  );
  return orthonormal(
    free.map((shares) => {
      const direction3 = new Float64Array(unknowns);
      for (let k = 0; k < 6; k++) addShare(direction3, shares[k], moved[k]);
      return direction3;
    })
  );
}
function forbidden(equations, x, biases, motions, moved) {
  const { column, observations } = equations;
  const sums = new Float64Array(36);
  const shares = new Float64Array(6);
  const constrain = () => {
    for (let r = 0; r < 6; r++) for (let c = 0; c <= r; c++) sums[6 * r + c] += shares[r] * shares[c];
  };
  const each = motions.map(() => new Float64Array(3));
  column.forEach((first, point3) => {
    if (first >= 0) return;
    motions.forEach((motion2, k) => moveOf(motion2, x, point3, each[k], 0));
    for (let axis = 0; axis < 3; axis++) {
      for (let k = 0; k < 6; k++) shares[k] = each[k][axis];
      constrain();
    }
  });
  const row = newRow();
  for (const observation of observations) {
    if (observation.kind === "distance") continue;
    if (observation.kind === "coordinate" && !observation.on) {
      const first = column[observation.a];
      if (first < 0) continue;
      for (let k = 0; k < 6; k++) shares[k] = moved[k][first + observation.axis];
    } else {
      linearise(equations, observation, x, biases, row);
      for (let k = 0; k < 6; k++) shares[k] = along(moved[k], row);
    }
    constrain();
  }
  for (let r = 0; r < 6; r++) for (let c = r + 1; c < 6; c++) sums[6 * r + c] = sums[6 * c + r];
  return sums;
}
function addShare(direction3, share, other) {
  for (let i = 0; i < direction3.length; i++) direction3[i] += share * other[i];
}
function wholeMotions(x) {
  const count2 = Math.max(x.length / 3, 1);
  const sums = new Float64Array(3);
  for (let i = 0; i < x.length; i++) sums[i % 3] += x[i] / count2;
  const middle = mapAxes((k) => sums[k]);
  let size2 = 0;
  for (let i = 0; i < x.length; i++) size2 += (x[i] - sums[i % 3]) ** 2;
  const turnScale = 1 / Math.max(Math.sqrt(size2 / count2), 1e-9);
  const still = [0, 0, 0];
  const along2 = [0, 1, 2].map((k) => mapAxes((axis) => Number(axis === k)));
  return [
    ...along2.map((shift) => ({ shift, turn: still, middle })),
    ...along2.map((turn) => ({ shift: still, turn: scale(turn, turnScale), middle }))
  ];
}
function moveOf({ shift, turn, middle }, x, point3, into, at2) {
  const px = x[3 * point3] - middle[0];
  const py = x[3 * point3 + 1] - middle[1];
  const pz = x[3 * point3 + 2] - middle[2];
  into[at2] = shift[0] + turn[1] * pz - turn[2] * py;
  into[at2 + 1] = shift[1] + turn[2] * px - turn[0] * pz;
  into[at2 + 2] = shift[2] + turn[0] * py - turn[1] * px;
}
function inUnknowns({ column, unknowns, coordinates, bodies }, motion2, x, biases) {
  const direction3 = new Float64Array(unknowns);
  for (let point3 = 0; point3 < column.length; point3++) {
    const first = column[point3];
    if (first >= 0) moveOf(motion2, x, point3, direction3, first);
  }
  const { shift, turn, middle } = motion2;
  for (const body of bodies) {
    const stands = mapAxes((axis) => body.middle[axis] + biases[body.first + axis]);
    const first = coordinates + body.first;
    direction3.set(add(shift, cross(turn, subtract(stands, middle))), first);
    direction3.set(scale(addedTurn(turnOf(biases, body), turn), body.arm), first + 3);
  }
  return direction3;
}
function orthonormal(directions) {
  const kept = [];
  for (const direction3 of directions) {
    for (let pass = 0; pass < 2; pass++) for (const other of kept) addShare(direction3, -dot2(direction3, other), other);
    const length2 = Math.sqrt(dot2(direction3, direction3));
    if (length2 <= 1e-6) continue;
    for (let i = 0; i < direction3.length; i++) direction3[i] /= length2;
    kept.push(direction3);
  }
  return kept;
}
function dot2(a, b) {
  let sum = 0;
  for (let i = 0; i < a.length; i++) sum += a[i] * b[i];
  return sum;
}

// src/core/survey/design.ts
var MOST = MOST_COLUMNS;
var [FLAT, STRAIGHT, LINEAR, BENT] = [0, 1, 2, 3];
var Design = class {
  constructor(equations) {
    this.equations = equations;
    const { observations } = equations;
    const count2 = observations.length;
    this.values = new Float64Array(count2);
    this.observed = new Float64Array(count2);
    this.kinds = new Uint8Array(count2);
    this.from = new Int32Array(count2);
    this.to = new Int32Array(count2);
    this.bias = new Int32Array(count2);
    this.counts = new Uint8Array(count2);
    this.columns = new Int32Array(MOST * count2);
    this.coefficients = new Float64Array(MOST * count2);
    for (let i = 0; i < count2; i++) this.layOut(observations[i], i);
  }
  equations;
  /** Computed values, mm. */
  values;
  observed;
  kinds;
  /** The two points of a length, and its shared bias or −1. */
  from;
  to;
  bias;
  counts;
  columns;
  coefficients;
  row = newRow();
  /** Computes all rows at some coordinates, three a point, and shared biases. */
  at(x, biases) {
    const { kinds } = this;
    for (let i = 0; i < kinds.length; i++) {
      const kind = kinds[i];
      if (kind === STRAIGHT || kind === FLAT) this.direct(i, x, biases);
      else if (kind === LINEAR) this.values[i] = this.valueOf(i, x, biases);
      else this.linearised(i, x, biases);
    }
    return this;
  }
  /** Says where the entries of a row stand, and what they are where that is the same everywhere. */
  layOut(observation, i) {
    const { kind, a, b, axis, bias } = observation;
    this.observed[i] = observation.observed;
    this.from[i] = a;
    this.to[i] = b;
    this.bias[i] = bias;
    this.kinds[i] = observation.on ? BENT : kind === "distance" ? STRAIGHT : kind === "plan" ? FLAT : LINEAR;
    if (observation.on) return;
    const axes = kind === "distance" ? [0, 1, 2] : kind === "plan" ? [0, 1] : kind === "rise" ? [2] : [axis];
    for (const end of kind === "coordinate" ? [a] : [a, b]) {
      const first = this.equations.column[end];
      if (first < 0) continue;
      for (const each of axes) this.enter(i, first + each, end === a && kind === "rise" ? -1 : 1);
    }
    if (bias >= 0) this.enter(i, this.equations.coordinates + bias, 1);
  }
  enter(i, column, coefficient) {
    const at2 = MOST * i + this.counts[i]++;
    this.columns[at2] = column;
    this.coefficients[at2] = coefficient;
  }
  /** A length: its direction, against it at its first point. */
  direct(i, x, biases) {
    const { coefficients, kinds } = this;
    const { column } = this.equations;
    const a = this.from[i];
    const b = this.to[i];
    const axes = kinds[i] === STRAIGHT ? 3 : 2;
    const bias = this.bias[i];
    const length2 = directionOf(x, a, b, axes, direction2);
    this.values[i] = bias < 0 ? length2 : length2 + biases[bias];
    let at2 = MOST * i;
    if (column[a] >= 0) for (let k = 0; k < axes; k++) coefficients[at2++] = -direction2[k];
    if (column[b] >= 0) for (let k = 0; k < axes; k++) coefficients[at2++] = direction2[k];
  }
  /** A coordinate, or the difference of two heights. */
  valueOf(i, x, biases) {
    const { kind, a, b, axis, bias } = this.equations.observations[i];
    const value = kind === "rise" ? x[3 * b + 2] - x[3 * a + 2] : x[3 * a + axis];
    return bias < 0 ? value : value + biases[bias];
  }
  linearised(i, x, biases) {
    const { row, equations, columns, coefficients } = this;
    linearise(equations, equations.observations[i], x, biases, row);
    this.values[i] = row.value;
    this.counts[i] = row.count;
    for (let p = 0; p < row.count; p++) {
      columns[MOST * i + p] = row.columns[p];
      coefficients[MOST * i + p] = row.coefficients[p];
    }
  }
  /** vᵀPv of the observations, with their weights 1/mm². */
  cost(weights) {
    const { values, observed } = this;
    let sum = 0;
    for (let i = 0; i < values.length; i++) {
      const residual = values[i] - observed[i];
      sum += weights[i] * residual * residual;
    }
    return sum;
  }
  /** AᵀP(l − f) of the observations, in the space of the unknowns. */
  downhill(weights) {
    const { values, observed, counts, columns, coefficients } = this;
    const right = new Float64Array(this.equations.unknowns);
    for (let i = 0; i < values.length; i++) {
      const weighted = weights[i] * (observed[i] - values[i]);
      for (let p = MOST * i, end = p + counts[i]; p < end; p++) right[columns[p]] += weighted * coefficients[p];
    }
    return right;
  }
  /** Adds AᵀPA of the observations to the lower triangle of `normal`, row major. */
  addNormal(weights, normal) {
    const { counts, columns, coefficients } = this;
    const { unknowns } = this.equations;
    for (let i = 0; i < counts.length; i++) {
      const first = MOST * i;
      const end = first + counts[i];
      for (let p = first; p < end; p++) {
        const column = columns[p];
        const scaled2 = weights[i] * coefficients[p];
        for (let q = first; q < end; q++)
          if (columns[q] <= column) normal[column * unknowns + columns[q]] += scaled2 * coefficients[q];
      }
    }
  }
};
var direction2 = new Float64Array(3);
function weightsOf({ observations }, kept) {
  const weights = new Float64Array(kept.length);
  for (let i = 0; i < kept.length; i++) weights[i] = kept[i] / observations[i].sigma ** 2;
  return weights;
}

// src/core/survey/net-state.ts
var NetState = class {
  constructor(equations, start, kept) {
    this.equations = equations;
    this.start = start;
    this.x = Float64Array.from(start);
    this.biases = new Float64Array(equations.biasSigmas.length);
    this.kept = kept ?? new Float64Array(equations.observations.length).fill(1);
    this.weights = weightsOf(equations, this.kept);
    this.there = new Design(equations);
  }
  equations;
  start;
  x;
  biases;
  kept;
  weights;
  /** The design at these coordinates, where it has been computed, and one for those that are tried. */
  here;
  there;
  /** Its design; the coordinates are moved by `take` alone once it has been asked for. */
  get design() {
    return this.here ??= new Design(this.equations).at(this.x, this.biases);
  }
  /** vᵀPv of the observations and of the biases. */
  cost() {
    return this.design.cost(this.weights) + biasCost(this.equations, this.biases);
  }
  /** Where a step leads, and the cost there. */
  after(step2) {
    const moved = this.moved(step2);
    const cost = this.there.at(moved.x, moved.biases).cost(this.weights);
    return { ...moved, cost: cost + biasCost(this.equations, moved.biases) };
  }
  /** Goes where the last step that was tried leads. */
  take({ x, biases }) {
    this.x.set(x);
    this.biases.set(biases);
    [this.here, this.there] = [this.there, this.design];
  }
  /** AᵀP(l − f): downhill of the sum of squares. */
  downhill() {
    const { equations, biases } = this;
    const right = this.design.downhill(this.weights);
    equations.biasSigmas.forEach((sigma, i) => right[equations.coordinates + i] -= biases[i] / sigma ** 2);
    return right;
  }
  /**
   * AᵀPA, lower triangle. With `curved`, the second derivatives of the lengths are in it too: Newton's
   * matrix, which a net with a gross error needs, since there the residuals are too large for Gauss's.
   *
   * @param room where it is written, if given; its upper triangle is then meaningless
   */
  normal(curved = false, room) {
    const { equations, design: design2 } = this;
    const { unknowns, coordinates, biasSigmas, observations } = equations;
    const normal = room?.fill(0) ?? new Float64Array(unknowns * unknowns);
    design2.addNormal(this.weights, normal);
    if (curved)
      observations.forEach((observation, i) => {
        if (observation.kind !== "distance" && observation.kind !== "plan") return;
        const misfit = design2.values[i] - observation.observed;
        this.addCurvature(normal, observation, this.weights[i] * misfit / Math.max(design2.values[i], 1));
      });
    biasSigmas.forEach((sigma, i) => normal[(coordinates + i) * (unknowns + 1)] += 1 / sigma ** 2);
    return normal;
  }
  /** Adds c · (I − u uᵀ) on the difference of an observation's two points; u is the line's direction. */
  addCurvature(normal, { kind, a, b }, c) {
    const { column, unknowns } = this.equations;
    const axes = kind === "plan" ? 2 : 3;
    const line2 = [0, 1, 2].map((i) => i < axes ? this.x[3 * b + i] - this.x[3 * a + i] : 0);
    const length2 = Math.max(Math.hypot(...line2), 1e-9);
    for (const [p, q, sign] of [
      [a, a, 1],
      [b, b, 1],
      [a, b, -1],
      [b, a, -1]
    ]) {
      const [first, second] = [column[p], column[q]];
      if (first < 0 || second < 0) continue;
      for (let i = 0; i < axes; i++)
        for (let j = 0; j < axes; j++)
          if (first + i >= second + j)
            normal[(first + i) * unknowns + second + j] += sign * c * ((i === j ? 1 : 0) - line2[i] * line2[j] / length2 ** 2);
    }
  }
  /** The coordinates after a step in the unknowns. */
  moved(step2) {
    const { column, coordinates } = this.equations;
    const x = this.x.slice();
    for (let point3 = 0; point3 < column.length; point3++) {
      const first = column[point3];
      if (first >= 0) for (let axis = 0; axis < 3; axis++) x[3 * point3 + axis] += step2[first + axis];
    }
    return { x, biases: this.biases.map((value, i) => value + step2[coordinates + i]) };
  }
  /** How far the free unknowns are from their start, in the space of the unknowns. */
  drift() {
    const { column, coordinates, unknowns, bodies } = this.equations;
    const drift = new Float64Array(unknowns);
    column.forEach((first, point3) => {
      if (first < 0) return;
      for (let axis = 0; axis < 3; axis++)
        drift[first + axis] = this.x[3 * point3 + axis] - this.start[3 * point3 + axis];
    });
    for (const { first } of bodies) drift.set(this.biases.subarray(first, first + 6), coordinates + first);
    return drift;
  }
};
var biasCost = ({ biasSigmas }, biases) => biasSigmas.reduce((sum, sigma, i) => sum + (biases[i] / sigma) ** 2, 0);
var weightedSquares = (equations, x, biases, kept) => new Design(equations).at(x, biases).cost(weightsOf(equations, kept)) + biasCost(equations, biases);

// src/core/survey/solve.ts
var LOOSE_SD = 25;
var LOOSE_WEIGHT = 1e-5;
var MOST_ITERATIONS = 120;
var PLAIN_ITERATIONS = 14;
var CONVERGED = 1e-8;
var SERVES_ON = 0.15;
var SAME_PLACE = 1e-6;
function solveNet(survey, options = {}) {
  const first = solveFrom(survey, options);
  if (first.ok || options.from || options.firm) return first;
  const tries = [1, -1].map((side2) => solveFrom(survey, { ...options, from: offThePlane(survey, side2) }));
  const solved = tries.flatMap((each) => each.ok ? [each.solution] : []);
  const best2 = solved.sort((a, b) => sumOfSquares(a) - sumOfSquares(b))[0];
  return best2 ? { ok: true, solution: best2 } : first;
}
function solveFrom(survey, { from: from2, fromBiases, kept, firm = false, looseSd = LOOSE_SD }) {
  const equations = equationsOf(survey);
  const start = startOf(survey);
  const state = new NetState(equations, start, kept);
  if (from2) state.x.set(from2);
  if (fromBiases) state.biases.set(fromBiases);
  const outcome = iterate(state, firm);
  if (firm && !outcome.converged) return { ok: false, why: "diverges" };
  const held = outcome.held ?? (outcome.converged ? holdFreedoms(state, 0) : void 0);
  const covariance2 = held && pseudoInverse(held);
  if (!covariance2 || isLoose(covariance2, equations, looseSd)) {
    const loose = holdFreedoms(state, LOOSE_WEIGHT);
    const looseCovariance = loose && pseudoInverse(loose);
    return looseCovariance && isLoose(looseCovariance, equations, looseSd) ? { ok: false, why: "loose", equations, looseCovariance } : { ok: false, why: "diverges" };
  }
  return {
    ok: true,
    solution: {
      survey,
      equations,
      x: state.x,
      biases: state.biases,
      covariance: covariance2,
      freedoms: held.freedoms.length,
      iterations: outcome.iterations,
      kept: state.kept
    }
  };
}
var startOf = (survey) => Float64Array.from(survey.points.flatMap((point3) => [...point3.start]));
function offThePlane(survey, side2) {
  const x = startOf(survey);
  survey.points.forEach((point3, i) => {
    if (point3.hold === "fixed") return;
    for (let axis = 0; axis < 3; axis++)
      x[3 * i + axis] += side2 * 15 * (0.6 + 0.4 * Math.sin(2.4 * i + 1.7 * axis)) * (axis === 2 ? 1 : 0.3);
  });
  return x;
}
var isLoose = (covariance2, { coordinates, unknowns }, looseSd = LOOSE_SD) => {
  for (let i = 0; i < coordinates; i++) if (!(covariance2[i * unknowns + i] <= looseSd ** 2)) return true;
  return false;
};
function iterate(state, firm) {
  const { unknowns } = state.equations;
  let damping = 0;
  let lastStep = Infinity;
  let shrunk = 0;
  let cost = state.cost();
  let factor;
  let freedoms = [];
  let stiffness = 1;
  let since = 0;
  const room = new Float64Array(unknowns * unknowns);
  for (let iterations = 1; iterations <= MOST_ITERATIONS; iterations++) {
    if (!factor || shrunk > SERVES_ON || damping > 0 || iterations > PLAIN_ITERATIONS) {
      const normal = state.normal(iterations > PLAIN_ITERATIONS, room);
      const strongest = largestDiagonal(normal, unknowns);
      freedoms = rigidFreedoms(state.equations, state.x, state.biases);
      stiffness = addFreedoms(normal, freedoms, unknowns);
      for (let i = 0; i < unknowns; i++) normal[i * unknowns + i] += damping * strongest;
      factor = SymmetricFactor.of(normal, unknowns);
      since = 0;
      if (firm && iterations === 1 && !isFirm(factor)) return { converged: false, iterations };
    }
    if (!factor) {
      damping = damping === 0 ? 1e-6 : damping * 10;
      if (damping > 1e3) return { converged: false, iterations };
      continue;
    }
    const right = state.downhill();
    if (since > 0 && freedoms.length > 0) freedoms = rigidFreedoms(state.equations, state.x, state.biases);
    pullBack(right, state.drift(), freedoms, stiffness);
    const step2 = factor.solve(right);
    const next = state.after(step2);
    const size2 = largest(step2);
    if (next.cost <= cost * (1 + 1e-9) + 1e-9 || damping === 0 && size2 < 1e-3) {
      state.take(next);
      cost = next.cost;
      shrunk = since === 0 ? 0 : size2 / lastStep;
      lastStep = size2;
      since += size2;
      if (size2 < CONVERGED && damping < 1e-9)
        return {
          converged: true,
          iterations,
          ...since < SAME_PLACE && damping === 0 && iterations <= PLAIN_ITERATIONS ? { held: { factor, freedoms, stiffness } } : {}
        };
      damping = damping < 1e-9 ? 0 : damping / 10;
    } else {
      damping = damping === 0 ? 1e-6 : damping * 10;
      factor = void 0;
      if (damping > 1e6) return { converged: false, iterations };
    }
  }
  return { converged: false, iterations: MOST_ITERATIONS };
}
function largest(step2) {
  let most = 0;
  for (const each of step2) most = Math.max(most, Math.abs(each));
  return most;
}
var isFirm = (factor) => factor !== void 0 && factor.smallestPivot() >= 1 / LOOSE_SD;
function largestDiagonal(normal, size2) {
  let most = 1e-12;
  for (let i = 0; i < size2; i++) most = Math.max(most, normal[i * size2 + i]);
  return most;
}
function addFreedoms(normal, freedoms, size2) {
  const stiffness = largestDiagonal(normal, size2);
  for (let i = 0; i < size2; i++)
    for (const g of freedoms) {
      const share = stiffness * g[i];
      if (share === 0) continue;
      for (let j = 0; j <= i; j++) normal[i * size2 + j] += share * g[j];
    }
  return stiffness;
}
function pullBack(right, drift, freedoms, stiffness) {
  for (const g of freedoms) {
    let along2 = 0;
    for (let i = 0; i < g.length; i++) along2 += g[i] * drift[i];
    for (let i = 0; i < g.length; i++) right[i] -= stiffness * along2 * g[i];
  }
}
function holdFreedoms(state, weight) {
  const { unknowns } = state.equations;
  const freedoms = rigidFreedoms(state.equations, state.x, state.biases);
  const normal = state.normal();
  const stiffness = addFreedoms(normal, freedoms, unknowns);
  for (let i = 0; i < unknowns; i++) normal[i * unknowns + i] += weight;
  const factor = SymmetricFactor.of(normal, unknowns);
  return factor && { factor, freedoms, stiffness };
}
function pseudoInverse({ factor, freedoms, stiffness }) {
  const terms = freedoms.map((u) => ({ u, share: 1 / stiffness }));
  return factor.inverse().less(terms).values;
}
var covarianceOf = ({ equations: { unknowns }, covariance: covariance2 }) => new Symmetric(unknowns, covariance2);
var sumOfSquares = ({ equations, x, biases, kept }) => weightedSquares(equations, x, biases, kept);

// src/core/survey/prediction.ts
function predict(solution, reading2, axis = 0) {
  const body = reading2.kind === "position" ? reading2.body?.id : void 0;
  const on = solution.equations.bodies.find(({ id: id2 }) => id2 === body);
  const observations = observationsOf(reading2, pointIndex(solution.survey), -1, -1, on);
  return predictObservation(solution, observations[reading2.kind === "position" ? axis : 0]);
}
function predictObservation(solution, observation) {
  const row = newRow();
  linearise(solution.equations, { ...observation, bias: -1 }, solution.x, solution.biases, row);
  return { value: row.value, variance: Math.max(0, varianceAlong(covarianceOf(solution), row)) };
}
function jointOf(solution) {
  const known2 = JOINTS.get(solution);
  if (known2) return known2;
  const ids = solution.survey.points.map(({ id: id2 }) => id2);
  const joint2 = Joint.of(ids, solution.equations.column, covarianceOf(solution));
  JOINTS.set(solution, joint2);
  return joint2;
}
var JOINTS = /* @__PURE__ */ new WeakMap();

// src/core/survey/slips.ts
var PRIOR = {
  startMark: 0.35,
  otherStartMark: 0.13,
  startMarkTwice: 0.09,
  inchStartMark: 0.13,
  edgeForCentre: 0.25,
  misheard: 0.2,
  tenMiscounted: 0.14,
  digitsExchanged: 0.2,
  unit: 0.5,
  sidesExchanged: 0.35,
  neighbouringHole: 0.15,
  pointers: 0.5,
  sign: 0.6,
  eighthForSixteenth: 0.3
};
var numberSlips = (raw, { taped, signed, typed }, make) => [
  ...taped ? startMarks(raw, make) : [],
  make("tenMiscounted", "ten millimetres were miscounted", raw + 10, 2),
  make("tenMiscounted", "ten millimetres were miscounted", raw - 10, 2),
  ...typedOtherwise(raw, typed, make),
  ...units(raw, typed, make),
  ...signed ? [make("sign", "the sign of the width was left out or put in", -raw)] : []
];
function slipBehind(raw, number, expected) {
  const fitting = numberSlips(raw, number, (kind, _, value, among = 1) => ({ kind, value, among })).map((slip) => ({ ...slip, off: (slip.value - expected.value) / expected.sd })).filter(({ off }) => Math.abs(off) <= 2).map((slip) => ({ ...slip, likelihood: PRIOR[slip.kind] / slip.among * Math.exp(-(slip.off ** 2) / 2) }));
  const [best2] = fitting.sort((a, b) => b.likelihood - a.likelihood);
  return best2 && { kind: best2.kind, value: best2.value };
}
var startMarks = (raw, make) => [
  make("startMark", "the tape was started at the 100 mm mark and that was not taken off", raw - 100),
  make("otherStartMark", "the tape was started at the 50 mm mark and that was not taken off", raw - 50),
  make("inchStartMark", "the tape was started at the one-inch mark and that was not taken off", raw - 25.4),
  make("startMarkTwice", "the 100 mm mark was taken off twice", raw + 100),
  make("startMarkTwice", "the 50 mm mark was taken off twice", raw + 50),
  make("startMarkTwice", "the start mark of one inch was taken off twice", raw + 25.4)
];
var MM_PER = { mm: 1, cm: 10, m: 1e3, in: 25.4 };
function typedOtherwise(raw, typed, make) {
  const { amount, unit } = typed ?? { amount: raw, unit: "mm" };
  const back = raw - amount * MM_PER[unit];
  const inMm = (other) => other * MM_PER[unit] + back;
  const swapped = exchangedDigits(amount);
  const heard = misheard(amount);
  return [
    ...swapped.map(
      (other) => make(
        "digitsExchanged",
        `two digits were exchanged: ${other} instead of ${shown(amount)}`,
        inMm(other),
        swapped.length
      )
    ),
    ...heard.map(
      (other) => make("misheard", `misheard: ${other} instead of ${shown(amount)}`, inMm(other), heard.length)
    ),
    ...unit === "in" ? [1, -1].map(
      (sign) => make("eighthForSixteenth", "1/8 was taken for 1/16 of an inch, or the reverse", raw + sign * 25.4 / 16, 2)
    ) : []
  ];
}
var shown = (amount) => String(Math.round(amount * 100) / 100);
function exchangedDigits(amount) {
  const text4 = shown(Math.abs(amount));
  const result = /* @__PURE__ */ new Set();
  for (let i = 0; i + 1 < text4.length; i++) {
    const [a, b] = [text4[i], text4[i + 1]];
    if (!/\d/.test(a) || !/\d/.test(b) || a === b) continue;
    result.add(Math.sign(amount) * Number(text4.slice(0, i) + b + a + text4.slice(i + 2)));
  }
  return [...result];
}
function misheard(amount) {
  const whole = Math.trunc(Math.abs(amount));
  const rest = Math.abs(amount) - whole;
  const result = [];
  for (const place2 of [1, 100]) {
    const pair = Math.trunc(whole / place2) % 100;
    const teen = pair >= 13 && pair <= 19 ? (pair - 10) * 10 : void 0;
    const ty = pair >= 30 && pair <= 90 && pair % 10 === 0 ? pair / 10 + 10 : void 0;
    const other = teen ?? ty;
    if (other !== void 0) result.push(Math.sign(amount) * (whole + (other - pair) * place2 + rest));
  }
  return result;
}
function units(raw, typed, make) {
  const { amount, unit } = typed ?? { amount: raw, unit: "mm" };
  const WORD = { mm: "millimetres", cm: "centimetres", m: "metres", in: "inches" };
  return ["mm", "cm", "in"].filter((other) => other !== unit).map((other) => make("unit", `the number is in ${WORD[other]}, not in ${WORD[unit]}`, amount * MM_PER[other]));
}

// src/core/survey/causes.ts
var FITS2 = 2;
var LIKELIER = 10;
var BLUNDER_REACH = 200;
var NEIGHBOUR = 160;
function likelyCause(without2, reading2, facts = {}, axis = 0) {
  const judged = candidates(without2, reading2, facts, axis).map((candidate) => {
    const { value, variance } = predict(without2, candidate.corrected, axis);
    const sd = Math.sqrt(sigmaOf(candidate.corrected, axis) ** 2 + variance);
    const w = (valueOf(candidate.corrected, axis) - value) / sd;
    const density = Math.exp(-(w ** 2) / 2) / (sd * Math.sqrt(2 * Math.PI));
    return { ...candidate, w, likelihood: PRIOR[candidate.kind] / candidate.among * density };
  });
  judged.sort((a, b) => b.likelihood - a.likelihood);
  const [best2] = judged;
  if (!best2 || Math.abs(best2.w) > FITS2) return void 0;
  const error = Math.abs(valueOf(reading2, axis) - predict(without2, reading2, axis).value);
  const blunder = error < BLUNDER_REACH ? 0.5 / BLUNDER_REACH : 0.5 * BLUNDER_REACH / error ** 2;
  const alike = judged.filter(
    (each) => each !== best2 && each.kind === best2.kind && EITHER_END.has(each.kind) && each.likelihood * LIKELIER > best2.likelihood
  );
  const rival = judged.find((each) => each !== best2 && !alike.includes(each));
  if (best2.likelihood < LIKELIER * Math.max(blunder * 0.5, rival?.likelihood ?? 0)) return void 0;
  return {
    kind: best2.kind,
    text: [best2, ...alike].map((each) => each.text).join(", or "),
    corrected: best2.corrected,
    w: best2.w,
    ambiguous: alike.length > 0
  };
}
var EITHER_END = /* @__PURE__ */ new Set(["sidesExchanged", "neighbouringHole", "edgeForCentre"]);
var valueOf = (reading2, axis) => reading2.kind === "position" ? reading2.value[axis] : tipDistance(reading2.value, isPair(reading2) ? reading2.pointers : void 0);
var sigmaOf = (reading2, axis) => Math.hypot(reading2.kind === "position" ? reading2.sigma[axis] : reading2.sigma, reading2.bias?.sigma ?? 0);
function withValue(reading2, value, axis) {
  if (reading2.kind !== "position") return { ...reading2, value };
  const position2 = [...reading2.value];
  position2[axis] = value;
  return { ...reading2, value: position2 };
}
function candidates(without2, reading2, facts, axis) {
  if (reading2.kind === "position" && reading2.body) return [];
  const raw = reading2.kind === "position" ? reading2.value[axis] : reading2.value;
  const taped = reading2.kind === "distance" || reading2.kind === "plan";
  const width = reading2.kind === "offset" || reading2.kind === "position" && axis === 1;
  const number = (kind, text4, value, among = 1) => ({
    kind,
    text: text4,
    corrected: withValue(reading2, value, axis),
    among
  });
  return [
    ...numberSlips(raw, { taped, signed: width, typed: facts.typed }, number),
    ...taped ? edges(reading2, raw, facts, number) : [],
    ...isPair(reading2) ? otherPoints(without2, reading2, facts) : [],
    ...reading2.kind === "distance" ? pointers(without2, reading2) : []
  ];
}
function edges(reading2, raw, { holes }, make) {
  if (!holes || !isPair(reading2)) return [];
  const radii = [reading2.from, reading2.to].flatMap((id2) => {
    const diameter = holes.get(id2);
    return diameter ? [diameter / 2] : [];
  });
  const both = radii.length === 2 ? [radii[0] + radii[1]] : [];
  const amounts = [.../* @__PURE__ */ new Set([...radii, ...both])];
  return amounts.flatMap((amount) => [
    make("edgeForCentre", "the edge of a hole was taken for its centre", raw + amount, 2 * amounts.length),
    make("edgeForCentre", "the edge of a hole was taken for its centre", raw - amount, 2 * amounts.length)
  ]);
}
function otherPoints(without2, reading2, { opposite, name: name2 = (id2) => id2 }) {
  const exchange = (end, id2) => ({ ...reading2, [end]: id2 });
  const result = [];
  const sides = ["from", "to"].flatMap((end) => {
    const id2 = opposite?.has(reading2[end]) ? opposite.get(reading2[end]) : mirroredCode(reading2[end]);
    const other = end === "from" ? reading2.to : reading2.from;
    return id2 !== void 0 && known(without2, id2) && id2 !== other ? [{ end, id: id2 }] : [];
  });
  for (const { end, id: id2 } of sides)
    result.push({
      kind: "sidesExchanged",
      text: `left and right were exchanged: ${name2(id2)} instead of ${name2(reading2[end])}`,
      corrected: exchange(end, id2),
      among: sides.length
    });
  const beside = ["from", "to"].flatMap(
    (end) => neighbours(without2, reading2[end]).filter((id2) => id2 !== reading2.from && id2 !== reading2.to && !sides.some((side2) => side2.id === id2)).map((id2) => ({ end, id: id2 }))
  );
  for (const { end, id: id2 } of beside)
    result.push({
      kind: "neighbouringHole",
      text: `it was read at the hole beside: ${name2(id2)} instead of ${name2(reading2[end])}`,
      corrected: exchange(end, id2),
      among: beside.length
    });
  return result;
}
var known = (solution, id2) => solution.survey.points.some((point3) => point3.id === id2);
function neighbours({ survey, x }, id2) {
  const i = survey.points.findIndex((point3) => point3.id === id2);
  if (i < 0) return [];
  return survey.points.flatMap((point3, j) => {
    const apart = Math.hypot(x[3 * j] - x[3 * i], x[3 * j + 1] - x[3 * i + 1], x[3 * j + 2] - x[3 * i + 2]);
    return j !== i && apart < NEIGHBOUR ? [point3.id] : [];
  });
}
function pointers(without2, reading2) {
  if (reading2.pointers && reading2.pointers[0] !== reading2.pointers[1])
    return [
      {
        kind: "pointers",
        text: "the pointers were of equal length",
        corrected: { ...reading2, pointers: void 0 },
        among: 1
      }
    ];
  const index = (id2) => without2.survey.points.findIndex((point3) => point3.id === id2);
  const rise = without2.x[3 * index(reading2.to) + 2] - without2.x[3 * index(reading2.from) + 2];
  if (Math.abs(rise) < 15) return [];
  return [
    {
      kind: "pointers",
      text: "the pointers were set to two heights and that was not entered",
      corrected: { ...reading2, pointers: rise > 0 ? [rise, 0] : [0, -rise] },
      among: 1
    }
  ];
}
var axisWord = (reading2, axis) => reading2.kind === "position" ? ["length", "width", "height"][axis] : isPair(reading2) ? reading2.kind : { x: "length", y: "width", z: "height" }[COORDINATE_AXIS[reading2.kind]];

// src/core/survey/extend.ts
var NEAR = 5;
var CONVERGED2 = 1e-7;
var MOST_STEPS = 12;
var MOST_UPDATES = 20;
var WELL_CHECKED = 0.02;
function addReading(solution, reading2) {
  const survey = { ...solution.survey, readings: [...solution.survey.readings, reading2] };
  const index = pointIndex(solution.survey);
  if (reading2.bias || reading2.kind === "position" || !pointsOf(reading2).every((id2) => index.has(id2)))
    return solveNet(survey, { from: solution.x });
  const observation = observationsOf(reading2, index, survey.readings.length - 1)[0];
  return reweighted(solution, survey, () => withObservation(solution.equations, observation), observation, 1);
}
function grownBy(earlier, survey) {
  const { points, readings } = earlier.survey;
  const more2 = survey.readings.length - readings.length;
  if (more2 !== 0 && more2 !== 1 || points.length !== survey.points.length) return void 0;
  if (!points.every((point3, i) => samePoint(point3, survey.points[i]))) return void 0;
  if (more2 === 0)
    return readings.every((reading2, i) => sameReading(reading2, survey.readings[i])) ? { ok: true, solution: earlier } : void 0;
  const at2 = readings.findIndex((reading2, i) => reading2.id !== survey.readings[i].id);
  const place2 = at2 < 0 ? readings.length : at2;
  const others = survey.readings.filter((_, i) => i !== place2);
  return readings.every((reading2, i) => sameReading(reading2, others[i])) ? addReading(earlier, survey.readings[place2]) : void 0;
}
var samePoint = (a, b) => a.id === b.id && a.hold === b.hold && a.start.every((value, axis) => value === b.start[axis]);
var sameReading = (a, b) => a.id === b.id && a.value === b.value && a.sigma === b.sigma && JSON.stringify(a) === JSON.stringify(b);
function removeReading(solution, r) {
  const reading2 = solution.survey.readings[r];
  const survey = { ...solution.survey, readings: solution.survey.readings.filter((_, i) => i !== r) };
  const observation = solution.equations.observations.find((each) => each.reading === r);
  const simple = reading2.kind !== "position" && biasGroups(survey).join() === biasGroups(solution.survey).join();
  return simple ? reweighted(solution, survey, () => equationsOf(survey), observation, -1) : solveNet(survey, { from: solution.x });
}
var biasGroups = ({ readings }) => [
  ...new Set(
    readings.flatMap((reading2) => [
      ...reading2.bias ? [reading2.bias.group] : [],
      ...reading2.kind === "position" && reading2.body ? [reading2.body.id] : []
    ])
  )
];
function reweighted(solution, survey, equationsThen, observation, sign) {
  const anew = () => solveNet(survey, { from: solution.x });
  const updates = (solution.updates ?? 0) + 1;
  if (updates > MOST_UPDATES) return anew();
  if (solution.kept.some((share) => share < 1)) return anew();
  const before = covarianceOf(solution);
  const row = newRow();
  linearise(solution.equations, observation, solution.x, solution.biases, row);
  const spread = spreadBy(before, row);
  const own2 = observation.sigma ** 2;
  const scale2 = own2 + sign * along(spread, row);
  if (scale2 < WELL_CHECKED * own2) return anew();
  const covariance2 = before.less([{ u: spread, share: sign / scale2 }]);
  const equations = equationsThen();
  const kept = new Float64Array(equations.observations.length).fill(1);
  const settled = isLoose(covariance2.values, equations) ? void 0 : settle(equations, solution, covariance2, kept);
  if (!settled) return anew();
  const { x, biases } = settled;
  const changed = { survey, equations, covariance: covariance2.values, x, biases, kept, updates };
  return { ok: true, solution: { ...solution, ...changed } };
}
function settle(equations, from2, covariance2, kept) {
  const state = new NetState(equations, from2.x, kept);
  state.biases.set(from2.biases);
  const times = covariance2.multiplier();
  let moved = 0;
  for (let step2 = 0; step2 < MOST_STEPS; step2++) {
    const change2 = times(state.downhill());
    state.take(state.after(change2));
    const most = largest(change2);
    moved += most;
    if (moved > NEAR) return void 0;
    if (most < CONVERGED2) return state;
  }
  return void 0;
}

// src/core/survey/loose.ts
import { EigenvalueDecomposition as EigenvalueDecomposition2, Matrix as Matrix3 } from "ml-matrix";
function loosePoints(survey, { column, unknowns }, covariance2, looseSd = LOOSE_SD) {
  return survey.points.flatMap((point3, i) => {
    const first = column[i];
    if (first < 0) return [];
    const block = new Matrix3(
      [0, 1, 2].map((r) => [0, 1, 2].map((c) => covariance2[(first + r) * unknowns + first + c]))
    );
    const { realEigenvalues, eigenvectorMatrix } = new EigenvalueDecomposition2(block, {
      assumeSymmetric: true
    });
    const directions = realEigenvalues.flatMap(
      (variance, k) => variance > looseSd ** 2 ? [eigenvectorMatrix.getColumn(k)] : []
    );
    if (directions.length === 0) return [];
    return [{ id: point3.id, directions, advice: adviceFor(survey, point3.id, directions) }];
  });
}
var ORDINAL = ["a first", "a second", "a third", "a fourth", "a fifth", "a sixth"];
var COORDINATE = ["a length", "a width", "a height"];
function adviceFor(survey, id2, directions) {
  const distances = survey.readings.filter(
    (reading2) => isPair(reading2) && reading2.kind !== "rise" && pointsOf(reading2).includes(id2)
  ).length;
  const next = ORDINAL[distances] ?? "another";
  if (directions.length === 3)
    return distances === 0 ? "add three distances, or a height and two distances" : `add a height and ${next} distance, or three distances in other directions`;
  if (directions.length === 2) {
    const height = mostlyAlong(directions, 2);
    return height ? `add a height and ${next} distance` : `add two distances to points off the line, or ${COORDINATE[0]} and ${COORDINATE[1]}`;
  }
  const along2 = [0, 1, 2].reduce(
    (best2, axis) => Math.abs(directions[0][axis]) > Math.abs(directions[0][best2]) ? axis : best2
  );
  return `add ${COORDINATE[along2]} or ${next} distance`;
}
var mostlyAlong = (directions, axis) => Math.hypot(...directions.map((d) => d[axis])) > 0.7;

// src/core/survey/determined.ts
var LOOSE_WEIGHT2 = 1e-5;
var SMALLEST_PIECE = 3;
function solveDetermined(survey, last2, looseSd = LOOSE_SD) {
  const from2 = last2 && new Map(last2.survey.points.map(({ id: id2 }, i) => [id2, [...last2.x.subarray(3 * i, 3 * i + 3)]]));
  const spoken = new Set(survey.readings.flatMap(pointsOf));
  const points = survey.points.filter((point3) => spoken.has(point3.id) || point3.hold !== void 0);
  const unread = survey.points.filter((point3) => !points.includes(point3)).map(({ id: id2 }) => id2);
  const whole = restrict(survey, new Set(points.map(({ id: id2 }) => id2)));
  const known2 = last2 && grown(last2, whole, from2);
  if (known2) {
    const others = piecesOf(outside(whole, known2.piece), from2, looseSd);
    if (others.every((piece) => sizeOf(piece) <= sizeOf(known2.piece)))
      return { pieces: [known2.piece, ...others], loose: known2.loose, unread };
  }
  const pieces = piecesOf(whole, from2, looseSd);
  return { pieces, loose: pieces[0] ? shortOf(whole, pieces[0]) : allLoose(restrict(survey, spoken)), unread };
}
var sizeOf = ({ survey }) => survey.points.length;
function piecesOf(survey, from2, looseSd) {
  const piece = largestPiece(survey, from2, looseSd);
  return piece ? [piece, ...piecesOf(outside(survey, piece), from2, looseSd)] : [];
}
function outside(survey, piece) {
  const taken = idsOf(piece);
  return restrict(survey, new Set(survey.points.flatMap(({ id: id2 }) => taken.has(id2) ? [] : [id2])));
}
var idsOf = ({ survey }) => new Set(survey.points.map(({ id: id2 }) => id2));
function restrict(survey, ids) {
  return {
    points: survey.points.filter((point3) => ids.has(point3.id)),
    readings: survey.readings.filter((reading2) => pointsOf(reading2).every((id2) => ids.has(id2)))
  };
}
function grown(last2, survey, from2) {
  const own2 = idsOf(last2);
  const inside = restrict(survey, own2);
  const result = grownBy(last2, inside) ?? solveNet(inside, { firm: true, from: startFrom(inside, from2) });
  if (!result?.ok || !keepsAll(last2, inside) && !isWhole(result.solution)) return void 0;
  const piece = result.solution;
  const loose = own2.size === survey.points.length ? [] : shortOf(survey, piece);
  const isLoosely = new Set(loose.map(({ id: id2 }) => id2));
  return survey.points.every(({ id: id2 }) => own2.has(id2) || isLoosely.has(id2)) ? { piece, loose } : void 0;
}
function keepsAll({ survey: { readings } }, now) {
  const ids = new Set(now.readings.map(({ id: id2 }) => id2));
  return readings.every(({ id: id2 }) => ids.has(id2));
}
function largestPiece(survey, from2, looseSd) {
  const whole = wholeAtOnce(survey, from2, looseSd);
  if (whole) return whole;
  let ids = tightSet(
    survey,
    survey.points.map(({ id: id2 }) => id2)
  );
  while (ids.length >= SMALLEST_PIECE || ids.length > 0 && survey.points.some((point3) => point3.hold)) {
    const part = restrict(survey, new Set(ids));
    if (part.readings.length === 0) return void 0;
    const result = solveNet(part, { looseSd, ...from2 ? { from: startFrom(part, from2) } : {} });
    if (result.ok) return result.solution;
    if (result.why === "diverges") return void 0;
    const loose = new Set(loosePoints(part, result.equations, result.looseCovariance, looseSd).map(({ id: id2 }) => id2));
    ids = loose.size === 0 || loose.size === ids.length ? [] : ids.filter((id2) => !loose.has(id2));
  }
  return void 0;
}
function wholeAtOnce(survey, from2, looseSd) {
  if (survey.points.length < SMALLEST_PIECE || survey.readings.length === 0 || fallsShort(survey)) return void 0;
  const result = solveNet(survey, { firm: true, looseSd, ...from2 ? { from: startFrom(survey, from2) } : {} });
  return result.ok && isWhole(result.solution, looseSd) ? result.solution : void 0;
}
var FEW_POINTS = 5;
function fallsShort({ points, readings }) {
  if (points.length < FEW_POINTS) return false;
  const figures = /* @__PURE__ */ new Map();
  for (const reading2 of readings)
    for (const id2 of pointsOf(reading2)) figures.set(id2, (figures.get(id2) ?? 0) + (reading2.kind === "position" ? 3 : 1));
  return points.some(({ id: id2, hold: hold2 }) => hold2 === void 0 && (figures.get(id2) ?? 0) < 3);
}
var isWhole = ({ covariance: covariance2, equations }, looseSd = LOOSE_SD) => !isLoose(covariance2, equations, looseSd / 2);
function startFrom(survey, from2) {
  const x = startOf(survey);
  survey.points.forEach((point3, i) => {
    const known2 = point3.hold === "fixed" ? void 0 : from2.get(point3.id);
    if (known2) x.set(known2, 3 * i);
  });
  return x;
}
function looseCovarianceAtStart(survey) {
  const equations = equationsOf(survey);
  const { unknowns, observations, biasSigmas, coordinates } = equations;
  const normal = new Float64Array(unknowns * unknowns);
  const [x, biases, row] = [startOf(survey), new Float64Array(biasSigmas.length), newRow()];
  for (const observation of observations) {
    linearise(equations, observation, x, biases, row);
    for (let p = 0; p < row.count; p++)
      for (let q = 0; q < row.count; q++)
        normal[row.columns[p] * unknowns + row.columns[q]] += row.coefficients[p] * row.coefficients[q] / observation.sigma ** 2;
  }
  biasSigmas.forEach((sigma, i) => normal[(coordinates + i) * (unknowns + 1)] += 1 / sigma ** 2);
  return { equations, x, covariance: inverseOfLoose(normal, unknowns) };
}
function inverseOfLoose(normal, unknowns) {
  for (let weight = LOOSE_WEIGHT2; weight < Infinity; weight *= 100) {
    const held = normal.slice();
    for (let i = 0; i < unknowns; i++) held[i * (unknowns + 1)] += weight;
    const factor = SymmetricFactor.of(held, unknowns);
    if (factor) return factor.inverse().values;
  }
  throw new Error("a net with a figure that is no number");
}
function tightSet(survey, ids) {
  if (ids.length === 0) return [];
  const net = looseCovarianceAtStart(survey);
  const count2 = ids.length;
  const tight = Array.from({ length: count2 }, () => new Uint8Array(count2));
  for (let i = 0; i < count2; i++)
    for (let j = 0; j < i; j++) tight[i][j] = tight[j][i] = distanceSd(net, i, j) < LOOSE_SD ? 1 : 0;
  const partners = (i, among) => among.reduce((sum, j) => sum + (j === i ? 0 : tight[i][j]), 0);
  const all = ids.map((_, i) => i);
  const seed = all.reduce((best2, i) => partners(i, all) > partners(best2, all) ? i : best2, 0);
  let set = all.filter((i) => i === seed || tight[seed][i] === 1);
  while (set.some((i) => partners(i, set) < set.length - 1)) {
    const worst = set.reduce((best2, i) => partners(i, set) < partners(best2, set) ? i : best2);
    set = set.filter((i) => i !== worst);
  }
  return set.map((i) => ids[i]);
}
function distanceSd({ equations: { column, unknowns }, covariance: covariance2, x }, i, j) {
  const length2 = Math.max(
    Math.hypot(x[3 * j] - x[3 * i], x[3 * j + 1] - x[3 * i + 1], x[3 * j + 2] - x[3 * i + 2]),
    1e-9
  );
  const [p, q] = [column[i], column[j]];
  let variance = 0;
  for (let r = 0; r < 3; r++)
    for (let s = 0; s < 3; s++) {
      const share = (x[3 * j + r] - x[3 * i + r]) * (x[3 * j + s] - x[3 * i + s]) / length2 ** 2;
      if (p >= 0) variance += share * covariance2[(p + r) * unknowns + p + s];
      if (q >= 0) variance += share * covariance2[(q + r) * unknowns + q + s];
      if (p >= 0 && q >= 0) variance -= 2 * share * covariance2[(p + r) * unknowns + q + s];
    }
  return Math.sqrt(Math.max(0, variance));
}
function shortOf(survey, piece) {
  const at2 = new Map(piece.survey.points.map((point3, i) => [point3.id, [...piece.x.subarray(3 * i, 3 * i + 3)]]));
  const points = survey.points.map((point3) => {
    const known2 = at2.get(point3.id);
    return known2 ? { id: point3.id, start: known2, hold: "fixed" } : point3;
  });
  return allLoose({ ...survey, points });
}
function allLoose(survey) {
  if (survey.points.every((point3) => point3.hold === "fixed")) return [];
  const { equations, covariance: covariance2 } = looseCovarianceAtStart(survey);
  const named = loosePoints(survey, equations, covariance2);
  return named;
}

// src/core/survey/in-plan.ts
var UNREAD_HEIGHT = 120;
var LOOSE_IN_PLAN = 10;
var OFF_THE_PLANE = 90;
var LOOSE_HEIGHT = 4 * UNREAD_HEIGHT;
var TRIES = 6;
var LARGE = 20;
var FEWEST = 3;
function locateInPlan(survey) {
  const spoken = new Set(survey.readings.flatMap(pointsOf));
  const points = survey.points.filter(({ id: id2, hold: hold2 }) => spoken.has(id2) || hold2 !== void 0);
  if (points.length < FEWEST) return [];
  const read = new Set(survey.readings.flatMap(heightOf));
  const unread = points.filter(({ id: id2, hold: hold2 }) => hold2 === void 0 && !read.has(id2));
  const wide = unread.map(({ id: id2, start }) => ({
    ...{ id: `height of ${id2}`, kind: "height", point: id2 },
    value: start[2],
    sigma: UNREAD_HEIGHT
  }));
  const widened = { points, readings: [...survey.readings.filter(isAbout(points)), ...wide] };
  return best(widened, new Set(unread.map(({ id: id2 }) => id2)));
}
var heightOf = (reading2) => reading2.kind === "height" || reading2.kind === "position" && !reading2.body ? [reading2.point] : [];
var isAbout = (points) => {
  const known2 = new Set(points.map(({ id: id2 }) => id2));
  return (reading2) => pointsOf(reading2).every((id2) => known2.has(id2));
};
function best(survey, unread) {
  const tries = survey.points.length > LARGE ? 1 : TRIES;
  const solutions = Array.from({ length: tries }, (_, k) => offThePlane2(survey, unread, k)).flatMap(
    (from2) => solveDetermined(from2, void 0, LOOSE_HEIGHT).pieces[0] ?? []
  );
  const size2 = ({ survey: { points } }) => points.length;
  const most = Math.max(0, ...solutions.map(size2));
  const [first, ...others] = solutions.filter((each) => size2(each) === most);
  return first ? planPoints(
    others.reduce((a, b) => sumOfSquares(b) < sumOfSquares(a) ? b : a, first),
    unread
  ) : [];
}
var offThePlane2 = ({ points, readings }, unread, k) => ({
  readings,
  points: points.map((point3, i) => {
    const [x, y, z17] = point3.start;
    return unread.has(point3.id) ? { ...point3, start: [x, y, z17 + OFF_THE_PLANE * Math.sin(2.4 * i * (k + 1) + 1.3 * k)] } : point3;
  })
});
function planPoints(solution, unread) {
  const { survey, x, equations } = solution;
  const covariance2 = covarianceOf(solution);
  return survey.points.flatMap(({ id: id2, hold: hold2 }, i) => {
    const column = equations.column[i];
    if (hold2 !== void 0 || column < 0) return [];
    const [xx, xy, yy] = [
      covariance2.get(column, column),
      covariance2.get(column, column + 1),
      covariance2.get(column + 1, column + 1)
    ];
    const sd = Math.sqrt((xx + yy) / 2 + Math.hypot((xx - yy) / 2, xy));
    return sd > LOOSE_IN_PLAN ? [] : [{ id: id2, at: [x[3 * i], x[3 * i + 1]], sd, heightMissing: unread.has(id2) }];
  });
}

// src/core/survey/reliability.ts
var DETECTABLE = 4.13;
var SUSPECT = 3.29;
var UNCHECKED = 1e-6;
function checkObservations(solution, kept = solution.kept) {
  const { equations, x, biases } = solution;
  const row = newRow();
  return equations.observations.map((observation, i) => {
    linearise(equations, observation, x, biases, row);
    const residual = row.value - observation.observed;
    const redundancy = redundancyOf(solution, row, observation.sigma, solution.kept[i]);
    if (redundancy < UNCHECKED)
      return {
        observation,
        residual,
        redundancy: Math.max(0, redundancy),
        w: null,
        smallestDetectable: null,
        suspect: false
      };
    const root = Math.sqrt(redundancy);
    const w = kept[i] < 1 ? residual * root / observation.sigma : residual / (observation.sigma * root);
    return {
      observation,
      residual,
      redundancy,
      w,
      smallestDetectable: DETECTABLE * observation.sigma / root,
      suspect: Math.abs(w) > SUSPECT
    };
  });
}
function redundancyOf(solution, row, sigma, kept) {
  const h2 = varianceAlong(covarianceOf(solution), row) / sigma ** 2;
  return 1 - h2 / (1 + (1 - kept) * h2);
}
var PRACTICALLY_UNCHECKED = 0.02;
function uncheckedPoints(solution) {
  const { survey } = solution;
  const unchecked = /* @__PURE__ */ new Set();
  for (const check of checkObservations(solution)) {
    if (check.redundancy >= PRACTICALLY_UNCHECKED) continue;
    const reading2 = survey.readings[check.observation.reading];
    for (const id2 of reading2 ? pointsOf(reading2) : []) unchecked.add(id2);
  }
  return [...unchecked];
}

// src/core/survey/suspects.ts
var INSEPARABLE = 0.9;
var MOST_ACCUSED = 15;
var STRANGE = 20;
function accuse(solution, factsOf = () => ({}), strangeness = () => 0) {
  const accusations = [];
  let current = solution;
  while (accusations.length < MOST_ACCUSED) {
    const checks = checkObservations(current);
    const loudest = checks.reduce(
      (best2, check2, i) => check2.suspect && (best2 < 0 || Math.abs(check2.w) > Math.abs(checks[best2].w)) ? i : best2,
      -1
    );
    if (loudest < 0) break;
    const worst = strangest(current, checks, loudest, strangeness);
    const check = checks[worst];
    const { survey } = current;
    const reading2 = survey.readings[check.observation.reading];
    const axis = Math.max(0, check.observation.axis);
    const next = without(current, check);
    const accusation = {
      axis,
      w: check.w,
      together: inseparable(current, checks, worst),
      ...reading2 ? { reading: reading2 } : { held: survey.points[check.observation.a] }
    };
    if (!next.ok) {
      accusations.push(accusation);
      break;
    }
    const cause = reading2 && likelyCause(next.solution, reading2, factsOf(reading2), axis);
    accusations.push({ ...accusation, ...cause ? { cause } : {} });
    current = next.solution;
  }
  return { accusations, cleared: current };
}
function strangest(solution, checks, loudest, strangeness) {
  const of = (i) => {
    const reading2 = solution.survey.readings[checks[i].observation.reading];
    return reading2 ? strangeness(reading2) : 0;
  };
  const alike = new Set(inseparable(solution, checks, loudest));
  const rivals = checks.flatMap(({ observation, suspect }, i) => {
    const id2 = solution.survey.readings[observation.reading]?.id;
    return suspect && id2 !== void 0 && alike.has(id2) ? [i] : [];
  });
  const best2 = rivals.reduce((a, b) => of(b) > of(a) ? b : a, loudest);
  return of(best2) > STRANGE && of(best2) > 3 * of(loudest) ? best2 : loudest;
}
function without(solution, { observation: { reading: reading2, a } }) {
  if (reading2 >= 0) return removeReading(solution, reading2);
  const { survey, x } = solution;
  const points = survey.points.map((point3, i) => i === a ? { id: point3.id, start: point3.start } : point3);
  return solveNet({ ...survey, points }, { from: x });
}
function inseparable(solution, checks, i) {
  const { equations, x, biases, survey } = solution;
  const [own2, other] = [newRow(), newRow()];
  linearise(equations, checks[i].observation, x, biases, own2);
  const spread = spreadBy(covarianceOf(solution), own2);
  const ids = /* @__PURE__ */ new Set();
  checks.forEach((check, j) => {
    if (j === i || check.w === null || Math.abs(check.w) <= SUSPECT) return;
    linearise(equations, check.observation, x, biases, other);
    const shared = along(spread, other);
    const scale2 = checks[i].observation.sigma * check.observation.sigma * Math.sqrt(checks[i].redundancy * check.redundancy);
    if (Math.abs(shared / scale2) > INSEPARABLE)
      ids.add(survey.readings[check.observation.reading]?.id ?? survey.points[check.observation.a].id);
  });
  ids.delete(survey.readings[checks[i].observation.reading]?.id ?? "");
  return [...ids];
}

// src/core/maths/units/length.ts
var MM_PER2 = {
  mm: 1,
  cm: 10,
  m: 1e3,
  in: 25.4,
  ft: 304.8
};
var VULGAR = {
  "\xBC": "1/4",
  "\xBD": "1/2",
  "\xBE": "3/4",
  "\u215B": "1/8",
  "\u215C": "3/8",
  "\u215D": "5/8",
  "\u215E": "7/8",
  "\u2153": "1/3",
  "\u2154": "2/3",
  "\u2155": "1/5",
  "\u2156": "2/5",
  "\u2157": "3/5",
  "\u2158": "4/5",
  "\u2159": "1/6",
  "\u215A": "5/6"
};
function plainLengthText(text4) {
  return text4.replace(/[¼½¾⅛⅜⅝⅞⅓⅔⅕⅖⅗⅘⅙⅚]/g, (sign) => ` ${VULGAR[sign]}`).replace(/[−–]/g, "-").replace(/⁄/g, "/").replace(/[’‘′]/g, "'").replace(/[”“″]|''/g, '"').replace(/[\u00a0\u2009\u202f]/g, " ").replace(/(\d)-(?=\d+\s*\/\s*\d)/g, "$1 ");
}
var NUMBER = String.raw`\d+(?:[.,]\d+)?|[.,]\d+`;
var FRACTION = String.raw`\d+\s*/\s*\d+`;
var UNIT = String.raw`mm|cm|m|inches|inch|in\.?|"`;
var LENGTH_PATTERN = String.raw`[+-]?\s*(?:(?:${NUMBER})\s*(?:'|ft\b|feet\b|foot\b)\s*)?(?:(?:${FRACTION}|(?:${NUMBER})(?:\s+${FRACTION}|(?!\s*/))))?(?:\s*(?:${UNIT})(?![a-z]))?`;
var WHOLE = new RegExp(
  String.raw`^([+-])?\s*(?:(${NUMBER})\s*(?:'|ft|feet|foot)\s*)?(?:(${NUMBER})(?!\d|\s*/\s*\d))?\s*(?:(\d+)\s*/\s*(\d+))?\s*(${UNIT})?$`,
  "i"
);
var UNIT_OF = {
  mm: "mm",
  cm: "cm",
  m: "m",
  in: "in",
  "in.": "in",
  inch: "in",
  inches: "in",
  '"': "in"
};
var ON_RULES = /* @__PURE__ */ new Set([2, 3, 4, 5, 6, 8, 10, 16, 32, 64]);
var decimal = (text4) => Number(text4.replace(",", "."));
function parseLength(text4, bare = "mm") {
  const plain = plainLengthText(text4).trim();
  if (plain === "") return { ok: false, reason: "nothing was typed" };
  const match = WHOLE.exec(plain);
  if (!match) return { ok: false, reason: `"${text4.trim()}" is not a length` };
  const [, sign, feet, number, top, bottom, unitText] = match;
  if (feet === void 0 && number === void 0 && top === void 0)
    return { ok: false, reason: `"${text4.trim()}" has no number in it` };
  const typedUnit = unitText === void 0 ? void 0 : UNIT_OF[unitText.toLowerCase()];
  const inches = feet !== void 0 || top !== void 0 || typedUnit === "in";
  const unit = inches ? "in" : typedUnit ?? bare;
  if (inches && typedUnit !== void 0 && typedUnit !== "in")
    return { ok: false, reason: `feet and fractions go with inches, not with ${typedUnit}` };
  if (top !== void 0 && number !== void 0 && /[.,]/.test(number))
    return { ok: false, reason: `"${text4.trim()}" mixes a decimal with a fraction` };
  if (bottom !== void 0 && Number(bottom) === 0)
    return { ok: false, reason: `the fraction ${top}/${bottom} divides by zero` };
  if (bottom !== void 0 && !ON_RULES.has(Number(bottom))) return { ok: false, reason: offRule() };
  const fraction = top === void 0 ? 0 : Number(top) / Number(bottom);
  const rest = (number === void 0 ? 0 : decimal(number)) + fraction;
  const amount = rest * MM_PER2[unit] + (feet === void 0 ? 0 : decimal(feet) * MM_PER2.ft);
  const mm3 = sign === "-" ? -amount : amount;
  if (!Number.isFinite(mm3)) return { ok: false, reason: `"${text4.trim()}" is too large` };
  return { ok: true, mm: mm3, signed: sign !== void 0, warnings: warningsFor() };
  function offRule() {
    const sixteenths = Math.round(16 * Number(top) / Number(bottom));
    const near = inchText((decimal(number ?? "0") + sixteenths / 16) * MM_PER2.in, 16);
    return `no rule is divided into ${bottom}ths: ${near} is the nearest sixteenth`;
  }
  function warningsFor() {
    const warnings = [];
    if (feet !== void 0 && rest >= 12) warnings.push("12 inches or more beside feet");
    if (fraction >= 1) warnings.push(`the fraction ${top}/${bottom} is one or more`);
    if (top !== void 0 && feet === void 0 && typedUnit === void 0 && bare !== "in")
      warnings.push("a fraction is read as inches");
    if (number !== void 0 && /,\d{3}$/.test(number)) warnings.push("the comma is read as a decimal comma");
    return warnings;
  }
}
var reduce = (top, bottom) => top % 2 === 0 && bottom > 1 ? reduce(top / 2, bottom / 2) : [top, bottom];
function inchText(mm3, denominator) {
  const parts = Math.round(mm3 / MM_PER2.in * denominator);
  const whole = Math.floor(parts / denominator);
  const left = parts % denominator;
  if (left === 0) return String(whole);
  const [top, bottom] = reduce(left, denominator);
  return whole === 0 ? `${top}/${bottom}` : `${whole} ${top}/${bottom}`;
}

// src/core/survey/rough-start.ts
var SLACK = 60;
function roughStart(ids, readings, sideOf, codeOf = (id2) => id2) {
  const heights = heightsOf(readings);
  const links = planLinks(readings, heights);
  const placed = /* @__PURE__ */ new Map();
  const mirrored = /* @__PURE__ */ new Set();
  const seed = seedPair(ids, links);
  if (seed) {
    placed.set(seed[0], [0, 0]);
    placed.set(seed[1], [0, links.get(seed[0]).get(seed[1])]);
    grow(ids, links, placed, mirrored, sideOf);
  }
  const turned2 = seed ? alongTheShell(placed, sideOf, codeOf) : { flat: placed, known: false };
  const known2 = [...heights.values()];
  const usual = known2.length > 0 ? known2.reduce((sum, h2) => sum + h2, 0) / known2.length : 0;
  const positions = /* @__PURE__ */ new Map();
  for (const [id2, [x, y]] of turned2.flat) positions.set(id2, [x, y, heights.get(id2) ?? usual]);
  return {
    positions,
    mirrored: [...mirrored],
    handedness: turned2.known ? "known" : "unknown",
    unplaced: ids.filter((id2) => !positions.has(id2))
  };
}
function placeAmong(known2, ids, readings, sideOf) {
  const read = heightsOf(readings);
  const heights = new Map([...[...known2].map(([id2, at2]) => [id2, at2[2]]), ...read]);
  const placed = new Map([...known2].map(([id2, [x, y]]) => [id2, [x, y]]));
  const links = planLinks(readings, heights);
  grow(ids, links, placed, /* @__PURE__ */ new Set(), sideOf);
  return new Map(
    ids.flatMap((id2) => {
      const at2 = known2.has(id2) ? void 0 : placed.get(id2);
      const near = [...links.get(id2)?.keys() ?? []].flatMap((to) => heights.get(to) ?? []);
      const usual = near.length > 0 ? near.reduce((sum, z17) => sum + z17, 0) / near.length : 0;
      return at2 ? [[id2, [at2[0], at2[1], read.get(id2) ?? usual]]] : [];
    })
  );
}
function heightsOf(readings) {
  const heights = /* @__PURE__ */ new Map();
  for (const reading2 of readings)
    if (reading2.kind === "height") heights.set(reading2.point, reading2.value);
    else if (reading2.kind === "position" && !reading2.body) heights.set(reading2.point, reading2.value[2]);
  return heights;
}
function planLinks(readings, heights) {
  const links = /* @__PURE__ */ new Map();
  const link = (a, b, length2) => {
    if (!links.has(a)) links.set(a, /* @__PURE__ */ new Map());
    links.get(a).set(b, length2);
  };
  for (const reading2 of readings) {
    if (!isPair(reading2) || reading2.kind === "rise") continue;
    const tip = tipDistance(reading2.value, reading2.pointers);
    const [from2, to] = [heights.get(reading2.from), heights.get(reading2.to)];
    const rise = reading2.kind === "plan" || from2 === void 0 || to === void 0 ? 0 : to - from2;
    const length2 = Math.sqrt(Math.max(tip ** 2 - rise ** 2, 1));
    link(reading2.from, reading2.to, length2);
    link(reading2.to, reading2.from, length2);
  }
  return links;
}
function seedPair(ids, links) {
  let best2;
  for (const a of ids)
    for (const b of links.get(a)?.keys() ?? []) {
      if (b < a) continue;
      const shared = [...links.get(a).keys()].filter((c) => links.get(b)?.has(c)).length;
      if (!best2 || shared > best2.shared) best2 = { pair: [a, b], shared };
    }
  return best2?.pair;
}
function grow(ids, links, placed, mirrored, sideOf) {
  for (; ; ) {
    const open2 = ids.filter((id2) => !placed.has(id2)).map((id2) => ({ id: id2, ties: [...links.get(id2) ?? []].filter(([to]) => placed.has(to)) }));
    const next = open2.sort((a, b) => b.ties.length - a.ties.length)[0];
    if (!next || next.ties.length < 2) return;
    const circles = next.ties.map(([to, radius]) => ({ centre: placed.get(to), radius }));
    const crossings = bestCrossings(circles);
    if (!crossings) {
      links.delete(next.id);
      continue;
    }
    const misfit = ([x, y]) => circles.reduce((sum, { centre, radius }) => sum + Math.abs(Math.hypot(x - centre[0], y - centre[1]) - radius), 0);
    const [p, q] = [...crossings].sort((a, b) => misfit(a) - misfit(b));
    const clear = circles.length > 2 && misfit(q) > 2 * misfit(p) + SLACK;
    const bySide = clear ? void 0 : onOwnSide(next.id, [p, q], placed, sideOf);
    if (!clear && !bySide && placed.size > 2) mirrored.add(next.id);
    placed.set(next.id, bySide ?? p);
  }
}
function bestCrossings(circles) {
  let best2;
  circles.forEach(
    (a, i) => circles.slice(i + 1).forEach((b) => {
      const [dx, dy] = [b.centre[0] - a.centre[0], b.centre[1] - a.centre[1]];
      const d = Math.hypot(dx, dy);
      if (d < 1 || d > a.radius + b.radius + SLACK || d < Math.abs(a.radius - b.radius) - SLACK) return;
      const along2 = (d ** 2 + a.radius ** 2 - b.radius ** 2) / (2 * d);
      const across = Math.sqrt(Math.max(a.radius ** 2 - along2 ** 2, 0));
      const at2 = (side2) => [
        a.centre[0] + (along2 * dx - side2 * across * dy) / d,
        a.centre[1] + (along2 * dy + side2 * across * dx) / d
      ];
      const sine = across * d / (a.radius * b.radius);
      if (!best2 || sine > best2.sine) best2 = { points: [at2(1), at2(-1)], sine };
    })
  );
  return best2?.points;
}
function onOwnSide(id2, places7, placed, sideOf) {
  const side2 = sideOf(id2);
  const mean = (wanted) => {
    const points = [...placed].flatMap(([each, at2]) => sideOf(each) === wanted ? [at2] : []);
    return points.length === 0 ? void 0 : [0, 1].map((i) => points.reduce((sum, p) => sum + p[i] / points.length, 0));
  };
  const [left, right] = [mean("left"), mean("right")];
  if (!left || !right || side2 !== "left" && side2 !== "right") return void 0;
  const reach = ([x, y]) => (x - (left[0] + right[0]) / 2) * (right[0] - left[0]) + (y - (left[1] + right[1]) / 2) * (right[1] - left[1]);
  const own2 = places7.filter((place2) => reach(place2) > 0 === (side2 === "right"));
  return own2.length === 1 ? own2[0] : void 0;
}
function alongTheShell(placed, sideOf, codeOf) {
  const points = [...placed];
  const mean = (wanted) => {
    const own2 = points.filter(([id2]) => sideOf(id2) === wanted);
    return own2.length === 0 ? void 0 : [0, 1].map((i) => own2.reduce((sum, [, at2]) => sum + at2[i] / own2.length, 0));
  };
  const [left, right] = [mean("left"), mean("right")];
  if (!left || !right) return { flat: new Map(points), known: false };
  const width = Math.hypot(right[0] - left[0], right[1] - left[1]) || 1;
  const [rx, ry] = [(right[0] - left[0]) / width, (right[1] - left[1]) / width];
  const middle = [(left[0] + right[0]) / 2, (left[1] + right[1]) / 2];
  const across = (at2) => (at2[0] - middle[0]) * rx + (at2[1] - middle[1]) * ry;
  const along2 = (at2) => (at2[0] - middle[0]) * ry - (at2[1] - middle[1]) * rx;
  const ranks = ranksAlong(points.map(([id2]) => codeOf(id2)));
  const usual = ranks.reduce((sum, rank) => sum + rank, 0) / ranks.length;
  const centre = points.reduce((sum, [, at2]) => sum + along2(at2), 0) / points.length;
  const sense = points.reduce((sum, [, at2], i) => sum + (along2(at2) - centre) * (ranks[i] - usual), 0);
  const forward = sense < 0 ? -1 : 1;
  const flat = points.map(([id2, at2]) => [id2, [forward * along2(at2), across(at2)]]);
  const first = Math.min(...flat.map(([, at2]) => at2[0]));
  return { flat: new Map(flat.map(([id2, [x, y]]) => [id2, [x - first, y]])), known: sense !== 0 };
}
function ranksAlong(codes2) {
  const begins = (letter) => codes2.some((code2) => code2.toUpperCase().startsWith(letter));
  if (begins("R") && !begins("L")) return codes2.map((code2) => ({ F: -1, R: 1 })[code2[0]?.toUpperCase() ?? ""] ?? 0);
  return codes2.map((code2) => Number(/\d+/.exec(code2)?.[0] ?? 0));
}

// src/core/shell/gauges.ts
var TAPE_SD = 0.7;
var AGREES = 3;
function checkedParts(rows2) {
  return rows2.gaugeParts.map((part) => {
    const holes = rows2.partHoles.filter(({ gaugePartId }) => gaugePartId === part.id);
    const at2 = new Map(holes.map((hole) => [hole.id, hole]));
    const sd = Math.hypot(part.sd * Math.SQRT2, TAPE_SD);
    const lengths = rows2.partChecks.flatMap((check) => {
      const [a, b] = [at2.get(check.fromHoleId), at2.get(check.toHoleId)];
      if (!a || !b) return [];
      const expected = Math.hypot(b.x - a.x, b.y - a.y, b.z - a.z);
      const off = check.value - expected;
      return [{ check, expected, off, agrees: Math.abs(off) <= AGREES * sd }];
    });
    const spoken = new Set(lengths.flatMap(({ check }) => [check.fromHoleId, check.toHoleId]));
    return {
      part,
      holes,
      lengths,
      unchecked: holes.flatMap(({ id: id2 }) => spoken.has(id2) ? [] : [id2]),
      bent: lengths.some(({ agrees }) => !agrees)
    };
  });
}

// src/core/shell/set-up.ts
var RADIANS = Math.PI / 180;
function placementOf({
  x,
  y,
  z: z17,
  turnX,
  turnY,
  turnZ
}) {
  const [a, b, c] = [turnX * RADIANS, turnY * RADIANS, turnZ * RADIANS];
  const [ca, sa, cb, sb, cc, sc] = [Math.cos(a), Math.sin(a), Math.cos(b), Math.sin(b), Math.cos(c), Math.sin(c)];
  const rotation = [
    [cc * cb, cc * sb * sa - sc * ca, cc * sb * ca + sc * sa],
    [sc * cb, sc * sb * sa + cc * ca, sc * sb * ca - cc * sa],
    [-sb, cb * sa, cb * ca]
  ];
  return motion(rotation, [x, y, z17]);
}

// src/core/round/observe/gauges.ts
var BENCH_BODY = "bench";
var TOWARD = {
  front: [-1, 0, 0],
  rear: [1, 0, 0],
  left: [0, -1, 0],
  right: [0, 1, 0],
  up: [0, 0, 1],
  down: [0, 0, -1]
};
var FINEST_SD = 0.05;
var BESIDE_SD = 0.7;
var OTHER_WAYS_SD = 10;
function headsOf(job2, round4, readings) {
  const heads = readings.flatMap((reading2) => {
    if (reading2.quantity !== "fixture" || reading2.partHoleId !== null) return [];
    const at2 = referencePosition(job2.references, reading2.pointId);
    return at2 ? [{ reading: reading2, at: add(at2, [0, 0, builtHigher(job2, round4, reading2.pointId, at2) ?? 0]) }] : [];
  });
  const middle = middleOf(heads.map(({ at: at2 }) => at2));
  return heads.map(({ reading: reading2, at: at2 }) => {
    const sd = Math.max(FINEST_SD, reading2.value / Math.sqrt(reading2.fit === "tight" ? 12 : 3));
    return { reading: reading2, at: at2, says: says(reading2, at2, [sd, sd, sd], BENCH_BODY, middle) };
  });
}
function builtHigher(job2, round4, pointId, at2) {
  const { rows: rows2 } = job2;
  const setUp3 = rows2.setUps.find(({ id: id2 }) => id2 === round4?.setUpId) ?? job2.setUpNow;
  const mount2 = rows2.mounts.find((each) => each.setUpId === setUp3?.id && each.pointId === pointId);
  const checked = rows2.workEvents.filter(({ kind, key }) => kind === "checked" && key === mount2?.id).at(-1);
  return setUp3 && checked?.value != null ? checked.value - (place(placementOf(setUp3), at2)[2] - (mount2?.floor ?? 0)) : void 0;
}
var FEWEST_HOLES = 3;
function holesOf(job2, readings, points) {
  const start = new Map(points.map((point3) => [point3.id, point3.start]));
  return checkedParts(job2.rows).flatMap(({ part, holes, unchecked, bent }) => {
    if (bent) return [];
    const own2 = new Map(holes.filter(({ id: id2 }) => !unchecked.includes(id2)).map((hole) => [hole.id, hole]));
    const read = readings.flatMap((reading2) => {
      const hole = own2.get(reading2.partHoleId ?? "");
      const at2 = start.get(reading2.pointId ?? "");
      return hole && at2 ? [{ reading: reading2, hole, at: at2 }] : [];
    });
    const entering2 = read.filter(({ reading: reading2 }) => reading2.fit !== "none");
    const fit = new Set(entering2.map(({ hole }) => hole)).size >= FEWEST_HOLES ? fitSelected(
      entering2.map(({ reading: reading2, hole: { x, y, z: z17 }, at: at2 }) => ({
        ...{ id: reading2.id, measured: position([x, y, z17]), reference: position(at2), sigma: 1 }
      }))
    ) : void 0;
    if (!fit?.ok) return [];
    const placed = read.map(({ hole: { x, y, z: z17 } }) => place(fit.motion, position([x, y, z17])));
    const middle = middleOf(placed);
    return read.map(({ reading: reading2, hole }, i) => {
      const way = reading2.toward ? TOWARD[reading2.toward] : void 0;
      const beside = way ? scale(way, reading2.value) : [0, 0, 0];
      const sds = mapAxes((k) => {
        const play = way ? way[k] === 0 ? OTHER_WAYS_SD : BESIDE_SD : hole.clearance / Math.sqrt(12);
        return Math.hypot(play, part.sd);
      });
      return { reading: reading2, at: placed[i], says: says(reading2, add(placed[i], beside), sds, part.id, middle) };
    });
  });
}
var middleOf = (places7) => places7.length === 0 ? [0, 0, 0] : centroid(
  places7,
  places7.map(() => 1)
);
var says = ({ id: id2, pointId }, value, sigma, body, middle) => ({
  ...{ id: id2, kind: "position", point: pointId, value, sigma },
  body: { id: body, middle }
});
var entering = (gauges) => gauges.flatMap(({ reading: reading2, says: said }) => reading2.fit === "none" ? [] : [said]);

// src/core/round/observe/starting-points.ts
var AXIS = { station: 0, offset: 1, height: 2 };
var TURNED = 40;
var ASIDE = [20, 10, 0];
function startingPoints(points, references, readings, former = () => void 0) {
  const charted = new Map(
    points.flatMap(({ id: id2 }) => {
      const at2 = referencePosition(references, id2) ?? former(id2);
      return at2 ? [[id2, at2]] : [];
    })
  );
  const turned2 = turnedOnto(charted, readings);
  const shifts = [[], [], []];
  for (const reading2 of readings) {
    if (reading2.kind !== "station" && reading2.kind !== "offset" && reading2.kind !== "height") continue;
    const at2 = turned2.get(reading2.point);
    if (at2) shifts[AXIS[reading2.kind]].push(reading2.value - at2[AXIS[reading2.kind]]);
  }
  const shift = mapAxes((axis) => Math.round(median(shifts[axis])));
  const centre = mapAxes((axis) => [...turned2.values()].reduce((sum, at2) => sum + at2[axis] / turned2.size, 0));
  const standing = new Map([...turned2].map(([id2, at2]) => [id2, mapAxes((axis) => at2[axis] + shift[axis])]));
  const side2 = new Map(points.map((point3) => [point3.id, point3.side]));
  const ids = [...side2.keys()];
  const others = ids.every((id2) => standing.has(id2)) ? standing : placeAmong(standing, ids, readings, (id2) => side2.get(id2));
  return points.map(({ id: id2, substituteForId }) => {
    const beside = standing.get(substituteForId ?? "");
    const own2 = standing.get(id2) ?? (beside && mapAxes((axis) => beside[axis] + ASIDE[axis])) ?? others.get(id2);
    return { id: id2, start: own2 ?? mapAxes((axis) => centre[axis] + shift[axis]) };
  });
}
function median(values) {
  const sorted = [...values].sort((a, b) => a - b);
  const middle = Math.floor(sorted.length / 2);
  if (sorted.length === 0) return 0;
  return sorted.length % 2 === 1 ? sorted[middle] : (sorted[middle - 1] + sorted[middle]) / 2;
}
function turnedOnto(chart, readings) {
  const read = /* @__PURE__ */ new Map();
  for (const reading2 of readings) {
    if (!(reading2.kind in AXIS) || !("point" in reading2) || typeof reading2.value !== "number") continue;
    const axes = read.get(reading2.point) ?? [void 0, void 0, void 0];
    axes[AXIS[reading2.kind]] = reading2.value;
    read.set(reading2.point, axes);
  }
  const whole = [...read].flatMap(([id2, axes]) => {
    const at2 = chart.get(id2);
    return at2 && axes.every((value) => value !== void 0) ? [{ id: id2, measured: at2, reference: position(axes), sigma: 1 }] : [];
  });
  const shift = mapAxes((k) => median(whole.map(({ measured, reference: reference2 }) => reference2[k] - measured[k])));
  const off = median(
    whole.map(({ measured, reference: reference2 }) => Math.hypot(...mapAxes((k) => reference2[k] - measured[k] - shift[k])))
  );
  const fit = off > TURNED ? fitSelected(whole) : void 0;
  if (!fit?.ok) return chart;
  return new Map([...chart].map(([id2, at2]) => [id2, place(fit.motion, at2)]));
}

// src/core/round/observe/survey-of.ts
function surveyOf(job2, observed) {
  const { points } = job2.rows;
  const { references } = job2;
  const about = observed.filter(({ reading: reading2 }) => reading2.stationId === null);
  const readings = about.flatMap(netReading);
  const gauges = about.flatMap(({ reading: reading2 }) => reading2.quantity === "fixture" ? [reading2] : []);
  const round4 = job2.round(gauges[0]?.roundId ?? "");
  const notEntering = about.flatMap(({ reading: reading2 }) => reading2.fit === "none" ? [reading2.pointId] : []);
  if (points.some(({ id: id2 }) => referencePosition(references, id2))) {
    const started2 = startingPoints(points, references, readings, (id2) => formerPosition(job2.rows, id2));
    const bodies2 = [...headsOf(job2, round4, gauges), ...holesOf(job2, gauges, started2)];
    return {
      survey: { points: started2, readings: [...readings, ...entering(bodies2)] },
      ...{ start: "chart", notEntering, gauges: bodies2 }
    };
  }
  const rough = roughStart(
    points.map(({ id: id2 }) => id2),
    readings,
    (id2) => job2.pointOf(id2)?.side,
    (id2) => job2.code(id2)
  );
  const started = points.map(({ id: id2 }) => ({ id: id2, start: rough.positions.get(id2) ?? [0, 0, 0] }));
  const bodies = holesOf(job2, gauges, started);
  return {
    survey: { points: started, readings: [...readings, ...entering(bodies)] },
    ...{ start: "readings", rough, notEntering, gauges: bodies }
  };
}
function netReading({ reading: reading2, value, pointers: pointers2, sigma, bias }) {
  const common = { id: reading2.id, value, sigma, ...bias ? { bias } : {} };
  if (reading2.quantity === "distance")
    return [
      {
        ...common,
        ...pointers2 ? { pointers: pointers2 } : {},
        kind: reading2.measure === "level" ? "plan" : "distance",
        from: reading2.pointId,
        to: reading2.toPointId
      }
    ];
  if (reading2.quantity === "fixture") return [];
  const kind = { length: "station", width: "offset", height: "height" }[reading2.quantity];
  return [{ ...common, kind, point: reading2.pointId }];
}

// src/core/round/net/net.ts
var FAR = 130;
var REPEATS_DIFFER = 3 * Math.SQRT2;
function solveRoundFrom(job2, observed, last2) {
  const { survey, start, rough, notEntering, gauges } = surveyOf(job2, observed);
  const far = start === "chart" ? farFromStart(survey).filter((id2) => !job2.isKept(id2)) : [];
  const trusted = { ...survey, readings: survey.readings.filter(({ id: id2 }) => !far.includes(id2)) };
  const upright = start === "readings" ? withHeights(trusted) : trusted;
  const determined = solveDetermined(upright, last2);
  const loose = [...determined.loose, ...withoutHeights(trusted, upright)];
  const main = determined.pieces[0];
  const factsOf = factsFor(job2);
  const repeats = differingRepeats(survey).filter(({ readingId }) => !job2.isKept(readingId));
  const common = { notEntering, gauges, start, rough, unread: determined.unread };
  if (!main) {
    const doubts2 = [...farDoubts(survey, far), ...repeats];
    return { net: { ...common, doubts: doubts2, leftOut: far, loose, unchecked: [], inPlan: locateInPlan(trusted), apart: [] } };
  }
  const strangeness = start === "chart" ? offStart(survey) : void 0;
  const found3 = accuse(main, factsOf, strangeness);
  const apart = standOffs(main, found3.accusations, strangeness).filter(
    ([a, b]) => !job2.isKept(a.id) && !job2.isKept(b.id)
  );
  const ofPairs = new Set(apart.flatMap((pair) => pair.map(({ id: id2 }) => id2)));
  const accusations = found3.accusations.filter(({ reading: reading2 }) => !reading2 || !ofPairs.has(reading2.id));
  const cleared = apart.length > 0 ? withoutReadings(main, [...ofPairs, ...accusations.flatMap(({ reading: reading2 }) => reading2?.id ?? [])], found3.cleared) : found3.cleared;
  const accused = accusations.flatMap(
    ({ reading: reading2, axis, w, cause, together }) => !reading2 || job2.isKept(reading2.id) ? [] : [
      {
        kind: "contradicted",
        readingId: reading2.id,
        w,
        quantity: axisWord(reading2, axis),
        together,
        expected: expectedOf(cleared, reading2, axis),
        ...cause ? { cause } : {}
      }
    ]
  );
  const keptOne = accusations.some(({ reading: reading2 }) => reading2 && job2.isKept(reading2.id));
  const solution = keptOne ? withoutReadings(
    main,
    accused.map(({ readingId }) => readingId),
    cleared
  ) : cleared;
  const judgedFar = far.map(
    (id2) => judgeFar(
      solution,
      survey.readings.find((each) => each.id === id2),
      factsOf
    )
  );
  const disagreeing = apart.flatMap(([a, b]) => [disagreement(a, b), disagreement(b, a)]);
  const doubts = [...judgedFar, ...accused, ...disagreeing].sort((a, b) => Math.abs(b.w) - Math.abs(a.w));
  const doubted = new Set(doubts.map(({ readingId }) => readingId));
  const net = {
    ...common,
    solution,
    doubts: [...doubts, ...repeats.filter(({ readingId }) => !doubted.has(readingId))],
    leftOut: [...doubted],
    loose,
    unchecked: uncheckedPoints(solution),
    inPlan: loose.length > 0 ? inPlanBeside(trusted, solution) : [],
    apart: determined.pieces.slice(1).map((piece) => piece.survey.points.map(({ id: id2 }) => id2))
  };
  return { net, main };
}
var FEWEST_HEIGHTS = 3;
function withHeights({ points, readings }) {
  const read = new Set(
    readings.flatMap(
      (reading2) => reading2.kind === "height" || reading2.kind === "position" && !reading2.body || reading2.kind === "rise" ? pointsOf(reading2) : []
    )
  );
  const known2 = read.size < FEWEST_HEIGHTS ? /* @__PURE__ */ new Set() : read;
  return {
    points: points.filter(({ id: id2 }) => known2.has(id2)),
    readings: readings.filter((reading2) => pointsOf(reading2).every((id2) => known2.has(id2)))
  };
}
function withoutHeights(whole, upright) {
  const kept = new Set(upright.points.map(({ id: id2 }) => id2));
  const spoken = new Set(whole.readings.flatMap(pointsOf));
  return whole.points.flatMap(
    ({ id: id2 }) => spoken.has(id2) && !kept.has(id2) ? [{ id: id2, directions: [[0, 0, 1]], advice: "add its height" }] : []
  );
}
function inPlanBeside({ points, readings }, solution) {
  const at2 = coordinatesOf(solution);
  return locateInPlan({
    points: points.map((point3) => {
      const known2 = at2.get(point3.id);
      return known2 ? { id: point3.id, start: known2, hold: "fixed" } : point3;
    }),
    readings: readings.filter((reading2) => pointsOf(reading2).some((id2) => !at2.has(id2)))
  });
}
function farFromStart(survey) {
  const off = offStart(survey);
  return survey.readings.flatMap((reading2) => off(reading2) > FAR ? [reading2.id] : []);
}
function offStart({ points }) {
  const at2 = new Map(points.map(({ id: id2, start }) => [id2, start]));
  return (reading2) => Math.abs(misfitAt(reading2, (id2) => at2.get(id2)));
}
function misfitAt(reading2, at2) {
  if (reading2.kind === "position") return 0;
  if (!isPair(reading2)) {
    const axis = { station: 0, offset: 1, height: 2 }[reading2.kind];
    return reading2.value - at2(reading2.point)[axis];
  }
  const [a, b] = [at2(reading2.from), at2(reading2.to)];
  if (reading2.kind === "rise") return reading2.value - (b[2] - a[2]);
  const dz = reading2.kind === "plan" ? 0 : b[2] - a[2];
  return tipDistance(reading2.value, reading2.pointers) - Math.hypot(b[0] - a[0], b[1] - a[1], dz);
}
var sigmaOf2 = (reading2, axis) => Math.hypot(reading2.kind === "position" ? reading2.sigma[axis] : reading2.sigma, reading2.bias?.sigma ?? 0);
function expectedOf(solution, reading2, axis) {
  const known2 = new Set(solution.survey.points.map(({ id: id2 }) => id2));
  if (!(isPair(reading2) ? [reading2.from, reading2.to] : [reading2.point]).every((id2) => known2.has(id2))) return void 0;
  const { value, variance } = predict(solution, reading2, axis);
  return { value, sd: Math.sqrt(variance) };
}
function judgeFar(solution, reading2, factsOf) {
  const expected = expectedOf(solution, reading2, 0);
  const common = { readingId: reading2.id, quantity: axisWord(reading2, 0), together: [] };
  if (!expected || reading2.kind === "position") return { ...common, kind: "farFromChart", w: 0 };
  const w = (expected.value - readOf(reading2)) / Math.hypot(expected.sd, sigmaOf2(reading2, 0));
  const cause = likelyCause(solution, reading2, factsOf(reading2));
  return {
    ...common,
    kind: Math.abs(w) > SUSPECT ? "contradicted" : "farFromChart",
    w,
    expected,
    ...cause ? { cause } : {}
  };
}
var farDoubts = (survey, far) => far.map((readingId) => ({
  kind: "farFromChart",
  readingId,
  w: 0,
  quantity: axisWord(
    survey.readings.find(({ id: id2 }) => id2 === readingId),
    0
  ),
  together: []
}));
function standOffs(main, accusations, strangeness = () => 0) {
  return accusations.flatMap(({ reading: reading2, together }) => {
    if (!reading2) return [];
    const twins = main.survey.readings.filter((each) => each.id !== reading2.id && isOfTheSame(each, reading2));
    const [twin] = twins;
    if (!twin || twins.length > 1 || together.length !== 1 || together[0] !== twin.id) return [];
    const [own2, other] = [strangeness(reading2), strangeness(twin)];
    if (Math.max(own2, other) > STRANGE && Math.max(own2, other) > 3 * Math.min(own2, other)) return [];
    return othersTell(main, reading2, twin) ? [] : [[twin, reading2]];
  });
}
function othersTell(main, a, b) {
  const [without2] = solveDetermined({
    ...main.survey,
    readings: main.survey.readings.filter(({ id: id2 }) => id2 !== a.id && id2 !== b.id)
  }).pieces;
  const expected = without2 && without2.freedoms === main.freedoms ? expectedOf(without2, a, 0) : void 0;
  if (!expected || a.kind === "position" || b.kind === "position") return false;
  const strange = [a, b].map(
    (reading2) => Math.abs(readOf(reading2) - expected.value) / Math.hypot(expected.sd, sigmaOf2(reading2, 0))
  );
  return Math.max(...strange) > SUSPECT && Math.max(...strange) > 3 * Math.min(...strange);
}
var readOf = (reading2) => isPair(reading2) ? tipDistance(reading2.value, reading2.pointers) : reading2.value;
var isOfTheSame = (a, b) => a.kind === b.kind && [...pointsOf(a)].sort().join() === [...pointsOf(b)].sort().join();
var disagreement = (reading2, other) => ({
  kind: "repeatsDiffer",
  readingId: reading2.id,
  w: (reading2.value - other.value) / sigmaOf2(reading2, 0),
  quantity: axisWord(reading2, 0),
  together: [other.id]
});
function differingRepeats({ readings }) {
  const first = /* @__PURE__ */ new Map();
  return readings.flatMap((reading2) => {
    if (!reading2.bias || reading2.kind === "position") return [];
    const other = first.get(reading2.bias.group);
    if (!other) {
      first.set(reading2.bias.group, reading2);
      return [];
    }
    const w = (reading2.value - other.value) / sigmaOf2(reading2, 0);
    return Math.abs(w) > REPEATS_DIFFER ? [{ kind: "repeatsDiffer", readingId: reading2.id, w, quantity: axisWord(reading2, 0), together: [other.id] }] : [];
  });
}
function withoutReadings(main, ids, fallback) {
  const readings = main.survey.readings.filter(({ id: id2 }) => !ids.includes(id2));
  return solveDetermined({ ...main.survey, readings }).pieces[0] ?? fallback;
}
function factsFor(job2) {
  const { points } = job2.rows;
  const holes = new Map(points.flatMap(({ id: id2, holeDiameter }) => holeDiameter ? [[id2, holeDiameter]] : []));
  const opposite = new Map(points.map(({ id: id2 }) => [id2, job2.opposite(id2)?.id]));
  return (reading2) => {
    const row = job2.reading(reading2.id);
    const typed = row && typedAmount(row);
    return { holes, opposite, name: (id2) => job2.code(id2), ...typed ? { typed } : {} };
  };
}
function typedAmount(reading2) {
  const words2 = reading2.raw.trim().split(/\s+/);
  const amount = words2.at(-1) ?? "";
  const unit = /("|in)$/i.test(reading2.raw.trim()) ? "in" : /cm$/i.test(amount) ? "cm" : "mm";
  const per = { mm: 1, cm: 10, in: 25.4 }[unit];
  const parsed = parseLength(amount, unit);
  return parsed.ok && Math.abs(Math.abs(parsed.mm) - Math.abs(reading2.value)) < 0.06 ? { amount: reading2.value / per, unit } : void 0;
}
var coordinatesOf = ({ survey, x }) => new Map(survey.points.map(({ id: id2 }, i) => [id2, position(Array.from(x.subarray(3 * i, 3 * i + 3)))]));

// src/core/round/observe/disturbed.ts
function disturbedPoints(job2, round4) {
  const loadedAt = /* @__PURE__ */ new Map();
  const pulls = new Map(job2.pulls.map((pull3) => [pull3.id, pull3]));
  for (const { pullId, kind, at: at2 } of job2.pullEvents) {
    const pull3 = pulls.get(pullId);
    if (kind !== "loaded" || !pull3) continue;
    const holds = job2.rows.holds.filter(({ itemId }) => itemId === pullId).map(({ pointId }) => pointId);
    for (const id2 of [pull3.pointId, ...holds]) if ((loadedAt.get(id2) ?? "") < at2) loadedAt.set(id2, at2);
  }
  const lastRead = /* @__PURE__ */ new Map();
  for (const { pointId, toPointId, takenAt } of job2.standingReadings(round4))
    for (const id2 of [pointId, toPointId]) if (id2 && (lastRead.get(id2) ?? "") < takenAt) lastRead.set(id2, takenAt);
  const roundEnd = round4.closedAt ?? "9999";
  return new Set(
    [...loadedAt].flatMap(
      ([id2, at2]) => at2 < roundEnd && at2 > (lastRead.get(id2) ?? "") && at2 > round4.startedAt ? [id2] : []
    )
  );
}

// src/core/round/align/align-round.ts
function locatedPoints({ solution }) {
  if (!solution) return /* @__PURE__ */ new Map();
  const joint2 = jointOf(solution);
  return new Map(
    [...coordinatesOf(solution)].map(([pointId, position2]) => [
      pointId,
      { pointId, position: position2, covariance: joint2.block(pointId) }
    ])
  );
}
var SMALLEST_SIGMA = 0.05;
function uncertainPoint(id2, located2, references) {
  const { position: position2, covariance: covariance2 } = located2.get(id2);
  const trust = references.points.get(id2).sd ** 2;
  const mean = (covariance2[0] + covariance2[4] + covariance2[8]) / 3 + trust;
  return {
    id: id2,
    measured: position2,
    reference: referencePosition(references, id2),
    trust,
    sigma: Math.max(Math.sqrt(mean), SMALLEST_SIGMA)
  };
}
function alignRound(job2, round4, controlIds, located2) {
  const references = job2.referencesOf(round4);
  if (controlIds.length === 0)
    return {
      ok: false,
      reason: "no control points are chosen: choose at least three points to measure from"
    };
  if (located2.size > 0 && ![...located2.keys()].some((id2) => references.points.has(id2)))
    return {
      ok: false,
      reason: "no reference in use covers any located point: make one under References, or measure points that one covers"
    };
  const disturbed = disturbedPoints(job2, round4);
  const setAside = controlIds.filter((id2) => disturbed.has(id2));
  const usable = controlIds.filter((id2) => located2.has(id2) && references.points.has(id2) && !disturbed.has(id2));
  const fit = fitSelected(usable.map((id2) => uncertainPoint(id2, located2, references)));
  if (!fit.ok) {
    const unusable = controlIds.filter((id2) => !usable.includes(id2)).map((id2) => job2.code(id2));
    const missing = unusable.length > 0 ? ` (${unusable.join(", ")}: not located, without a reference, or pulled on or clamped since)` : "";
    return { ok: false, reason: fit.reason + missing };
  }
  const deviations = usable.map((id2) => deviationOf(fit.motion, uncertainPoint(id2, located2, references)));
  return {
    ok: true,
    motion: fit.motion,
    rms: rootMeanSquare(deviations),
    controlIds: usable,
    setAside
  };
}

// src/core/shell/instruments.ts
var spreadOf = ({ sdConstant, sdPerMetre }, length2) => sdConstant + sdPerMetre * Math.abs(length2) / 1e3;

// src/core/round/observe/conditions.ts
var OUT_OF_REACH = /* @__PURE__ */ new Set(["buried", "suspension", "gone"]);
function conditionsOf(job2, round4) {
  const last2 = /* @__PURE__ */ new Map();
  for (const each of job2.rows.pointConditions) {
    if (each.roundId !== round4.id) continue;
    if (each.kind === "clear") last2.delete(each.pointId);
    else last2.set(each.pointId, each.kind);
  }
  return last2;
}
function reachablePoints(job2, round4) {
  const conditions = conditionsOf(job2, round4);
  return job2.rows.points.filter(({ id: id2 }) => !OUT_OF_REACH.has(conditions.get(id2) ?? "clear"));
}

// src/core/round/observe/corrections.ts
var STEEL_EXPANSION = 115e-7;
var CHART_TEMPERATURE = 20;
var LONG = /* @__PURE__ */ new Set(["distance", "length"]);
function corrections(reading2, instrument2, temperature) {
  if (reading2.quantity === "fixture") return [];
  const sign = reading2.value < 0 ? -1 : 1;
  const warm = temperature === null || instrument2.steel || !LONG.has(reading2.quantity);
  const amounts = [
    { kind: "startMark", amount: -sign * instrument2.startMark },
    { kind: "zeroOffset", amount: sign * instrument2.zeroOffset },
    {
      kind: "temperature",
      amount: warm ? 0 : -reading2.value * STEEL_EXPANSION * (temperature - CHART_TEMPERATURE)
    }
  ];
  return amounts.filter(({ amount }) => amount !== 0);
}
var correctedValue = (reading2, instrument2, temperature) => corrections(reading2, instrument2, temperature).reduce((sum, { amount }) => sum + amount, reading2.value);

// src/core/round/observe/observe.ts
var SHARED_WITH_REPEATS = 0.5;
var DOUBTFUL_SD = {
  worn: 0.87,
  oval: 0.87,
  rusty: 1.5,
  rebuilt: 2
};
function subjectKey(reading2) {
  const ends = [reading2.pointId, reading2.toPointId].filter((end) => end !== null).sort();
  return [reading2.quantity, reading2.measure, reading2.stationId, ...ends].join("|");
}
function observeRound(job2, round4) {
  const doubtful = doubtfulPoints(job2, round4);
  const bundles = grouped(
    job2.standingReadings(round4),
    (reading2) => `${subjectKey(reading2)} ${reading2.instrumentVersionId}`
  );
  return [...bundles.values()].flatMap((bundle) => {
    const shared = bundle.length > 1 ? SHARED_WITH_REPEATS : 0;
    return bundle.map((reading2) => {
      const sd = Math.sqrt(
        spreadOf(job2.version(reading2.instrumentVersionId), reading2.value) ** 2 + wearOf(reading2, doubtful)
      );
      return {
        ...scaled(job2, reading2, round4.temperature),
        sigma: sd * Math.sqrt(1 - shared),
        ...shared > 0 ? { bias: { group: bundle[0].id, sigma: sd * Math.sqrt(shared) } } : {}
      };
    });
  });
}
function scaled(job2, reading2, temperature) {
  const value = correctedValue(reading2, job2.version(reading2.instrumentVersionId), temperature);
  const { pointerFrom, pointerTo } = reading2;
  if (reading2.quantity !== "distance" || pointerFrom === null || pointerTo === null)
    return { reading: reading2, value, amount: value };
  const pointers2 = [pointerFrom, pointerTo];
  return { reading: reading2, value, pointers: pointers2, amount: tipDistance(value, pointers2) };
}
var wearOf = ({ pointId, toPointId }, doubtful) => [pointId, toPointId].reduce((sum, id2) => sum + (doubtful.get(id2 ?? "") ?? 0), 0);
function doubtfulPoints(job2, round4) {
  return new Map(
    [...conditionsOf(job2, round4)].flatMap(
      ([id2, kind]) => DOUBTFUL_SD[kind] ? [[id2, DOUBTFUL_SD[kind] ** 2]] : []
    )
  );
}

// src/core/round/observe/measured.ts
var AXIS_OF = {
  length: "x",
  width: "y",
  height: "z"
};
function measure2(observed) {
  const points = /* @__PURE__ */ new Map();
  const distances = [];
  const gaps = [];
  for (const group of grouped(observed, ({ reading: reading2 }) => subjectKey(reading2)).values()) {
    const first = group[0].reading;
    const mean = meanOf(group);
    const axis = AXIS_OF[first.quantity];
    if (axis && first.pointId) points.set(first.pointId, { ...points.get(first.pointId), [axis]: mean });
    else if (first.quantity === "distance")
      distances.push({ ...mean, fromPointId: first.pointId, toPointId: first.toPointId, measure: first.measure });
    else if (first.stationId)
      gaps.push({ ...mean, stationId: first.stationId, quantity: first.quantity });
  }
  return { points, distances, gaps };
}
function meanOf(group) {
  let [sum, weights] = [0, 0];
  for (const bundle of grouped(group, ({ reading: reading2, bias }) => bias?.group ?? reading2.id).values()) {
    const own2 = bundle.reduce((all, { sigma }) => all + 1 / sigma ** 2, 0);
    const mean = bundle.reduce((all, { sigma, amount }) => all + amount / sigma ** 2, 0) / own2;
    const shared = bundle.reduce((all, { bias }) => all + (bias?.sigma ?? 0) ** 2, 0) / bundle.length;
    const weight = 1 / (shared + 1 / own2);
    sum += weight * mean;
    weights += weight;
  }
  return { value: sum / weights, sd: 1 / Math.sqrt(weights), readingIds: group.map(({ reading: reading2 }) => reading2.id) };
}
function distanceBetween(measured, ends) {
  const wanted = /* @__PURE__ */ new Set([ends.fromPointId, ends.toPointId]);
  return measured.distances.find(
    (each) => each.measure === ends.measure && wanted.has(each.fromPointId) && wanted.has(each.toPointId)
  );
}

// src/core/maths/rigid/uncertainty.ts
import { inverse, Matrix as Matrix5 } from "ml-matrix";

// src/core/maths/rigid/freedom.ts
import { Matrix as Matrix4 } from "ml-matrix";
function rigidDesign([mx, my, mz]) {
  const [x, y, z17] = [mx / 1e3, my / 1e3, mz / 1e3];
  return new Matrix4([
    [1, 0, 0, 0, z17, -y],
    [0, 1, 0, -z17, 0, x],
    [0, 0, 1, y, -x, 0]
  ]);
}

// src/core/maths/rigid/uncertainty.ts
function deviationCovariances(motion2, control, judged, joint2) {
  const rotation = new Matrix5(motion2.rotation.map((row) => [...row]));
  const back = rotation.transpose();
  const normal = Matrix5.zeros(6, 6);
  const designs = control.map((point3) => design(motion2, point3.measured));
  control.forEach(
    (point3, k) => normal.add(
      designs[k].transpose().mmul(designs[k]).div(point3.sigma ** 2)
    )
  );
  const inverted = inverse(normal);
  const shares = control.map((point3, k) => inverted.mmul(designs[k].transpose()).div(point3.sigma ** 2));
  const inRound = shares.map((share) => share.mmul(rotation).to1DArray());
  const own2 = new Map(control.map(({ id: id2 }, k) => [id2, k]));
  const takenFor = (point3) => {
    const sum = new Float64Array(18);
    control.forEach(({ id: id2 }, k2) => addProduct(sum, inRound[k2], joint2(id2, point3.id)));
    const taken = Matrix5.from1DArray(6, 3, sum).mmul(back);
    const k = own2.get(point3.id);
    return k === void 0 ? taken : taken.add(Matrix5.mul(shares[k], point3.trust));
  };
  const motionCovariance = Matrix5.zeros(6, 6);
  control.forEach((point3, k) => motionCovariance.add(takenFor(point3).mmul(shares[k].transpose())));
  return new Map(
    judged.map((point3) => {
      const j = design(motion2, point3.measured);
      const shared = j.mmul(takenFor(point3));
      const alone = rotation.mmul(Matrix5.from1DArray(3, 3, [...joint2(point3.id, point3.id)])).mmul(back);
      const whole = alone.add(Matrix5.eye(3, 3).mul(point3.trust)).sub(shared).sub(shared.transpose());
      return [point3.id, covariance(whole.add(j.mmul(motionCovariance).mmul(j.transpose())).to1DArray())];
    })
  );
}
function addProduct(sum, a, b) {
  for (let i = 0; i < 6; i++)
    for (let k = 0; k < 3; k++)
      sum[3 * i + k] += a[3 * i] * b[k] + a[3 * i + 1] * b[3 + k] + a[3 * i + 2] * b[6 + k];
}
var design = ({ rotation }, measured) => rigidDesign(apply(rotation, measured));
var axisDeviations = (block) => mapAxes((i) => Math.sqrt(Math.max(0, block[4 * i])));

// src/core/maths/statistics/verdict.ts
var COVERAGE = 2;
function judge(deviation, sd, limit2) {
  const size2 = Math.abs(deviation);
  const plusMinus = COVERAGE * sd;
  const verdict3 = size2 + plusMinus <= limit2 ? "inside" : size2 - plusMinus > limit2 ? "outside" : "undecided";
  return { verdict: verdict3, plusMinus, tooCoarse: verdict3 === "undecided" && plusMinus >= limit2 };
}
function worstVerdict(verdicts) {
  if (verdicts.includes("outside")) return "outside";
  return verdicts.includes("undecided") ? "undecided" : "inside";
}

// src/core/round/judge/judgement.ts
function judgeAligned(job2, aligned, controlIds) {
  const points = judgePoints(job2, aligned, new Set(controlIds));
  const dimensions = job2.rows.dimensions.map((dimension3) => judgeDimension(dimension3, aligned));
  if (job2.supportOf(aligned.round).kind !== "spit") return { ...aligned, points, dimensions };
  return { ...aligned, points: points.map(withoutVerdict), dimensions: dimensions.map(withoutVerdict) };
}
function withoutVerdict({ judged, ...rest }) {
  return judged === void 0 ? rest : { ...rest, lacking: "onSpit" };
}
function judgePoints(job2, aligned, control) {
  const { measured, net, located: located2, references, alignment } = aligned;
  const looseAdvice = new Map(net.loose.map(({ id: id2, advice }) => [id2, advice]));
  const paired = (id2) => uncertainPoint(id2, located2, references);
  const covariances = covariancesOf(job2, aligned);
  return job2.rows.points.map((point3) => {
    const measurement = measured.points.get(point3.id) ?? {};
    const read = AXES.filter((axis) => measurement[axis]);
    const common = { point: point3, control: control.has(point3.id), read };
    const advice = looseAdvice.get(point3.id);
    if (!located2.has(point3.id))
      return advice ? { ...common, lacking: "notLocated", advice } : { ...common, lacking: read.length > 0 ? "notLocated" : "notMeasured" };
    const chosen = references.points.get(point3.id);
    if (!chosen) return { ...common, lacking: "noReference" };
    const covariance2 = covariances.get(point3.id);
    if (!alignment.ok || !covariance2) return { ...common, lacking: "notAligned" };
    const deviation = deviationOf(alignment.motion, paired(point3.id));
    return { ...common, judged: judgeAxes(deviation, covariance2, chosen.row.tolerance, chosen.reference.id) };
  });
}
function covariancesOf(job2, { alignment, located: located2, references, net: { solution } }) {
  if (!alignment.ok || !solution) return /* @__PURE__ */ new Map();
  const judgeable = job2.rows.points.filter(({ id: id2 }) => located2.has(id2) && references.points.has(id2));
  const joint2 = jointOf(solution);
  return deviationCovariances(
    alignment.motion,
    alignment.controlIds.map((id2) => uncertainPoint(id2, located2, references)),
    judgeable.map(({ id: id2 }) => uncertainPoint(id2, located2, references)),
    (a, b) => joint2.block(a, b)
  );
}
function judgeAxes(deviation, covariance2, limit2, referenceId) {
  const components = deviation.by;
  const sd = axisDeviations(covariance2);
  const judgements = mapJudgements(components, sd, limit2);
  const verdict3 = worstVerdict(judgements.map((each) => each.verdict));
  const reach = (i) => (judgements[i].verdict === verdict3 ? 1e6 : 0) + Math.abs(components[i]) + judgements[i].plusMinus;
  const worst = [0, 1, 2].reduce((best2, i) => reach(i) > reach(best2) ? i : best2, 0);
  return {
    deviation,
    covariance: covariance2,
    sd,
    limit: limit2,
    referenceId,
    axes: { x: judgements[0], y: judgements[1], z: judgements[2] },
    worstAxis: AXES[worst],
    verdict: verdict3,
    tooCoarse: judgements.some((each) => each.tooCoarse)
  };
}
var mapJudgements = (components, sd, limit2) => components.map((component2, i) => judge(component2, sd[i], limit2));
function judgeDimension(dimension3, aligned) {
  const value = lengthBetween(aligned, dimension3);
  if (!value) return { dimension: dimension3, lacking: "notMeasured" };
  const chosen = aligned.references.dimensions.get(dimension3.id);
  if (!chosen) return { dimension: dimension3, measured: value, lacking: "noReference" };
  const deviation = value.value - chosen.row.value;
  const sd = Math.hypot(value.sd, chosen.sd);
  return {
    dimension: dimension3,
    measured: value,
    judged: {
      ...judge(deviation, sd, chosen.row.tolerance),
      reference: chosen.row.value,
      deviation,
      limit: chosen.row.tolerance,
      referenceId: chosen.reference.id
    }
  };
}
function lengthBetween({ measured, net: { solution } }, ends) {
  const { fromPointId: from2, toPointId: to } = ends;
  const index = solution && pointIndex(solution.survey);
  if (solution && index.has(from2) && index.has(to)) {
    const kind = ends.measure === "level" ? "plan" : "distance";
    const { value, variance } = predict(solution, { id: "", kind, from: from2, to, value: 1, sigma: 1 });
    return { value, sd: Math.sqrt(variance), from: "net" };
  }
  const read = distanceBetween(measured, ends);
  return read && { value: read.value, sd: read.sd, from: "readings" };
}
var roundJoint = ({ net: { solution } }) => solution && jointOf(solution);

// src/core/round/judge/judge-round.ts
function judgeRound(job2, round4, warm = false) {
  const hangsOn = job2.without(APART_FROM_ROUNDS);
  return once(judgedOf(hangsOn), round4, () => judgeAnew(hangsOn, round4, warm));
}
var judgedOf = onceFor((_) => /* @__PURE__ */ new Map());
function judgeAnew(job2, round4, warm) {
  const { measured, net, located: located2 } = netOf(job2, round4, warm);
  const controlIds = job2.rows.roundControls.flatMap(({ roundId, pointId }) => roundId === round4.id ? [pointId] : []);
  const alignment = alignRound(job2, round4, controlIds, located2);
  return judgeAligned(
    job2,
    { round: round4, measured, net, located: located2, references: job2.referencesOf(round4), alignment },
    controlIds
  );
}
var NETS = /* @__PURE__ */ new Map();
var MOST_NETS = 12;
function netOf(job2, round4, warm) {
  const madeOf = whatNetHangsOn(job2, round4);
  const known2 = NETS.get(round4.id);
  if (known2?.madeOf === madeOf) return known2;
  const observed = observeRound(job2, round4);
  const { net, main } = solveRoundFrom(job2, observed, warm ? known2?.main : void 0);
  const solved = { measured: measure2(observed), net, main, located: locatedPoints(net), madeOf };
  NETS.delete(round4.id);
  NETS.set(round4.id, solved);
  for (const oldest of NETS.keys()) if (NETS.size > MOST_NETS) NETS.delete(oldest);
  return solved;
}
function whatNetHangsOn(job2, round4) {
  const readings = job2.standingReadings(round4);
  const versions = new Set(readings.map(({ instrumentVersionId }) => instrumentVersionId));
  const { points, pointConditions, instrumentVersions } = job2.rows;
  return JSON.stringify([
    round4.temperature,
    readings.map(({ receivedAt: _, takenAt: _at, ...reading2 }) => [Object.values(reading2), job2.isKept(reading2.id)]),
    instrumentVersions.filter(({ id: id2 }) => versions.has(id2)).map((version2) => Object.values(version2)),
    pointConditions.filter(({ roundId }) => roundId === round4.id).map(({ pointId, kind }) => [pointId, kind]),
    points.map(({ id: id2, code: code2, side: side2, holeDiameter, substituteForId }) => [id2, code2, side2, holeDiameter, substituteForId]),
    [...job2.references.points].map(([id2, { row }]) => [id2, row.x, row.y, row.z])
  ]);
}

// src/core/report/drawing/points.ts
function sheetFigure(job2, judgement) {
  const { references, located: located2, alignment } = judgement;
  const position2 = (id2) => {
    const at2 = referencePosition(references, id2);
    if (at2) return at2;
    const beside = job2.pointOf(id2)?.substituteForId;
    if (beside && references.points.has(beside)) return position2(beside);
    return references.points.size === 0 ? located2.get(id2)?.position : void 0;
  };
  const own2 = roundJoint(judgement);
  const joint2 = own2 && alignment.ok ? own2.turned(alignment.motion) : own2;
  return {
    points: judgement.points.flatMap(({ point: point3, control, judged, read }) => {
      const at2 = position2(point3.id);
      if (!at2) return [];
      const spread = joint2?.has(point3.id) ? joint2.block(point3.id) : void 0;
      const common = {
        id: point3.id,
        code: point3.code,
        name: point3.name,
        position: at2,
        control,
        ...spread ? { spread } : {}
      };
      if (!judged) return [read.length > 0 || located2.has(point3.id) ? { ...common, read: true } : common];
      return [{ ...common, movement: judged.deviation.by, verdict: judged.verdict }];
    }),
    lines: job2.rows.memberLines.flatMap((line2) => {
      const [from2, to] = [position2(line2.fromPointId), position2(line2.toPointId)];
      return from2 && to ? [[from2, to]] : [];
    })
  };
}

// src/core/walk/targets.ts
var keyOf = (quantity, codes2) => `${quantity} ${[...codes2].sort().join(" ")}`;
function chartedTargets(job2, round4) {
  const reachable = new Map(reachablePoints(job2, round4).map(({ id: id2, code: code2 }) => [id2, code2]));
  const lengths = job2.rows.dimensions.flatMap(({ fromPointId, toPointId, measure: measure3 }) => {
    const [from2, to] = [reachable.get(fromPointId), reachable.get(toPointId)];
    if (!from2 || !to) return [];
    const codes2 = [from2, to];
    return [
      {
        key: keyOf("distance", codes2),
        quantity: "distance",
        measure: measure3,
        codes: codes2,
        why: "charted",
        again: false
      }
    ];
  });
  const heights = [...new Set(lengths.flatMap(({ codes: codes2 }) => codes2))].map((code2) => ({
    key: keyOf("height", [code2]),
    quantity: "height",
    codes: [code2],
    why: "height",
    again: false
  }));
  return [...lengths, ...heights];
}
function openTargets(job2, round4, targets, skipped) {
  const counts = /* @__PURE__ */ new Map();
  for (const reading2 of job2.standingReadings(round4)) {
    const codes2 = endsOf(reading2).map((id2) => job2.code(id2));
    if (isTargetQuantity(reading2.quantity)) {
      const key = keyOf(reading2.quantity, codes2);
      counts.set(key, (counts.get(key) ?? 0) + 1);
    }
  }
  const left = targets.filter((target) => {
    const taken = counts.get(target.key) ?? 0;
    if (taken === 0) return true;
    counts.set(target.key, taken - 1);
    return false;
  });
  return [...left.filter(({ key }) => !skipped.has(key)), ...left.filter(({ key }) => skipped.has(key))];
}
var endsOf = ({ pointId, toPointId }) => [pointId, toPointId].flatMap((id2) => id2 ?? []);
var isTargetQuantity = (quantity) => quantity === "distance" || quantity === "height" || quantity === "width" || quantity === "length";

// src/core/walk/wanted.ts
var OFF_THE_CHART = 18;
var OFF_THE_PLANE2 = 80;
var GAP = { value: 5, sd: 3 };
var FLUSH = { value: 0, sd: 3 };
function expectationOf(job2, judgement, reading2) {
  const { quantity, pointId, toPointId, stationId } = reading2;
  if (stationId) return gapExpected(job2, stationId, quantity);
  if (!pointId || quantity === "fixture") return void 0;
  if (quantity === "distance") {
    if (!toPointId) return void 0;
    const ends = { fromPointId: pointId, toPointId, measure: reading2.measure ?? "tip" };
    const known2 = judgement?.net.solution && lengthBetween(judgement, ends);
    if (known2?.from === "net") return { value: known2.value, sd: known2.sd, from: "net" };
    const [a, b] = [pointId, toPointId].map((id2) => referencePosition(job2.references, id2));
    if (!a || !b) return void 0;
    const value = ends.measure === "level" ? levelDistance(a, b) : distance(a, b);
    return { value, sd: OFF_THE_CHART, from: "chart" };
  }
  const axis = { length: 0, width: 1, height: 2 }[quantity];
  const located2 = judgement?.located.get(pointId);
  if (located2)
    return {
      value: located2.position[axis],
      sd: Math.sqrt(Math.max(0, located2.covariance[4 * axis])),
      from: "net"
    };
  const at2 = referencePosition(job2.references, pointId);
  return at2 && { value: at2[axis], sd: OFF_THE_PLANE2, from: "chart" };
}
function gapExpected(job2, stationId, quantity) {
  if (quantity !== "gap" && quantity !== "flush") return void 0;
  const usual = quantity === "gap" ? GAP : FLUSH;
  const target = job2.references.stations.get(`${stationId} ${quantity}`)?.row.value;
  return target === void 0 ? { ...usual, from: "usual" } : { value: target, sd: usual.sd, from: "chart" };
}

// src/core/walk/unlikely.ts
var ASKED = 4.5;
var SMALLEST = 6;
var SMALLEST_GAP = 3;
function unlikely(reading2, expected, sd, typed) {
  if (!expected) return void 0;
  const over = reading2.value - expected.value;
  const own2 = Math.hypot(expected.sd, sd);
  const isGap = reading2.quantity === "gap" || reading2.quantity === "flush";
  if (Math.abs(over) < Math.max(ASKED * own2, isGap ? SMALLEST_GAP : SMALLEST)) return void 0;
  const number = { taped: reading2.quantity === "distance", signed: reading2.quantity !== "distance", typed };
  const slip = slipBehind(reading2.value, number, { value: expected.value, sd: own2 });
  return { expected, over, ...slip ? { slip: slip.kind } : {} };
}

// src/core/maths/random/seeded.ts
function seeded(seed) {
  let state = seed >>> 0;
  const next = () => {
    state = state + 1831565813 >>> 0;
    let t2 = state;
    t2 = Math.imul(t2 ^ t2 >>> 15, t2 | 1);
    t2 ^= t2 + Math.imul(t2 ^ t2 >>> 7, t2 | 61);
    return ((t2 ^ t2 >>> 14) >>> 0) / 4294967296;
  };
  const hex = (digits) => Array.from({ length: digits }, () => Math.floor(next() * 16).toString(16)).join("");
  return {
    next,
    normal: () => Math.sqrt(-2 * Math.log(1 - next())) * Math.cos(2 * Math.PI * next()),
    uuid: () => `${hex(8)}-${hex(4)}-4${hex(3)}-${"89ab"[Math.floor(next() * 4)]}${hex(3)}-${hex(12)}`
  };
}

// .x.mts
var rows0 = demoRows("solbris");
var round3 = rows0.rounds.find((r) => r.number === 2);
var truth = JSON.parse(readFileSync2(`demo/truth/${rows0.jobs[0].id}.json`, "utf8")).positions;
var own = rows0.readings.filter((r) => r.roundId === round3.id);
var template2 = own.find((r) => r.quantity === "distance");
var h = own.find((r) => r.quantity === "height");
var byCode2 = new Map(rows0.points.map((p) => [p.code, p.id]));
var codes = Object.keys(truth).filter((c) => byCode2.has(c));
var rnd = seeded(5);
var pairs = codes.flatMap((a, i) => codes.slice(i + 1).map((b) => [a, b])).sort(() => rnd.normal());
var more = pairs.slice(0, 210 - own.length).map(([a, b], i) => ({ ...template2, id: `r${i}`, lineId: `l${i}`, pointId: byCode2.get(a), toPointId: byCode2.get(b), measure: "tip", pointerFrom: null, pointerTo: null, sequence: 1e4 + i, value: Math.hypot(...[0, 1, 2].map((k) => truth[a][k] - truth[b][k])) + Math.sin(i) }));
var rows = { ...rows0, readings: [...rows0.readings, ...more] };
console.log("readings all", rows.readings.length, "points", rows.points.length, "bytes readings", v8.serialize(rows.readings).length);
var t = {};
var time = (name2, f) => {
  const b = performance.now();
  const v = f();
  (t[name2] ??= []).push(performance.now() - b);
  return v;
};
var last;
var located = ["S1L", "S1R", "F2L", "F2R", "M1L", "M1R", "F4L", "F4R", "S2L", "S2R", "S3L", "S3R", "C1L", "C1R", "R4L", "R4R"];
for (let i = 0; i < 200; i++) {
  const c = located[i % 16];
  rows = { ...rows, readings: [...rows.readings, { ...h, id: `h${i}`, lineId: `hl${i}`, sequence: 2e4 + i, pointId: byCode2.get(c), value: truth[c][2] + 0.3 * Math.sin(i) }] };
  const sent = time("clone readings", () => v8.deserialize(v8.serialize(rows.readings)));
  const job2 = time("Job.of", () => Job.of({ ...rows, readings: sent }));
  const j = time("judge", () => judgeRound(job2, job2.round(round3.id), true));
  last = j.net.solution;
  const buf = time("serialize answer", () => v8.serialize(j));
  const back = time("deserialize answer", () => v8.deserialize(buf));
  if (i === 9999) {
    console.log("answer bytes", buf.length);
    for (const k of Object.keys(j)) console.log("  ", k, v8.serialize(j[k]).length);
    for (const k of Object.keys(j.net)) console.log("    net.", k, v8.serialize(j.net[k]).length);
    for (const k of Object.keys(j.net.solution)) console.log("      solution.", k, v8.serialize(j.net.solution[k]).length);
  }
  const mjob = time("main Job.of", () => Job.of({ ...rows }));
  time("doubtful", () => rows.readings.filter((r) => r.roundId === round3.id).filter((r) => unlikely(r, expectationOf(mjob, back, r), spreadOf(mjob.version(r.instrumentVersionId), r.value))).length);
  time("figure", () => sheetFigure(mjob, back));
  time("charted+open", () => openTargets(mjob, round3, chartedTargets(mjob, round3), /* @__PURE__ */ new Set()));
}
for (const [k, v] of Object.entries(t)) {
  const s = v.slice(10).sort((a, b) => a - b);
  console.log(k.padEnd(22), s[s.length >> 1].toFixed(2), s[Math.floor(s.length * 0.95)].toFixed(2), "first", v[0].toFixed(1));
}
