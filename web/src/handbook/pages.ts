/** The handbook's pages: what words of the trade mean, and how each stage is done. */
import { MAKING } from './making';
import type { SketchName } from './Sketch';
import { WORKING } from './working';

export interface Page {
  id: string;
  title: string;
  /** Under which it is found, beside its words. */
  terms: string;
  /** Which drawing stands beside it. */
  drawing: SketchName;
  text: string[];
  /** Pages that belong to it. */
  see: string[];
}

export const PAGES: Page[] = [...MAKING, ...WORKING];

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
  ['drawing-curves', 'bends'],
  ['drawing-', 'drawings'],
  ['trace-', 'tracing'],
  ['card-', 'sticker-card'],
  ['fold-', 'folding'],
  ['glue', 'folding'],
];

/** The page that explains a limit, by itself or as one of its stage. */
export function pageAbout(id: string, stage: string): Page | undefined {
  const own = LIMITS.find(([begins]) => id.startsWith(begins))?.[1];
  const page = own ?? (stage === 'tooling' ? 'operations' : stage === 'face' ? 'face' : null);
  return PAGES.find(({ id: other }) => other === page);
}
