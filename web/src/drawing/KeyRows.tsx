/** The line key: what the lines of each layer and colour are. */
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Form } from 'react-bootstrap';

import { api, Failure } from '../api/client';
import { set } from '../api/fields';
import type { DrawingView, LineDrawing, RowView } from '../api/generated/types';
import { Rows } from '../card/SpecCard';
import { WordsField } from '../card/WordsField';
import { errorsOf } from '../job/StageProps';
import type { PieceSession } from '../job/pieces';

interface Props {
  session: PieceSession;
  own: LineDrawing;
  view: DrawingView;
  onLit: (row: string | null) => void;
}

export function KeyRows({ session, own, view, onLit }: Props) {
  const [trouble, setTrouble] = useState<string | null>(null);
  const field = session.at('form.drawing.key');
  const choose = (row: RowView, meaning: string) => {
    const others = Object.fromEntries(Object.entries(own.key).filter(([id]) => id !== row.id));
    void session.keep(set(field, meaning === '' ? others : { ...others, [row.id]: meaning }));
  };
  const kept = useQuery({ queryKey: ['keys'], queryFn: api.lineKeys, staleTime: 0 });
  const mine = own.key_name ?? session.job.name;
  const others = (kept.data ?? []).filter(({ name }) => name !== mine);
  const take = async (at: number) => {
    const other = others[at];
    if (!other) return;
    setTrouble(null);
    try {
      await session.keep(set(field, await api.applyKey(own, other.key)));
    } catch (error) {
      if (!(error instanceof Failure)) throw error;
      setTrouble(error.message);
    }
  };
  return (
    <Rows
      title="Line key"
      page="drawings"
      aside={
        others.length > 0 && (
          <Form.Select
            size="sm"
            className="key-from"
            aria-label="Take the line key of another job"
            value=""
            onChange={({ target: { value } }) => void take(Number(value))}
          >
            <option value="">as in …</option>
            {others.map(({ name }, at) => (
              <option key={`${name} ${at}`} value={at}>
                {name}
              </option>
            ))}
          </Form.Select>
        )
      }
    >
      {trouble && (
        <p className="lay-note lay-trouble" role="alert">
          {trouble}
        </p>
      )}
      <WordsField
        label="Kept as"
        value={own.key_name ?? ''}
        placeholder={session.job.name}
        errors={errorsOf(session, session.at('form.drawing.key_name'))}
        onKeep={(name) =>
          void session.keep(
            set(session.at('form.drawing.key_name'), name.trim() === '' ? null : name),
          )
        }
      />
      {view.rows.map((row) => (
        <div
          key={row.id}
          className={`key-row${row.meaning ? '' : ' is-open'}`}
          onPointerEnter={() => onLit(row.id)}
          onPointerLeave={() => onLit(null)}
        >
          <RowPicture row={row} />
          <span className="key-name">
            <strong>{row.layer || 'no layer'}</strong>
            <small>
              {row.count_text}, {row.length_text}
            </small>
          </span>
          <Form.Select
            size="sm"
            aria-label={`What ${row.layer || row.colour || row.look_name} is`}
            value={row.meaning ?? ''}
            onFocus={() => onLit(row.id)}
            onBlur={() => onLit(null)}
            onChange={({ target: { value } }) => choose(row, value)}
          >
            <option value="">not told</option>
            {view.meanings.map(({ meaning, name }) => (
              <option key={meaning} value={meaning}>
                {name}
              </option>
            ))}
          </Form.Select>
        </div>
      ))}
    </Rows>
  );
}

/** A small picture of the lines, in their colour. */
function RowPicture({ row }: { row: RowView }) {
  const [left, top, width, height] = row.bounds;
  const pad = Math.max(width, height, 0.1) * 0.06;
  const box = [left - pad, top - pad, width + 2 * pad, height + 2 * pad];
  return (
    <svg className="key-picture" viewBox={box.join(' ')} aria-hidden="true">
      <path d={row.path} style={row.colour ? { stroke: row.colour } : undefined} />
    </svg>
  );
}
