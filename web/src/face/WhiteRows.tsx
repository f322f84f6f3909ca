/** White beneath what is printed in colour, and which inks are looked at. */
import { Form } from 'react-bootstrap';

import { add, remove, set } from '../api/fields';
import type { Face, Separation, UnitInfo } from '../api/generated/types';
import type { PieceView } from '../api/views';
import { INK_NAMES } from '../board/inks';
import { FigureField } from '../card/FigureField';
import { Switch } from '../card/Switch';
import { SwitchField } from '../card/SwitchField';
import type { PieceSession } from '../job/pieces';

interface Props {
  session: PieceSession;
  piece: PieceView;
  unit: UnitInfo;
  face: Face;
}

export function WhiteRows({ session, piece, unit, face }: Props) {
  const { white } = face;
  const at = session.at('face.white');
  return (
    <>
      <SwitchField
        label="White beneath"
        value={white.on ? 'on' : 'off'}
        choices={[
          { value: 'off', label: 'none' },
          { value: 'on', label: 'under colour' },
        ]}
        onChoose={(how) => void session.keep(set(`${at}.on`, how === 'on'))}
      />
      {white.on && (
        <>
          <FigureField
            figure={{
              field: `${at}.choke`,
              label: 'Within the colour by',
              note: 'So that no white shows where inks do not meet; below zero it goes beyond.',
              value: white.choke,
            }}
            session={session}
            unit={unit}
            least={-2}
          />
          <SwitchField
            label="Under marks"
            value={white.under_marks ? 'on' : 'off'}
            choices={[
              { value: 'off', label: 'none' },
              { value: 'on', label: 'white too' },
            ]}
            onChoose={(how) => void session.keep(set(`${at}.under_marks`, how === 'on'))}
          />
          <div className="knocked-out" role="group" aria-label="White beneath each layer">
            {face.layers
              .filter((layer) => (layer.finish?.in ?? 'colour') === 'colour')
              .map(({ id }) => {
                const isOut = white.knocked_out.includes(id);
                return (
                  <Form.Check
                    key={id}
                    id={`white-${id}`}
                    label={`under ${piece.layers.find((shown) => shown.id === id)?.title ?? id}`}
                    checked={!isOut}
                    onChange={() =>
                      void session.keep(
                        isOut ? remove(`${at}.knocked_out.${id}`) : add(`${at}.knocked_out`, id),
                      )
                    }
                  />
                );
              })}
          </div>
        </>
      )}
    </>
  );
}

interface SeenProps {
  inks: Separation[];
  only: Separation | null;
  onOnly: (only: Separation | null) => void;
}

/** Looks at the inks one by one or together. */
export function InkSwitch({ inks, only, onOnly }: SeenProps) {
  return (
    <div className="ink-switch">
      <Switch
        label="Inks on the board"
        value={only ?? 'all'}
        choices={[
          { value: 'all', label: 'together' },
          ...inks.map((ink) => ({ value: ink, label: INK_NAMES[ink] })),
        ]}
        onChoose={(ink) => onOnly(ink === 'all' ? null : ink)}
      />
    </div>
  );
}
