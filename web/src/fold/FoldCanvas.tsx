/** The folded piece in space: turned by drag, touch and arrow keys, zoomed by wheel, pinch and + −. */
import { useEffect, useRef } from 'react';

import type { FoldView } from '../api/generated/types';
import type { PartView } from '../api/views';
import { token } from '../style/token';
import { FoldScene, type Side } from './scene';

interface Props {
  view: FoldView;
  progress: number;
  side: Side;
  card: string;
  /** The blanks, with what is printed on them. */
  parts: PartView[];
  lit: string | null;
  onLit: (panel: string | null) => void;
  label: string;
  /** Counts up when the piece should be framed anew. */
  fits: number;
  /** The browser has no WebGL after all. */
  onFail: () => void;
}

const DEGREES = 0.45;
const KEY = 8;

export default function FoldCanvas(props: Props) {
  const { view, progress, side, card, parts, lit, onLit, label, fits, onFail } = props;
  const canvas = useRef<HTMLCanvasElement>(null);
  const scene = useRef<FoldScene | null>(null);
  const touches = useRef(new Map<number, { x: number; y: number }>());
  const colours = useRef({ card, ink: token('ink'), lit: token('chosen') });
  const failed = useRef(onFail);
  useEffect(() => {
    colours.current = { ...colours.current, card };
    failed.current = onFail;
  });

  useEffect(() => {
    const element = canvas.current;
    if (!element) return;
    let made: FoldScene;
    try {
      made = new FoldScene(element);
    } catch {
      failed.current();
      return;
    }
    scene.current = made;
    const observer = new ResizeObserver(() => {
      made.resize(element.clientWidth, element.clientHeight);
    });
    observer.observe(element);
    const wheel = (event: WheelEvent) => {
      event.preventDefault();
      made.scale(Math.exp(-event.deltaY * 0.0015));
    };
    element.addEventListener('wheel', wheel, { passive: false });
    return () => {
      observer.disconnect();
      element.removeEventListener('wheel', wheel);
      made.dispose();
      scene.current = null;
    };
  }, []);

  const now = useRef(progress);
  useEffect(() => {
    now.current = progress;
    scene.current?.pose(progress);
  }, [progress]);
  useEffect(() => {
    scene.current?.show(view, colours.current, side, parts);
    scene.current?.pose(now.current);
  }, [view, side, card, parts]);
  useEffect(() => scene.current?.light(lit, colours.current), [lit, view, side]);
  useEffect(() => scene.current?.reset(), [fits]);

  const local = (event: React.PointerEvent) => {
    const { left, top } = event.currentTarget.getBoundingClientRect();
    return { x: event.clientX - left, y: event.clientY - top };
  };
  const move = (event: React.PointerEvent) => {
    const at = local(event);
    const before = touches.current.get(event.pointerId);
    if (!before) {
      onLit(scene.current?.at(at.x, at.y) ?? null);
      return;
    }
    const other = [...touches.current].find(([id]) => id !== event.pointerId)?.[1];
    if (other) {
      const far = (p: { x: number; y: number }) => Math.hypot(p.x - other.x, p.y - other.y);
      scene.current?.scale(far(at) / Math.max(1, far(before)));
    } else {
      scene.current?.turn(-(at.x - before.x) * DEGREES, (at.y - before.y) * DEGREES);
    }
    touches.current.set(event.pointerId, at);
  };
  const up = (event: React.PointerEvent) => touches.current.delete(event.pointerId);
  const key = (event: React.KeyboardEvent) => {
    const act: Partial<Record<string, () => void>> = {
      ArrowLeft: () => scene.current?.turn(-KEY, 0),
      ArrowRight: () => scene.current?.turn(KEY, 0),
      ArrowUp: () => scene.current?.turn(0, KEY),
      ArrowDown: () => scene.current?.turn(0, -KEY),
      '+': () => scene.current?.scale(1.25),
      '=': () => scene.current?.scale(1.25),
      '-': () => scene.current?.scale(0.8),
      '0': () => scene.current?.reset(),
    };
    const found = event.ctrlKey || event.metaKey || event.altKey ? undefined : act[event.key];
    if (!found) return;
    event.preventDefault();
    found();
  };

  return (
    <canvas
      ref={canvas}
      className="fold-canvas"
      role="img"
      aria-label={label}
      tabIndex={0}
      onPointerDown={(event) => {
        touches.current.set(event.pointerId, local(event));
        event.currentTarget.setPointerCapture(event.pointerId);
      }}
      onPointerMove={move}
      onPointerUp={up}
      onPointerCancel={up}
      onPointerLeave={() => onLit(null)}
      onDoubleClick={() => scene.current?.reset()}
      onKeyDown={key}
    />
  );
}
