/** What holds of every layer: its name, whether it is printed, how opaque it is, whether it can be moved; and a copy of it. */
import { Button } from 'react-bootstrap';

import { add, set } from '../api/fields';
import type { Layer } from '../api/generated/types';
import { INK_NAMES } from '../board/inks';
import { AmountField } from '../card/AmountField';
import { ChoiceField } from '../card/ChoiceField';
import { SwitchField } from '../card/SwitchField';
import { WordsField } from '../card/WordsField';
import type { PieceSession } from '../job/pieces';
import { errorsOf } from '../job/StageProps';

export function LayerStanding({ layer, session }: { layer: Layer; session: PieceSession }) {
  const path = session.at(`face.layers.${layer.id}`);
  const keep = (field: string, value: unknown) => void session.keep(set(`${path}.${field}`, value));
  return (
    <>
      <WordsField
        label="Name"
        value={layer.name ?? ''}
        placeholder="by what it is"
        errors={errorsOf(session, `${path}.name`)}
        onKeep={(name) => keep('name', name.trim() === '' ? null : name.trim())}
      />
      <SwitchField
        name="It is"
        label="Whether the layer is printed"
        value={layer.hidden ? 'hidden' : layer.only_shown ? 'shown' : 'printed'}
        choices={[
          { value: 'printed', label: 'printed' },
          { value: 'shown', label: 'only shown' },
          { value: 'hidden', label: 'left out' },
        ]}
        onChoose={(how) =>
          void session.keep(
            set(`${path}.hidden`, how === 'hidden'),
            set(`${path}.only_shown`, how === 'shown'),
          )
        }
      />
      <ChoiceField
        label="Printed in"
        value={layer.finish?.in ?? 'colour'}
        choices={(['colour', 'white', 'varnish', 'raised'] as const).map((value) => ({
          value,
          label: INK_NAMES[value],
        }))}
        onChoose={(ink) => keep('finish', ink === 'raised' ? { in: ink, passes: 2 } : { in: ink })}
      />
      {layer.finish?.in === 'raised' && (
        <AmountField
          label="Passes, 1 to 20"
          value={layer.finish.passes}
          field={`${path}.finish.passes`}
          step={1}
          session={session}
        />
      )}
      <AmountField
        label="Opacity, 0 to 1"
        value={layer.opacity ?? 1}
        field={`${path}.opacity`}
        step={0.05}
        session={session}
      />
      <div className="layer-buttons">
        <Button variant="plain" onClick={() => keep('locked', !layer.locked)}>
          {layer.locked ? 'unlock' : 'lock'}
        </Button>
        <Button
          variant="plain"
          onClick={() =>
            void session.keep(add(session.at('face.layers'), { ...layer, id: undefined }))
          }
        >
          copy
        </Button>
      </div>
    </>
  );
}
