/** The handbook's pages about the work: tooling, rehearsal and run. */
import type { Page } from './pages';

export const WORKING: Page[] = [
  {
    id: 'operations',
    title: 'Tooling: operations and their order',
    terms: 'station tool force speed passes depth order crease first cut last split',
    drawing: 'operations',
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
    drawing: 'recipe',
    text: [
      'A recipe is what worked: the settings of one operation on one stock with one cutter and tool. It applies by itself where it matches; what your job says otherwise is shown beside it.',
      'A job of several cards has a row for each of them, since each goes by its own recipe.',
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
    drawing: 'kiss',
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
    drawing: 'strips',
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
    drawing: 'frozen',
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
    drawing: 'look',
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
    drawing: 'off',
    text: [
      'Measure at two places far apart how far the cut fell from the print. The same everywhere is a shift: the eye stands a little off the blade. Growing from one place to the other is a turn or a scale: the sheet slipped, a mark was read wrong, or the paper stretched.',
      'The correction is kept with the cutter, with its day, and is shown wherever it is applied. Drop it when the machine was set right.',
    ],
    see: ['rehearsal', 'marks'],
  },
  {
    id: 'queue',
    title: 'Queue and Logbook',
    terms: 'queue pupils machine next waits done logbook entry outcome again settings',
    drawing: 'queue',
    text: [
      'The queue is what waits for one machine: whose sheets, who is next, what is printed and what is cut. Thirty faces on one net go in together.',
      'The Logbook remembers: stock, machines, tool, the settings that were really sent, how it came out. When the same card comes on the same cutter again, the last outcome stands first, and from each entry a way leads back to the job as it was.',
    ],
    see: ['frozen', 'look'],
  },
];
