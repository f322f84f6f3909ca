/**
 * The drawing board: a drawing in millimetres with rulers, zoom to the pointer, pan and fit.
 *
 * It fits the drawing by itself until the user moves it.
 */
import { type ReactNode, useCallback, useEffect, useLayoutEffect, useRef, useState } from 'react';
import { Button } from 'react-bootstrap';

import type { UnitInfo } from '../api/generated/types';
import { Rulers } from './Rulers';
import { type Box, fitted, type Padding, type View, zoomed } from './view';

export interface BoardProps {
  label: string;
  /** What is fitted, in mm. */
  box: Box;
  padding: Padding;
  unit: UnitInfo;
  /** What lies in millimetres. */
  drawing: ReactNode;
  /** What keeps its size on the screen. */
  overlay?: (view: View) => ReactNode;
  /** What the thing under the pointer is called. */
  hint?: string | null;
  /** Handles a key before the board does; true when it did. */
  onKey?: (event: React.KeyboardEvent) => boolean;
  /** Where it holds things that are chosen, the element of the one in hand. */
  holds?: { active: string | undefined };
  /** Controls in the board's corner. */
  children?: ReactNode;
}

const WHEEL = 0.0015;
const STEP = 1.25;
const PAN = 40;

export function Board(props: BoardProps) {
  const { label, box, padding, unit, drawing, overlay, hint, onKey, holds, children } = props;
  const frame = useRef<HTMLDivElement>(null);
  const [size, setSize] = useState({ width: 800, height: 500 });
  const [moved, setMoved] = useState<View | null>(null);
  const [pointer, setPointer] = useState({ x: 0, y: 0 });
  const touches = useRef(new Map<number, { x: number; y: number }>());

  // Before the first picture, so that the drawing is never seen at another size.
  useLayoutEffect(() => {
    const element = frame.current;
    if (!element) return;
    const measure = () => setSize({ width: element.clientWidth, height: element.clientHeight });
    measure();
    const observer = new ResizeObserver(measure);
    observer.observe(element);
    return () => observer.disconnect();
  }, []);

  const view = moved ?? fitted(box, size.width, size.height, padding);
  const current = useRef(view);
  useEffect(() => {
    current.current = view;
  });

  // Several may come before the view is drawn again: each starts where the one before it ended.
  const show = useCallback((next: View) => {
    current.current = next;
    setMoved(next);
  }, []);
  const zoomBy = useCallback(
    (factor: number, px: number, py: number) => show(zoomed(current.current, factor, px, py)),
    [show],
  );
  const panBy = (dx: number, dy: number) => {
    const now = current.current;
    show({ ...now, x: now.x + dx, y: now.y + dy });
  };

  // React's wheel listener is passive, so the page would scroll as well.
  useEffect(() => {
    const element = frame.current;
    if (!element) return;
    const wheel = (event: WheelEvent) => {
      event.preventDefault();
      const { left, top } = element.getBoundingClientRect();
      zoomBy(Math.exp(-event.deltaY * WHEEL), event.clientX - left, event.clientY - top);
    };
    element.addEventListener('wheel', wheel, { passive: false });
    return () => element.removeEventListener('wheel', wheel);
  }, [zoomBy]);

  const local = (event: React.PointerEvent) => {
    const { left, top } = event.currentTarget.getBoundingClientRect();
    return { x: event.clientX - left, y: event.clientY - top };
  };
  const down = (event: React.PointerEvent) => {
    touches.current.set(event.pointerId, local(event));
    event.currentTarget.setPointerCapture(event.pointerId);
  };
  const move = (event: React.PointerEvent) => {
    const at = local(event);
    setPointer(at);
    const before = touches.current.get(event.pointerId);
    if (!before) return;
    const other = [...touches.current].find(([id]) => id !== event.pointerId)?.[1];
    if (other) {
      const distance = (p: { x: number; y: number }) => Math.hypot(p.x - other.x, p.y - other.y);
      zoomBy(distance(at) / Math.max(1, distance(before)), other.x, other.y);
    } else {
      panBy(at.x - before.x, at.y - before.y);
    }
    touches.current.set(event.pointerId, at);
  };
  const up = (event: React.PointerEvent) => touches.current.delete(event.pointerId);

  const key = (event: React.KeyboardEvent) => {
    if (onKey?.(event)) {
      event.preventDefault();
      return;
    }
    const middle = { x: size.width / 2, y: size.height / 2 };
    const act: Partial<Record<string, () => void>> = {
      '+': () => zoomBy(STEP, middle.x, middle.y),
      '=': () => zoomBy(STEP, middle.x, middle.y),
      '-': () => zoomBy(1 / STEP, middle.x, middle.y),
      '0': () => setMoved(null),
      ArrowLeft: () => panBy(PAN, 0),
      ArrowRight: () => panBy(-PAN, 0),
      ArrowUp: () => panBy(0, PAN),
      ArrowDown: () => panBy(0, -PAN),
    };
    const found = event.ctrlKey || event.metaKey || event.altKey ? undefined : act[event.key];
    if (found) {
      event.preventDefault();
      found();
    }
  };

  return (
    <div className="board" ref={frame}>
      <svg
        className="board-paper"
        {...(holds ? { role: 'listbox', 'aria-multiselectable': true } : { role: 'group' })}
        aria-activedescendant={holds?.active}
        aria-label={label}
        tabIndex={0}
        onPointerDown={down}
        onPointerMove={move}
        onPointerUp={up}
        onPointerCancel={up}
        onDoubleClick={() => setMoved(null)}
        onKeyDown={key}
      >
        <g transform={`translate(${view.x} ${view.y}) scale(${view.scale})`}>{drawing}</g>
        {overlay?.(view)}
        <Rulers view={view} width={size.width} height={size.height} unit={unit} />
      </svg>
      {hint && (
        <div className="board-hint" style={{ left: pointer.x + 14, top: pointer.y + 16 }}>
          {hint}
        </div>
      )}
      <div className="board-zoom" role="group" aria-label="Zoom">
        <Button
          variant="bare"
          title="Smaller (-)"
          aria-label="Smaller"
          onClick={() => zoomBy(1 / STEP, size.width / 2, size.height / 2)}
        >
          −
        </Button>
        <Button variant="bare" title="Fit (0)" onClick={() => setMoved(null)}>
          Fit
        </Button>
        <Button
          variant="bare"
          title="Larger (+)"
          aria-label="Larger"
          onClick={() => zoomBy(STEP, size.width / 2, size.height / 2)}
        >
          +
        </Button>
      </div>
      {children}
    </div>
  );
}
