// Generated from the Rust types by `make types`. Do not edit.

export type Act = { "act": "move", 
/**
 * To the right, mm.
 */
x: number, 
/**
 * Down, mm.
 */
y: number, 
/**
 * How near a line must be, mm.
 */
snap: number, } | { "act": "turn", 
/**
 * By how much.
 */
degrees: number, } | { "act": "align", 
/**
 * Which.
 */
to: AlignTo, } | { "act": "distribute", 
/**
 * Along which direction.
 */
along: Direction, } | { "act": "grid", 
/**
 * Columns, themselves included.
 */
columns: number, 
/**
 * Rows, themselves included.
 */
rows: number, 
/**
 * Gap between columns, mm.
 */
across: number, 
/**
 * Gap between rows, mm.
 */
down: number, } | { "act": "lock" } | { "act": "unlock" } | { "act": "remove" } | { "act": "add", 
/**
 * The piece.
 */
piece: PieceId, 
/**
 * Which of its blanks.
 */
part: PartId, };

export type AddOn = { 
/**
 * What it is.
 */
kind: AddOnKind, 
/**
 * The panel, by its name.
 */
panel: string, 
/**
 * From the panel's middle to the right in the flat, mm.
 */
across: number, 
/**
 * From the panel's middle down in the flat, mm.
 */
along: number, 
/**
 * Its width in the flat, mm.
 */
width: number, 
/**
 * Its height in the flat, mm; of a tear strip, between the perforations; of words, that of their capitals.
 */
height: number, 
/**
 * Length of a tear strip's cuts, mm.
 */
cut?: number | null, 
/**
 * Length of a tear strip's ties, mm.
 */
tie?: number | null, 
/**
 * What is cut out, of words and drawings.
 */
own?: OwnShape | null, };

export type AddOnInfo = { kind: AddOnKind, 
/**
 * The trade's name.
 */
name: string, 
/**
 * Width and height it starts with, mm.
 */
size: [number, number], 
/**
 * Whether it has a width, and a height.
 */
measures: [boolean, boolean], };

export type AddOnKind = "window-rectangle" | "window-round" | "window-oval" | "window-arch" | "window-heart" | "hang-hole" | "thumb-notch" | "hand-hole" | "slit-lock" | "tear-strip" | "slot" | "tongue" | "words" | "drawing";

export type AddedLine = { "figure": "line", 
/**
 * Where it begins.
 */
from: [number, number], 
/**
 * Where it ends.
 */
to: [number, number], } | { "figure": "rectangle", 
/**
 * Where it lies.
 */
at: [number, number], 
/**
 * Width and height.
 */
size: [number, number], } | { "figure": "ellipse", 
/**
 * Where it lies.
 */
at: [number, number], 
/**
 * Width and height.
 */
size: [number, number], } | { "figure": "arc", 
/**
 * Where it lies.
 */
at: [number, number], 
/**
 * How large the arc is.
 */
radius: number, 
/**
 * Where it begins, degrees.
 */
from: number, 
/**
 * How far it goes, degrees.
 */
through: number, };

export type Align = "left" | "centre" | "right";

export type AlignTo = "left" | "middle" | "right" | "top" | "centre" | "bottom";

export type AllowedBy = "machine" | "aptum";

export type Amount = "wanted" | "fill-sheets";

export type ApartAsk = { job: Job, piece: PieceId, };

export type Arrange = { 
/**
 * Which run of sheets that are alike.
 */
run: number, 
/**
 * The chosen copies, by their place in it.
 */
chosen: Array<number>, 
/**
 * What is done.
 */
what: Act, };

export type ArrangeAsk = { job: Job, arrange: Arrange, };

export type Arranged = { 
/**
 * The layout, to be kept.
 */
kept: Kept, 
/**
 * The copies that are chosen now.
 */
chosen: Array<number>, 
/**
 * Where the chosen copies are drawn to: lines from one point to another, mm.
 */
guides: Array<[[number, number], [number, number]]>, 
/**
 * How near the chosen copies come to the nearest thing.
 */
clearance: Clearance | null, };

export type ArtView = { 
/**
 * Its layers, the first undermost.
 */
layers: Array<InkedView>, 
/**
 * How many layers differ from row to row.
 */
levels: number, 
/**
 * SVG path data of what is printed up to cuts and past them.
 */
to_edge: string, };

export type AtHand = { form: Form, stock: RecordId, unit: Unit, };

export type Axis = "across" | "along" | "both";

export type BackView = { 
/**
 * The piece laid flat, seen from behind.
 */
flat: FlatView, 
/**
 * What is printed on each of its blanks, as it is seen from behind.
 */
arts: Array<ArtView>, };

export type Backing = { 
/**
 * Its card.
 */
stock: RecordId, 
/**
 * How far it stands out beyond the piece, mm; 0 to 50.
 */
border: number, };

export type Bad = "print" | "place" | "not-through" | "too-deep" | "torn" | "fold";

export type BadView = { cause: Bad, name: string, count: number, };

export type Basis = "inside" | "outside" | "crease";

export type Beyond = { "by": "nothing" } | { "by": "mirrored" } | { "by": "repeated" } | { "by": "colour", "colour": string };

export type BinnedJob = { 
/**
 * Its number.
 */
id: number, 
/**
 * Its name, or why it cannot be read.
 */
name: string, };

export type BlobId = string;

export type BlobView = { 
/**
 * What a job names it by.
 */
id: BlobId, 
/**
 * Its media type, by its bytes.
 */
media: string, 
/**
 * Width and height in pixels, the right way up.
 */
pixels: [number, number], 
/**
 * True for a drawing of lines and areas: of its pixels only the ratio counts.
 */
drawn: boolean, };

export type Border = { 
/**
 * Outwards, mm; below 0 inwards. -20 to 50.
 */
distance: number, 
/**
 * How it goes around corners.
 */
join: Join, 
/**
 * What becomes of holes.
 */
holes: HoleRule, 
/**
 * What becomes of some of them all the same; up to 100.
 */
each?: Array<HoleSay>, 
/**
 * The least radius of inner corners, mm, 0 to 20; 0 leaves them.
 */
inner: number, };

export type BroughtDrawing = { 
/**
 * The form that it is, its lines as they may be meant.
 */
drawing: LineDrawing, 
/**
 * A job of it alone.
 */
job: Job, 
/**
 * Width and height of what is seen of it, mm, where the file says how long its units are.
 */
size: [number, number] | null, };

export type CardView = { stock: RecordId, sheets: number, cost_text: string | null, };

export type Carrier = { 
/**
 * Its name in lists.
 */
name: string, 
/**
 * Width over everything, mm.
 */
width: number, 
/**
 * Length over everything, mm.
 */
length: number, 
/**
 * What does not hold on each side: the border by which rollers grip it, mm.
 */
border: Margins, 
/**
 * Where it stands in lists.
 */
keeping: Keeping, };

export type CatalogueEntry = { id: string, name: string, family: Family, 
/**
 * The family's name.
 */
family_name: string, about: string, uses: Array<string>, 
/**
 * Ordinary sizes.
 */
presets: Array<PresetView>, 
/**
 * The form that choosing it gives: at the size at hand, or an ordinary one where that cannot be
 * made.
 */
form: Form, 
/**
 * Its sizes as text.
 */
size_text: string, 
/**
 * True when it is shown at the size at hand.
 */
is_at_hand: boolean, flat: SmallFlat, folded: FoldedDrawing, };

export type Cause = "nothing" | "shift" | "turn" | "scale" | "both";

export type Change = { 
/**
 * Such as `pieces.p1.form.length` or `sheet.orientation`.
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

export type ChosenStructure = { 
/**
 * The structure, by its id.
 */
structure: string, 
/**
 * Which dimensions its sizes are.
 */
basis: Basis, 
/**
 * Openings, notches and strips on its panels.
 */
add_ons?: Array<AddOn>, 
/**
 * The words on its labels, in order; a label without any has its number.
 */
labels?: Array<string>, 
/**
 * Where it is cut apart into two parts.
 */
split?: Split | null, };

export type Clearance = { 
/**
 * The distance, mm; negative where they overlap or it lies outside.
 */
value: number, 
/**
 * The distance and to what, in words.
 */
text: string, 
/**
 * Between which points, mm.
 */
from: [number, number], 
/**
 * The other point.
 */
to: [number, number], 
/**
 * False when it is less than the plan asks for.
 */
is_enough: boolean, };

export type CloseAsk = { job: Job, piece: PieceId, turning: Turning, };

export type CopyView = { 
/**
 * Where it lies, as a card tells it.
 */
place: MemberPlace, 
/**
 * Which of the card's places that is; none for a copy in the rows.
 */
number: number | null, 
/**
 * Its outline there.
 */
outline: string, 
/**
 * Left, top, width and height of its bounds there, mm.
 */
bounds: [number, number, number, number], };

export type Corner = "top-left" | "top-right" | "bottom-right" | "bottom-left";

export type Correction = { 
/**
 * From where a line is meant on the page to what is sent: the coefficients of an affine map.
 */
sent: [number, number, number, number, number, number], 
/**
 * The day, such as `2026-10-12`.
 */
day: string, };

export type CorrectionAsk = { unit: Unit, near: MeasuredPlace, far: MeasuredPlace, };

export type CorrectionView = { cause: Cause, words: string, correction: Correction, };

export type Counted = { 
/**
 * Good ones.
 */
good: number, 
/**
 * Bad ones, by cause.
 */
bad: { [key in Bad]?: number }, };

export type CountedPiece = { id: PieceId, name: string, good: number, bad: Array<BadView>, 
/**
 * How it stands: how many are wanted and missing, how many sheets to print again, packs.
 */
words: string, is_enough: boolean, };

export type Coverage = "faces" | "flaps";

export type CreaseView = { 
/**
 * The panel, and the one on which it hangs.
 */
name: string, on: string, 
/**
 * Its middle, in units of the file: what it is told apart by.
 */
at: [number, number], 
/**
 * Its ends in the drawing, mm.
 */
ends: [[number, number], [number, number]], 
/**
 * How far it folds, degrees; above 0 away from the printed side.
 */
degrees: number, 
/**
 * Which of the folds that are told says so.
 */
told_by: number | null, };

export type CutOutView = { 
/**
 * Which of the add-ons it is.
 */
add_on: number, 
/**
 * Its middle, mm.
 */
at: [number, number], 
/**
 * Width and height, mm.
 */
size: [number, number], 
/**
 * The same as text.
 */
size_text: string, 
/**
 * What falls out with it, and how many bridges hold what would.
 */
holding_text: string, 
/**
 * The edges of what falls out, SVG path data, mm.
 */
islands: string, };

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
 * Card it needs in front of the first marks, so that it can feed the sheet to them, mm.
 */
lead: number, 
/**
 * Card it needs behind the last marks, so that it can still hold the sheet, mm.
 */
tail: number, 
/**
 * Thickest card in mm.
 */
thickest: number, 
/**
 * Greatest force in its own unit, where it is known.
 */
force: number | null, 
/**
 * What it counts force in.
 */
force_unit: ForceUnit, 
/**
 * True where its bed bears a cut that goes through: no carrier is needed for that.
 */
bears_cuts: boolean, 
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
start: Corner, 
/**
 * How its knife trails, and who allows for that.
 */
knife: Knife, 
/**
 * How fast it moves, where that is known.
 */
pace?: Pace | null, 
/**
 * The language that it takes, where it takes HP-GL.
 */
dialect?: Dialect | null, 
/**
 * How it takes G-code, where it does.
 */
gcode?: Gcode | null, 
/**
 * Where it is reached over TCP, such as `192.168.1.20:9100`; empty where files are carried to it.
 */
address: string, 
/**
 * What is sent instead of what is meant, since it was measured to cut a little off.
 */
correction?: Correction | null, 
/**
 * Where it stands in lists.
 */
keeping: Keeping, };

export type Cutting = { "of": "words", 
/**
 * A line for each line; up to 200 characters.
 */
words: string, 
/**
 * A typeface of the shelf, by its id.
 */
typeface: string, 
/**
 * What is added between letters, in ems; -0.2 to 2.
 */
letter_spacing: number, } | { "of": "drawing", 
/**
 * Its lines, as they were read.
 */
lines: BlobId, 
/**
 * What is known of where it comes from.
 */
origin: Origin, };

export type Day = "true" | "usual" | "bad" | "fit-to-page" | "other-paper" | "clipped" | "wrong-way";

export type DayInfo = { day: Day, 
/**
 * In words.
 */
name: string, };

export type DepthSetting = "fixed" | "stepped" | "cap" | "itself";

export type Dialect = { 
/**
 * Units in a millimetre; HP-GL has 40.
 */
units: number, 
/**
 * The corner of the sheet from which it counts.
 */
origin: Corner, 
/**
 * True where x runs along the sheet's feed.
 */
swapped: boolean, 
/**
 * What chooses a station, `{}` its number from 1; HP-GL has `SP{};`.
 */
station: string, 
/**
 * What sets the force, `{}` the number in the cutter's unit; empty where it is set on the machine.
 */
force: string, 
/**
 * What sets the speed, `{}` cm/s; HP-GL has `VS{};`. Empty where it is set on the machine.
 */
speed: string, 
/**
 * What sets the blade's depth, `{}` its step; empty where that is set by hand.
 */
depth: string, 
/**
 * What tells how often it goes along each line, `{}` the passes; empty where lines are sent again for each pass.
 */
passes: string, 
/**
 * True where it takes the commands by which the cutters that ship with Aptum are told of marks and of the code.
 */
marks: boolean, };

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
field: string | null, 
/**
 * True where it is drawn only while its field is in hand.
 */
is_quiet: boolean, };

export type Direction = "across" | "down";

export type DistanceFrom = "paper-edge" | "printable-edge";

export type Doing = "set" | "add" | "remove" | "move";

export type Doubles = "once" | "passes";

export type Draft = { 
/**
 * What it starts from.
 */
job: Job, 
/**
 * What is changed in it, one after the other; up to 1000.
 */
changes: Array<FieldChange>, 
/**
 * Views that the page has already.
 */
known: Known, };

export type Drawing = "flat" | "sheet";

export type DrawingPart = { 
/**
 * Its outline as SVG path data, in the drawing's own units.
 */
path: string, 
/**
 * Its colour as `#rrggbb`; none where it runs from one to another, or is a picture.
 */
colour: string | null, 
/**
 * True for a picture within the drawing.
 */
is_picture: boolean, };

export type DrawingParts = { 
/**
 * Its width and height in its own units.
 */
sides: [number, number], 
/**
 * How many parts it has.
 */
count: number, 
/**
 * Its parts, the first drawn first; up to 2000 of them.
 */
parts: Array<DrawingPart>, };

export type DrawingView = { 
/**
 * Where the file's origin lies in the drawing, mm, and how long a unit of it is.
 */
at: [number, number], unit: number, 
/**
 * True where somebody, or the file, has said how long a unit is.
 */
is_scaled: boolean, 
/**
 * The ways in which its units may be read, with the size that results.
 */
scales: Array<ScaleView>, 
/**
 * Its lines, by layer, colour and look.
 */
rows: Array<RowView>, 
/**
 * Where the card bends of itself, as a path on the drawing of the whole.
 */
bends: string, 
/**
 * What lines may be, in the order in which that is offered.
 */
meanings: Array<MeaningView>, 
/**
 * How many lines lie on others.
 */
doubles: number, 
/**
 * What was put in order.
 */
order: Array<TidyView>, 
/**
 * What each step of mending came to.
 */
mended: Array<MendView>, 
/**
 * Ends of what is cut that are joined to nothing.
 */
loose: Array<[number, number]>, 
/**
 * The creases at which its panels hang; none where nothing folds.
 */
creases: Array<CreaseView>, 
/**
 * The panels themselves.
 */
panels: Array<DrawnPanelView>, 
/**
 * Words that are letters, and pictures, which are no lines.
 */
words: number, pictures: number, };

export type DrawnAs = "sheet" | "frame" | "taken" | "ink" | "sign" | "window";

export type DrawnPanelView = { name: string, 
/**
 * A place on it, in units of the file: what it is told apart by.
 */
at: [number, number], 
/**
 * Which of the names that are told is its.
 */
told_by: number | null, };

export type DrawnPart = { 
/**
 * What it is.
 */
what: DrawnAs, 
/**
 * What takes the room, for an area that something takes.
 */
by: TakenBy | null, 
/**
 * Its name, for the pointer.
 */
name: string, 
/**
 * SVG path data, mm.
 */
path: string, };

export type Eye = { 
/**
 * Its diameter, mm, 1 to 50.
 */
diameter: number, 
/**
 * Card between it and the edge, mm, 1 to 50.
 */
edge: number, 
/**
 * From the middle to the right, mm.
 */
x: number, 
/**
 * True for a tab of its own above the outline.
 */
tab: boolean, };

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
 * How far what reaches a cut goes past it, mm, 0 to 10.
 */
bleed: number, 
/**
 * True where its pieces are printed behind as well, on the sheets’ backs.
 */
both_sides?: boolean, 
/**
 * The white beneath what is printed in colour.
 */
white: UnderWhite, 
/**
 * Its layers, the first printed first; up to 40.
 */
layers: Array<Layer>, };

export type FaceView = { 
/**
 * True when something is printed on it.
 */
is_printed: boolean, 
/**
 * The layers of its face, the first printed first.
 */
layers: Array<LayerView>, bleed_text: string, 
/**
 * What is printed on each of its blanks; none where nothing is.
 */
arts: Array<ArtView>, 
/**
 * Its back, where it is printed there too.
 */
back: BackView | null, };

export type Family = "cartons" | "trays-and-lids" | "sleeves-and-wraps" | "solids" | "packets-and-stands" | "tags" | "labels" | "bookmarks" | "tabs";

export type Field = "whole-reach" | "within-marks";

export type FieldChange = { 
/**
 * Its dotted path.
 */
field: string, 
/**
 * What is done to it.
 */
doing?: Doing | null, 
/**
 * With what.
 */
value?: unknown, };

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
 * How it is entered.
 */
kind: FigureKind, 
/**
 * The value in force: mm, degrees or a count.
 */
value: number, 
/**
 * The value as text, a length in the job's unit.
 */
text: string, 
/**
 * What it stands at by itself.
 */
standard: number, 
/**
 * True when the user has set it, false while it follows the default.
 */
own: boolean, 
/**
 * Least and greatest value.
 */
range: [number, number], 
/**
 * The range, and what it stands at by itself, as text.
 */
range_text: string, };

export type FigureKind = "size" | "length" | "angle" | "count";

export type FileInfo = { 
/**
 * Its name.
 */
name: string, 
/**
 * Its address below `/api/jobs/<id>/`.
 */
path: string, 
/**
 * What it is, in words.
 */
title: string, 
/**
 * What is in it.
 */
note: string, 
/**
 * The piece it is of, in a job of several.
 */
piece: string | null, 
/**
 * Its pages, 1 for a cut file.
 */
pages: number, 
/**
 * How many pages, in words, and how large where they are no sheets; empty for what has none.
 */
pages_text: string, 
/**
 * What it is for, as it is listed under.
 */
purpose: string, 
/**
 * For a file of a sheet, the first and the last of the sheets that are all alike.
 */
sheets: [number, number] | null, };

export type Finds = { "by": "eye" } & EyeRange | { "by": "crosshairs" } | { "by": "scan" } | { "by": "sheet-edge" } | { "by": "printed-itself" };

export type Finish = { "in": "white" } | { "in": "colour" } | { "in": "varnish" } | { "in": "raised", 
/**
 * 1 to 20.
 */
passes: number, };

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
 * The blanks' outlines as SVG path data, mm.
 */
outline: string, 
/**
 * What is done along the outline: cut through, or cut through the face only.
 */
edge: LineKind, 
/**
 * True where its stock has a liner, so that it may be cut either way.
 */
has_liner: boolean, 
/**
 * What is cut out of them.
 */
openings: string, 
/**
 * The blanks, each where it lies in this drawing.
 */
parts: Array<PartView>, 
/**
 * Numbers at mating edges: where, mm, and the number.
 */
mates: Array<MateView>, 
/**
 * The words on its labels, and where they stand.
 */
labels: Array<LabelView>, 
/**
 * Creases and inner cuts.
 */
lines: Array<LinesView>, panels: Array<PanelView>, 
/**
 * The same as layers lie on them.
 */
whole_panels: Array<WholePanelView>, 
/**
 * The panel that is mostly meant, by the name that is shown; none where none is seen.
 */
meant: string | null, dimensions: Array<Dimension>, figures: Array<Figure>, sizes: Sizes, 
/**
 * The three sizes as text: inside, crease to crease, outside; none where they are the same.
 */
sizes_text: [string, string, string] | null, 
/**
 * True where its sizes may be set in each of the three ways.
 */
has_basis: boolean, 
/**
 * What it holds, as text.
 */
volume_text: string | null, 
/**
 * The structure's name.
 */
structure: string, 
/**
 * The outline of a picture, where it is one.
 */
traced: TracedView | null, 
/**
 * What lies on it, where it is a card that holds other pieces.
 */
gathered: GatheredView | null, 
/**
 * The lines of a drawing from elsewhere, and what they are.
 */
drawing: DrawingView | null, 
/**
 * Words and drawings that are cut out of its panels.
 */
cut_outs: Array<CutOutView>, };

export type FoldAsk = { form: Form, stock: RecordId, };

export type FoldMoment = { form: Form, stock: RecordId, 
/**
 * 0 is flat; each step adds 1.
 */
progress: number, };

export type FoldSay = { 
/**
 * A place on it, in units of the file.
 */
at: [number, number], 
/**
 * From flat to closed, degrees, above 0 away from the printed side; -180 to 180.
 */
degrees: number, };

export type FoldView = { plates: Array<PlateView>, 
/**
 * Where each blank's root lies in the flat.
 */
laid: Array<[number, number, number, number, number, number, number]>, steps: Array<StepView>, stand: StandView, caliper: number, };

export type FoldedDrawing = { 
/**
 * Left, top, width and height, mm.
 */
bounds: [number, number, number, number], 
/**
 * The faces, the farthest first.
 */
faces: Array<FoldedFace>, };

export type FoldedFace = { 
/**
 * SVG path data of the face, in mm.
 */
face: string, 
/**
 * SVG path data of those of its sides that are drawn.
 */
sides: string, 
/**
 * How much light falls on it, 0 to 1.
 */
light: number, 
/**
 * True where the unprinted side is seen.
 */
is_inside: boolean, 
/**
 * The panel's name.
 */
panel: string, };

export type FontView = { 
/**
 * What a job names it by.
 */
id: BlobId, 
/**
 * The name of its family, as it says itself.
 */
name: string, };

export type Force = { 
/**
 * How many.
 */
amount: number, 
/**
 * Of what.
 */
unit: ForceUnit, };

export type ForceUnit = "newtons" | "grams" | "steps";

export type Form = { 
/**
 * True to cut through the liner too, on stock that has one: its cuts are kiss cuts there otherwise.
 */
through?: boolean, 
/**
 * A layer behind it.
 */
backing?: Backing | null, } & (ChosenStructure | { 
/**
 * How it is found.
 */
traced: Traced, } | { 
/**
 * What they are, and what they mean.
 */
drawing: LineDrawing, } | { 
/**
 * What it holds, and how they lie on it.
 */
gathered: Gathered, });

export type FoundView = { 
/**
 * From which share on a pixel is inside.
 */
threshold: number, 
/**
 * The threshold that is found by itself.
 */
proposed: number, 
/**
 * How many pixels there are at each of 64 values, as shares of the most.
 */
histogram: Array<number>, 
/**
 * Separate motifs.
 */
motifs: number, 
/**
 * Holes in them.
 */
holes: number, 
/**
 * Spots and holes that were too small.
 */
left_out: number, 
/**
 * How far the line strays from the picture's edge.
 */
strays_text: string, 
/**
 * The least radius of its bends.
 */
radius_text: string, 
/**
 * How long it is.
 */
length_text: string, corners: number, };

export type FreeAsk = { form: Form, stock: RecordId, 
/**
 * What is printed on it.
 */
face: Face | null, 
/**
 * What its lines are called.
 */
name: string, };

export type FreedView = { drawing: LineDrawing, 
/**
 * What is printed on it, where it lay.
 */
face: Face | null, };

export type FreezeAsk = { version: number, };

export type Gathered = { 
/**
 * What it holds: 1 to 11 pieces, up to 500 copies in all.
 */
members: Array<Member>, 
/**
 * Card between them, mm, 0 to 50.
 */
gap: number, 
/**
 * How wide the card is, mm, 10 to 2000; `None` takes what its members need.
 */
width: number | null, 
/**
 * How high the card is, mm, 10 to 2000; `None` takes what its members need.
 */
height: number | null, 
/**
 * The card around them.
 */
card: StickerCard, 
/**
 * Where copies lie that are laid by hand or close together; all others lie in rows below these.
 */
places?: Array<MemberPlace>, };

export type GatheredView = { 
/**
 * The pieces that it holds, in their order.
 */
members: Array<MemberView>, 
/**
 * Where copies lie, in the card's coordinates.
 */
copies: Array<CopyView>, };

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

export type Gcode = { 
/**
 * How high the tool travels above the card, mm; 0.5 to 50.
 */
travel: number, 
/**
 * How deep it goes where no depth is told, mm below the card's face; 0 to 20.
 */
depth: number, };

export type Grain = "long" | "short" | "unknown";

export type Grid = { "by": "pitch", "value": [number, number] } | { "by": "count", "value": [number, number] };

export type Hair = { at: [number, number], off: [number, number], state: State, };

export type HoleRule = "followed" | "kept" | "closed";

export type HoleSay = { 
/**
 * A place in it, as shares of the picture's sides from its top left.
 */
at: [number, number], 
/**
 * What becomes of it.
 */
rule: HoleRule, };

export type InkedView = { layer: LayerId, 
/**
 * How much of it covers what is below, 0 to 1.
 */
opacity: number, 
/**
 * False where it is only shown.
 */
is_printed: boolean, 
/**
 * What it is printed in.
 */
separation: Separation, 
/**
 * How many of the layers that differ from row to row lie below it.
 */
level: number, 
/**
 * True where other copies have something else.
 */
is_by_row: boolean, } & ({ "kind": "area", 
/**
 * SVG path data, bleed included.
 */
path: string, colour: string, 
/**
 * What the colour runs into.
 */
running: RunningView | null, 
/**
 * SVG path data of what of it is printed, where that is not all.
 */
clip: string | null, } | { "kind": "picture", blob: BlobId, 
/**
 * From its unit square, `y` down, to where it lies, as an SVG matrix.
 */
place: [number, number, number, number, number, number], 
/**
 * SVG path data of what of it is printed.
 */
clip: string, });

export type InputError = { 
/**
 * The dotted path of the field, such as `pieces.p1.form.length`.
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
 * What is made, 1 to 12 pieces that share the sheets, such as a carton and the tag that goes with it.
 */
pieces: Array<JobPiece>, 
/**
 * How copies go onto sheets.
 */
sheet: SheetPlan, 
/**
 * How its lines are worked.
 */
tooling?: Tooling, };

export type JobChange = { 
/**
 * The version the change was made to.
 */
version: number, 
/**
 * The job as it should be; without it, that version's.
 */
job?: Job | null, 
/**
 * What is changed in it, one after the other; up to 1000.
 */
changes: Array<FieldChange>, 
/**
 * Views that the page has already.
 */
known: Known, };

export type JobNamed = { 
/**
 * Which it is.
 */
id: number, 
/**
 * What it was called.
 */
name: string, };

export type JobPiece = { 
/**
 * What it is known by.
 */
id: PieceId, 
/**
 * Its name in lists; `None` goes by what it is.
 */
name: string | null, 
/**
 * What is made.
 */
form: Form, 
/**
 * In which card.
 */
stock: RecordId, 
/**
 * What is printed on it; `None` leaves it bare.
 */
face: Face | null, 
/**
 * The list whose rows its copies wear, the first copy the first row.
 */
list?: List | null, 
/**
 * Copies wanted, 1 to 10,000.
 */
copies: number, 
/**
 * Copies made beside them because some go wrong, 0 to 10,000.
 */
spares?: number, 
/**
 * How many good ones go into a pack, up to 10,000; 0 where they are not packed.
 */
pack?: number, };

export type JobStep = { 
/**
 * The version that is on the screen.
 */
version: number, 
/**
 * Views that the page has already.
 */
known: Known, };

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
 * The structure's name.
 */
structure: string, 
/**
 * The finished sizes, in words.
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
drawing: SmallFlat | null, 
/**
 * What it wears.
 */
art: TicketArt | null, 
/**
 * The address of a picture of it closed, where it folds.
 */
folded: string | null, 
/**
 * False while it is worked out anew: it shows what was known before.
 */
is_current: boolean, };

export type Join = "round" | "mitred" | "bevelled";

export type Keeping = "at-hand" | "kept" | "retired";

export type Kept = { 
/**
 * How it came about.
 */
made: Made, 
/**
 * The blanks that its placements number, and the outlines that it was made for.
 */
blanks: Array<LaidBlank>, 
/**
 * The sheets.
 */
runs: Array<SheetRun>, };

export type KeptKey = { 
/**
 * Its own name, or the job's.
 */
name: string, key: LineKey, };

export type KeyAsk = { drawing: LineDrawing, key: LineKey, };

export type Knife = { 
/**
 * How far the tip lies behind the axis, mm; 0 to 2.
 */
offset: number, 
/**
 * How far a closed cut goes past where it began, mm; 0 to 10.
 */
overcut: number, 
/**
 * Who allows for both.
 */
allowed_by: AllowedBy, };

export type Known = Array<string>;

export type LabelView = { text: string, 
/**
 * Its middle, mm.
 */
at: [number, number], 
/**
 * The room it has, across and along, mm.
 */
size: [number, number], };

export type LaidBlank = { 
/**
 * The piece.
 */
piece: PieceId, 
/**
 * Which of its blanks.
 */
part: PartId, 
/**
 * What was laid; `None` in a layout of an earlier version, which did not say.
 */
outline: OutlineId | null, };

export type Laminate = { 
/**
 * Its thickness, mm, 0.005 to 1.
 */
thickness: number, 
/**
 * True when a cutter’s eye reads marks through it.
 */
clear_to_eye: boolean, };

export type LastView = { 
/**
 * When, such as `2026-10-12 14:03`.
 */
made_at: string, 
/**
 * What came of it, in words.
 */
words: string, 
/**
 * With which settings.
 */
settings: string, is_good: boolean, force: Force | null, speed: number | null, passes: number, depth: number | null, 
/**
 * True where the operation has just these settings.
 */
is_same: boolean, };

export type LayRow = { label: string, 
/**
 * As the cutter solved it, a dash where it did not, and as it was.
 */
text: string, };

export type Layer = { 
/**
 * What it is known by.
 */
id: LayerId, 
/**
 * Its name in the list; `None` goes by what it is.
 */
name: string | null, 
/**
 * What the layers that it is held together with share; `None` stands alone.
 */
group?: string | null, 
/**
 * Which side it is printed on.
 */
side?: Side, 
/**
 * What it is printed in.
 */
finish?: Finish, 
/**
 * True where it is left out, of the print and of what is seen.
 */
hidden?: boolean, 
/**
 * True where it stays as it is.
 */
locked?: boolean, 
/**
 * True where it is only shown and not printed.
 */
only_shown?: boolean, 
/**
 * How much of it covers what is below, 0 to 1.
 */
opacity?: number, } & ({ "kind": "colour", 
/**
 * As `#rrggbb`.
 */
colour: string, 
/**
 * The panels it covers.
 */
coverage: Coverage, } | { "kind": "panel-names" } | { "kind": "picture" } & PlacedPicture | { "kind": "text" } & Text | { "kind": "shape" } & Shape | { "kind": "pattern" } & Pattern);

export type LayerId = string;

export type LayerView = { id: LayerId, 
/**
 * What it goes by.
 */
title: string, 
/**
 * True where it differs from row to row of the piece's list.
 */
is_by_row: boolean, 
/**
 * How it lies, where it has a place of its own on panels that are there.
 */
place: PlaceView | null, 
/**
 * What a layer of its kind has to tell, such as `2400 × 1600 pixels, 312 ppi`.
 */
told: string | null, };

export type Layout = { 
/**
 * The blanks that its placements number: all of the job's, once the job is laid.
 */
blanks: Array<LaidBlank>, 
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

export type LiesInTray = "face-up" | "face-down";

export type LineDrawing = { 
/**
 * Its lines, as they were read.
 */
lines: BlobId, 
/**
 * What is known of where it comes from.
 */
origin: Origin, 
/**
 * How long a unit of it is; `None` until somebody says so where the file does not.
 */
scale: Scale | null, 
/**
 * What its lines are.
 */
key: LineKey, 
/**
 * Ends that are no farther apart are joined, mm; 0 to 5.
 */
join: number, 
/**
 * What is shorter is left out, mm; 0 to 20.
 */
crumb: number, 
/**
 * True where runs of short sides on one circle are arcs.
 */
arcs: boolean, 
/**
 * What its line key goes by among others; `None` goes by the job.
 */
key_name?: string | null, 
/**
 * What lines that lie on each other are; `None` until somebody says so.
 */
doubles: Doubles | null, 
/**
 * A place on the panel that stays where it is while the others fold, in units of the file; `None` takes the largest.
 */
root: [number, number] | null, 
/**
 * How far creases fold that do not fold by 90°; up to 400.
 */
folds?: Array<FoldSay>, 
/**
 * What panels are called that are not called by their numbers; up to 400.
 */
names?: Array<PanelName>, 
/**
 * What folds when, where that is not found by itself; up to 60 steps.
 */
steps?: Array<StepSay>, 
/**
 * What was mended by hand, in order; up to 1,000 steps.
 */
mends?: Array<LineMend>, };

export type LineInfo = { kind: LineKind, 
/**
 * What it is called in running text.
 */
name: string, };

export type LineKey = { [key in string]: Meaning };

export type LineKind = "guide" | "crease" | "reverse-crease" | "score" | "kiss-cut" | "perforation" | "cut";

export type LineMend = { "step": "meaning", 
/**
 * Which.
 */
lines: Array<number>, 
/**
 * What they are.
 */
meaning: Meaning, } | { "step": "delete", 
/**
 * Which.
 */
lines: Array<number>, } | { "step": "move", 
/**
 * Which.
 */
line: number, 
/**
 * Its node.
 */
node: number, 
/**
 * Where it goes.
 */
to: [number, number], } | { "step": "bend", 
/**
 * Which.
 */
line: number, 
/**
 * Its node.
 */
node: number, 
/**
 * True for the one with which the curve leaves it.
 */
leaves: boolean, 
/**
 * Where it goes.
 */
to: [number, number], } | { "step": "add-node", 
/**
 * Which.
 */
line: number, 
/**
 * Its segment.
 */
segment: number, 
/**
 * How far along it, 0 to 1.
 */
share: number, } | { "step": "drop-node", 
/**
 * Which.
 */
line: number, 
/**
 * Its node.
 */
node: number, } | { "step": "corner", 
/**
 * Which.
 */
line: number, 
/**
 * Its node.
 */
node: number, } | { "step": "smooth", 
/**
 * Which.
 */
line: number, 
/**
 * Its node.
 */
node: number, } | { "step": "split", 
/**
 * Which.
 */
line: number, 
/**
 * Its node.
 */
node: number, } | { "step": "join", 
/**
 * Which.
 */
line: number, 
/**
 * The other line; none closes it.
 */
with: number | null, } | { "step": "straighten", 
/**
 * Which.
 */
line: number, 
/**
 * Its segment.
 */
segment: number, } | { "step": "round", 
/**
 * Which.
 */
line: number, 
/**
 * Its node.
 */
node: number, 
/**
 * How large the arc is.
 */
radius: number, } | { "step": "trim", 
/**
 * Which.
 */
line: number, 
/**
 * A place on the part that goes.
 */
at: [number, number], 
/**
 * The line at which it ends.
 */
to: number, } | { "step": "simplify", 
/**
 * Which.
 */
lines: Array<number>, 
/**
 * How far they may stray.
 */
within: number, } | { "step": "outline", 
/**
 * Which.
 */
lines: Array<number>, 
/**
 * How wide the stroke is.
 */
width: number, } | { "step": "unite", 
/**
 * Which.
 */
lines: Array<number>, 
/**
 * The others.
 */
with: Array<number>, } | { "step": "subtract", 
/**
 * What is kept.
 */
lines: Array<number>, 
/**
 * What is taken away from it.
 */
with: Array<number>, } | { "step": "intersect", 
/**
 * Which.
 */
lines: Array<number>, 
/**
 * The others.
 */
with: Array<number>, } | { "step": "silhouette", 
/**
 * The row, as a line key knows it.
 */
row: string, } | { "step": "add", 
/**
 * What is added.
 */
figure: AddedLine, 
/**
 * What it is.
 */
meaning: Meaning, };

export type LineUp = "left" | "centre" | "right" | "top" | "middle" | "bottom" | "gaps-across" | "gaps-down" | "widths" | "heights";

export type LineUpAsk = { job: Job, piece: PieceId, 
/**
 * The first says how large.
 */
layers: Array<LayerId>, how: LineUp, };

export type LinesView = { kind: LineKind, 
/**
 * SVG path data, mm.
 */
path: string, };

export type List = { 
/**
 * The name of the file that it came from.
 */
name: string, 
/**
 * What its columns are called, 1 to 40, each name once.
 */
columns: Array<string>, 
/**
 * Its rows, up to 2,000, a cell for each column.
 */
rows: Array<Array<string>>, 
/**
 * The pictures that its cells name.
 */
pictures: Array<NamedPicture>, };

export type ListView = { list: List, 
/**
 * How its characters are coded: `UTF-8`, `UTF-16` or `Windows-1252`.
 */
coding: string, 
/**
 * What stands between its cells: a comma, a semicolon or a tab.
 */
separator: string, 
/**
 * True where its first row names the columns.
 */
has_head: boolean, };

export type Loading = { 
/**
 * To the right and down, mm, -20 to 20.
 */
shift: [number, number], 
/**
 * Clockwise as seen, degrees, -5 to 5.
 */
turn: number, 
/**
 * True where its foot lies where its head should.
 */
is_turned_round: boolean, 
/**
 * How far from the first mark the eye begins, to the right and down, mm, -20 to 20.
 */
start: [number, number], };

export type LogChange = { outcome: Outcome, note: string, };

export type LogEntry = { 
/**
 * For which job; none where it was tried for its own sake.
 */
job?: JobNamed | null, 
/**
 * On which card.
 */
stock: Named, 
/**
 * By which cutter.
 */
cutter: Named, 
/**
 * With which tool.
 */
tool: Tool, 
/**
 * Along which kind of line.
 */
line: LineKind, 
/**
 * The force that was sent; none was left to the machine.
 */
force: Force | null, 
/**
 * The speed, mm/s.
 */
speed: number | null, 
/**
 * The passes.
 */
passes: number, 
/**
 * The blade's depth, in the station's steps.
 */
depth: number | null, 
/**
 * What the ladder varied of which this is a rung; none where it was no ladder.
 */
varied: Varied | null, 
/**
 * On which printed sheets; none where it was a test cut.
 */
sheet?: SheetNamed | null, 
/**
 * How these were printed.
 */
printed?: PrintedBy | null, 
/**
 * How many pieces came out.
 */
counted?: Counted | null, 
/**
 * What came of it.
 */
outcome: Outcome, 
/**
 * What else is to be known.
 */
note: string, };

export type LogView = { id: number, 
/**
 * When, such as `2026-10-12 14:03`.
 */
made_at: string, entry: LogEntry, 
/**
 * Such as “kiss cut with a knife”.
 */
what: string, 
/**
 * The settings that were sent.
 */
settings: string, 
/**
 * What came of it, in words that suit the line.
 */
outcome: string, 
/**
 * What was set when its sheets were printed; empty where nothing is known of that.
 */
printed: string, 
/**
 * What came out; empty where nothing was counted.
 */
counted: string, 
/**
 * The frozen print that it tells of, as long as it is kept.
 */
print: number | null, };

export type LogbookView = { entries: Array<LogView>, 
/**
 * How many there are in all.
 */
all: number, 
/**
 * How many were found; the first of them are shown.
 */
found: number, };

export type Look = "stroke" | "hairline" | "fill" | "words" | "unseen" | "clipped";

export type MachineFile = { 
/**
 * The first sheet that it is for, and the last: they are cut alike.
 */
sheets: [number, number], name: string, 
/**
 * Below `/api/prints/…/`.
 */
path: string, };

export type MachineQueue = { 
/**
 * The cutter; “By hand” where there is none.
 */
name: string, 
/**
 * Those that are not done, in their order, then those that are.
 */
prints: Array<Queued>, };

export type MachineWish = "hold" | "resume" | "stop";

export type Made = "nested" | "by-hand";

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

export type MarkChoiceView = { 
/**
 * `None` for one that is not in the workshop.
 */
id: RecordId | null, set: MarkSet, 
/**
 * The set in words.
 */
summary: string, usable: number, usable_text: string, per_sheet: number, sheets: number, state: State, trouble: string | null, 
/**
 * What it gains against the marks in use, in words.
 */
gain_text: string, 
/**
 * A small drawing of the sheet with it.
 */
sheet: SmallSheet, };

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
keep_clear: number, 
/**
 * Where it stands in lists.
 */
keeping: Keeping, };

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

export type MarksProgress = { done: number, };

export type MateView = { at: [number, number], number: number, };

export type Meaning = "left-out" | "printed" | "printed-and-cut" | "printed-and-cut-around" | "crease" | "reverse-crease" | "bend" | "score" | "kiss-cut" | "perforation" | "cut";

export type MeaningView = { meaning: Meaning, name: string, };

export type Measured = "length" | "caliper" | "grammage" | "amount" | "angle" | "count";

export type MeasuredPlace = { 
/**
 * Where on the page, mm.
 */
at: [number, number], 
/**
 * How far to the right and down of where it should be the cut fell, mm, -5 to 5.
 */
off: [number, number], };

export type Member = { 
/**
 * Which piece of the job.
 */
piece: PieceId, 
/**
 * How many of it lie on each card, 0 to 500.
 */
count: number, };

export type MemberPlace = { 
/**
 * Which piece of the job.
 */
piece: PieceId, 
/**
 * How far the middle of its bounds lies right of the card's top left corner, mm.
 */
x: number, 
/**
 * How far it lies below that corner, mm.
 */
y: number, 
/**
 * How it is turned, degrees, with the clock.
 */
turn: number, };

export type MemberView = { piece: PieceId, 
/**
 * What it goes by.
 */
name: string, 
/**
 * How many copies of it find no room.
 */
left: number, };

export type Mend = { "mend": "push", 
/**
 * Where it was.
 */
at: [number, number], 
/**
 * How far.
 */
by: [number, number], } | { "mend": "drop", 
/**
 * Where it was.
 */
at: [number, number], } | { "mend": "smooth", 
/**
 * The place.
 */
at: [number, number], 
/**
 * How far.
 */
within: number, } | { "mend": "cut", 
/**
 * What it runs through; 1 to 200.
 */
points: Array<[number, number]>, 
/**
 * Its width.
 */
width: number, } | { "mend": "fill", 
/**
 * What it runs through; 1 to 200.
 */
points: Array<[number, number]>, 
/**
 * Its width.
 */
width: number, };

export type MendView = { 
/**
 * What was done, or why it could not be.
 */
words: string, is_done: boolean, };

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
 * What can be added to panels.
 */
add_ons: Array<AddOnInfo>, 
/**
 * The stages of a job, in their order.
 */
stages: Array<StageInfo>, 
/**
 * What a printer can do to a sheet in a rehearsal, the usual first.
 */
days: Array<DayInfo>, 
/**
 * The kinds of line, as they are offered to the eye: cuts first.
 */
lines: Array<LineInfo>, 
/**
 * The typefaces of the shelf, the plainest first.
 */
typefaces: Array<TypefaceInfo>, 
/**
 * Pixels in an inch at which the simulated printer prints, the usual first.
 */
printer_ppi: [number, number], 
/**
 * Pixels in an inch that are offered for pictures of sheets.
 */
picture_ppi: [number, number, number], 
/**
 * The one of these where nothing is said.
 */
usual_ppi: number, 
/**
 * Units to the inch in which a cut file can be written.
 */
units_per_inch: [number, number, number, number], 
/**
 * What new things start as.
 */
starts: Starts, };

export type MisfitView = { placement: Placement, 
/**
 * What of it lies outside the cut window, as SVG path data.
 */
outside: string, };

export type Moment = "before-print" | "between-inks" | "after-print";

export type Motif = { "of": "figure" } | { "of": "word", 
/**
 * Up to 60 characters; columns of the list in braces.
 */
words: string, 
/**
 * The id of a typeface of the shelf.
 */
typeface: string, 
/**
 * A typeface of one's own, which goes before it where it is here.
 */
own_typeface?: OwnTypeface | null, } | { "of": "picture" } & MotifPicture;

export type MotifPicture = { 
/**
 * Its bytes.
 */
blob: BlobId, 
/**
 * Its width and height in pixels, the right way up.
 */
pixels: [number, number], 
/**
 * True for a drawing of lines and areas, sharp at any size.
 */
drawn?: boolean, 
/**
 * What is known of where it comes from.
 */
origin: Origin, };

export type Named = { 
/**
 * Which it is.
 */
id: RecordId, 
/**
 * What it was called.
 */
name: string, };

export type NamedPicture = { 
/**
 * The name of its file.
 */
name: string, 
/**
 * Its bytes.
 */
blob: BlobId, 
/**
 * Its width and height in pixels, the right way up.
 */
pixels: [number, number], 
/**
 * True for a drawing of lines and areas.
 */
drawn: boolean, };

export type NearView = { segment: number, share: number, };

export type NestProgress = { kept: Kept, 
/**
 * Share of the work that is done, 0 to 1.
 */
done: number, 
/**
 * Seconds so far.
 */
seconds: number, 
/**
 * In words: sheets and places.
 */
text: string, 
/**
 * True for the last one.
 */
is_last: boolean, 
/**
 * False when the time ended the search before its work was done: another run may then end elsewhere.
 */
is_complete: boolean, };

export type NestTrouble = { errors: Array<InputError>, };

export type Nicks = { 
/**
 * How wide each is, mm; 0.1 to 5.
 */
width: number, 
/**
 * How many each outline has, 1 to 40.
 */
count: number, 
/**
 * At most so far from one to the next, mm, whatever their number; 5 to 1000.
 */
every?: number | null, 
/**
 * True where they may lie on edges that are seen when the piece is closed; otherwise so many in an outline lie on
 * flaps and glue flaps, as long as these hold them all.
 */
seen?: boolean, };

export type NodeView = { at: [number, number], into: [number, number] | null, out: [number, number] | null, };

export type NotesView = { 
/**
 * The ruled line, as SVG path data, mm.
 */
rule: string, 
/**
 * What it measures and the sheet's code, as outlines.
 */
words: string, 
/**
 * What the scale measures, as text, where there is one.
 */
scale_text: string | null, };

export type OddsAsk = { job: Job, 
/**
 * Which sheet, from 1.
 */
sheet: number, day: Day, 
/**
 * How many sheets, 1 to 10,000.
 */
sheets: number, seed: number, };

export type OddsBar = { count: number, state: State, };

export type OddsProgress = { done: number, };

export type OddsView = { tried: number, white: number, 
/**
 * How many sheets have their worst place between equal steps from 0.
 */
bars: Array<OddsBar>, 
/**
 * Where the last bar ends, mm.
 */
to: number, to_text: string, 
/**
 * What may be off, mm.
 */
bound: number, bound_text: string, 
/**
 * What they say, in a sentence.
 */
words: string, 
/**
 * What that number of tries can say.
 */
sure: string, state: State, };

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

export type OperationId = string;

export type OperationSay = { 
/**
 * True where it is not done.
 */
off?: boolean, 
/**
 * The station, by its name; `None` takes the first that holds the tool.
 */
station?: string | null, 
/**
 * The force, in the machine's unit; `None` takes the recipe's, or leaves it to the machine.
 */
force?: Force | null, 
/**
 * The speed, mm/s; `None` takes the recipe's, or leaves it to the machine.
 */
speed?: number | null, 
/**
 * How often the tool goes along each line, 1 to 20; `None` takes the recipe's, or once.
 */
passes?: number | null, 
/**
 * The blade's depth, in the station's steps; `None` takes the recipe's, or leaves it as it is.
 */
depth?: number | null, 
/**
 * When it is done; `None` when all is printed.
 */
when?: Moment | null, 
/**
 * How it is done, of reverse creases; `None` presses them from the front.
 */
reverse?: Reverse | null, };

export type OperationView = { id: OperationId, kind: LineKind, name: string, tool: string, 
/**
 * The station that holds the tool; none where none does.
 */
station: string | null, 
/**
 * The stations that could.
 */
stations: Array<string>, 
/**
 * How the station's blade gets its depth.
 */
depth_setting: DepthSetting | null, 
/**
 * In the unit that is told with it; none leaves it to the machine.
 */
force: Force | null, 
/**
 * mm/s; none leaves it to the machine.
 */
speed: number | null, passes: number, 
/**
 * The station's step; none leaves it as it is.
 */
depth: number | null, is_off: boolean, when: Moment, reverse: Reverse, 
/**
 * In which loading of the sheet, from 0.
 */
loading: number, 
/**
 * What a person does before it, in words.
 */
before: Array<string>, 
/**
 * The recipe that it goes by.
 */
recipe: RecipeView | null, 
/**
 * What came of it when the same was done last; none where nobody has.
 */
last: LastView | null, 
/**
 * Shares of its lines that could be worked by themselves.
 */
shares: Array<ShareView>, 
/**
 * True where it was split off.
 */
is_share: boolean, lines: number, length_text: string, time_text: string, 
/**
 * When it begins and how long it takes, s.
 */
begins: number, takes: number, };

export type OrderChoice = { 
/**
 * What is changed.
 */
remedy: Remedy, sheets: number, per_sheet: number, yield_text: string, waste_text: string, cost_text: string | null, };

export type OrderView = { 
/**
 * Share of the sheets that becomes pieces.
 */
yield_text: string, waste_text: string, 
/**
 * What all cards cost together, where that is known.
 */
cost_text: string | null, 
/**
 * One for each card.
 */
cards: Array<CardView>, };

export type Orientation = "portrait" | "landscape";

export type Origin = { 
/**
 * The name of the file.
 */
name: string, 
/**
 * Where it is from.
 */
source: string, 
/**
 * Under which licence it may be used.
 */
licence: string, 
/**
 * A note of one's own.
 */
note: string, };

export type Outcome = "not-through" | "just-right" | "too-deep";

export type OutcomeView = { outcome: Outcome, text: string, };

export type OutlineId = string;

export type Outlined = "rectangle" | "ellipse" | "polygon" | "star" | "heart" | "leaf" | "line";

export type OwnShape = { 
/**
 * What is cut out.
 */
cutting: Cutting, 
/**
 * How far it is turned, degrees with the clock; -360 to 360.
 */
turn: number, 
/**
 * Width of the bridges that hold what would fall out, mm, 0.5 to 20; `None` puts in none.
 */
bridge: number | null, };

export type OwnTypeface = { 
/**
 * Its bytes.
 */
blob: BlobId, 
/**
 * What is known of where it comes from; its name is that of the family.
 */
origin: Origin, };

export type Pace = { 
/**
 * While a tool is down and nobody says otherwise, mm/s; 1 to 3000.
 */
working: number, 
/**
 * While it is up, mm/s; 1 to 3000.
 */
travel: number, 
/**
 * How quickly it gets there, mm/s²; 10 to 50,000.
 */
acceleration: number, 
/**
 * Lifting and lowering together, s; 0 to 2.
 */
lift: number, };

export type PanelName = { 
/**
 * A place on it, in units of the file.
 */
at: [number, number], 
/**
 * Its name; 1 to 60 characters.
 */
name: string, 
/**
 * The panel on which it hangs, where it could hang on several.
 */
on?: string | null, };

export type PanelRole = "face" | "flap" | "glue";

export type PanelView = { name: string, 
/**
 * The name that is shown: a strip has that of the curved panel it belongs to.
 */
shown: string, 
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

export type PartId = string;

export type PartView = { id: PartId, name: string, 
/**
 * Its card.
 */
stock: RecordId, 
/**
 * Where it lies in the drawing of the whole, mm.
 */
at: [number, number], 
/**
 * Width and height, mm.
 */
size: [number, number], size_text: string, outline: string, 
/**
 * What is done along the outline.
 */
edge: LineKind, openings: string, lines: Array<LinesView>, 
/**
 * True where it lies mirrored on sheets.
 */
is_mirrored: boolean, };

export type PassphraseEntry = { passphrase: string, };

export type Pattern = { 
/**
 * What comes again and again.
 */
motif_of?: Motif, 
/**
 * Its figure, where it is one.
 */
figure: Outlined, 
/**
 * Corners of a polygon, points of a star; 3 to 60.
 */
points: number, 
/**
 * As `#rrggbb`.
 */
colour: string, 
/**
 * The motif's width and height, mm; of stripes, their thickness is the height.
 */
motif: [number, number], 
/**
 * How far motifs stand from each other.
 */
grid: Grid, 
/**
 * True where every second row stands half a pitch aside.
 */
staggered: boolean, 
/**
 * True where every second row is turned round.
 */
turning: boolean, 
/**
 * The panels on which it lies, by their names: several are one area across their creases, none are all that is
 * not glued; a curved panel is all its strips. What goes past the area is not printed.
 */
panels: Array<string>, 
/**
 * From the area's middle to the layer's, to the right as the flat shows it, mm.
 */
x: number, 
/**
 * The same downwards, mm.
 */
y: number, 
/**
 * What is up for it.
 */
up: Up, 
/**
 * How far it is turned from upright, clockwise, degrees.
 */
turn: number, };

export type Perforation = { 
/**
 * Length of each cut.
 */
cut: number, 
/**
 * Length of each tie.
 */
tie: number, };

export type PickAsk = { drawing: LineDrawing, 
/**
 * Its number.
 */
line: number | null, 
/**
 * A place near it, in units of the file.
 */
at: [number, number] | null, 
/**
 * How near, in units of the file.
 */
reach: number, 
/**
 * How long a unit of the file is, mm.
 */
mm: number, 
/**
 * What its length is told in.
 */
unit: Unit, };

export type PickedView = { 
/**
 * Its number.
 */
line: number, 
/**
 * Where it runs, in units of the file.
 */
path: string, is_closed: boolean, nodes: Array<NodeView>, 
/**
 * What runs from each node to the next.
 */
segments: Array<SegmentView>, length_text: string, 
/**
 * The same in units of the file.
 */
length: number, 
/**
 * What it is, where that is told of it alone.
 */
told: Meaning | null, 
/**
 * The row of the line key that it belongs to.
 */
row: string, 
/**
 * The segment nearest to the place by which it was found, and how far along that, 0 to 1.
 */
near: NearView | null, };

export type PictureSize = { "by": "panel" } | { "by": "covering" } | { "by": "width", "mm": number } | { "by": "height", "mm": number } | { "by": "sides", "mm": [number, number] };

export type PictureStart = { 
/**
 * The picture.
 */
blob: BlobId, 
/**
 * The name of its file.
 */
name: string, 
/**
 * How wide it is printed, mm.
 */
width: number, };

export type PieceId = string;

export type PieceRow = { name: string, worst_text: string, typical_text: string, 
/**
 * How much of its edge shows white; empty where none does.
 */
white_text: string, state: State, };

export type PieceView = { id: PieceId, name: string, 
/**
 * Copies wanted.
 */
copies: number, 
/**
 * Whole copies that the layout holds.
 */
laid: number, 
/**
 * The card that holds it, where one does: it lies on sheets with that alone.
 */
held_by: PieceId | null, 
/**
 * True where a card could hold it.
 */
is_free: boolean, 
/**
 * The number of its first blank among all of the job's.
 */
first: number, 
/**
 * It laid flat.
 */
flat: Seen<FlatView>, 
/**
 * What is printed on it.
 */
face: Seen<FaceView>, };

export type Pin = { 
/**
 * Of which piece.
 */
piece: PieceId, 
/**
 * Which of its copies on the first of the sheets that are alike, from 1.
 */
copy: number, };

export type Place = { 
/**
 * On which drawing.
 */
drawing: Drawing, 
/**
 * Of which piece, on a flat.
 */
piece: PieceId | null, 
/**
 * SVG path data in mm around or along the place.
 */
path: string, };

export type PlaceView = { 
/**
 * Its middle in the drawing of the whole, mm.
 */
centre: [number, number], 
/**
 * How far it is turned there, degrees clockwise.
 */
turn: number, 
/**
 * Width and height as it is read, mm.
 */
size: [number, number], size_text: [string, string], 
/**
 * Width and height of what it takes in the drawing, mm.
 */
bounds: [number, number], 
/**
 * What its middle is drawn to when it is moved, across and down in the drawing, mm.
 */
snaps: [Array<number>, Array<number>], 
/**
 * From its area's middle to its own, to the right and downwards in the flat.
 */
at_text: [string, string], };

export type PlacedPicture = { 
/**
 * Its bytes, as they are printed.
 */
blob: BlobId, 
/**
 * How they were made, where they are not what was brought in.
 */
reworked?: Reworked | null, 
/**
 * Its width and height in pixels, the right way up.
 */
pixels: [number, number], 
/**
 * True for a drawing of lines and areas, sharp at any size: of its pixels only the ratio counts.
 */
drawn?: boolean, 
/**
 * What is known of where it comes from.
 */
origin: Origin, 
/**
 * How large it is, what is cut away left out.
 */
size: PictureSize, 
/**
 * What is cut away of its left, top, right and bottom, as shares of its sides.
 */
crop: [number, number, number, number], 
/**
 * True where it is mirrored, left to right.
 */
mirrored?: boolean, 
/**
 * What is printed beyond its edge.
 */
beyond?: Beyond, 
/**
 * The column of the list whose cells name the picture of each copy.
 */
column?: string | null, 
/**
 * The panels on which it lies, by their names: several are one area across their creases, none are all that is
 * not glued; a curved panel is all its strips. What goes past the area is not printed.
 */
panels: Array<string>, 
/**
 * From the area's middle to the layer's, to the right as the flat shows it, mm.
 */
x: number, 
/**
 * The same downwards, mm.
 */
y: number, 
/**
 * What is up for it.
 */
up: Up, 
/**
 * How far it is turned from upright, clockwise, degrees.
 */
turn: number, };

export type Placement = { 
/**
 * Which of the layout's blanks lies here.
 */
part: number, 
/**
 * Which copy of its blank it is, from 1, on the first of the sheets that are alike; 0 is not numbered yet. It
 * stays when the copy is moved.
 */
copy: number, 
/**
 * Movement to the right after turning, mm.
 */
x: number, 
/**
 * Movement down after turning, mm.
 */
y: number, 
/**
 * Degrees clockwise.
 */
turn: number, 
/**
 * It stays where it is when the others are laid again.
 */
locked: boolean, };

export type PlanAsk = { job: Job, 
/**
 * Which run of sheets that are alike.
 */
run: number, };

export type PlannedLines = { kind: LineKind, 
/**
 * SVG path data, mm.
 */
path: string, };

export type PlateView = { name: string, 
/**
 * The blank it belongs to.
 */
part: number, 
/**
 * The plate it hangs on, and the hinge's two ends in that plate's frame, mm.
 */
parent: number | null, hinge: [[number, number], [number, number]], 
/**
 * Distance beside the fold's plane when closed, mm, and the closed angle it goes with, degrees.
 */
lift: number, fold: number, 
/**
 * Maps its frame to its blank: the six numbers of an affine map.
 */
frame: [number, number, number, number, number, number], 
/**
 * Corners in its frame, mm, the third coordinate out of the printed side.
 */
points: Array<number>, 
/**
 * Triangles of the printed side, of the other, and of the edges: indices of corners.
 */
printed: Array<number>, back: Array<number>, edges: Array<number>, 
/**
 * How many corners the printed side has; as many of the other follow.
 */
side: number, 
/**
 * Its outline and openings, for drawn edges: indices of corners of the printed side, in pairs.
 */
rims: Array<number>, };

export type PresetView = { 
/**
 * What it is for.
 */
name: string, 
/**
 * Its sizes as text.
 */
text: string, 
/**
 * The form with this size and every other figure at its default.
 */
form: Form, };

export type Preview = { 
/**
 * The job with its changes, where there were any.
 */
job: Job | null, 
/**
 * The pieces.
 */
pieces: Array<PieceView>, 
/**
 * True when something is printed.
 */
is_printed: boolean, sheet: Seen<SheetView>, checks: Array<Check>, stages: Array<StageView>, 
/**
 * The piece that goes with the others, where one is added.
 */
another: JobPiece, 
/**
 * A card that holds what a card can hold; none where there is nothing of it.
 */
card: JobPiece | null, 
/**
 * The code that names this content on its printed sheets.
 */
code: string, spacing_text: string, to_marks_text: string, };

export type Price = { 
/**
 * For a sheet of the first size; other sizes cost by their area.
 */
amount: number, 
/**
 * The currency, 1 to 4 characters.
 */
currency: string, };

export type PrintProcess = "inkjet" | "laser";

export type PrintRecipe = { 
/**
 * Its name in lists.
 */
name: string, 
/**
 * The card.
 */
stock: RecordId, 
/**
 * The printer.
 */
printer: RecordId, 
/**
 * What is set.
 */
settings: PrintSettings, 
/**
 * Minutes for a side of a sheet, 0.05 to 240, where somebody has taken the time.
 */
minutes?: number | null, 
/**
 * The day on which it worked last, such as `2026-10-12`; none where nobody has tried it.
 */
worked?: string | null, 
/**
 * What else is to be known.
 */
note?: string, 
/**
 * Where it stands in lists.
 */
keeping: Keeping, };

export type PrintSettings = { 
/**
 * The paper that the printer is told of, such as “heavy matt”.
 */
media: string, 
/**
 * The quality, such as “high”.
 */
quality: string, 
/**
 * Who minds the colours, such as “by the printer”.
 */
colour: string, 
/**
 * The tray or slot, such as “rear tray”.
 */
tray: string, 
/**
 * Which way up the sheet lies in it.
 */
lies: LiesInTray, };

export type PrintView = { id: number, code: string, made_at: string, 
/**
 * Pieces that were good and bad.
 */
good: number, bad: number, 
/**
 * True where the job has been changed since in what is printed or where it is cut.
 */
differs: boolean, };

export type PrintableSide = "both" | "face" | "neither";

export type PrintedBy = { 
/**
 * The printer.
 */
printer: Named, 
/**
 * What was set, where a recipe says so.
 */
settings?: PrintSettings | null, };

export type PrintedScale = { 
/**
 * What it should be, mm.
 */
asked: number, asked_text: string, 
/**
 * What was typed in, mm.
 */
measured: number | null, 
/**
 * What that says; none where nothing was typed in.
 */
says: ScaleSays | null, words: string, can_be_cut: boolean, };

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
margins: Margins, 
/**
 * About which edge it turns a sheet to print its back.
 */
turns_about: TurnsAbout, 
/**
 * How far the back may lie off the front, mm, 0 to 5.
 */
turning_error: number, 
/**
 * How it prints, where that is known.
 */
process: PrintProcess | null, 
/**
 * Where it takes print files over TCP, such as `192.168.1.21:9100`; empty where they go through a print dialog.
 */
address: string, 
/**
 * Where it stands in lists.
 */
keeping: Keeping, };

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
errors: Array<InputError>, 
/**
 * The job with the changes that cannot be used, where changes were sent.
 */
job?: Job | null, 
/**
 * This time: the request's number in the log.
 */
instance: string | null, };

export type QueueAsk = { jobs: Array<number>, };

export type QueueJob = { id: number, name: string, 
/**
 * How many rows its list has; 0 where it has none.
 */
rows: number, };

export type QueueOrder = { prints: Array<number>, };

export type QueueView = { machines: Array<MachineQueue>, 
/**
 * Jobs that are not in it, and could be.
 */
others: Array<QueueJob>, };

export type Queued = { id: number, job: number, name: string, code: string, made_at: string, sheets: number, state: Waits, 
/**
 * How it stands, in words.
 */
state_text: string, 
/**
 * What is done of it, 0 to 1.
 */
share: number, };

export type Reach = { "by": "edges" } | { "by": "point", "at": [number, number] } | { "by": "everywhere" };

export type ReadLength = { 
/**
 * Millimetres; degrees or a count where those were asked for.
 */
mm: number, 
/**
 * The length as a field shows it.
 */
text: string, };

export type Recipe = { 
/**
 * Its name in lists.
 */
name: string, 
/**
 * The card.
 */
stock: RecordId, 
/**
 * The cutter.
 */
cutter: RecordId, 
/**
 * The tool.
 */
tool: Tool, 
/**
 * The kind of line.
 */
line: LineKind, 
/**
 * The force, in the cutter's unit.
 */
force?: Force | null, 
/**
 * The speed, mm/s.
 */
speed?: number | null, 
/**
 * How often along each line, 1 to 20.
 */
passes: number, 
/**
 * The blade's depth, in the station's steps.
 */
depth?: number | null, 
/**
 * The day on which it worked last, such as `2026-10-12`; none where nobody has tried it.
 */
worked?: string | null, 
/**
 * What else is to be known.
 */
note?: string, 
/**
 * Where it stands in lists.
 */
keeping: Keeping, };

export type RecipeView = { id: RecordId, name: string, 
/**
 * The day on which it worked last.
 */
worked: string | null, 
/**
 * What the job says otherwise, such as “force 2 N, not 1.9 N”.
 */
differs: Array<string>, };

export type Record = { "kind": "stocks" } & Stock | { "kind": "printers" } & Printer | { "kind": "cutters" } & Cutter | { "kind": "carriers" } & Carrier | { "kind": "mark_sets" } & MarkSet | { "kind": "recipes" } & Recipe | { "kind": "print_recipes" } & PrintRecipe;

export type RecordDrawing = { 
/**
 * Width and height of all of it, mm.
 */
size: [number, number], 
/**
 * What is drawn, from below.
 */
parts: Array<DrawnPart>, };

export type RecordEntry = { 
/**
 * The version the change was made to.
 */
version: number, record: Record, 
/**
 * The unit in which messages are written.
 */
unit: Unit, };

export type RecordId = string;

export type RecordKind = "stocks" | "printers" | "cutters" | "carriers" | "mark_sets" | "recipes" | "print_recipes";

export type RecordSketch = { record: Record, 
/**
 * The unit in which names and messages are written.
 */
unit: Unit, };

export type RecordUse = { id: number, name: string, };

export type RehearsalAsk = { job: Job, 
/**
 * Which sheet, from 1.
 */
sheet: number, 
/**
 * What the printer does to it.
 */
day: Day, 
/**
 * By which it errs: the same number, the same errors; up to 4,294,967,295.
 */
seed: number, 
/**
 * How it is laid into the cutter.
 */
loading: Loading, 
/**
 * Pixels in an inch that it prints: 300, or 600.
 */
ppi: number, };

export type RehearsalView = { 
/**
 * Under which number its picture is given out.
 */
picture: number | null, 
/**
 * The paper, mm.
 */
paper: [number, number], 
/**
 * From the paper to the cutter's bed.
 */
lying: [number, number, number, number, number, number], 
/**
 * From the paper back to the page that was printed on it.
 */
back: [number, number, number, number, number, number], 
/**
 * What came of it, in a few words.
 */
title: string, 
/**
 * The same in a sentence or two.
 */
words: string, state: State, 
/**
 * What would help; none where all is well.
 */
advice: string | null, 
/**
 * How the sheet lay, as the cutter solved it and as it was.
 */
rows: Array<LayRow>, 
/**
 * Where the cutter saw the marks, on the bed, mm.
 */
seen: Array<[number, number]>, 
/**
 * How far cuts fell from the print, on the page.
 */
hairs: Array<Hair>, 
/**
 * Where the tip ran, on the page, SVG path data.
 */
cut: string, pieces: Array<PieceRow>, checks: Array<Check>, };

export type Remedy = { 
/**
 * What to do, with the number.
 */
text: string, 
/**
 * What to set; empty where only the user can act.
 */
changes: Array<Change>, };

export type ReturnedView = { 
/**
 * How large it is against what it should be, in words.
 */
scale_text: string, 
/**
 * Which mistake with units explains that; `None` where none does, or it is right.
 */
mistake: string | null, turn_text: string, shift_text: string, 
/**
 * How far the worst mark is off as the file is; `None` where that cannot be told.
 */
as_it_is_text: string | null, 
/**
 * The same once all is put right.
 */
worst_text: string, 
/**
 * True where no mark is off by more than is accepted, once all is put right.
 */
is_accepted: boolean, 
/**
 * True where nothing has to be put right.
 */
is_right: boolean, 
/**
 * Lines beside the marks.
 */
lines: number, 
/**
 * True where it can be printed: a picture, SVG, PDF.
 */
has_art: boolean, 
/**
 * The job that it makes; `None` where it was only measured.
 */
job: Job | null, };

export type Reverse = "pressed" | "scored" | "perforated" | "from-behind";

export type ReworkAsk = { 
/**
 * The picture that was brought in.
 */
from: BlobId, 
/**
 * One after the other; up to 200.
 */
steps: Array<ReworkStep>, };

export type ReworkStep = { 
/**
 * True where it is left out for now.
 */
off?: boolean, } & ({ "kind": "background", 
/**
 * Where it begins.
 */
from: Reach, 
/**
 * What it is like, as `#rrggbb`; `None` is found.
 */
colour: string | null, 
/**
 * How far a colour may be off in the channel where it is furthest off, per cent of all there is, 0 to 100.
 */
tolerance: number, 
/**
 * How wide the edge of what is left fades, in pixels, 0 to 100.
 */
soft: number, } | { "kind": "specks", 
/**
 * So many pixels.
 */
under: number, } | { "kind": "rectangle", 
/**
 * Two of its corners that lie opposite.
 */
corners: [[number, number], [number, number]], } | { "kind": "stroke", 
/**
 * What it runs through; up to 500.
 */
points: Array<[number, number]>, 
/**
 * Its width, as a share of the picture's longer side, up to 0.5.
 */
width: number, } | { "kind": "crop" } | { "kind": "part", 
/**
 * Its number, from 0.
 */
part: number, 
/**
 * True where it is left out.
 */
hidden?: boolean, 
/**
 * How far it is moved, as shares of the drawing's sides.
 */
moved: [number, number], 
/**
 * The colour that it has instead of its own, as `#rrggbb`.
 */
colour: string | null, });

export type Reworked = { 
/**
 * The picture that was brought in.
 */
from: BlobId, 
/**
 * Its width and height in pixels, the right way up.
 */
pixels: [number, number], 
/**
 * What is done to it, one after the other; up to 200.
 */
steps: Array<ReworkStep>, };

export type Roll = { 
/**
 * What is lost at each side, mm.
 */
side: number, };

export type RowAsk = { job: Job, piece: PieceId, 
/**
 * From 0.
 */
row: number, };

export type RowView = { 
/**
 * What a line key knows it by.
 */
id: string, layer: string, colour: string, look: Look, look_name: string, 
/**
 * How many lines, and how they look.
 */
count_text: string, 
/**
 * How long they are together.
 */
length_text: string, 
/**
 * What they are; none where nobody has said so.
 */
meaning: Meaning | null, 
/**
 * The lines, in the drawing; empty where they are too many to be shown.
 */
path: string, 
/**
 * Around them: left, top, width, height.
 */
bounds: [number, number, number, number], };

export type RowsAsk = { job: number, };

export type RunAsk = { version: number, change: RunChange, };

export type RunChange = { "do": "tick", 
/**
 * Its name.
 */
step: string, } | { "do": "back", 
/**
 * Its name.
 */
step: string, } | { "do": "count", 
/**
 * The piece.
 */
piece: PieceId, 
/**
 * What came out.
 */
counted: Counted, } | { "do": "measure", 
/**
 * Its length.
 */
mm: number, } | { "do": "hold" } | { "do": "resume" } | { "do": "stop" };

export type RunStands = { 
/**
 * The print.
 */
id: number, 
/**
 * What a change must name, so that a second screen is noticed.
 */
version: number, code: string, made_at: string, differs: boolean, steps: Array<RunStepView>, 
/**
 * Which step is next, from 0; none once all are done.
 */
next: number | null, 
/**
 * What the printed scale says; none where it has none.
 */
scale: PrintedScale | null, 
/**
 * All pieces that came out.
 */
good: number, bad: number, 
/**
 * Each piece of the job that lies on its sheets.
 */
pieces: Array<CountedPiece>, is_held: boolean, is_stopped: boolean, 
/**
 * The files for the machine, one for each loading of sheets that are cut alike.
 */
files: Array<MachineFile>, 
/**
 * Where the cutter is reached over TCP; none where files are carried to it.
 */
address: string | null, cutter: string | null, 
/**
 * Where the printer is reached over TCP; none where print files go through a print dialog.
 */
printer_address: string | null, printer: string | null, 
/**
 * The sheets as they are laid in.
 */
lies: Array<SheetLies>, 
/**
 * Two places far apart at which a cut is measured against the print, mm.
 */
places: [[number, number], [number, number]], };

export type RunStepView = { id: string, kind: StepKind, title: string, says: Array<string>, 
/**
 * How often it is done, and was.
 */
times: number, done: number, 
/**
 * When last; empty where it was not.
 */
at: string, loading: number, 
/**
 * Which sheet it is at, from 1.
 */
sheet: number, 
/**
 * Why it cannot be ticked yet; none where it can.
 */
held_by: string | null, };

export type RunView = { 
/**
 * All that is still known, the newest first; none where nothing was printed yet.
 */
prints: Array<PrintView>, 
/**
 * The newest; none where nothing was printed yet.
 */
run: RunStands | null, 
/**
 * What is done with the sheets, where nothing was printed yet.
 */
ahead: Array<RunStepView>, };

export type RungView = { value: number, text: string, 
/**
 * Where it lies, mm: left, top, width, height.
 */
place: [number, number, number, number], 
/**
 * Its lines, SVG path data, mm.
 */
line: string, 
/**
 * What the Logbook is told when its outcome is known.
 */
entry: LogEntry, };

export type RunningView = { to: string, 
/**
 * Where the first colour is alone, and where the second is, mm.
 */
ends: [[number, number], [number, number]], };

export type Runs = { 
/**
 * As `#rrggbb`.
 */
colour: string, 
/**
 * Which way it runs, degrees clockwise from rightwards as the shape is read.
 */
turn: number, };

export type Scale = { "by": "stated" } | { "by": "per-inch", 
/**
 * How many.
 */
count: number, } | { "by": "each", 
/**
 * How many.
 */
mm: number, } | { "by": "known", 
/**
 * How long it is in the file, above 0.
 */
units: number, 
/**
 * How long it really is, mm; 0.01 to 10,000.
 */
mm: number, };

export type ScaleSays = "true" | "nearly" | "fit-to-page" | "on-letter" | "on-a4" | "wrong";

export type ScaleView = { scale: Scale, 
/**
 * In words.
 */
name: string, 
/**
 * The size of the drawing then.
 */
size_text: string, 
/**
 * How that compares with the job's sheet; empty where it lies on it as it is.
 */
on_sheet: string, 
/**
 * True for the one that is chosen.
 */
is_chosen: boolean, };

export type Search = { 
/**
 * Longest time it may take, s, 1 to 600.
 */
budget: number, 
/**
 * The same seed gives the same layout.
 */
seed: number, };

export type Seen<T> = { 
/**
 * What it is known by.
 */
key: string, 
/**
 * The view; `None` where the page has it already.
 */
view: T | null, };

export type SegmentView = { is_straight: boolean, 
/**
 * Where it runs, in units of the file.
 */
path: string, };

export type SendAsk = { 
/**
 * Which sheet lies in the machine, from 1.
 */
sheet: number, 
/**
 * In which of its loadings, from 0.
 */
loading: number, };

export type SendEnd = { is_done: boolean, words: string, };

export type SendProgress = { 
/**
 * What the machine does, in words.
 */
words: string, 
/**
 * Bytes sent, and of how many.
 */
sent: number, of: number, };

export type Sense = "at-most" | "at-least";

export type Separation = "white" | "colour" | "varnish" | "raised";

export type Setting = number | boolean | string | null;

export type Shape = { 
/**
 * What it is.
 */
figure: Outlined, 
/**
 * How large it is.
 */
size: ShapeSize, 
/**
 * Corners of a polygon, points of a star; 3 to 60.
 */
points: number, 
/**
 * The radius of a rectangle’s corners, mm; 0 to 500.
 */
rounding: number, 
/**
 * What fills it, as `#rrggbb`.
 */
fill: string | null, 
/**
 * The colour into which the fill runs.
 */
runs?: Runs | null, 
/**
 * Stripes over the fill.
 */
stripes?: Stripes | null, 
/**
 * What it is outlined with, as `#rrggbb`.
 */
line: string | null, 
/**
 * How thick the outline is, mm; half of it lies on either side.
 */
thickness: number, 
/**
 * The panels on which it lies, by their names: several are one area across their creases, none are all that is
 * not glued; a curved panel is all its strips. What goes past the area is not printed.
 */
panels: Array<string>, 
/**
 * From the area's middle to the layer's, to the right as the flat shows it, mm.
 */
x: number, 
/**
 * The same downwards, mm.
 */
y: number, 
/**
 * What is up for it.
 */
up: Up, 
/**
 * How far it is turned from upright, clockwise, degrees.
 */
turn: number, };

export type ShapeSize = { "by": "area" } | { "by": "sides", "mm": [number, number] } | { "by": "inset", "mm": number };

export type ShareView = { id: OperationId, name: string, };

export type SheetCopy = { piece: PieceId, copy: number, name: string, };

export type SheetLies = { 
/**
 * The first sheet that lies so, and the last.
 */
sheets: [number, number], 
/**
 * mm.
 */
page: [number, number], 
/**
 * The marks, SVG path data.
 */
marks: string, 
/**
 * The pieces' outlines.
 */
outlines: string, 
/**
 * Where the first mark is; none without marks.
 */
first: [number, number] | null, 
/**
 * The corner in which the blade starts.
 */
start: Corner | null, };

export type SheetNamed = { 
/**
 * The frozen print.
 */
print: number, 
/**
 * The code on its sheets.
 */
code: string, };

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
 * The carrier on which the sheet goes through the cutter, if any.
 */
carrier: RecordId | null, 
/**
 * The marks by which the cutter finds a printed sheet.
 */
marks: RecordId | null, 
/**
 * Least distance between the cuts of neighbours, mm, 0 to 100.
 */
spacing: number, 
/**
 * Least distance from a cut to the marks’ keep-clear, mm, 0 to 100.
 */
to_marks: number, 
/**
 * How copies may be turned.
 */
turning: Turning, 
/**
 * How many sheets of a roll are printed and cut in a row before it is cut off, 1 to 50.
 */
in_a_row?: number, 
/**
 * Whether sheets are filled up.
 */
amount: Amount, 
/**
 * The layout that is kept; `None` lays rows and columns.
 */
kept: Kept | null, 
/**
 * How a nested layout is sought.
 */
search: Search, };

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
 * From the front of the page to its back, as that is seen from behind: an SVG matrix.
 */
turned: [number, number, number, number, number, number], 
/**
 * What each copy of a run's first sheet wears of its own, run by run; none where no copy differs, and none past
 * the first thousand.
 */
worn: Array<Array<Array<InkedView>>>, 
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
order: OrderView, };

export type Shine = "opaque" | "clear" | "reflective";

export type Side = "front" | "back";

export type Sizes = { 
/**
 * The figures' keys, such as `length`.
 */
keys: Array<string>, 
/**
 * The room inside.
 */
inside: Array<number>, 
/**
 * Between creases.
 */
crease: Array<number>, 
/**
 * Over everything.
 */
outside: Array<number>, };

export type SmallFlat = { 
/**
 * Width and height, mm.
 */
size: [number, number], 
/**
 * The blanks and what is cut out of them.
 */
outline: string, 
/**
 * Creases and perforations.
 */
creases: string, 
/**
 * The stock's colour.
 */
colour: string, };

export type SmallSheet = { page: [number, number], 
/**
 * SVG path data, mm.
 */
cut_window: string, marks: string, copies: string, };

export type Split = { 
/**
 * The panel with which the second part begins, or that is cut across.
 */
panel: string, 
/**
 * Where.
 */
by: SplitBy, 
/**
 * How far from the panel's crease, or from its first corner along it, mm; not used at a crease.
 */
at: number, 
/**
 * Width of the join flap, mm; 5 to 60.
 */
flap: number, };

export type SplitBy = "crease" | "across" | "along";

export type Stage = "form" | "face" | "sheet" | "tooling" | "rehearsal" | "run";

export type StageInfo = { stage: Stage, 
/**
 * What it is called.
 */
name: string, };

export type StageView = { stage: Stage, 
/**
 * `None` when it has nothing to check.
 */
state: State | null, };

export type StandView = "upright" | "on-first" | "lying";

export type Starts = { 
/**
 * A job, made from the records at hand, or else the first ones.
 */
job: Job, 
/**
 * A face: the panels' names.
 */
face: Face, 
/**
 * A layer of each kind, but pictures, which are brought in.
 */
layers: Array<Layer>, 
/**
 * Colours that are offered; any other can be mixed.
 */
inks: [string, string, string, string, string, string], 
/**
 * How far a backing stands out, mm.
 */
border: number, 
/**
 * How a tear strip is cut and tied.
 */
perforation: Perforation, 
/**
 * Words that are cut out of a panel.
 */
cut_out: OwnShape, 
/**
 * How wide bridges are, mm.
 */
bridge: number, 
/**
 * Uncut places in outlines.
 */
nicks: Nicks, 
/**
 * A speed that is told, mm/s.
 */
speed: number, 
/**
 * A force that is told, in each unit.
 */
forces: Array<Force>, 
/**
 * Cuts in the waste.
 */
weeding: Weeding, 
/**
 * How a machine takes G-code.
 */
gcode: Gcode, 
/**
 * How a cutter moves.
 */
pace: Pace, 
/**
 * How a cutter is spoken to.
 */
dialect: Dialect, 
/**
 * A record of each kind.
 */
records: Array<Record>, };

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

export type StepKind = "print" | "measure" | "prepare" | "tool" | "load" | "cut" | "look" | "count";

export type StepSay = { 
/**
 * What to do, in the imperative; 1 to 200 characters.
 */
text: string, 
/**
 * What turns on its crease, all at once.
 */
turns: Array<Turn>, };

export type StepView = { text: string, 
/**
 * Each plate's angle in degrees at the end of the step.
 */
angles: Array<number>, 
/**
 * Where each blank's root stands at the end: position (3) and quaternion (x, y, z, w).
 */
roots: Array<[number, number, number, number, number, number, number]>, };

export type StickerCard = { 
/**
 * Card beside the outermost outlines, mm, 0.5 to 100.
 */
margin: number, 
/**
 * Radius of its corners, mm, 0 to 50.
 */
corner: number, 
/**
 * Room for words above the outlines, mm, 0 to 200.
 */
heading: number, 
/**
 * Diameter of a hole to hang it by, mm, 0 to 20; 0 leaves it out.
 */
hole: number, };

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
sheets: Array<SheetSize>, 
/**
 * Thickness of the liner it lies on, mm; `None` without one. It counts in the caliper.
 */
liner: number | null, 
/**
 * Which side takes print.
 */
printable: PrintableSide, 
/**
 * The only kind of printer that it takes; `None` takes either.
 */
takes: PrintProcess | null, 
/**
 * What shines through ink that is printed on it.
 */
shine: Shine, 
/**
 * True for what is printed mirrored because it is transferred, face down, onto something else.
 */
mirrored: boolean, 
/**
 * The film laid over it after printing.
 */
laminate: Laminate | null, 
/**
 * True when a cut edge shows white against the print.
 */
white_edges: boolean, 
/**
 * What it costs.
 */
price: Price | null, 
/**
 * Set when it comes from a roll: each size is then a length cut off it.
 */
roll: Roll | null, 
/**
 * Where it stands in lists.
 */
keeping: Keeping, };

export type StretchView = { 
/**
 * Which of the operations.
 */
operation: number, 
/**
 * Which pass, from 1.
 */
pass: number, 
/**
 * The piece that the line is on; none in the waste.
 */
piece: PieceId | null, 
/**
 * The line's name on it, such as `edge`; empty where a blade is turned in the waste.
 */
stroke: string, 
/**
 * Where the tip runs, SVG path data, mm.
 */
line: string, 
/**
 * Where the tip will really run with a blade that trails and nobody who allows for it, SVG path data, mm; empty where
 * that is the same.
 */
trails: string, length_text: string, 
/**
 * Where the tool comes down and goes up, mm.
 */
from: [number, number], to: [number, number], 
/**
 * When it begins and how long it takes, s.
 */
begins: number, takes: number, };

export type Stripes = { 
/**
 * As `#rrggbb`.
 */
colour: string, 
/**
 * How wide each is, mm; 0.1 to 500.
 */
width: number, 
/**
 * From one to the next, mm; 0.2 to 1000.
 */
pitch: number, 
/**
 * Which way they run, degrees clockwise from rightwards as the shape is read.
 */
turn: number, };

export type TakenBy = "printer-margin" | "roller-strips" | "cutter-reach" | "lead-tail" | "carrier" | "roll-sides" | "swivel" | "eye" | "outside-marks" | "keep-clear" | "sign";

export type TakenView = { by: TakenBy, name: string, 
/**
 * SVG path data, mm.
 */
path: string, };

export type Tell = "missing-mark" | "odd-mark" | "sheet-code" | "numeral";

export type Text = { 
/**
 * The words, a line for each line; up to 2,000 characters.
 */
words: string, 
/**
 * A typeface of the shelf, by its id.
 */
typeface: string, 
/**
 * A typeface of the maker’s own, instead of that.
 */
own_typeface?: OwnTypeface | null, 
/**
 * As `#rrggbb`.
 */
colour: string, 
/**
 * How large they are.
 */
size: TextSize, 
/**
 * How lines stand to each other.
 */
align: Align, 
/**
 * From line to line, in ems; 0.5 to 4.
 */
line_spacing: number, 
/**
 * What is added between letters, in ems; −0.2 to 2.
 */
letter_spacing: number, 
/**
 * True where lines that are too long for the area are broken.
 */
wrapped: boolean, 
/**
 * The radius of the circle on which they stand, mm, its middle in the layer's place; below zero they stand inside
 * of it, at its bottom. `None` runs straight.
 */
round: number | null, 
/**
 * The panels on which it lies, by their names: several are one area across their creases, none are all that is
 * not glued; a curved panel is all its strips. What goes past the area is not printed.
 */
panels: Array<string>, 
/**
 * From the area's middle to the layer's, to the right as the flat shows it, mm.
 */
x: number, 
/**
 * The same downwards, mm.
 */
y: number, 
/**
 * What is up for it.
 */
up: Up, 
/**
 * How far it is turned from upright, clockwise, degrees.
 */
turn: number, };

export type TextSize = { "by": "area" } | { "by": "points", "value": number } | { "by": "em", "value": number } | { "by": "capitals", "value": number };

export type TicketArt = { 
/**
 * Its address.
 */
path: string, 
/**
 * Its left and upper edge, width and height in the drawing, mm.
 */
at: [number, number, number, number], };

export type TidyView = { 
/**
 * In words.
 */
words: string, 
/**
 * What leaves it as it was; none where nothing can.
 */
undo: Change | null, };

export type Tool = "drag-knife" | "creaser" | "pen";

export type Tooling = { 
/**
 * What is said of the operations that are not done as they come, or that are split off.
 */
operations?: { [key in OperationId]: OperationSay }, 
/**
 * The operations in the order in which they run, where that is not the trade's; those that are not in it come where
 * they would without it.
 */
order?: Array<OperationId>, 
/**
 * The copy that is worked first in each operation.
 */
first?: Pin | null, 
/**
 * The copy that is worked last in each operation.
 */
last?: Pin | null, 
/**
 * Uncut places that hold pieces in the sheet; `None` leaves them to the carrier.
 */
nicks?: Nicks | null, 
/**
 * Outlines that are cut and tied in turn, to be torn; not together with nicks.
 */
perforated?: Perforation | null, 
/**
 * Cuts in the waste, so that it comes off in parts.
 */
weeding?: Weeding | null, };

export type ToolingAsk = { job: Job, run: number, };

export type ToolingView = { operations: Array<OperationView>, stretches: Array<StretchView>, 
/**
 * How long a sheet takes, s; none where the cutter's pace is not known.
 */
seconds: number | null, time_text: string, 
/**
 * How long all sheets of the job take that are alike; empty where it is one.
 */
order_text: string, 
/**
 * How long its sheets take to print; empty where that is not known.
 */
print_text: string, 
/**
 * What was asked for twice and is worked once; empty where nothing was.
 */
left_out_text: string, 
/**
 * How far tools go down, and up.
 */
length_text: string, travel_text: string, 
/**
 * Where outlines are left uncut, mm.
 */
nicks: Array<[number, number]>, 
/**
 * What is said of the path.
 */
checks: Array<Check>, 
/**
 * Copies that can be worked first or last.
 */
copies: Array<SheetCopy>, };

export type Touched = { kind: RecordKind, id: RecordId, 
/**
 * False when it is gone now.
 */
is_there: boolean, };

export type Trace = { 
/**
 * From which share of the way on, 0.002 to 0.998; `None` is found.
 */
threshold: number | null, 
/**
 * How far the line may stray from the picture's edge, mm, 0.005 to 5; `None` is about a third of a pixel.
 */
detail: number | null, 
/**
 * Gaps up to this width are closed, mm, 0 to 20.
 */
gap: number, 
/**
 * Spots and holes of less are left out, mm², 0 to 10,000.
 */
least: number, 
/**
 * True to follow the holes too.
 */
holes: boolean, 
/**
 * The part of the picture that is looked at: left, top, right and bottom as shares of its sides; `None` is all.
 */
part: [number, number, number, number] | null, 
/**
 * A place, as shares of the sides, whose outline alone is taken; `None` takes all.
 */
around: [number, number] | null, } & ({ "by": "transparency" } | { "by": "darkness" } | { "by": "background", 
/**
 * What the background is like, as `#rrggbb`; `None` is found at the picture's edges.
 */
colour: string | null, } | { "by": "colour", 
/**
 * The colour, as `#rrggbb`.
 */
colour: string, });

export type TraceAsk = { 
/**
 * The outline as it is set up.
 */
traced: Traced, 
/**
 * The unit of the texts.
 */
unit: Unit, };

export type TraceLook = { 
/**
 * Around what counts as inside: SVG path data in mm from the picture's top left, roughly.
 */
line: string, 
/**
 * What was found; none where nothing is inside.
 */
found: FoundView | null, 
/**
 * What is wrong, in words.
 */
trouble: string | null, };

export type Traced = { 
/**
 * The picture.
 */
picture: BlobId, 
/**
 * Its width and height in pixels, the right way up.
 */
pixels: [number, number], 
/**
 * True for a drawing of lines and areas.
 */
drawn?: boolean, 
/**
 * What is known of where it comes from.
 */
origin: Origin, 
/**
 * How wide the whole picture is, mm; 3 to 2000.
 */
width: number, 
/**
 * What of it counts as inside, and how its edge is followed.
 */
trace: Trace, 
/**
 * What is mended by hand, one after the other; up to 200.
 */
mends?: Array<Mend>, 
/**
 * How far from what was traced the cut runs.
 */
border: Border, 
/**
 * A hole to hang it by.
 */
eye?: Eye | null, 
/**
 * A card around the outlines, cut through; they themselves are cut to its liner.
 */
card?: StickerCard | null, };

export type TracedView = { 
/**
 * The picture.
 */
picture: BlobId, 
/**
 * Where all of it lies in the drawing: left, top, width, height, mm.
 */
at: [number, number, number, number], 
/**
 * The line that was traced, before its border.
 */
line: string, 
/**
 * What is cut around it.
 */
cut: string, 
/**
 * Ends of curves of that, mm.
 */
nodes: Array<[number, number]>, 
/**
 * How many these are.
 */
node_count: number, 
/**
 * Where the line strays most from the picture's edge, mm.
 */
strays_at: [number, number], 
/**
 * What was found, in words.
 */
found: FoundView, 
/**
 * How many separate outlines are cut.
 */
outlines: number, 
/**
 * The least border at which they are one, mm, and as text.
 */
one_from: number | null, one_from_text: string | null, 
/**
 * How far before the cut a printed border ends at first, mm.
 */
printed_ends: number, 
/**
 * Corrections by hand that no longer fit, by their places.
 */
dropped: Array<number>, };

export type TrialAsk = { job: Job, 
/**
 * The job's number, for the Logbook.
 */
id: number | null, 
/**
 * Which run of its sheets.
 */
run: number, 
/**
 * Which operation.
 */
operation: string, varied: Varied, on: TrialOn, };

export type TrialOn = "sheet" | "scrap";

export type TrialView = { 
/**
 * Such as “kiss cut on jar label paper, with a knife in Left”.
 */
title: string, varied: Varied, on: TrialOn, 
/**
 * What to do next.
 */
advice: string, 
/**
 * True where what is looked for is bracketed.
 */
is_settled: boolean, 
/**
 * Entries that contradict each other.
 */
contradiction: Array<number>, 
/**
 * The rungs of the next ladder; none where there is nothing to try.
 */
rungs: Array<RungView>, 
/**
 * How long the ladder takes, s.
 */
seconds: number | null, 
/**
 * What was tried of this so far, by value.
 */
tried: Array<TriedView>, 
/**
 * The outcomes, in words that suit the line.
 */
outcomes: Array<OutcomeView>, 
/**
 * What would be kept, where it is settled.
 */
recipe: Recipe | null, 
/**
 * Why there is no ladder, in words; empty where there is one.
 */
trouble: string, 
/**
 * The settings that all rungs share.
 */
settings: string, };

export type TriedView = { id: number, value: number, text: string, outcome: Outcome, made_at: string, };

export type Turn = { 
/**
 * A place on it, in units of the file.
 */
at: [number, number], 
/**
 * To how many degrees, -180 to 180; `None` is all the way to closed.
 */
degrees?: number | null, };

export type Turning = "free" | "quarter" | "grain" | "upright";

export type TurnsAbout = "long-edge" | "short-edge";

export type TypefaceInfo = { id: string, 
/**
 * Its character, in a word or two.
 */
character: string, family: string, 
/**
 * Its character's name set in it: SVG path data about the middle of a box of this width and height.
 */
sample: string, sample_size: [number, number], };

export type UnderWhite = { 
/**
 * True where there is one.
 */
on: boolean, 
/**
 * How far it stays within the colour, mm, so that none shows where the two do not meet; below zero it goes beyond.
 * −2 to 2.
 */
choke: number, 
/**
 * True where the marks lie on white too.
 */
under_marks?: boolean, 
/**
 * Layers with none beneath: the card shines through them.
 */
knocked_out: Array<LayerId>, };

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

export type Up = "as-read" | "as-drawn";

export type Varied = "force" | "depth" | "speed" | "passes";

export type Waits = "under-way" | "printed" | "to-be-printed" | "held" | "done" | "stopped";

export type WayKind = "turned" | "marks" | "sheet" | "cutter" | "smaller" | "structure" | "split";

export type WayView = { kind: WayKind, remedy: Remedy, 
/**
 * What it comes to: names and figures.
 */
figures: Array<[string, string]>, sheet: SmallSheet, };

export type WaysDone = { 
/**
 * How many were found.
 */
found: number, 
/**
 * Which limit rules everything out, where none was.
 */
ruled_out: string | null, 
/**
 * The piece they are for, in a job of several.
 */
piece: string | null, 
/**
 * How many other pieces fit nowhere either.
 */
others: number, };

export type Weeding = { 
/**
 * How far the frame lies from the pieces, mm; 1 to 50.
 */
frame: number, 
/**
 * True where lines between the pieces divide what is in the frame.
 */
lines: boolean, };

export type WholePanelView = { 
/**
 * The name that is shown.
 */
name: string, 
/**
 * Its own and those of its strips.
 */
names: Array<string>, role: PanelRole, 
/**
 * SVG path data, mm.
 */
path: string, };

export type WishAsk = { wish: MachineWish, };

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
 * Carriers.
 */
carriers: { [key in RecordId]: Carrier }, 
/**
 * Mark sets.
 */
mark_sets: { [key in RecordId]: MarkSet }, 
/**
 * Recipes.
 */
recipes?: { [key in RecordId]: Recipe }, 
/**
 * Printing recipes.
 */
print_recipes?: { [key in RecordId]: PrintRecipe }, };

export type WorkshopState = { workshop: Workshop, 
/**
 * What a change must name, so that a second window is noticed.
 */
version: number, can_undo: boolean, can_redo: boolean, 
/**
 * The jobs that use a record, by its kind and id, such as `stocks/kraft-300`.
 */
uses: { [key in string]: Array<RecordUse> }, 
/**
 * The record that was just made, changed, or removed.
 */
touched: Touched | null, };

export type WorkshopStep = { version: number, };
