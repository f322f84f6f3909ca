/** What a piece is made of, and what it takes of it. */
import { set } from '../api/fields';
import { useMeta } from '../api/queries';
import { ChoiceField } from '../card/ChoiceField';
import { Result, Rows } from '../card/SpecCard';
import { SwitchField } from '../card/SwitchField';
import { errorsOf, type StageProps } from '../job/StageProps';
import { named } from '../sheet/records';

export function CardRows({ stage }: { stage: StageProps }) {
  const { session, piece, workshop } = stage;
  const units = useMeta().data?.units ?? [];
  const { job, own } = session;
  const { flat } = piece;
  return (
    <Rows title="Card" page="grain">
      <ChoiceField
        label="Stock"
        value={own.stock}
        choices={named(workshop.stocks, own.stock)}
        errors={errorsOf(session, session.at('stock'))}
        onChoose={(value) => void session.keep(set(session.at('stock'), value))}
      />
      {flat.has_liner && (
        <SwitchField
          label="Cuts"
          value={own.form.through ? 'through' : 'kiss'}
          choices={[
            { value: 'kiss', label: 'to the liner' },
            { value: 'through', label: 'through' },
          ]}
          onChoose={(value) =>
            void session.keep(set(session.at('form.through'), value === 'through'))
          }
        />
      )}
      <ChoiceField
        label="Unit"
        value={job.unit}
        choices={units.map((known) => ({ value: known.unit, label: known.unit }))}
        onChoose={(value) => void session.keep(set('unit', value))}
      />
      {flat.parts.map((part) => (
        <Result
          key={part.name}
          label={flat.parts.length > 1 ? part.name : 'Blank'}
          value={part.size_text}
        />
      ))}
      <Result label="Card in a piece" value={flat.area_text} />
      {flat.volume_text && <Result label="Holds" value={flat.volume_text} />}
    </Rows>
  );
}
