/** The list that fills the copies, as rows of the spec card. */
import { useRef } from 'react';
import { Button } from 'react-bootstrap';

import { set } from '../api/fields';
import { Result } from '../card/SpecCard';
import { SwitchField } from '../card/SwitchField';
import type { PieceSession } from '../job/pieces';
import type { ListDesk } from './useList';

interface Props {
  session: PieceSession;
  desk: ListDesk;
  isOpen: boolean;
  onOpen: (isOpen: boolean) => void;
}

const CODINGS = ['UTF-8', 'UTF-16', 'Windows-1252'];

const SEPARATORS = [
  { value: ',', label: 'comma' },
  { value: ';', label: 'semicolon' },
  { value: '\t', label: 'tab' },
];

export function ListRows({ session, desk, isOpen, onOpen }: Props) {
  const file = useRef<HTMLInputElement>(null);
  const pictures = useRef<HTMLInputElement>(null);
  const list = session.own.list ?? null;
  const { read } = desk;
  return (
    <>
      {list && (
        <>
          <Result
            label={list.name}
            value={`${list.rows.length} rows, ${list.columns.length} columns`}
          />
          {read && (
            <>
              <SwitchField
                label="Letters as"
                value={read.view.coding}
                choices={CODINGS.map((value) => ({ value, label: value }))}
                onChoose={(coding) => desk.bring(read.file, { ...toldOf(desk), coding })}
              />
              <SwitchField
                label="Between cells"
                value={read.view.separator}
                choices={SEPARATORS}
                onChoose={(separator) => desk.bring(read.file, { ...toldOf(desk), separator })}
              />
              <SwitchField
                label="First row"
                value={read.view.has_head ? 'names' : 'copy'}
                choices={[
                  { value: 'names', label: 'names columns' },
                  { value: 'copy', label: 'is a copy' },
                ]}
                onChoose={(how) =>
                  desk.bring(read.file, { ...toldOf(desk), head: how === 'names' })
                }
              />
            </>
          )}
          <p className="layer-note">
            A text takes a cell where a column stands in braces:{' '}
            {list.columns.slice(0, 4).map((name) => (
              <code key={name}>{`{${name}} `}</code>
            ))}
          </p>
        </>
      )}
      <div className="layer-buttons">
        <Button
          size="sm"
          variant="outline-primary"
          disabled={desk.isComing}
          onClick={() => file.current?.click()}
        >
          {list ? 'Bring another list in' : 'Bring a list in'}
        </Button>
        {list && (
          <>
            <Button variant="plain" aria-expanded={isOpen} onClick={() => onOpen(!isOpen)}>
              {isOpen ? 'close the table' : 'open the table'}
            </Button>
            <Button variant="plain" onClick={() => pictures.current?.click()}>
              bring its pictures in
            </Button>
            <Button
              variant="plain"
              onClick={() => {
                onOpen(false);
                void session.keep(set(session.at('list'), null));
              }}
            >
              take the list off
            </Button>
          </>
        )}
      </div>
      {list && list.pictures.length > 0 && (
        <Result label="Its pictures" value={String(list.pictures.length)} />
      )}
      <input
        ref={file}
        type="file"
        className="visually-hidden"
        aria-label="List file"
        tabIndex={-1}
        accept=".csv,.tsv,.txt,text/csv,text/plain"
        onChange={(event) => {
          const chosen = event.target.files?.[0];
          event.target.value = '';
          if (chosen) desk.bring(chosen);
        }}
      />
      <input
        ref={pictures}
        type="file"
        multiple
        className="visually-hidden"
        aria-label="Pictures of the list"
        tabIndex={-1}
        accept="image/*"
        onChange={(event) => {
          const chosen = [...(event.target.files ?? [])];
          event.target.value = '';
          desk.bringPictures(chosen);
        }}
      />
      {!list && (
        <p className="layer-note">
          A CSV with a row for each copy: names, numbers, file names of pictures.
        </p>
      )}
      {desk.trouble !== null && (
        <p className="lay-note lay-trouble" role="alert">
          {desk.trouble}
        </p>
      )}
    </>
  );
}

const toldOf = ({ read }: ListDesk) =>
  read
    ? { coding: read.view.coding, separator: read.view.separator, head: read.view.has_head }
    : {};
