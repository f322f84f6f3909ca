/** Form: the structure, its figures, its flat and the folded piece. */
import { token } from '../style/token';
import { useState } from 'react';
import { Button, Modal } from 'react-bootstrap';

import { set } from '../api/fields';
import { drawingOf, gatheredOf, structureOf, tracedOf } from '../api/forms';
import type { Basis, Dimension, Figure, Form } from '../api/generated/types';
import { Dimensions } from '../board/Dimensions';
import { FlatBoard } from '../board/FlatBoard';
import { MateNumbers, PanelNames } from '../board/FlatDrawing';
import { FigureField } from '../card/FigureField';
import { Result, Rows, SpecCard } from '../card/SpecCard';
import { Switch } from '../card/Switch';
import { Catalogue } from '../catalogue/Catalogue';
import { BringDrawing } from '../drawing/BringDrawing';
import { DrawingStage } from '../drawing/DrawingStage';
import { FoldDesk } from '../fold/FoldDesk';
import { FoldPane } from '../fold/FoldPane';
import { GatheredStage } from '../gathered/GatheredStage';
import type { StageProps } from '../job/StageProps';
import { TraceStage } from '../trace/TraceStage';
import { AddOnHandles } from './AddOnHandles';
import { AddOns } from './AddOns';
import { BackingRows } from './BackingRows';
import { CardRows } from './CardRows';
import { Labels } from './Labels';
import { Legend } from './Legend';
import { SetFree } from './SetFree';
import { Sketch } from './Sketch';
import { SplitRows } from './SplitRows';

const BASES: { value: Basis; label: string }[] = [
  { value: 'inside', label: 'inside' },
  { value: 'outside', label: 'outside' },
  { value: 'crease', label: 'crease' },
];

/** Where each basis stands among the texts of the sizes, and what its row is called. */
const OTHERS: Record<Basis, { at: number; label: string }> = {
  inside: { at: 0, label: 'Inside' },
  crease: { at: 1, label: 'Creases' },
  outside: { at: 2, label: 'Outside' },
};

const isSize = (figure: Figure) => figure.kind === 'size' || figure.kind === 'count';

/** Pixels for the tiers of dimensions at the foot and on the left. */
function padding(all: Dimension[]) {
  const dimensions = all.filter((dimension) => !dimension.is_quiet);
  const tiers = (axis: string) =>
    Math.max(0, ...dimensions.filter((d) => d.axis === axis).map((d) => d.tier + 1));
  return {
    left: 44 + 27 * tiers('along'),
    top: 48,
    right: 30,
    bottom: 52 + 27 * tiers('across'),
  };
}

export function FormStage(props: StageProps) {
  const own = tracedOf(props.session.own.form);
  const view = props.piece.flat.traced;
  if (own && view) return <TraceStage stage={props} own={own} view={view} />;
  const drawing = drawingOf(props.session.own.form);
  const lines = props.piece.flat.drawing;
  if (drawing && lines) return <DrawingStage stage={props} own={drawing} view={lines} />;
  const card = gatheredOf(props.session.own.form);
  const held = props.piece.flat.gathered;
  if (card && held) return <GatheredStage stage={props} own={card} view={held} />;
  return <StructureStage {...props} />;
}

function StructureStage(props: StageProps) {
  const { session, piece, workshop, unit, notice } = props;
  const [inHand, setInHand] = useState<string | null>(null);
  const [lit, setLit] = useState<string | null>(null);
  const [picked, setPicked] = useState<number | null>(null);
  const [isChoosing, setChoosing] = useState(false);
  const { job, own } = session;
  const { flat } = piece;
  const [width, height] = flat.size;
  const box = { x: 0, y: 0, width, height };
  const stock = workshop.stocks[own.stock];
  const colour = stock?.colour ?? token('card-bare');
  const note = flat.figures.find((figure) => figure.field === inHand);
  const structure = structureOf(own.form);
  const basis = structure?.basis ?? 'inside';

  // The same piece measured another way: core says what its sizes are then.
  const measure = (other: Basis) => {
    const sizes = flat.sizes[other];
    void session.keep(
      set(session.at('form.basis'), other),
      ...flat.sizes.keys.map((key, at) => set(session.at(`form.${key}`), sizes[at] ?? 0)),
    );
  };
  const choose = (form: Form) => {
    setChoosing(false);
    setPicked(null);
    // Add-ons and backing stay; what another structure has no panel for is said.
    const { backing, through } = own.form;
    const { add_ons: addOns, labels } = structure ?? {};
    const kept = {
      ...form,
      ...(addOns?.length ? { add_ons: addOns } : {}),
      ...(backing ? { backing } : {}),
      ...(labels?.length ? { labels } : {}),
      ...(through ? { through } : {}),
    };
    void session.keep(set(session.at('form'), kept));
  };
  const row = (figure: Figure) => (
    <FigureField
      key={figure.field}
      figure={figure}
      session={session}
      unit={unit}
      onFocus={(isFocused) => setInHand(isFocused ? figure.field : null)}
    />
  );
  const details = flat.figures.filter((figure) => !isSize(figure));
  return (
    <main className="stage">
      <FoldDesk
        board={
          <FlatBoard
            stage={props}
            label={`Flat of ${job.name}, ${flat.size_text}`}
            padding={padding(flat.dimensions)}
            isPrinted={false}
            lit={lit}
            onLit={setLit}
            overlay={(view) => (
              <>
                <PanelNames flat={flat} view={view} />
                <MateNumbers flat={flat} view={view} />
                <Dimensions dimensions={flat.dimensions} box={box} view={view} field={inHand} />
                <AddOnHandles
                  session={session}
                  panels={flat.panels}
                  cutOuts={flat.cut_outs}
                  view={view}
                  picked={picked}
                  onPick={setPicked}
                />
              </>
            )}
          >
            <Legend flat={flat} />
          </FlatBoard>
        }
        folded={
          <FoldPane
            form={own.form}
            stock={own.stock}
            colour={colour}
            parts={flat.parts}
            lit={lit}
            onLit={setLit}
          />
        }
      />
      <SpecCard
        title={flat.structure}
        subtitle={stock ? `${stock.name}, ${stock.caliper} mm` : own.stock}
        notice={notice}
        action={
          <Button size="sm" variant="outline-primary" onClick={() => setChoosing(true)}>
            Change
          </Button>
        }
      >
        <Rows
          title="Size"
          page="form"
          aside={
            flat.has_basis && (
              <Switch label="Measured" value={basis} choices={BASES} onChoose={measure} />
            )
          }
        >
          {flat.figures.filter(isSize).map(row)}
          {flat.sizes_text &&
            BASES.filter(({ value }) => value !== (flat.has_basis ? basis : 'crease')).map(
              ({ value }) => (
                <Result
                  key={value}
                  label={OTHERS[value].label}
                  value={flat.sizes_text?.[OTHERS[value].at] ?? ''}
                />
              ),
            )}
        </Rows>
        {details.length > 0 && <Rows title="Flaps and details">{details.map(row)}</Rows>}
        <Labels session={session} flat={flat} />
        <AddOns
          session={session}
          panels={flat.panels}
          cutOuts={flat.cut_outs}
          unit={unit}
          picked={picked}
          onPick={setPicked}
        />
        <SplitRows session={session} unit={unit} />
        <BackingRows session={session} workshop={workshop} unit={unit} />
        <CardRows stage={props} />
        <SetFree session={session} name={flat.structure} />
        {/* Over the card's foot, so that no row moves under the hand. */}
        <div className="sketch-dock">{note && <Sketch figure={note} flat={flat} />}</div>
      </SpecCard>
      <Modal show={isChoosing} onHide={() => setChoosing(false)} size="xl" scrollable>
        <Modal.Header closeButton>
          <Modal.Title>Catalogue of structures, at the size at hand</Modal.Title>
        </Modal.Header>
        <Modal.Body>
          <p className="catalogue-else">
            Or lines that were drawn elsewhere, as SVG, DXF, PDF or FOLD:{' '}
            <BringDrawing
              label="Bring a drawing in"
              onBrought={({ drawing }) => {
                setChoosing(false);
                void session.keep(set(session.at('form'), { drawing }));
              }}
            />
          </p>
          <Catalogue
            hand={{ form: own.form, stock: own.stock, unit: job.unit }}
            onChoose={choose}
          />
        </Modal.Body>
      </Modal>
    </main>
  );
}
