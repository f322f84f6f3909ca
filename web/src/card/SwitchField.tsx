/** A row with a few choices side by side. */
import { Switch, type SwitchProps } from './Switch';

interface Props<T extends string> extends SwitchProps<T> {
  /** What stands before the choices, where that is not the whole label. */
  name?: string;
}

export function SwitchField<T extends string>({ name, ...choice }: Props<T>) {
  return (
    <div className="row-field">
      <span>{name ?? choice.label}</span>
      <Switch {...choice} />
    </div>
  );
}
