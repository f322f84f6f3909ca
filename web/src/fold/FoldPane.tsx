/** The folded piece beside the flat: a slider from flat to closed, and the steps in order. */
import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { lazy, Suspense, useEffect, useState } from 'react';
import { Button } from 'react-bootstrap';

import { api } from '../api/client';
import { structureOf } from '../api/forms';
import type { FoldView, Form } from '../api/generated/types';
import type { PartView } from '../api/views';
import { Switch } from '../card/Switch';
import { FoldedPicture } from './FoldedPicture';
import type { Side } from './scene';

// Three dimensions are loaded when they are first shown.
const FoldCanvas = lazy(() => import('./FoldCanvas'));

interface Props {
  form: Form;
  stock: string;
  colour: string;
  /** The blanks, with what is printed on them. */
  parts: PartView[];
  lit: string | null;
  onLit: (panel: string | null) => void;
}

/** Milliseconds for a step. */
const PACE = 1100;

export function FoldPane({ form, stock, colour, parts, lit, onLit }: Props) {
  const fold = useQuery({
    queryKey: ['fold', stock, form],
    queryFn: ({ signal }) => api.fold({ form, stock }, signal),
    placeholderData: keepPreviousData,
    retry: false,
    gcTime: 5000,
  });
  const view = fold.data;
  // The same as long as nothing of it changes, so that a figure that is tried draws no texture anew.
  const worn = JSON.stringify(parts.map(({ art, behind, size }) => ({ art, behind, size })));
  const [printed, setPrinted] = useState({ worn, parts });
  if (printed.worn !== worn) setPrinted({ worn, parts });
  if (!view) return <div className="fold-pane" aria-busy="true" />;
  return (
    <Folded
      key={structureOf(form)?.structure ?? ''}
      {...{ form, stock, colour, parts: printed.parts, lit, onLit, view }}
    />
  );
}

function Folded({ form, stock, colour, parts, lit, onLit, view }: Props & { view: FoldView }) {
  const last = view.steps.length;
  const [progress, setProgress] = useState(last);
  const [isPlaying, setPlaying] = useState(false);
  const [side, setSide] = useState<Side>('outside');
  const [fits, setFits] = useState(0);
  const [isFlatShaded, setFlatShaded] = useState(false);
  const shown = Math.min(progress, last);

  useEffect(() => {
    if (!isPlaying) return;
    let before = performance.now();
    let frame = requestAnimationFrame(function tick(now) {
      const by = (now - before) / PACE;
      before = now;
      setProgress((at) => Math.min(last, at + by));
      frame = requestAnimationFrame(tick);
    });
    return () => cancelAnimationFrame(frame);
  }, [isPlaying, last]);
  const isRunning = isPlaying && shown < last;

  const step = Math.max(1, Math.ceil(shown));
  const text = shown === 0 ? 'Flat' : (view.steps[step - 1]?.text ?? 'Closed');
  const go = (to: number) => {
    setPlaying(false);
    setProgress(Math.min(last, Math.max(0, to)));
  };
  const label = `Folded piece, ${shown === 0 ? 'flat' : `step ${step} of ${last}: ${text}`}`;
  return (
    <section className="fold-pane" aria-label="Folded piece">
      <header>
        <span className="fold-step" role="status">
          {last === 0 ? (
            'This piece lies flat'
          ) : (
            <>
              <b className="figure">
                {shown === 0 ? 0 : step}/{last}
              </b>{' '}
              {text}
            </>
          )}
        </span>
      </header>
      <div className="fold-view">
        {isFlatShaded ? (
          <FlatShaded {...{ form, stock, colour, lit, onLit, label }} progress={shown} />
        ) : (
          <Suspense fallback={null}>
            <FoldCanvas
              view={view}
              progress={shown}
              side={side}
              card={colour}
              parts={parts}
              lit={lit}
              onLit={onLit}
              label={label}
              fits={fits}
              onFail={() => setFlatShaded(true)}
            />
          </Suspense>
        )}
        <div className="fold-tools">
          {!isFlatShaded && (
            <Switch
              label="Side shown"
              value={side}
              choices={[
                { value: 'outside', label: 'outer face' },
                { value: 'inside', label: 'inner face' },
              ]}
              onChoose={setSide}
            />
          )}
          {lit !== null && <span className="fold-lit">{lit}</span>}
          <Button
            variant="bare"
            className="fold-fit"
            onClick={() => setFits(fits + 1)}
            title="Fit (0)"
          >
            Fit
          </Button>
        </div>
      </div>
      {last > 0 && (
        <footer>
          <div className="fold-slide">
            <Button
              variant="bare"
              aria-label={isRunning ? 'Pause' : 'Play'}
              onClick={() => {
                if (!isRunning && shown >= last) setProgress(0);
                setPlaying(!isRunning);
              }}
            >
              <svg viewBox="0 0 12 12" aria-hidden="true">
                <path d={isRunning ? 'M2 1h3v10H2zM7 1h3v10H7z' : 'M2 1l9 5-9 5z'} />
              </svg>
            </Button>
            <Button
              variant="bare"
              aria-label="Step back"
              disabled={shown <= 0}
              onClick={() => go(Math.ceil(shown) - 1)}
            >
              ‹
            </Button>
            <span className="fold-range">
              <input
                type="range"
                aria-label="Folding"
                min={0}
                max={last}
                step={0.02}
                value={shown}
                aria-valuetext={text}
                onChange={(event) => go(Number(event.target.value))}
              />
              <span className="fold-ends" aria-hidden="true">
                <span>flat</span>
                <span>closed</span>
              </span>
            </span>
            <Button
              variant="bare"
              aria-label="Step on"
              disabled={shown >= last}
              onClick={() => go(Math.floor(shown) + 1)}
            >
              ›
            </Button>
          </div>
        </footer>
      )}
    </section>
  );
}

interface FlatShadedProps extends Omit<Props, 'parts'> {
  progress: number;
  label: string;
}

/** Without WebGL the server draws each moment. */
function FlatShaded({ form, stock, progress, colour, lit, onLit, label }: FlatShadedProps) {
  const moment = { form, stock, progress: Math.round(progress * 20) / 20 };
  const drawing = useQuery({
    queryKey: ['folded', moment],
    queryFn: ({ signal }) => api.folded(moment, signal),
    placeholderData: keepPreviousData,
    retry: false,
    gcTime: 5000,
  });
  if (!drawing.data) return null;
  return <FoldedPicture drawing={drawing.data} {...{ colour, lit, onLit, label }} />;
}
