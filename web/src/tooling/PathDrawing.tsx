/** The path of the tools: what is done by a moment, what comes, travel dotted, and the tool where it is. */
import { memo, useLayoutEffect, useMemo, useRef, useState } from 'react';

import type { StretchView, ToolingView } from '../api/generated/types';

/** So many stretches are drawn as one, so that playing redraws little. */
const TOGETHER = 48;

interface Props {
  view: ToolingView;
  /** The moment, s. */
  now: number;
  /** The place of the operation that is open; −1 where none is. */
  chosen: number;
  /** Whether what a blade will really cut is drawn over what was asked. */
  isReal: boolean;
  pointed: number | null;
  onPoint: (stretch: number | null) => void;
  onPick: (stretch: number) => void;
}

interface Chunk {
  first: number;
  end: number;
  ends: number;
  kind: string;
  operation: number;
  line: string;
  real: string;
  travel: string;
}

/** Stretches of one operation that follow each other. */
function chunks(view: ToolingView): Chunk[] {
  const all: Chunk[] = [];
  view.stretches.forEach((own, at) => {
    let last = all[all.length - 1];
    if (!last || last.operation !== own.operation || at - last.first >= TOGETHER) {
      const kind = view.operations[own.operation]?.kind ?? 'cut';
      const { operation } = own;
      last = { first: at, end: at, ends: 0, kind, operation, line: '', real: '', travel: '' };
      all.push(last);
    }
    const before = at === 0 ? null : view.stretches[at - 1];
    last.end = at + 1;
    last.ends = own.begins + own.takes;
    last.line += own.line;
    last.real += own.trails;
    if (before) last.travel += `M${before.to.join(' ')}L${own.from.join(' ')}`;
  });
  return all;
}

export function PathDrawing(props: Props) {
  const { view, now, chosen, isReal, pointed, onPoint, onPick } = props;
  const isTimed = view.seconds !== null;
  const all = view.stretches;
  const together = useMemo(() => chunks(view), [view]);
  const done = isTimed ? together.filter(({ ends }) => ends <= now) : together;
  const partly = together[done.length];
  const singly = partly ? all.slice(partly.first, partly.end) : [];
  const past = singly.filter(({ begins, takes }) => begins + takes <= now);
  const current = singly.find(({ begins, takes }) => begins <= now && now < begins + takes);
  const kind = (own: StretchView) => view.operations[own.operation]?.kind ?? 'cut';
  const first = all[0];
  const shown = pointed === null ? undefined : all[pointed];
  return (
    <g className="tool-path">
      <ToCome all={all} />
      {done.map((own) => (
        <Done key={own.first} own={own} isChosen={chosen === own.operation} isReal={isReal} />
      ))}
      {past.map((own, at) => (
        <path key={at} d={own.line} className={`done line-${kind(own)}`} />
      ))}
      {current && <Current own={current} now={now} kind={kind(current)} />}
      <path
        className="nicks"
        d={view.nicks.map(([x, y]) => `M${x - 1} ${y - 0.7}h2v1.4h-2z`).join('')}
      />
      {chosen >= 0 && <Begins all={all} operation={chosen} />}
      {first && <circle className="tool-start" cx={first.from[0]} cy={first.from[1]} r={1.6} />}
      {shown && (
        <g className="pointed">
          <path d={shown.line} />
          <circle cx={shown.from[0]} cy={shown.from[1]} r={1.4} />
        </g>
      )}
      <Hits all={all} onPoint={onPoint} onPick={onPick} />
    </g>
  );
}

const Done = memo(function Done(props: { own: Chunk; isChosen: boolean; isReal: boolean }) {
  const { own, isChosen, isReal } = props;
  return (
    <>
      <path d={own.travel} className="travel" />
      <path d={own.line} className={`done line-${own.kind}${isChosen ? ' is-chosen' : ''}`} />
      {isReal && own.real && <path d={own.real} className="real" />}
    </>
  );
});

/** The line at hand, with the tool on it. */
function Current({ own, now, kind }: { own: StretchView; now: number; kind: string }) {
  const path = useRef<SVGPathElement>(null);
  const [at, setAt] = useState<[number, number]>(own.from);
  const share = own.takes > 0 ? (now - own.begins) / own.takes : 0;
  useLayoutEffect(() => {
    const line = path.current;
    if (!line) return;
    const { x, y } = line.getPointAtLength(line.getTotalLength() * share);
    setAt([x, y]);
  }, [share, own]);
  return (
    <>
      <path ref={path} d={own.line} className={`now line-${kind}`} />
      <circle className="tool-now" cx={at[0]} cy={at[1]} r={2.2} />
    </>
  );
}

/** How large an arrow is, mm. */
const ARROW = 2.4;

/** Where a line begins and which way it goes: an arrow at its first point. */
function arrow(line: string): string {
  const numbers = /^M([-\d.]+) ([-\d.]+)L([-\d.]+) ([-\d.]+)/.exec(line);
  if (!numbers) return '';
  const [x = 0, y = 0, toX = 0, toY = 0] = numbers.slice(1).map(Number);
  const far = Math.hypot(toX - x, toY - y) || 1;
  const [dx, dy] = [((toX - x) / far) * ARROW, ((toY - y) / far) * ARROW];
  const barb = (side: number) =>
    `M${x + dx} ${y + dy}L${x + dx * 0.2 - side * dy * 0.5} ${y + dy * 0.2 + side * dx * 0.5}`;
  return barb(1) + barb(-1);
}

/** Where each line of an operation begins. */
const Begins = memo(function Begins(props: { all: StretchView[]; operation: number }) {
  const own = props.all.filter(
    ({ operation, pass }) => operation === props.operation && pass === 1,
  );
  return <path className="begins" d={own.map(({ line }) => arrow(line)).join('')} />;
});

/** All that will be done; it stays as it is while the moment moves. */
const ToCome = memo(function ToCome({ all }: { all: StretchView[] }) {
  return <path d={all.map(({ line }) => line).join('')} className="to-come" />;
});

/** Most lines that can be pointed at one by one. */
const MOST_POINTED = 3000;

interface HitProps {
  all: StretchView[];
  onPoint: (stretch: number | null) => void;
  onPick: (stretch: number) => void;
}

/** Wide and unseen, so that a line is easily pointed at. */
const Hits = memo(function Hits({ all, onPoint, onPick }: HitProps) {
  return (
    <g className="hits" onPointerLeave={() => onPoint(null)}>
      {all.slice(0, MOST_POINTED).map((own, at) => (
        <path key={at} d={own.line} onPointerEnter={() => onPoint(at)} onClick={() => onPick(at)} />
      ))}
    </g>
  );
});
