/** Face: what is printed on the piece, layer upon layer. */
import { useMemo, useRef, useState } from 'react';
import { Button, Form } from 'react-bootstrap';

import { set } from '../api/fields';
import { useMeta } from '../api/queries';
import type { Face, Layer, Separation } from '../api/generated/types';
import { behind } from '../api/views';
import { FlatBoard } from '../board/FlatBoard';
import { FigureField } from '../card/FigureField';
import { inksOf, SeenInks } from '../board/inks';
import { Rows, SpecCard } from '../card/SpecCard';
import { Switch } from '../card/Switch';
import { FoldDesk } from '../fold/FoldDesk';
import { FoldPane } from '../fold/FoldPane';
import type { StageProps } from '../job/StageProps';
import { token } from '../style/token';
import { LayerRows } from './LayerRows';
import { isOn, layerAdded, type NewLayer, type Side } from './layers';
import { LayerHandles } from './LayerHandles';
import { ListRows } from './ListRows';
import { ListTable, RowSteps } from './ListTable';
import { ReworkDesk } from './ReworkDesk';
import { useList, useRow } from './useList';
import { usePictures } from './usePictures';
import { InkSwitch, WhiteRows } from './WhiteRows';
import { ART } from '../drawing/kinds';

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
const BARE: Face = {
  bleed: 0,
  layers: [],
  white: { on: false, choke: 0, knocked_out: [] },
};

export function FaceStage(props: StageProps) {
  const { session, workshop, unit, notice } = props;
  const desk = useList(session);
  const [seen, setSide] = useState<Side>('front');
  const worn = useRow(session, props.piece, desk.row);
  const hasBack = session.own.face?.both_sides === true;
  const side = hasBack ? seen : 'front';
  const piece = side === 'back' ? behind(worn) : worn;
  const [isTableOpen, setTableOpen] = useState(false);
  const [lit, setLit] = useState<string | null>(null);
  const [onlyInk, setOnlyInk] = useState<Separation | null>(null);
  const { own, job } = session;
  const { face } = own;
  const list = own.list ?? null;
  const [chosen, setChosen] = useState<string[]>([]);
  const [reworked, setReworked] = useState<string | null>(null);
  const onDesk = face?.layers.find(({ id, kind }) => id === reworked && kind === 'picture');
  const [chosenPanel, setChosenPanel] = useState('');
  const inks = inksOf(piece.flat);
  const only = onlyInk !== null && inks.includes(onlyInk) ? onlyInk : null;
  const shine = workshop.stocks[own.stock]?.shine ?? 'opaque';
  const seenInks = useMemo(() => ({ only, shine }), [only, shine]);
  const file = useRef<HTMLInputElement>(null);
  const panels = piece.flat.whole_panels;
  const faces = panels.filter(({ role }) => role === 'face');
  const panel = faces.some(({ name }) => name === chosenPanel)
    ? chosenPanel
    : (piece.flat.meant ?? '');
  const whole = (name: string | null) =>
    panels.find(({ names }) => name !== null && names.includes(name))?.name;
  const starts = useMeta().data?.starts;
  const pictures = usePictures(session, panel, starts?.face ?? BARE, side);
  const add = (layer: NewLayer) => {
    if (!starts) return;
    const isOnPanel = layer.kind === 'text' || layer.kind === 'shape';
    const placed = {
      ...layer,
      ...(isOnPanel ? { panels: [panel], up: 'as-read' } : {}),
      side,
    };
    void session.keep(...layerAdded(session, placed, starts.face));
  };
  return (
    <main className="stage">
      <div className="face-desk">
        {onDesk?.kind === 'picture' ? (
          <ReworkDesk
            key={onDesk.id}
            {...{ session }}
            layer={onDesk}
            onClose={() => setReworked(null)}
          />
        ) : (
          <FoldDesk
            board={
              <SeenInks value={seenInks}>
                <FlatBoard
                  stage={{ ...props, piece }}
                  label={`Printed ${side === 'back' ? 'back' : 'face'} of ${job.name}`}
                  padding={PADDING}
                  isPrinted
                  lit={lit}
                  onLit={setLit}
                  onDropFile={(dropped, on) =>
                    isList(dropped)
                      ? desk.bring(dropped)
                      : pictures.bring(dropped, whole(on) ?? panel)
                  }
                  overlay={(view) => (
                    <LayerHandles
                      {...{ session, piece, view, chosen, side }}
                      onChoose={setChosen}
                    />
                  )}
                >
                  {inks.length > 1 && <InkSwitch {...{ inks, only }} onOnly={setOnlyInk} />}
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
              </SeenInks>
            }
            folded={
              worn.flat.traced ? null : (
                <FoldPane
                  form={own.form}
                  stock={own.stock}
                  colour={workshop.stocks[own.stock]?.colour ?? token('card-bare')}
                  parts={worn.flat.parts}
                  lit={lit}
                  onLit={setLit}
                />
              )
            }
          />
        )}
        {list && isTableOpen && !onDesk && (
          <ListTable {...{ session, list }} row={desk.row} onRow={desk.onRow} />
        )}
      </div>
      <SpecCard
        title={face ? 'Printed face' : 'Only cut'}
        subtitle={
          !face
            ? 'No print, no marks, no printed page'
            : side === 'back'
              ? 'Seen from behind'
              : 'Seen from outside'
        }
        notice={notice}
      >
        <Rows
          title="Print"
          page="bleed"
          aside={
            <Switch
              label="Print"
              value={!face ? 'bare' : hasBack ? 'both' : 'printed'}
              choices={[
                { value: 'printed', label: 'printed' },
                { value: 'both', label: 'both sides' },
                { value: 'bare', label: 'only cut' },
              ]}
              onChoose={(choice) =>
                void session.keep(
                  ...(choice === 'bare'
                    ? [set(session.at('face'), null)]
                    : [
                        ...(face ? [] : [set(session.at('face'), starts?.face)]),
                        set(session.at('face.both_sides'), choice === 'both'),
                      ]),
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
          {face && <WhiteRows {...{ session, piece, unit, face }} />}
        </Rows>
        <Rows
          title="Layers"
          page="face"
          aside={
            hasBack ? (
              <Switch
                label="Side"
                value={side}
                choices={(['front', 'back'] as const).map((value) => ({
                  value,
                  label: `${value} ${face?.layers.filter(isOn(value)).length ?? 0}`,
                }))}
                onChoose={(next) => {
                  setSide(next);
                  setChosen([]);
                }}
              />
            ) : (
              <small>printed from the top down</small>
            )
          }
        >
          <LayerRows
            {...{ session, piece, unit, chosen, side }}
            onChoose={setChosen}
            onRework={setReworked}
          />
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
              accept={ART}
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
          <Rows title="Merge" page="names" aside={<small>a copy for each row of a list</small>}>
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
