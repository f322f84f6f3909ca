/** What holds pieces in the sheet, what divides the waste, and which copies come first and last. */
import { set } from '../api/fields';
import type { FieldChange, SheetCopy, Pin, Tooling, UnitInfo } from '../api/generated/types';
import { useMeta } from '../api/queries';
import { ChoiceField } from '../card/ChoiceField';
import { FigureField } from '../card/FigureField';
import { Rows } from '../card/SpecCard';
import { SwitchField } from '../card/SwitchField';
import type { JobSession } from '../job/useJobSession';

interface Props {
  tooling: Tooling;
  copies: SheetCopy[];
  onKeep: (...changes: FieldChange[]) => void;
  session: JobSession;
  unit: UnitInfo;
}

type Held = 'carrier' | 'nicks' | 'perforated';

export function HoldingRows({ tooling, copies, onKeep, session, unit }: Props) {
  const starts = useMeta().data?.starts;
  const { nicks, perforated, weeding } = tooling;
  const held: Held = nicks ? 'nicks' : perforated ? 'perforated' : 'carrier';
  const hold = (how: Held) =>
    onKeep(
      set('tooling.nicks', how === 'nicks' ? (starts?.nicks ?? null) : null),
      set('tooling.perforated', how === 'perforated' ? (starts?.perforation ?? null) : null),
    );
  const figure = (field: string, label: string, value: number, text?: string) => (
    <FigureField
      key={field}
      figure={{ field: `tooling.${field}`, label, value, ...(text ? { text } : {}) }}
      {...(text ? { measured: 'count' as const } : {})}
      session={session}
      unit={unit}
    />
  );
  return (
    <>
      <Rows title="Holding" page="nicks">
        <ChoiceField
          label="Held by"
          value={held}
          choices={[
            { value: 'carrier', label: 'the carrier alone' },
            { value: 'nicks', label: 'nicks in their outlines' },
            { value: 'perforated', label: 'perforated outlines' },
          ]}
          onChoose={(how) => hold(how as Held)}
        />
        {nicks && (
          <>
            {figure('nicks.width', 'Width', nicks.width)}
            <SwitchField
              label="Nicks"
              value={nicks.every == null ? 'count' : 'every'}
              choices={[
                { value: 'count', label: 'by number' },
                { value: 'every', label: 'at a distance' },
              ]}
              onChoose={(how) => onKeep(set('tooling.nicks.every', how === 'every' ? 50 : null))}
            />
            {nicks.every == null
              ? figure('nicks.count', 'In each outline', nicks.count, String(nicks.count))
              : figure('nicks.every', 'From nick to nick', nicks.every)}
            {nicks.every == null && (
              <SwitchField
                label="On edges that are seen"
                value={nicks.seen ? 'too' : 'not'}
                choices={[
                  { value: 'not', label: 'if it must be' },
                  { value: 'too', label: 'too' },
                ]}
                onChoose={(how) => onKeep(set('tooling.nicks.seen', how === 'too'))}
              />
            )}
          </>
        )}
        {perforated && (
          <>
            {figure('perforated.cut', 'Cut', perforated.cut)}
            {figure('perforated.tie', 'Tie', perforated.tie)}
          </>
        )}
        <SwitchField
          label="Weeding frame"
          value={weeding ? 'on' : 'none'}
          choices={[
            { value: 'none', label: 'none' },
            { value: 'on', label: 'around the pieces' },
          ]}
          onChoose={(how) =>
            onKeep(set('tooling.weeding', how === 'on' ? (starts?.weeding ?? null) : null))
          }
        />
        {weeding && (
          <>
            {figure('weeding.frame', 'From the pieces', weeding.frame)}
            <SwitchField
              label="Lines between"
              value={weeding.lines ? 'on' : 'off'}
              choices={[
                { value: 'on', label: 'on' },
                { value: 'off', label: 'off' },
              ]}
              onChoose={(how) => onKeep(set('tooling.weeding.lines', how === 'on'))}
            />
          </>
        )}
      </Rows>
      {copies.length > 1 && (
        <Rows title="First and last">
          <Pinned
            label="Worked first"
            pin={tooling.first ?? null}
            copies={copies}
            onPin={(first) => onKeep(set('tooling.first', first))}
          />
          <Pinned
            label="Worked last"
            pin={tooling.last ?? null}
            copies={copies}
            onPin={(last) => onKeep(set('tooling.last', last))}
          />
        </Rows>
      )}
    </>
  );
}

interface PinnedProps {
  label: string;
  pin: Pin | null;
  copies: SheetCopy[];
  onPin: (pin: Pin | null) => void;
}

const idOf = (pin: Pin) => `${pin.piece} ${pin.copy}`;

function Pinned({ label, pin, copies, onPin }: PinnedProps) {
  const all = copies.map((own) => ({ value: idOf(own), label: own.name }));
  return (
    <ChoiceField
      label={label}
      value={pin ? idOf(pin) : ''}
      choices={[{ value: '', label: 'whichever is near' }, ...all]}
      onChoose={(value) => {
        const own = copies.find((copy) => idOf(copy) === value);
        onPin(own ? { piece: own.piece, copy: own.copy } : null);
      }}
    />
  );
}
