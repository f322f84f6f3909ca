/** A small flat that shows the panels on which a layer lies; where it can be changed, they are chosen on it. */
import type { FlatView } from '../api/views';

interface Props {
  flat: FlatView;
  /** None are all. */
  panels: string[];
  /** Chooses a panel alone; with Shift beside the others. */
  onChoose?: (panel: string, isBeside: boolean) => void;
}

export function KeyPlan({ flat, panels, onChoose }: Props) {
  const [width, height] = flat.size;
  const open = flat.whole_panels.filter(({ role }) => role !== 'glue');
  const isIn = (names: string[]) =>
    panels.length === 0 || names.some((name) => panels.includes(name));
  return (
    <svg
      className={onChoose ? 'key-plan is-open' : 'key-plan'}
      viewBox={`-1 -1 ${width + 2} ${height + 2}`}
      {...(onChoose
        ? { role: 'group', 'aria-label': 'Panels on which it lies' }
        : { 'aria-hidden': true })}
    >
      {open.map(({ name, path, names }) => (
        <path
          key={name}
          d={path}
          className={isIn(names) ? 'is-in' : undefined}
          {...(onChoose
            ? {
                role: 'checkbox',
                tabIndex: 0,
                'aria-label': name,
                'aria-checked': isIn(names),
                onClick: (event) => onChoose(name, event.shiftKey),
                onKeyDown: (event) => {
                  if (event.key !== ' ' && event.key !== 'Enter') return;
                  event.preventDefault();
                  onChoose(name, event.shiftKey);
                },
              }
            : {})}
        >
          {onChoose && <title>{name}</title>}
        </path>
      ))}
      <path d={flat.outline} className="key-outline" />
    </svg>
  );
}
