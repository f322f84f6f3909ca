// Generated from the Rust types by `make types`. Do not edit.

export type ArtView = { 
/**
 * SVG path data of the coloured area, bleed included.
 */
fill: string, colour: string | null, 
/**
 * The captions' outlines as SVG path data.
 */
captions: string, };

export type Axis = "across" | "along";

export type Basis = "inside" | "outside" | "crease";

export type Captions = "names" | "none";

export type Change = { 
/**
 * Such as `form.length` or `sheet.orientation`.
 */
field: string, 
/**
 * What to put there.
 */
value: Setting, };

export type Check = { 
/**
 * A stable name, such as `blank-across`.
 */
id: string, 
/**
 * Where it belongs in the route.
 */
stage: Stage, 
/**
 * What is measured, in words.
 */
label: string, 
/**
 * How it stands.
 */
state: State, 
/**
 * The numbers; `None` where the limit is a matter of yes or no.
 */
gauge: Gauge | null, 
/**
 * The value as a figure.
 */
value_text: string, 
/**
 * The bound as words, such as “of 190.5 mm” or “at least 8 mm”.
 */
bound_text: string, 
/**
 * The room left or what is wrong, in a few words.
 */
verdict: string, 
/**
 * Where to look.
 */
place: Place | null, 
/**
 * What would help, best first.
 */
remedies: Array<Remedy>, };

export type Corner = "top-left" | "top-right" | "bottom-right" | "bottom-left";

export type Coverage = "faces" | "flaps";

export type Cutter = { 
/**
 * Its name in lists.
 */
name: string, 
/**
 * Widest sheet in mm.
 */
width: number, 
/**
 * Longest sheet in mm.
 */
length: number, 
/**
 * What rollers, clamps or the carrier take from each side of the sheet.
 */
margins: Margins, 
/**
 * Thickest card in mm.
 */
thickest: number, 
/**
 * Greatest force in newtons, where it is known.
 */
force: number | null, 
/**
 * Its stations.
 */
stations: Array<Station>, 
/**
 * How it finds the sheet.
 */
finds: Finds, 
/**
 * Where it may cut.
 */
field: Field, 
/**
 * The corner in which its blade starts.
 */
start: Corner, };

export type DepthSetting = "fixed" | "stepped" | "cap" | "itself";

export type Dimension = { 
/**
 * The direction it measures in.
 */
axis: Axis, 
/**
 * The two points measured, mm; extension lines start there.
 */
from: [number, number], 
/**
 * See `from`.
 */
to: [number, number], 
/**
 * 0 is nearest to the flat.
 */
tier: number, 
/**
 * The length in the job's unit.
 */
text: string, 
/**
 * The job's field that moves it, if one does.
 */
field: string | null, };

export type DistanceFrom = "paper-edge" | "printable-edge";

export type Drawing = "flat" | "sheet";

export type EyeRange = { 
/**
 * The shapes it knows.
 */
shapes: Array<MarkShapeName>, 
/**
 * Smallest arm or diameter in mm.
 */
smallest: number, 
/**
 * How near to the sheet's edge it reads, mm.
 */
edge: number, 
/**
 * Keep-clear that it needs around each mark, mm.
 */
keep_clear: number, };

export type Face = { 
/**
 * A flat colour as `#rrggbb`; `None` leaves the card bare.
 */
colour: string | null, 
/**
 * Whether panels carry their names.
 */
captions: Captions, 
/**
 * Which panels carry print.
 */
coverage: Coverage, 
/**
 * How far the colour goes past the cut, mm, 0 to 10.
 */
bleed: number, };

export type Field = "whole-reach" | "within-marks";

export type Figure = { 
/**
 * Dotted path into the job, such as `form.length`.
 */
field: string, 
/**
 * Its name on the spec card.
 */
label: string, 
/**
 * What it measures, in a sentence.
 */
note: string, 
/**
 * The value in force, in mm.
 */
value: number, 
/**
 * The value as text in the job's unit.
 */
text: string, 
/**
 * The trade's default in mm, where there is one.
 */
standard: number | null, 
/**
 * True when the user has set it, false while it follows the default.
 */
own: boolean, 
/**
 * Least and greatest value in mm.
 */
range: [number, number], };

export type FileInfo = { 
/**
 * Its name, which is also the last part of its address.
 */
name: string, 
/**
 * Its size in bytes.
 */
bytes: number, 
/**
 * Its pages, 1 for a cut file.
 */
pages: number, 
/**
 * For a cut file, the first and the last of the sheets that are all cut alike.
 */
sheets: [number, number] | null, };

export type Finds = { "by": "eye" } & EyeRange | { "by": "crosshairs" } | { "by": "scan" } | { "by": "sheet-edge" } | { "by": "printed-itself" };

export type FlatView = { 
/**
 * Width and height of the blank, mm.
 */
size: [number, number], 
/**
 * The same as text.
 */
size_text: string, 
/**
 * The blank's area as text.
 */
area_text: string, 
/**
 * The blank's outline as SVG path data, mm.
 */
outline: string, 
/**
 * Creases and inner cuts.
 */
lines: Array<LineView>, panels: Array<PanelView>, dimensions: Array<Dimension>, figures: Array<Figure>, sizes: Sizes, 
/**
 * The three sizes as text: inside, crease to crease, outside.
 */
sizes_text: [string, string, string], 
/**
 * What it holds, as text.
 */
volume_text: string, };

export type Form = { "structure": "straight-tuck" } & StraightTuck;

export type Gauge = { 
/**
 * The value.
 */
value: number, 
/**
 * The bound.
 */
bound: number, 
/**
 * Which side of the bound is right.
 */
sense: Sense, };

export type Grain = "long" | "short" | "unknown";

export type InputError = { 
/**
 * The dotted path of the field, such as `form.length`.
 */
field: string, 
/**
 * What is wrong, with the number.
 */
message: string, 
/**
 * The number that is wrong (mm, degrees or a count), where there is one and it is finite.
 */
number: number | null, 
/**
 * The way out.
 */
remedy: Remedy, };

export type Job = { 
/**
 * Its name in lists.
 */
name: string, 
/**
 * The unit in which its lengths are shown.
 */
unit: Unit, 
/**
 * What is made.
 */
form: Form, 
/**
 * In which card.
 */
stock: RecordId, 
/**
 * What is printed on it; `None` for a job that is only cut.
 */
face: Face | null, 
/**
 * How copies go onto sheets.
 */
sheet: SheetPlan, };

export type JobChange = { 
/**
 * The version the change was made to.
 */
version: number, 
/**
 * The job as it should be.
 */
job: Job, };

export type JobStep = { 
/**
 * The version that is on the screen.
 */
version: number, };

export type JobSummary = { 
/**
 * Its number.
 */
id: number, 
/**
 * Its name.
 */
name: string, 
/**
 * How its worst limit stands; `None` when its figures cannot be used.
 */
state: State | null, 
/**
 * What is wrong, or that all fits.
 */
verdict: string, 
/**
 * The stock's name.
 */
stock: string, 
/**
 * The finished inside or blank, in words.
 */
size: string, 
/**
 * Copies wanted.
 */
copies: number, 
/**
 * Sheets needed; 0 when nothing fits.
 */
sheets: number, 
/**
 * A small drawing of its flat.
 */
drawing: SmallFlat | null, };

export type Layout = { 
/**
 * Full sheets first, then the one with the remainder.
 */
runs: Array<SheetRun>, 
/**
 * Copies that a full sheet holds.
 */
per_sheet: number, 
/**
 * Copies laid, over all sheets.
 */
laid: number, };

export type LengthEntry = { 
/**
 * Such as `2 7/16 in` or `8.5in - 2*0.25in`.
 */
text: string, 
/**
 * What a bare number is in.
 */
unit: Unit, 
/**
 * What it measures.
 */
measured: Measured, };

export type LineKind = "guide" | "crease" | "reverse-crease" | "score" | "kiss-cut" | "perforation" | "cut";

export type LineView = { kind: LineKind, 
/**
 * SVG path data, mm.
 */
path: string, };

export type Margins = { 
/**
 * At the edge that enters the machine first.
 */
lead: number, 
/**
 * At the edge that enters last.
 */
trail: number, 
/**
 * At the left edge, seen with the leading edge on top.
 */
left: number, 
/**
 * At the right edge.
 */
right: number, };

export type MarkSet = { 
/**
 * Its name in lists.
 */
name: string, 
/**
 * The shape of each mark.
 */
mark: MarkShape, 
/**
 * The mark that is read first.
 */
first: Corner, 
/**
 * What tells a turned sheet. With a missing mark there are three, otherwise four.
 */
tell: Tell, 
/**
 * Distance from the left and right edges, mm.
 */
across: number, 
/**
 * Distance from the top and bottom edges, mm.
 */
along: number, 
/**
 * From which edges.
 */
from: DistanceFrom, 
/**
 * Clear space the eye needs around each mark, mm.
 */
keep_clear: number, };

export type MarkShape = { "shape": "angle", 
/**
 * Length of each arm, measured outside.
 */
arm: number, 
/**
 * Width of the stroke.
 */
stroke: number, } | { "shape": "dot", 
/**
 * Diameter.
 */
diameter: number, } | { "shape": "cross", 
/**
 * From end to end.
 */
arm: number, 
/**
 * Width of the stroke.
 */
stroke: number, };

export type MarkShapeName = "angle" | "dot" | "cross";

export type Measured = "length" | "caliper";

export type Meta = { 
/**
 * The server's version.
 */
version: string, 
/**
 * The units, in the order in which they are offered.
 */
units: Array<UnitInfo>, 
/**
 * The sheet sizes everyone has a name for.
 */
sheet_sizes: Array<SheetSize>, 
/**
 * A job to start from, made from the workshop's first records.
 */
starting_job: Job, };

export type MisfitView = { placement: Placement, 
/**
 * What of it lies outside the cut window, as SVG path data.
 */
outside: string, };

export type NotesView = { 
/**
 * Left, top, width and height, mm.
 */
place: [number, number, number, number], 
/**
 * Length of the scale, mm.
 */
scale: number, 
/**
 * What it measures, as text.
 */
text: string, };

export type OpenJob = { 
/**
 * Its number.
 */
id: number, 
/**
 * What a change must name, so that a second window is noticed.
 */
version: number, job: Job, can_undo: boolean, can_redo: boolean, 
/**
 * As core prepares it, unless a figure or record cannot be used.
 */
preview: Preview | null, 
/**
 * Why it cannot be prepared.
 */
errors: Array<InputError>, };

export type Orientation = "portrait" | "landscape";

export type PanelRole = "face" | "flap" | "glue";

export type PanelView = { name: string, 
/**
 * Glue area, flap or face.
 */
role: PanelRole, 
/**
 * SVG path data, mm.
 */
path: string, 
/**
 * The middle of its bounds, mm.
 */
centre: [number, number], 
/**
 * Width and height of its bounds, mm.
 */
size: [number, number], };

export type Place = { 
/**
 * On which drawing.
 */
drawing: Drawing, 
/**
 * SVG path data in mm around or along the place.
 */
path: string, };

export type Placement = { 
/**
 * Movement to the right after turning, mm.
 */
x: number, 
/**
 * Movement down after turning, mm.
 */
y: number, 
/**
 * Quarter turns clockwise, 0 to 3.
 */
turn: number, };

export type Preview = { flat: FlatView, art: ArtView | null, sheet: SheetView, checks: Array<Check>, stages: Array<StageView>, 
/**
 * The code that names this content on its printed sheets.
 */
code: string, spacing_text: string, bleed_text: string, };

export type Printer = { 
/**
 * Its name in lists.
 */
name: string, 
/**
 * Widest sheet in mm, across the feed.
 */
width: number, 
/**
 * Longest sheet in mm, along the feed.
 */
length: number, 
/**
 * What it cannot print on at each side.
 */
margins: Margins, };

export type Problem = { 
/**
 * What kind of problem: a path that does not change, such as `/problems/input`.
 */
type: string, 
/**
 * The kind in words.
 */
title: string, 
/**
 * The HTTP status.
 */
status: number, 
/**
 * What is wrong this time, with the number and the remedy.
 */
detail: string, 
/**
 * The fields that are wrong, each with its number and remedy.
 */
errors: Array<InputError>, };

export type ReadLength = { 
/**
 * Millimetres.
 */
mm: number, 
/**
 * The length as a field shows it.
 */
text: string, };

export type RecordId = string;

export type Remedy = { 
/**
 * What to do, with the number.
 */
text: string, 
/**
 * What to set; empty where only the user can act.
 */
changes: Array<Change>, };

export type Sense = "at-most" | "at-least";

export type Setting = number | string | null;

export type SheetPlan = { 
/**
 * The stock sheet, upright.
 */
size: SheetSize, 
/**
 * Which way round it is drawn.
 */
orientation: Orientation, 
/**
 * The printer; without one the whole page counts as printable.
 */
printer: RecordId | null, 
/**
 * The cutter; `None` is a knife and a ruler.
 */
cutter: RecordId | null, 
/**
 * The marks by which the cutter finds a printed sheet.
 */
marks: RecordId | null, 
/**
 * Copies wanted, 1 to 10,000.
 */
copies: number, 
/**
 * Least distance between the cuts of neighbours, mm, 0 to 100.
 */
spacing: number, 
/**
 * How copies may be turned.
 */
turning: Turning, };

export type SheetRun = { 
/**
 * How many sheets.
 */
sheets: number, 
/**
 * The copies on each.
 */
placements: Array<Placement>, };

export type SheetSize = { 
/**
 * Its name, such as “A4”.
 */
name: string, 
/**
 * Width in mm.
 */
width: number, 
/**
 * Height in mm.
 */
height: number, };

export type SheetView = { 
/**
 * Width and height of the page, mm.
 */
page: [number, number], page_text: string, 
/**
 * SVG path data of the windows, mm.
 */
print_window: string, cut_window: string, taken: Array<TakenView>, 
/**
 * SVG path data of the marks and the sign beside the first.
 */
marks: string, layout: Layout, 
/**
 * Where a copy would lie, when not one fits.
 */
misfit: MisfitView | null, sheets: number, 
/**
 * One for each run of the layout.
 */
notes: Array<NotesView | null>, 
/**
 * Share of the sheets that becomes pieces, as text.
 */
yield_text: string, waste_text: string, };

export type Sizes = { 
/**
 * The room inside.
 */
inside: [number, number, number], 
/**
 * Between creases.
 */
crease: [number, number, number], 
/**
 * Over everything.
 */
outside: [number, number, number], };

export type SmallFlat = { 
/**
 * Width and height, mm.
 */
size: [number, number], 
/**
 * The blank.
 */
outline: string, 
/**
 * Its creases.
 */
creases: string, 
/**
 * The stock's colour.
 */
colour: string, };

export type Stage = "form" | "face" | "sheet" | "run";

export type StageView = { stage: Stage, 
/**
 * `None` when it has nothing to check.
 */
state: State | null, };

export type State = "fits" | "attention" | "broken";

export type Station = { 
/**
 * Its name on the machine.
 */
name: string, 
/**
 * What it can hold.
 */
tools: Array<Tool>, 
/**
 * How its blade gets its depth.
 */
depth: DepthSetting, };

export type Stock = { 
/**
 * Its name in lists.
 */
name: string, 
/**
 * Thickness in mm, 0.02 to 5.
 */
caliper: number, 
/**
 * Mass in g/m², 20 to 2000, where it is known.
 */
grammage: number | null, 
/**
 * How the fibres run.
 */
grain: Grain, 
/**
 * The face's colour as `#rrggbb`, for drawings.
 */
colour: string, 
/**
 * The sheets it is kept in, first choice first.
 */
sheets: Array<SheetSize>, };

export type StraightTuck = { 
/**
 * Which dimensions `length`, `width` and `height` are.
 */
basis: Basis, 
/**
 * Across the front.
 */
length: number, 
/**
 * From front to back.
 */
width: number, 
/**
 * Between the closures.
 */
height: number, 
/**
 * Depth of the tuck flaps.
 */
tuck: number | null, 
/**
 * Reach of the dust flaps.
 */
dust: number | null, 
/**
 * Width of the glue flap.
 */
glue: number | null, 
/**
 * Length of the slit locks at each end of the tuck's crease.
 */
slit: number | null, 
/**
 * Clearance of what tucks in, on each side.
 */
clearance: number | null, };

export type TakenBy = "printer-margin" | "cutter-reach" | "outside-marks" | "keep-clear" | "sign";

export type TakenView = { by: TakenBy, name: string, 
/**
 * SVG path data, mm.
 */
path: string, };

export type Tell = "missing-mark" | "odd-mark" | "sheet-code" | "numeral";

export type Tool = "drag-knife" | "creaser" | "pen";

export type Turning = "quarter" | "grain" | "upright";

export type Unit = "mm" | "cm" | "in";

export type UnitInfo = { 
/**
 * The unit.
 */
unit: Unit, 
/**
 * Millimetres in one.
 */
millimetres: number, 
/**
 * Millimetres by which an arrow key changes a field.
 */
step: number, 
/**
 * Parts into which a ruler divides one unit.
 */
divisions: number, 
/**
 * Decimals worth showing.
 */
decimals: number, };

export type Workshop = { 
/**
 * Card and paper.
 */
stocks: { [key in RecordId]: Stock }, 
/**
 * Printers.
 */
printers: { [key in RecordId]: Printer }, 
/**
 * Cutters.
 */
cutters: { [key in RecordId]: Cutter }, 
/**
 * Mark sets.
 */
mark_sets: { [key in RecordId]: MarkSet }, };
