/** The rows of the list: the one on the board is marked; cells are changed in place. */
import { useEffect, useRef, useState } from 'react';
import { Button, Table } from 'react-bootstrap';

import { set } from '../api/fields';
import type { List } from '../api/generated/types';
import type { PieceSession } from '../job/pieces';

interface Props {
  session: PieceSession;
  list: List;
  row: number;
  onRow: (row: number) => void;
}

/** Steps through the rows. */
export function RowSteps({ list, row, onRow }: Omit<Props, 'session'>) {
  const cells = list.rows[row]?.filter((cell) => cell !== '').slice(0, 3) ?? [];
  return (
    <div className="row-steps" role="group" aria-label="The row on the board">
      <Button
        variant="plain"
        aria-label="The row before"
        disabled={row === 0}
        onClick={() => onRow(row - 1)}
      >
        ‹
      </Button>
      <span className="figure" aria-live="polite">
        row {list.rows.length === 0 ? 0 : row + 1} of {list.rows.length}
      </span>
      <Button
        variant="plain"
        aria-label="The next row"
        disabled={row >= list.rows.length - 1}
        onClick={() => onRow(row + 1)}
      >
        ›
      </Button>
      <span className="row-cells">{cells.join(' · ')}</span>
    </div>
  );
}

export function ListTable({ session, list, row, onRow }: Props) {
  const marked = useRef<HTMLTableRowElement>(null);
  useEffect(() => {
    marked.current?.scrollIntoView({ block: 'nearest' });
  }, [row]);
  return (
    <section className="list-table" aria-label={`The rows of ${list.name}`}>
      <Table size="sm" hover>
        <thead>
          <tr>
            <th scope="col" className="copy">
              Copy
            </th>
            {list.columns.map((name) => (
              <th key={name} scope="col">
                {name}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {list.rows.map((cells, at) => (
            <tr
              key={at}
              ref={at === row ? marked : null}
              className={at === row ? 'is-shown' : ''}
              onClick={() => onRow(at)}
            >
              <th scope="row" className="copy">
                {at + 1}
              </th>
              {cells.map((cell, column) => (
                <td key={column}>
                  <Cell
                    label={`${list.columns[column]} of copy ${at + 1}`}
                    cell={cell}
                    onShow={() => onRow(at)}
                    onKeep={(next) =>
                      void session.keep(set(session.at(`list.rows.${at}.${column}`), next))
                    }
                  />
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </Table>
    </section>
  );
}

interface CellProps {
  label: string;
  cell: string;
  onShow: () => void;
  onKeep: (cell: string) => void;
}

function Cell({ label, cell, onShow, onKeep }: CellProps) {
  const [typed, setTyped] = useState<string | null>(null);
  const finish = () => {
    if (typed !== null && typed !== cell) onKeep(typed);
    setTyped(null);
  };
  return (
    <input
      aria-label={label}
      value={typed ?? cell}
      autoComplete="off"
      onFocus={onShow}
      onChange={(event) => setTyped(event.target.value)}
      onBlur={finish}
      onKeyDown={(event) => {
        if (event.key === 'Enter') finish();
        else if (event.key === 'Escape') setTyped(null);
      }}
    />
  );
}
