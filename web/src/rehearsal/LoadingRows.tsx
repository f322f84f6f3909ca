/** How the sheet is put into the cutter. */
import type { Loading, UnitInfo } from '../api/generated/types';
import { PlainLength } from '../card/PlainLength';
import { Rows } from '../card/SpecCard';
import { SwitchField } from '../card/SwitchField';

interface Props {
  loading: Loading;
  unit: UnitInfo;
  onKeep: (loading: Loading) => void;
}

export function LoadingRows({ loading, unit, onKeep }: Props) {
  const { shift, start } = loading;
  const lengths: [string, number, (mm: number) => Loading][] = [
    ['Lies to the right by', shift[0], (mm) => ({ ...loading, shift: [mm, shift[1]] })],
    ['Lies down by', shift[1], (mm) => ({ ...loading, shift: [shift[0], mm] })],
    ['Eye begins to the right by', start[0], (mm) => ({ ...loading, start: [mm, start[1]] })],
    ['Eye begins down by', start[1], (mm) => ({ ...loading, start: [start[0], mm] })],
  ];
  return (
    <Rows title="How it is loaded" page="loading">
      {lengths.slice(0, 2).map(([label, value, next]) => (
        <PlainLength key={label} {...{ label, value, unit }} onKeep={(mm) => onKeep(next(mm))} />
      ))}
      <PlainLength
        label="Turned by"
        value={loading.turn}
        unit={unit}
        measured="angle"
        onKeep={(turn) => onKeep({ ...loading, turn })}
      />
      <SwitchField
        label="Its head lies"
        value={loading.is_turned_round ? 'round' : 'right'}
        choices={[
          { value: 'right', label: 'ahead' },
          { value: 'round', label: 'behind' },
        ]}
        onChoose={(way) => onKeep({ ...loading, is_turned_round: way === 'round' })}
      />
      {lengths.slice(2).map(([label, value, next]) => (
        <PlainLength key={label} {...{ label, value, unit }} onKeep={(mm) => onKeep(next(mm))} />
      ))}
    </Rows>
  );
}
