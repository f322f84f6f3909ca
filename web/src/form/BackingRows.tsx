/** A layer of another card behind the piece. */
import { set } from '../api/fields';
import { useMeta } from '../api/queries';
import type { UnitInfo, Workshop } from '../api/generated/types';
import { ChoiceField } from '../card/ChoiceField';
import { FigureField } from '../card/FigureField';
import { Rows } from '../card/SpecCard';
import { Switch } from '../card/Switch';
import { errorsOf } from '../job/StageProps';
import type { PieceSession } from '../job/pieces';
import { named } from '../sheet/records';

interface Props {
  session: PieceSession;
  workshop: Workshop;
  unit: UnitInfo;
}

export function BackingRows({ session, workshop, unit }: Props) {
  const { backing } = session.own.form;
  const starts = useMeta().data?.starts;
  const stocks = named(workshop.stocks);
  const other = stocks.find(({ value }) => value !== session.own.stock) ?? stocks[0];
  return (
    <Rows
      title="Backing layer"
      page="border"
      aside={
        <Switch
          label="Backing layer"
          value={backing ? 'with' : 'without'}
          choices={[
            { value: 'without', label: 'none' },
            { value: 'with', label: 'second card' },
          ]}
          onChoose={(choice) => {
            const first = { stock: other?.value ?? session.own.stock, border: starts?.border ?? 0 };
            void session.keep(set(session.at('form.backing'), choice === 'with' ? first : null));
          }}
        />
      }
    >
      {backing && (
        <>
          <FigureField
            figure={{
              field: session.at('form.backing.border'),
              label: 'Border',
              note: 'How far the layer stands out beyond the piece.',
              value: backing.border,
            }}
            session={session}
            unit={unit}
          />
          <ChoiceField
            label="Its card"
            value={backing.stock}
            choices={stocks}
            errors={errorsOf(session, session.at('form.backing.stock'))}
            onChoose={(value) => void session.keep(set(session.at('form.backing.stock'), value))}
          />
        </>
      )}
    </Rows>
  );
}
