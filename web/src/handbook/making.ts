/** The handbook's pages about what is made: form, face and sheet. */
import type { Page } from './pages';

export const MAKING: Page[] = [
  {
    id: 'form',
    title: 'Form: a structure and its size',
    terms:
      'structure catalogue inside outside size figure tuck glue flap own window add-on dimension',
    drawing: 'form',
    text: [
      'A structure is a kind of box, packet, tag or bookmark whose dieline follows from a few figures. Sizes are asked for inside or outside; the card’s caliper is allowed for. A figure that you leave alone follows from the others.',
      'What a structure does not offer is added to it: a window, a hole, a slit, a tab, words cut out of a panel. Where nothing in the catalogue will do, set the piece free from its figures and mend its lines, or bring a drawing of your own.',
      'Several pieces can make up one job: a box and its lid, a packet and its header, a tag for each.',
    ],
    see: ['dieline', 'folding', 'drawings'],
  },
  {
    id: 'dieline',
    title: 'Dieline: the lines of a piece',
    terms: 'cut kiss cut score crease reverse crease perforation guide flat blank panel flap form',
    drawing: 'lines',
    text: [
      'A dieline is the piece laid flat, with a kind for every line. Cut goes through. Kiss cut goes through the face and leaves the liner whole. Score is a cut to part of the depth. Crease is pressed, not cut, and folds away from you; reverse crease folds towards you. Perforation is cut and tie, cut and tie. A guide is neither printed nor cut.',
      'Kinds differ by colour and by dash, so that they survive a black-and-white print. The flat is always seen from its printed side.',
      'Begin in Form: choose a structure, give its inside size, and let the folded piece beside the flat tell you whether it is what you meant.',
    ],
    see: ['caliper', 'operations', 'kiss-cut'],
  },
  {
    id: 'caliper',
    title: 'Caliper: how thick the card is',
    terms: 'thickness points pt grammage allowance tuck lid stock',
    drawing: 'caliper',
    text: [
      'Card has a thickness, the caliper, in millimetres or in points of a thousandth of an inch: 14 pt is 0.356 mm. A panel loses half of it at each fold, a lid clears its base by it, and a tucked flap is narrower by it. Aptum does this arithmetic from the stock that you choose.',
      'Change the stock and the flat changes with it. A piece that was cut for thinner card binds in thicker card.',
    ],
    see: ['dieline', 'grain'],
  },
  {
    id: 'grain',
    title: 'Grain: which way the fibres run',
    terms: 'fibres fold crack long short',
    drawing: 'grain',
    text: [
      'Fibres in card lie mostly one way. Creases along them fold clean; creases across them crack. The main folds of a wrap should run along the grain.',
      'To find it, bend a sheet gently both ways: it gives more easily along the grain. Say in the stock’s record how its sheets are cut, and the sheet’s checks say when the folds lie wrong.',
    ],
    see: ['caliper'],
  },
  {
    id: 'folding',
    title: 'Folding: does it close?',
    terms: 'fold steps mate joint crease angle way panel meet proof closed thickness',
    drawing: 'folding',
    text: [
      'The folded piece beside the flat is made of plates as thick as your card, turned on their creases step by step. Aptum measures whether the edges that should meet do, whether glue lies on what it is glued to, and whether one panel goes through another on the way.',
      'The steps are the order in which hands fold. Drag the slider, or press play. Numbers beside the flat’s edges are mates: equal numbers meet.',
    ],
    see: ['dieline', 'bends', 'caliper'],
  },
  {
    id: 'bends',
    title: 'Bends: panels that are curved',
    terms: 'bend curved crease bow pillow ruling strip cylinder',
    drawing: 'bends',
    text: [
      'A curved panel is drawn as it bends: dotted lines across it are where the card gives of itself, and nothing is pressed or cut there. Between two of them lies a strip, and all strips together are one panel, for layers and for names.',
      'A crease that is a curve folds only where what lies beside it bends. Draw straight lines over the bowed panels up to the crease, choose “the card bends” for them in the line key, and tell each how far; without them the panel is shown folded straight from end to end of the crease, and the limits say so.',
    ],
    see: ['folding', 'drawings'],
  },
  {
    id: 'drawings',
    title: 'Drawings from elsewhere: scale and line key',
    terms:
      'drawing svg dxf pdf fold scale unit inch line key meaning layer colour doubles loose ends join mend node known dimension',
    drawing: 'drawings',
    text: [
      'A drawing says how long its units are, or it does not. Then nothing is cut until you have said so: pick one of the sizes that are shown, or press on two places of which you know the distance and type it.',
      'The line key says what lines of each layer and colour are: cut, crease, printed only, left out. What has no meaning is never cut. Keep a key under a name, and the next drawing of the same hand takes it over.',
      'Ends that nearly meet are joined, crumbs are dropped, lines that lie on each other are counted: an accident, or a way of asking for more passes? What was put in order is listed, and each can be undone. Tools on the board move nodes, round corners, trim and unite.',
    ],
    see: ['dieline', 'bends', 'marks-alone'],
  },
  {
    id: 'tracing',
    title: 'Outlines from a picture',
    terms:
      'trace threshold brightness transparency background inside specks holes detail nodes smooth crumbs region',
    drawing: 'tracing',
    text: [
      'A trace finds what belongs to the motif: what is not transparent, what is dark, or what differs from the background. The tint over the picture shows it. Aptum sets the threshold by itself; move it where a shadow or a pale edge says otherwise.',
      'Detail chooses between a line that keeps every hair and one that a knife likes: smooth, few nodes, nothing stray. Specks and holes under an area are left out, and gaps up to a width are closed. What the trace still gets wrong is put right by hand, and stays so when the threshold moves.',
    ],
    see: ['border', 'sticker-card'],
  },
  {
    id: 'border',
    title: 'Borders: outwards, inwards',
    terms: 'contour border outline offset white edge round mitre bevel merge holes backing sticker',
    drawing: 'border',
    text: [
      'A sticker is seldom cut along the motif itself: a border of 1 to 3 mm forgives what print and cut are off. Where the borders of two parts meet they become one; Aptum says how many outlines there are, and the least border at which they are one.',
      'Inwards by 0.25 to 0.5 mm the cut runs in the ink, so that no white shows. Several borders at once make a printed rim, the cut around it, and a backing of a second card.',
    ],
    see: ['tracing', 'bleed'],
  },
  {
    id: 'sticker-card',
    title: 'Labels and sticker cards',
    terms: 'label sticker card liner kiss through gutter margin hang hole heading weed',
    drawing: 'card',
    text: [
      'Labels lie on a liner: the blade goes through the face alone, and they peel off. A sticker card is a card with an edge of its own that is cut through, around labels that are kiss cut. Put in how many of each label; they are laid in rows, nested, or by hand inside the card’s margin.',
      'How the edge is cut through, and in how many passes, is said in Tooling.',
    ],
    see: ['kiss-cut', 'border'],
  },
  {
    id: 'face',
    title: 'Face: what is printed',
    terms: 'layer picture text pattern shape colour upright resolution ppi white varnish',
    drawing: 'face',
    text: [
      'A face is a list of layers, printed from the first to the last. Each lies on a panel, on several as one area, or on the whole flat. “As read” turns it the right way up for whoever reads the closed piece.',
      'Pictures print well from 300 pixels in an inch at their size on paper; under 200 they begin to look soft. White beneath colour, varnish and raised varnish are inks of their own.',
      'A pattern repeats a figure, a word or a picture, in rows and columns or at a pitch; what lies across the edge of its area is really cut off there.',
    ],
    see: ['bleed'],
  },
  {
    id: 'bleed',
    title: 'Bleed and safe margin',
    terms: 'white edge art past the cut face print',
    drawing: 'bleed',
    text: [
      'No cut falls exactly on the print. Bleed is art that goes on past the cut, 1 to 3 mm, so that no white shows when the cut falls outside. The safe margin is the same inside: words and logos that stay clear of it are never shaved.',
      'A rehearsal tells how much bleed your printer and cutter need together; a millimetre is usual where a cutter goes by marks.',
      'A picture with clear edges covers nothing there: where such an edge lies at a cut, bare card shows beside it. Print a colour beneath the picture, crop what is clear, or let its edge be mirrored past the cut.',
    ],
    see: ['rehearsal', 'face'],
  },
  {
    id: 'names',
    title: 'Many names: a list fills the face',
    terms: 'list csv merge row names words picture copies each semicolon comma',
    drawing: 'names',
    text: [
      'A list is a table with a head: CSV, from any spreadsheet. A text layer takes its words from a column, a picture layer its file. Every row makes a copy with its own words; step through the rows on the board.',
      'Words that do not fit are named with their row, and rows without a copy are counted.',
    ],
    see: ['face', 'queue'],
  },
  {
    id: 'finishes',
    title: 'White, varnish and backs',
    terms: 'white ink varnish raised spot separation clear reflective back turn duplex plate choke',
    drawing: 'finishes',
    text: [
      'Each layer says what it is printed in. White goes beneath colour on clear or reflective stock, drawn in by a hair so that none looks out; varnish lies over it, flat or raised in several passes. Each is an ink of its own in the print file, and the board shows them one by one or together.',
      'A back is a second page for each sheet, turned about the edge over which your printer turns it. How far the turned sheet comes to lie off is a property of the printer, and the back’s bleed allows for it.',
    ],
    see: ['face', 'bleed'],
  },
  {
    id: 'window',
    title: 'The working window',
    terms: 'print window cut window printable margin reach keep-clear sheet roll',
    drawing: 'window',
    text: [
      'A printer leaves an edge free, a cutter cannot reach everywhere, and marks need space around them. What is left for print is the print window; what is left for cuts is the cut window. They are not the same, and not rectangles: card between the marks is yours.',
      'The hatching on the sheet says what takes what away. Each can be switched off to look beneath it.',
    ],
    see: ['marks', 'nesting'],
  },
  {
    id: 'marks',
    title: 'Registration marks',
    terms: 'mark set angle dot cross first eye crosshairs keep-clear code turned',
    drawing: 'marks',
    text: [
      'Marks are printed with the art and read by the cutter, so that it knows how the sheet really lies: its shift, its turn and its scales. Three are enough for that; a fourth tells the skew, or how far the paper is from flat.',
      'The space around a mark must stay free. The first mark is where the reading begins. Four marks that are alike look the same turned by half a turn: a missing or odd one, a “1”, or the square code tells which way round the sheet lies.',
    ],
    see: ['loading', 'square-code', 'rehearsal'],
  },
  {
    id: 'marks-alone',
    title: 'Art made elsewhere, and its way back',
    terms: 'marks alone return scale art lay under program measured against shift turn',
    drawing: 'alone',
    text: [
      'Take the marks of a page alone as SVG, PDF or PNG, lay them under art in another program, and bring the file back. Aptum finds the marks in it, says how much larger, turned or shifted the file came back, and puts it right.',
      'Within a tenth of a millimetre it is taken as it is. The marks themselves are then left out of the cut.',
    ],
    see: ['marks', 'drawings'],
  },
  {
    id: 'square-code',
    title: 'The sheet’s code',
    terms: 'square code letters freeze frozen print revision',
    drawing: 'code',
    text: [
      'Every sheet carries five characters that follow from everything printed and cut on it, and, where there is room, the same as a small square code with the sheet’s number. Two sheets with the same code are the same to a ten-thousandth of a millimetre.',
      'A cutter with an eye reads it and refuses another job’s sheet. If you cut by hand, compare the letters.',
    ],
    see: ['frozen', 'marks'],
  },
  {
    id: 'nesting',
    title: 'Nesting and gutters',
    terms: 'nest gang step and repeat rows columns spacing gutter yield waste copies',
    drawing: 'nesting',
    text: [
      'Rows and columns suit pieces that are nearly rectangles. Nesting lays flaps into gaps and turns pieces, and often saves a sheet. Leave 2 to 3 mm between cuts: card that thin still holds.',
      'What you move by hand stays where you put it; locked copies are left alone when you nest again.',
    ],
    see: ['window'],
  },
];
