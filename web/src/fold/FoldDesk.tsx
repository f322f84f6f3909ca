/** The flat on its board with the folded piece beside it, or one of them alone. */
import { type ReactNode, useState } from 'react';

import { Switch } from '../card/Switch';

type Shown = 'flat' | 'both' | 'folded';

interface Props {
  board: ReactNode;
  /** Nothing where it does not fold. */
  folded: ReactNode;
}

export function FoldDesk({ board, folded }: Props) {
  const [shown, setShown] = useState<Shown>('both');
  if (!folded) return <div className="fold-desk shows-flat">{board}</div>;
  return (
    <div className={`fold-desk shows-${shown}`}>
      {shown !== 'folded' && board}
      {shown !== 'flat' && folded}
      <div className="fold-shown">
        <Switch
          label="Shown"
          value={shown}
          choices={[
            { value: 'flat', label: 'flat' },
            { value: 'both', label: 'both' },
            { value: 'folded', label: 'folded' },
          ]}
          onChoose={setShown}
        />
      </div>
    </div>
  );
}
