/** A figure of the job, as core describes it, in the spec card. */
import { set } from '../api/fields';
import type { Figure, Measured, UnitInfo } from '../api/generated/types';
import { errorsOf } from '../job/StageProps';
import type { JobSession } from '../job/useJobSession';
import { LengthField } from './LengthField';

interface Props {
  figure: Pick<Figure, 'field' | 'label' | 'value'> & Partial<Figure>;
  session: JobSession;
  unit: UnitInfo;
  /** What is typed, where the figure does not say. */
  measured?: Measured;
  /** What stepping stops at; 0 where nothing else is said. */
  least?: number;
  onFocus?: (isFocused: boolean) => void;
}

export function FigureField({ figure, session, unit, measured, least, onFocus }: Props) {
  const { field } = figure;
  const hasStandard = figure.own !== undefined && figure.kind !== 'size';
  const isNumber = figure.kind === 'angle' || figure.kind === 'count';
  const typed = measured ?? (isNumber ? (figure.kind as 'angle' | 'count') : undefined);
  return (
    <LengthField
      label={figure.label}
      {...(figure.note ? { note: figure.note } : {})}
      value={figure.value}
      {...(figure.text === undefined ? {} : { text: figure.text })}
      unit={unit}
      {...(least === undefined ? {} : { least })}
      {...(typed ? { measured: typed } : {})}
      {...(hasStandard ? { isStandard: figure.own === false } : {})}
      errors={errorsOf(session, field)}
      onTry={(mm) => session.propose(set(field, mm))}
      onKeep={() => session.keep()}
      onDrop={session.drop}
      onStandard={() => void session.keep(set(field, null))}
      {...(onFocus ? { onFocus } : {})}
      onApply={(error) => void session.keep(...error.remedy.changes)}
    />
  );
}
