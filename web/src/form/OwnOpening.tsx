/** Words or a drawing cut out of a panel: what it is, how it is turned, and the bridges that hold its islands. */
import { set } from '../api/fields';
import type { CutOutView, OwnShape, UnitInfo } from '../api/generated/types';
import { useMeta } from '../api/queries';
import { AmountField } from '../card/AmountField';
import { FigureField } from '../card/FigureField';
import { Problems } from '../card/Problems';
import { Result } from '../card/SpecCard';
import { SwitchField } from '../card/SwitchField';
import { BringDrawing } from '../drawing/BringDrawing';
import { Typefaces } from '../face/Typefaces';
import { Words } from '../face/Words';
import { errorsOf } from '../job/StageProps';
import type { PieceSession } from '../job/pieces';

interface Props {
  own: OwnShape;
  facts: CutOutView | undefined;
  session: PieceSession;
  unit: UnitInfo;
  /** The add-on's field. */
  path: string;
}

export function OwnOpening({ own, facts, session, unit, path }: Props) {
  const starts = useMeta().data?.starts;
  const at = (name: string) => `${path}.own.${name}`;
  const { cutting } = own;
  const wrong = ['', '.cutting', '.cutting.lines'].flatMap((part) =>
    errorsOf(session, `${path}.own${part}`),
  );
  return (
    <>
      {cutting.of === 'words' ? (
        <>
          <Words words={cutting.words} session={session} path={at('cutting')} hasColumns={false} />
          <Typefaces
            chosen={cutting.typeface}
            onChoose={(id) => void session.keep(set(at('cutting.typeface'), id))}
          />
          <AmountField
            label="Between letters, in ems"
            value={cutting.letter_spacing}
            field={at('cutting.letter_spacing')}
            step={0.02}
            session={session}
          />
        </>
      ) : (
        <>
          <Result label="Drawing" value={cutting.origin.name} />
          <BringDrawing
            label="Bring it in again"
            onBrought={({ drawing }) =>
              void session.keep(
                set(at('cutting'), { of: 'drawing', lines: drawing.lines, origin: drawing.origin }),
              )
            }
          />
        </>
      )}
      <AmountField
        label="Turned, degrees"
        value={own.turn}
        field={at('turn')}
        step={5}
        session={session}
      />
      <SwitchField
        label="Islands"
        value={own.bridge === null ? 'fall' : 'held'}
        choices={[
          { value: 'fall', label: 'fall out' },
          { value: 'held', label: 'held by bridges' },
        ]}
        onChoose={(how) =>
          void session.keep(set(at('bridge'), how === 'held' ? (starts?.bridge ?? null) : null))
        }
      />
      {own.bridge !== null && (
        <FigureField
          figure={{ field: at('bridge'), label: 'Width of a bridge', value: own.bridge }}
          session={session}
          unit={unit}
        />
      )}
      {facts && <Result label="Cut out" value={facts.size_text} />}
      {facts && <Result label="Islands" value={facts.holding_text} />}
      <Problems errors={wrong} onApply={(error) => void session.keep(...error.remedy.changes)} />
    </>
  );
}
