/** How the outline of a picture is found: what counts as inside, and what is left of it. */
import { useState } from 'react';
import { Alert, Button } from 'react-bootstrap';

import { api, Failure } from '../api/client';
import { set } from '../api/fields';
import type { Trace, Traced, TracedView, UnitInfo } from '../api/generated/types';
import { AmountField } from '../card/AmountField';
import { FigureField } from '../card/FigureField';
import { Result, Rows } from '../card/SpecCard';
import { ChoiceField } from '../card/ChoiceField';
import { SwitchField } from '../card/SwitchField';
import { ColourField } from '../face/ColourField';
import type { PieceSession } from '../job/pieces';
import type { StageProps } from '../job/StageProps';
import { ThresholdGauge } from './ThresholdGauge';
import type { Tool } from './tools';
import type { Look } from './useLook';

const WAYS: { value: Trace['by']; label: string }[] = [
  { value: 'background', label: 'not like the background' },
  { value: 'transparency', label: 'not clear' },
  { value: 'darkness', label: 'dark' },
  { value: 'colour', label: 'like a colour' },
];

interface Props {
  stage: StageProps;
  own: Traced;
  view: TracedView;
  unit: UnitInfo;
  look: Look | null;
  onTry: (threshold: number) => void;
  onDrop: () => void;
  tool: Tool;
  onTool: (tool: Tool) => void;
  onInHand: (field: string | null) => void;
}

export function TraceRows(props: Props) {
  const { stage, own, view, unit, look, onTry, onDrop, tool, onTool, onInHand } = props;
  const { session, piece } = stage;
  const { trace } = own;
  const field = (name: string) => session.at(`form.traced.trace.${name}`);
  const found = look?.seen?.found ?? view.found;
  const keep = async (name: string, value: unknown) => {
    await session.keep(set(field(name), value));
    onDrop();
  };
  const figure = (name: string) => {
    const known = piece.flat.figures.find((one) => one.field === field(name));
    return (
      known && (
        <FigureField
          figure={known}
          session={session}
          unit={unit}
          onFocus={(isFocused) => onInHand(isFocused ? known.field : null)}
        />
      )
    );
  };
  return (
    <Rows title="What is inside" page="tracing">
      <ChoiceField
        label="Told by"
        value={trace.by}
        choices={WAYS}
        onChoose={(by) =>
          void session.keep(
            set(field('by'), by),
            set(field('threshold'), null),
            set(field('colour'), by === 'colour' ? '#a4553d' : null),
          )
        }
      />
      {trace.by === 'colour' && (
        <ColourField
          colour={trace.colour}
          onTry={(colour) => session.propose(set(field('colour'), colour))}
          onKeep={(colour) => void keep('colour', colour)}
        />
      )}
      <ThresholdGauge
        by={trace.by}
        found={found}
        own={trace.threshold ?? null}
        tried={look?.threshold ?? null}
        onTry={onTry}
        onKeep={(threshold) => void keep('threshold', threshold)}
      />
      {look?.seen?.trouble && (
        <p className="trace-trouble" role="status">
          {look.seen.trouble}
        </p>
      )}
      {figure('detail')}
      {figure('gap')}
      <AmountField
        label="Leave out under, mm²"
        value={trace.least}
        field={field('least')}
        step={0.5}
        session={session}
      />
      <SwitchField
        label="Holes"
        value={trace.holes ? 'with' : 'without'}
        choices={[
          { value: 'without', label: 'outline only' },
          { value: 'with', label: 'with holes' },
        ]}
        onChoose={(choice) => void keep('holes', choice === 'with')}
      />
      <Looked {...{ session, own, tool, onTool }} />
      <Result label="Motifs, left out" value={`${found.motifs}, ${found.left_out}`} />
      <Result label="Nodes, corners" value={`${view.node_count}, ${view.found.corners}`} />
      <Result label="Strays at most" value={view.found.strays_text} />
      <Result label="Least bend" value={view.found.radius_text} />
      <Result label="Length" value={view.found.length_text} />
    </Rows>
  );
}

/** Which part of the picture is looked at, and a piece for each motif. */
function Looked({
  session,
  own,
  tool,
  onTool,
}: Pick<Props, 'own' | 'tool' | 'onTool'> & { session: PieceSession }) {
  const [trouble, setTrouble] = useState<string | null>(null);
  const { part, around } = own.trace;
  const isWhole = !part && !around;
  const apart = async () => {
    setTrouble(null);
    try {
      const pieces = await api.motifsApart(session.latest(), session.own.id);
      await session.keep(set('pieces', pieces));
    } catch (error) {
      if (!(error instanceof Failure)) throw error;
      setTrouble(error.problem.errors[0]?.message ?? error.message);
    }
  };
  const pick = (other: Tool) => onTool(tool === other ? 'look' : other);
  return (
    <div className="row-field trace-part">
      <span>Looked at</span>
      <span className="trace-acts">
        <Button
          size="sm"
          variant={tool === 'part' ? 'primary' : 'outline-primary'}
          onClick={() => pick('part')}
        >
          {part ? 'another part' : 'a part'}
        </Button>
        <Button
          size="sm"
          variant={tool === 'around' ? 'primary' : 'outline-primary'}
          onClick={() => pick('around')}
        >
          one motif
        </Button>
        {isWhole ? (
          <Button size="sm" variant="outline-primary" onClick={() => void apart()}>
            a piece each
          </Button>
        ) : (
          <Button
            size="sm"
            variant="link"
            onClick={() =>
              void session.keep(
                set(session.at('form.traced.trace.part'), null),
                set(session.at('form.traced.trace.around'), null),
              )
            }
          >
            all of it
          </Button>
        )}
      </span>
      {trouble && (
        <Alert variant="danger" className="trace-alert">
          {trouble}
        </Alert>
      )}
    </div>
  );
}
