/** A piece in two parts: where it is cut apart, and its join flap. */
import { Button } from 'react-bootstrap';

import { set } from '../api/fields';
import { structureOf } from '../api/forms';
import type { SplitBy, UnitInfo } from '../api/generated/types';
import { FigureField } from '../card/FigureField';
import { Result, Rows } from '../card/SpecCard';
import type { PieceSession } from '../job/pieces';

const PLACES: Record<SplitBy, string> = {
  crease: 'at the crease',
  across: 'across',
  along: 'along',
};

interface Props {
  session: PieceSession;
  unit: UnitInfo;
}

export function SplitRows({ session, unit }: Props) {
  const split = structureOf(session.own.form)?.split;
  if (!split) return null;
  const field = (name: 'at' | 'flap', label: string, note: string) => (
    <FigureField
      figure={{ field: session.at(`form.split.${name}`), label, note, value: split[name] }}
      session={session}
      unit={unit}
    />
  );
  return (
    <Rows
      title="In two parts"
      aside={
        <Button
          size="sm"
          variant="link"
          onClick={() => void session.keep(set(session.at('form.split'), null))}
        >
          Keep it in one piece
        </Button>
      }
    >
      <Result label="Cut" value={`${PLACES[split.by]}: ${split.panel}`} />
      {split.by !== 'crease' &&
        field('at', 'Cut at', 'From the panel’s crease, or its first corner.')}
      {field('flap', 'Join flap', 'Width of the flap that the second part is glued onto.')}
    </Rows>
  );
}
