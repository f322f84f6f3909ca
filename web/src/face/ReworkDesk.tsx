/** Clean-up of a picture, or the parts of a drawing: before and after side by side, and the steps between them. */
import { useEffect, useState } from 'react';
import { Button } from 'react-bootstrap';

import { api, Failure } from '../api/client';
import type { DrawingParts, ReworkStep } from '../api/generated/types';
import { blobAddress } from '../board/Art';
import type { PieceSession } from '../job/pieces';
import { BeforePane, type Tool } from './BeforePane';
import type { PictureLayer } from './layers';
import { ReworkSteps } from './ReworkSteps';
import { useRework } from './useRework';

interface Props {
  session: PieceSession;
  layer: PictureLayer;
  onClose: () => void;
}

export function ReworkDesk({ session, layer, onClose }: Props) {
  const desk = useRework(session, layer);
  const { from, pixels, steps } = desk;
  const [tool, setTool] = useState<Tool | null>(null);
  const parts = useParts(from, layer.drawn === true);
  const change = (at: number, step: ReworkStep) => desk.onSteps(steps.with(at, step));
  const add = (step: ReworkStep) => {
    desk.onSteps([...steps, step]);
  };
  return (
    <section className="rework-desk" aria-label={`Clean up ${layer.name ?? layer.origin.name}`}>
      <div className="rework-panes">
        <figure>
          <figcaption>
            Before <small>{tool ? HINTS[tool.kind] : layer.drawn ? 'click a part' : ''}</small>
          </figcaption>
          <BeforePane
            {...{ from, pixels, steps, tool }}
            parts={parts.found}
            onPoint={(at) => {
              if (tool?.kind !== 'point') return;
              const step = steps[tool.step];
              if (step?.kind === 'background')
                change(tool.step, { ...step, from: { by: 'point', at } });
              setTool(null);
            }}
            onRectangle={(corners) => {
              add({ kind: 'rectangle', corners });
              setTool(null);
            }}
            onStroke={(points) => {
              add({ kind: 'stroke', points, width: tool?.kind === 'stroke' ? tool.width : 0.03 });
              setTool(null);
            }}
            onPart={(part) => {
              if (steps.some((step) => step.kind === 'part' && step.part === part)) return;
              add({ kind: 'part', part, hidden: true, moved: [0, 0], colour: null });
            }}
          />
        </figure>
        <figure>
          <figcaption>
            After{' '}
            <small role="status">
              {desk.isBusy ? 'working …' : `${layer.pixels[0]} × ${layer.pixels[1]}`}
            </small>
          </figcaption>
          <div className="rework-picture">
            <img src={blobAddress(layer.blob)} alt="The picture as it is printed" />
          </div>
        </figure>
      </div>
      {(desk.trouble ?? parts.trouble) && (
        <p className="lay-note lay-trouble" role="alert">
          {desk.trouble ?? parts.trouble}
        </p>
      )}
      <ReworkSteps
        {...{ steps, tool }}
        parts={parts.found}
        onSteps={desk.onSteps}
        onTool={setTool}
      />
      <div className="rework-new">
        {layer.drawn === true ? (
          <span>
            {parts.found
              ? `${parts.found.count} parts: click one to leave it out, move it or colour it anew`
              : 'Looking at its parts …'}
          </span>
        ) : (
          <>
            <span>Add a step</span>
            <Button
              variant="plain"
              onClick={() =>
                add({
                  kind: 'background',
                  from: { by: 'edges' },
                  colour: null,
                  tolerance: 8,
                  soft: 1,
                })
              }
            >
              drop the background
            </Button>
            <Button variant="plain" onClick={() => add({ kind: 'specks', under: 60 })}>
              erase specks
            </Button>
            <Button
              variant="plain"
              aria-pressed={tool?.kind === 'rectangle'}
              onClick={() => setTool(tool?.kind === 'rectangle' ? null : { kind: 'rectangle' })}
            >
              erase a rectangle
            </Button>
            <Button
              variant="plain"
              aria-pressed={tool?.kind === 'stroke'}
              onClick={() =>
                setTool(tool?.kind === 'stroke' ? null : { kind: 'stroke', width: 0.03 })
              }
            >
              erase along a stroke
            </Button>
            <Button
              variant="plain"
              disabled={steps.some(({ kind }) => kind === 'crop')}
              onClick={() => add({ kind: 'crop' })}
            >
              crop to what is left
            </Button>
          </>
        )}
        <Button size="sm" variant="outline-primary" onClick={onClose}>
          Back to the flat
        </Button>
      </div>
    </section>
  );
}

const HINTS: Record<Tool['kind'], string> = {
  point: 'click where the background begins',
  rectangle: 'drag over what goes',
  stroke: 'draw along what goes',
};

interface Found {
  found: DrawingParts | null;
  trouble: string | null;
}

/** The parts of a drawing, where it is one. */
function useParts(from: string, isDrawn: boolean): Found {
  const [state, setState] = useState<Found>({ found: null, trouble: null });
  useEffect(() => {
    if (!isDrawn) return;
    const asked = new AbortController();
    api
      .parts(from, asked.signal)
      .then((found) => setState({ found, trouble: null }))
      .catch((error: unknown) => {
        if (error instanceof Failure) setState({ found: null, trouble: error.message });
      });
    return () => asked.abort();
  }, [from, isDrawn]);
  return state;
}
