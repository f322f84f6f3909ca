/** The typefaces of the shelf, each in its own letters. */
import { Button } from 'react-bootstrap';

import { useMeta } from '../api/queries';
import { rove } from '../card/rove';

export function Typefaces({
  chosen,
  onChoose,
}: {
  chosen: string;
  onChoose: (id: string) => void;
}) {
  const typefaces = useMeta().data?.typefaces ?? [];
  const first = typefaces.some(({ id }) => id === chosen) ? chosen : typefaces[0]?.id;
  return (
    <div className="typefaces" role="radiogroup" aria-label="Typeface">
      {typefaces.map(({ id, character, family, sample, sample_size: [width, height] }) => (
        <Button
          key={id}
          variant="bare"
          role="radio"
          aria-checked={id === chosen}
          tabIndex={id === first ? 0 : -1}
          onKeyDown={rove((at) => onChoose(typefaces[at]?.id ?? chosen))}
          aria-label={`${character}, ${family}`}
          title={family}
          onClick={() => onChoose(id)}
        >
          <svg
            viewBox={`${-width / 2 - 1} ${-height / 2 - 3} ${width + 2} ${height + 8}`}
            aria-hidden="true"
          >
            <path d={sample} />
          </svg>
        </Button>
      ))}
    </div>
  );
}
