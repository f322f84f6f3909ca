/** Face: what is printed on the piece, layer upon layer. */
import { useRef, useState } from 'react';
import { Button, Form } from 'react-bootstrap';

import { set } from '../api/fields';
import { useMeta } from '../api/queries';
import type { Face, Layer } from '../api/generated/types';
import { FlatBoard } from '../board/FlatBoard';
import { FigureField } from '../card/FigureField';
import { Rows, SpecCard } from '../card/SpecCard';
import { Switch } from '../card/Switch';
import { FoldDesk } from '../fold/FoldDesk';
import { FoldPane } from '../fold/FoldPane';
import type { StageProps } from '../job/StageProps';
import { token } from '../style/token';
import { LayerRows } from './LayerRows';
import { layerAdded, type NewLayer } from './layers';
import { LayerHandles } from './LayerHandles';
import { ListRows } from './ListRows';
import { ListTable, RowSteps } from './ListTable';
import { useList, useRow } from './useList';
import { usePictures } from './usePictures';

const PADDING = { left: 60, top: 60, right: 40, bottom: 50 };

/** What can be added, by its kind. */
const KINDS: Record<Layer['kind'], string> = {
  colour: 'colour',
  text: 'text',
  shape: 'shape',
  pattern: 'pattern',
  'panel-names': 'panel names',
  picture: 'picture',
};

/** Until the server has said what a face starts with. */
const BARE: Face = { bleed: 0, layers: [] };

export function FaceStage(props: StageProps) {
  const { session, workshop, unit, notice } = props;
  const desk = useList(session);
  const piece = useRow(session, props.piece, desk.row);
  const [isTableOpen, setTableOpen] = useState(false);
  const [lit, setLit] = useState<string | null>(null);
  const { own, job } = session;
  const { face } = own;
  const list = own.list ?? null;
  const [chosen, setChosen] = useState<string[]>([]);
  const [chosenPanel, setChosenPanel] = useState('');
  const file = useRef<HTMLInputElement>(null);
  // The largest outer panel is the one that is mostly meant.
  const faces = piece.flat.panels.filter(({ role }) => role === 'face');
  const largest = faces.reduce<(typeof faces)[number] | undefined>(
    (best, panel) => (!best || area(panel.size) > area(best.size) ? panel : best),
    undefined,
  );
  const panel = faces.some(({ name }) => name === chosenPanel)
    ? chosenPanel
    : (largest?.name ?? '');
  const starts = useMeta().data?.starts;
  const pictures = usePictures(session, panel, starts?.face ?? BARE);
  const add = (layer: NewLayer) => {
    if (!starts) return;
    const isOnPanel = layer.kind === 'text' || layer.kind === 'shape';
    const placed = isOnPanel ? { ...layer, panels: [panel], up: 'as-read' } : layer;
    void session.keep(...layerAdded(session, placed, starts.face));
  };
  return (
    <main className="stage">
      <div className="face-desk">
        <FoldDesk
          board={
            <FlatBoard
              stage={{ ...props, piece }}
              label={`Printed face of ${job.name}`}
              padding={PADDING}
              isPrinted
              lit={lit}
              onLit={setLit}
              onDropFile={(dropped, on) =>
                isList(dropped) ? desk.bring(dropped) : pictures.bring(dropped, on ?? panel)
              }
              overlay={(view) => (
                <LayerHandles {...{ session, piece, view, chosen }} onChoose={setChosen} />
              )}
            >
              {list && face && <RowSteps list={list} row={desk.row} onRow={desk.onRow} />}
              {!face && (
                <p className="stale-note">Nothing is printed on this piece: it is only cut</p>
              )}
              {pictures.coming !== null && (
                <p className="stale-note" role="status">
                  Bringing in {pictures.coming} …
                </p>
              )}
            </FlatBoard>
          }
          folded={
            <FoldPane
              form={own.form}
              stock={own.stock}
              colour={workshop.stocks[own.stock]?.colour ?? token('card-bare')}
              parts={piece.flat.parts}
              lit={lit}
              onLit={setLit}
            />
          }
        />
        {list && isTableOpen && (
          <ListTable {...{ session, list }} row={desk.row} onRow={desk.onRow} />
        )}
      </div>
      <SpecCard
        title={face ? 'Printed face' : 'Only cut'}
        subtitle={face ? 'Seen from outside' : 'No print, no marks, no printed page'}
        notice={notice}
      >
        <Rows
          title="Print"
          aside={
            <Switch
              label="Print"
              value={face ? 'printed' : 'bare'}
              choices={[
                { value: 'printed', label: 'printed' },
                { value: 'bare', label: 'only cut' },
              ]}
              onChoose={(choice) =>
                void session.keep(
                  set(session.at('face'), choice === 'printed' ? starts?.face : null),
                )
              }
            />
          }
        >
          {face && (
            <FigureField
              figure={{
                field: session.at('face.bleed'),
                label: 'Bleed',
                note: 'How far what reaches a cut goes past it.',
                value: face.bleed,
                text: piece.bleed_text,
              }}
              session={session}
              unit={unit}
            />
          )}
        </Rows>
        <Rows title="Layers" aside={<small>printed from the top down</small>}>
          <LayerRows {...{ session, piece, unit, chosen }} onChoose={setChosen} />
          <div className="layer-new">
            <span>Add</span>
            {starts?.layers.map((layer) => (
              <Button
                key={layer.kind}
                variant="plain"
                aria-label={`Add ${KINDS[layer.kind]}`}
                onClick={() => add(layer)}
              >
                {KINDS[layer.kind]}
              </Button>
            ))}
          </div>
          <div className="layer-new">
            <Button
              size="sm"
              variant="outline-primary"
              disabled={pictures.coming !== null || panel === ''}
              onClick={() => file.current?.click()}
            >
              Bring a picture in
            </Button>
            <label htmlFor="picture-panel">on</label>
            <Form.Select
              size="sm"
              id="picture-panel"
              value={panel}
              onChange={(event) => setChosenPanel(event.target.value)}
            >
              {faces.map(({ name }) => (
                <option key={name} value={name}>
                  {name}
                </option>
              ))}
            </Form.Select>
            <label htmlFor="picture-page" title="The page of a PDF that is brought in">
              page of a PDF
            </label>
            <input
              id="picture-page"
              className="page-entry figure"
              type="number"
              min={1}
              value={pictures.page}
              onChange={(event) => pictures.onPage(Math.max(1, event.target.valueAsNumber || 1))}
            />
            <input
              ref={file}
              type="file"
              className="visually-hidden"
              aria-label="Picture file"
              tabIndex={-1}
              accept="image/*,application/pdf,.svg,.pdf"
              onChange={(event) => {
                const chosen = event.target.files?.[0];
                event.target.value = '';
                if (chosen) pictures.bring(chosen, panel);
              }}
            />
          </div>
          {pictures.trouble && (
            <p className="lay-note lay-trouble" role="alert">
              {pictures.trouble}
            </p>
          )}
        </Rows>
        {face && (
          <Rows title="Merge" aside={<small>a copy for each row of a list</small>}>
            <ListRows {...{ session, desk }} isOpen={isTableOpen} onOpen={setTableOpen} />
          </Rows>
        )}
        <p className="card-note">
          {face
            ? 'Drop a picture on a panel, or paste it; drop a CSV for names. What reaches a cut goes past it by the bleed, so that no white shows where a cut strays.'
            : 'Without print the cutter needs no marks, and the whole sheet within its reach is free.'}
        </p>
      </SpecCard>
    </main>
  );
}

/** A list, by its name: its bytes are looked at when it is read. */
const isList = (file: File) => /\.(csv|tsv|txt)$/i.test(file.name);

const area = ([width, height]: [number, number]) => width * height;
