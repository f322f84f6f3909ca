/** Corrections of the outline by hand: the tools, and what was done with them. */
import { Button } from 'react-bootstrap';

import { remove } from '../api/fields';
import type { Mend, Traced, TracedView } from '../api/generated/types';
import { keysOf } from '../card/keys';
import { Rows } from '../card/SpecCard';
import type { PieceSession } from '../job/pieces';
import { TOOLS, type Tool } from './tools';

const HANDS: Tool[] = ['push', 'drop', 'smooth', 'cut', 'fill'];

const WORDS: Record<Mend['mend'], string> = {
  push: 'Node pushed',
  drop: 'Node taken away',
  smooth: 'Smoothed',
  cut: 'Cut off',
  fill: 'Bay closed',
};

interface Props {
  session: PieceSession;
  own: Traced;
  view: TracedView;
  tool: Tool;
  onTool: (tool: Tool) => void;
}

export function MendRows({ session, own, view, tool, onTool }: Props) {
  const mends = own.mends ?? [];
  const keys = keysOf(mends, ({ mend }) => mend);
  return (
    <Rows title="By hand">
      <div className="trace-hands" role="group" aria-label="Tools">
        {HANDS.map((hand) => (
          <Button
            key={hand}
            size="sm"
            variant={tool === hand ? 'primary' : 'outline-primary'}
            aria-pressed={tool === hand}
            onClick={() => onTool(tool === hand ? 'look' : hand)}
          >
            {TOOLS[hand].label}
          </Button>
        ))}
      </div>
      {tool !== 'look' && (
        <p className="trace-hint" role="status">
          {TOOLS[tool].hint}
        </p>
      )}
      {mends.map((mend, index) => (
        <div className="row-result" key={keys[index]}>
          <span>
            {WORDS[mend.mend]}
            {view.dropped.includes(index) && <span className="trace-gone"> no longer fits</span>}
          </span>
          <Button
            size="sm"
            variant="link"
            aria-label={`Take away: ${WORDS[mend.mend]} ${index + 1}`}
            onClick={() => void session.keep(remove(session.at(`form.traced.mends.${index}`)))}
          >
            take away
          </Button>
        </div>
      ))}
    </Rows>
  );
}
