/** The handbook's pages: what words of the trade mean, and how each stage is done. */

export interface Page {
  id: string;
  title: string;
  /** Under which it is found, beside its words. */
  terms: string;
  /** Which drawing stands beside it. */
  drawing: DrawingName | null;
  text: string[];
  /** Pages that belong to it. */
  see: string[];
}

export type DrawingName =
  | 'lines'
  | 'bleed'
  | 'marks'
  | 'scale'
  | 'loading'
  | 'ladder'
  | 'nick'
  | 'trailing'
  | 'hairs'
  | 'caliper'
  | 'window';

export const PAGES: Page[] = [
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
    drawing: null,
    text: [
      'Fibres in card lie mostly one way. Creases along them fold clean; creases across them crack. The main folds of a wrap should run along the grain.',
      'To find it, bend a sheet gently both ways: it gives more easily along the grain. Say in the stock’s record how its sheets are cut, and the sheet’s checks say when the folds lie wrong.',
    ],
    see: ['caliper'],
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
    id: 'face',
    title: 'Face: what is printed',
    terms: 'layer picture text pattern shape colour upright resolution ppi white varnish',
    drawing: null,
    text: [
      'A face is a list of layers, printed from the first to the last. Each lies on a panel, on several as one area, or on the whole flat. “As read” turns it the right way up for whoever reads the closed piece.',
      'Pictures print well from 300 pixels in an inch at their size on paper; under 200 they begin to look soft. White beneath colour, varnish and raised varnish are inks of their own.',
      'A pattern repeats a figure, a word or a picture, in rows and columns or at a pitch; what lies across the edge of its area is really cut off there.',
    ],
    see: ['bleed'],
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
    id: 'square-code',
    title: 'The sheet’s code',
    terms: 'square code letters freeze frozen print revision',
    drawing: 'marks',
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
    drawing: null,
    text: [
      'Rows and columns suit pieces that are nearly rectangles. Nesting lays flaps into gaps and turns pieces, and often saves a sheet. Leave 2 to 3 mm between cuts: card that thin still holds.',
      'What you move by hand stays where you put it; locked copies are left alone when you nest again.',
    ],
    see: ['window'],
  },
  {
    id: 'operations',
    title: 'Tooling: operations and their order',
    terms: 'station tool force speed passes depth order crease first cut last split',
    drawing: null,
    text: [
      'An operation is what is done along one kind of line: with which tool in which station, how hard, how fast, how often. Creases and scores come first, then kiss cuts and perforations, and the cut that frees the piece last, since a freed piece moves.',
      'Split an operation when a share of its lines needs other settings, such as the outer edge of a sticker card with three passes. Force is in your machine’s own unit and is never turned into another.',
    ],
    see: ['recipe', 'ladder', 'blade'],
  },
  {
    id: 'recipe',
    title: 'Recipes',
    terms: 'settings workshop at hand worked last printing paper type quality tray minutes',
    drawing: null,
    text: [
      'A recipe is what worked: the settings of one operation on one stock with one cutter and tool. It applies by itself where it matches; what your job says otherwise is shown beside it.',
      'Without a recipe nothing is invented. Make a test cut.',
      'A printing recipe is the same for the print: for one card on one printer the paper type, quality, colour, tray and which side lies up, with the minutes that a sheet takes. It stands in the print step, its minutes count in the order’s time, and the Logbook keeps it with what came out.',
    ],
    see: ['ladder', 'operations'],
  },
  {
    id: 'ladder',
    title: 'Test cuts: the ladder',
    terms: 'test force not through just right too deep liner logbook',
    drawing: 'ladder',
    text: [
      'A ladder is a row of small cuts at rising force. Cut it in a free place of the sheet or on a scrap, and tap what came of each: not through, just right, too deep. The next ladder lies between the two that bracket it.',
      'Lift a corner of each with a needle. A cut that needs tearing is not through. A kiss cut is right when the sticker lifts and the liner shows no line from behind.',
    ],
    see: ['recipe', 'kiss-cut'],
  },
  {
    id: 'kiss-cut',
    title: 'Kiss cut and cut through',
    terms: 'liner sticker label card depth one blade',
    drawing: null,
    text: [
      'Stickers are cut to the liner, the card around them through it. Many machines have one blade depth for both: set it so that a hard, fast pass goes through, and let low force and low speed do the kiss cut.',
      'Peel from a corner, across the grain of the liner, and weed the waste before you cut through.',
    ],
    see: ['ladder', 'weeding'],
  },
  {
    id: 'blade',
    title: 'The blade trails',
    terms: 'offset overcut swivel lead-in drag knife tip axis',
    drawing: 'trailing',
    text: [
      'The tip of a drag knife hangs behind its axis, about a quarter of a millimetre. Without allowance it rounds every corner. Either the machine allows for it, or Aptum does: then the axis swings round each corner while the tip stands still, and closed cuts go a little past where they began.',
      'Corners that stay closed want more overcut; corners that are torn want less speed.',
    ],
    see: ['operations'],
  },
  {
    id: 'nicks',
    title: 'Nicks: what holds the piece',
    terms: 'nick bridge tie hold perforated outline carrier',
    drawing: 'nick',
    text: [
      'A nick is a bit of the outline that is left uncut, half a millimetre or so, so that the piece stays in its sheet while it is cut. Put them on straight edges, away from corners and from what shows most.',
      'Bend the sheet at a nick until it gives, and smooth the spot with a nail.',
    ],
    see: ['weeding', 'operations'],
  },
  {
    id: 'weeding',
    title: 'Weeding the waste',
    terms: 'waste frame lines peel take out',
    drawing: 'nick',
    text: [
      'Weeding takes away what is not wanted. A frame around the pieces and lines between them divide the waste, so that it comes off in strips and takes no piece along.',
      'Pull the waste back flat over itself, never upwards.',
    ],
    see: ['nicks', 'kiss-cut'],
  },
  {
    id: 'rehearsal',
    title: 'Rehearsal: misfeed, verdict, odds',
    terms:
      'misfeed shift turn scale skew bow printer errors bad day fit to page white shows thousand',
    drawing: 'hairs',
    text: [
      'A misfeed is how a sheet comes to lie otherwise than it was meant. The rehearsal prints your sheet with the errors of a real printer, lays it in as you say, lets a cutter find the marks and cut, and then looks: each error is a hair, drawn fifty times as long.',
      'The verdict speaks of this one sheet; the odds of a thousand, each with errors of its own. None wrong of a thousand means under 0.3 % of sheets, at 95 %: more tries say more.',
      'What no marks can tell is the bow, where rollers do not run alike. It is what remains when everything else is right.',
    ],
    see: ['marks', 'bleed', 'print-true'],
  },
  {
    id: 'print-true',
    title: 'Print at 100 %',
    terms: 'actual size fit to page scale ruler print dialog paper',
    drawing: 'scale',
    text: [
      'In the print dialog choose “actual size” or 100 %. “Fit to page” makes everything some per cent smaller, and is the classic reason why a cut misses.',
      'Then lay a ruler on the printed scale and type in what it measures. Aptum tells fit to page from other paper and from a printer that is a little off, for which the marks allow.',
      'Choose the paper’s kind and thickness in the dialog too: thick card fed as thin paper slips.',
    ],
    see: ['frozen', 'loading'],
  },
  {
    id: 'frozen',
    title: 'Frozen prints',
    terms: 'freeze printed before the change run cut as printed',
    drawing: null,
    text: [
      'Once sheets are printed, what is on them cannot change under the cut. Aptum keeps the job as it was printed, and every cut is made from that. Change a place, a mark or ink afterwards, and it says at once that these sheets were printed before the change: cut them as printed, or print again.',
      'Force, speed, order, passes and nicks stay free until the blade comes down.',
    ],
    see: ['square-code', 'print-true'],
  },
  {
    id: 'loading',
    title: 'Load a sheet',
    terms: 'carrier feed first mark head top edge vacuum jog laminate trim lead tail',
    drawing: 'loading',
    text: [
      'The sheet goes in with its printed side up and its top edge first, on a carrier where the cutter wants one, pressed down from the middle outwards. Jog the head near to the first mark; the drawing of the step has a ring around it.',
      'Prints that are laminated rest first, overnight, so that the ink gives off its gas. Leave lead and tail when you trim: rollers must still hold the sheet when the last mark is cut.',
    ],
    see: ['marks', 'look'],
  },
  {
    id: 'look',
    title: 'Look before you unload',
    terms: 'not through repeat pass unload',
    drawing: null,
    text: [
      'Lift a corner of the waste before the sheet comes out. Where it is not through, repeat that operation in the same loading: once the sheet is out, no second cut meets the first.',
      'Count good pieces and bad ones by what was wrong with them. The Logbook keeps what was really sent, and shows it when the same card comes again.',
    ],
    see: ['loading', 'ladder'],
  },
  {
    id: 'a-little-off',
    title: 'When it cuts a little off',
    terms: 'correction shift turn scale measure near far offset',
    drawing: 'hairs',
    text: [
      'Measure at two places far apart how far the cut fell from the print. The same everywhere is a shift: the eye stands a little off the blade. Growing from one place to the other is a turn or a scale: the sheet slipped, a mark was read wrong, or the paper stretched.',
      'The correction is kept with the cutter, with its day, and is shown wherever it is applied. Drop it when the machine was set right.',
    ],
    see: ['rehearsal', 'marks'],
  },
];

/** Pages that have all of these words, the title counting first. */
export function found(text: string): Page[] {
  const words = text.toLowerCase().split(/\s+/).filter(Boolean);
  const rank = (page: Page) => {
    const title = page.title.toLowerCase();
    const all = `${title} ${page.terms} ${page.text.join(' ')}`.toLowerCase();
    if (!words.every((word) => all.includes(word))) return 0;
    if (words.every((word) => title.includes(word))) return 3;
    return words.every((word) => `${title} ${page.terms}`.includes(word)) ? 2 : 1;
  };
  return PAGES.map((page) => ({ page, rank: rank(page) }))
    .filter((own) => own.rank > 0)
    .sort((one, other) => other.rank - one.rank)
    .map((own) => own.page);
}

/** How the ids of limits begin, and the page that explains them; the first that suits counts. */
const LIMITS: [string, string][] = [
  ['ends-', 'bleed'],
  ['clear-', 'bleed'],
  ['safe-', 'bleed'],
  ['white-edges', 'bleed'],
  ['back-bleed', 'bleed'],
  ['bleed', 'bleed'],
  ['grain', 'grain'],
  ['caliper', 'caliper'],
  ['blank-', 'window'],
  ['print-process', 'print-true'],
  ['print', 'window'],
  ['cutter-', 'window'],
  ['marks', 'marks'],
  ['scan-', 'marks'],
  ['background', 'marks'],
  ['notes', 'square-code'],
  ['spacing', 'nesting'],
  ['copies', 'nesting'],
  ['tooling-nicks', 'nicks'],
  ['islands', 'nicks'],
  ['tooling-depth', 'kiss-cut'],
  ['liner', 'kiss-cut'],
  ['smallest-piece', 'weeding'],
  ['drawing-', 'dieline'],
  ['fold-', 'dieline'],
  ['glue', 'dieline'],
];

/** The page that explains a limit, by itself or as one of its stage. */
export function pageAbout(id: string, stage: string): Page | undefined {
  const own = LIMITS.find(([begins]) => id.startsWith(begins))?.[1];
  const page = own ?? (stage === 'tooling' ? 'operations' : stage === 'face' ? 'face' : null);
  return PAGES.find(({ id: other }) => other === page);
}
