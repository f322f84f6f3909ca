/** What is added to panels: openings, notches, slits and strips, each with its place and size. */
import { useState } from 'react';
import { Button, Form } from 'react-bootstrap';

import { add, remove, set } from '../api/fields';
import { structureOf } from '../api/forms';
import { useMeta } from '../api/queries';
import type {
  AddOn,
  AddOnInfo,
  AddOnKind,
  CutOutView,
  OwnShape,
  PanelView,
  UnitInfo,
} from '../api/generated/types';
import { ChoiceField } from '../card/ChoiceField';
import { FigureField } from '../card/FigureField';
import { Rows } from '../card/SpecCard';
import { keysOf } from '../card/keys';
import { errorsOf } from '../job/StageProps';
import { BringDrawing } from '../drawing/BringDrawing';
import type { PieceSession } from '../job/pieces';
import { OwnOpening } from './OwnOpening';

interface Props {
  session: PieceSession;
  panels: PanelView[];
  cutOuts: CutOutView[];
  unit: UnitInfo;
  picked: number | null;
  onPick: (index: number | null) => void;
}

export function AddOns({ session, panels, cutOuts, unit, picked, onPick }: Props) {
  const meta = useMeta().data;
  const kinds = meta?.add_ons ?? [];
  const [kind, setKind] = useState<AddOnKind>('window-rectangle');
  // An opening cannot cross the strips of a curved panel.
  const faces = panels.filter((panel) => panel.role === 'face' && panel.shown === panel.name);
  const [panel, setPanel] = useState('');
  const on = faces.some(({ name }) => name === panel) ? panel : (faces[0]?.name ?? '');
  const addOns = structureOf(session.own.form)?.add_ons ?? [];

  const addOne = (own?: OwnShape, width?: number) => {
    const size = kinds.find((known) => known.kind === kind)?.size ?? [10, 10];
    const made: AddOn = {
      ...{ kind, panel: on, across: 0, along: 0, width: width ?? size[0], height: size[1] },
      ...(own ? { own } : {}),
    };
    void session.keep(add(session.at('form.add_ons'), made));
    onPick(addOns.length);
  };
  const removeOne = (index: number) => {
    onPick(null);
    void session.keep(remove(session.at(`form.add_ons.${index}`)));
  };
  const keys = keysOf(addOns, ({ kind }) => kind);
  return (
    <Rows title="Added to panels">
      {addOns.map((addOn, index) => (
        <Row
          key={keys[index]}
          {...{ addOn, index, session, unit, panels }}
          info={kinds.find((known) => known.kind === addOn.kind)}
          facts={cutOuts.find((own) => own.add_on === index)}
          isOpen={picked === index}
          onOpen={() => onPick(picked === index ? null : index)}
          onRemove={() => removeOne(index)}
        />
      ))}
      {faces.length > 0 && (
        <div className="add-on-new">
          <Form.Select
            size="sm"
            aria-label="What to add"
            value={kind}
            onChange={(event) => setKind(event.target.value as AddOnKind)}
          >
            {kinds.map((known) => (
              <option key={known.kind} value={known.kind}>
                {known.name}
              </option>
            ))}
          </Form.Select>
          <Form.Select
            size="sm"
            aria-label="On which panel"
            value={on}
            onChange={(event) => setPanel(event.target.value)}
          >
            {faces.map(({ name }) => (
              <option key={name} value={name}>
                {name}
              </option>
            ))}
          </Form.Select>
          {kind === 'drawing' ? (
            <BringDrawing
              label="Choose"
              onBrought={({ drawing: { lines, origin }, size }) =>
                addOne(
                  { turn: 0, bridge: null, cutting: { of: 'drawing', lines, origin } },
                  size?.[0],
                )
              }
            />
          ) : (
            <Button
              size="sm"
              variant="outline-primary"
              onClick={() => addOne(kind === 'words' ? meta?.starts.cut_out : undefined)}
            >
              Add
            </Button>
          )}
        </div>
      )}
    </Rows>
  );
}

/** What a height is called where it is not that of the whole. */
const HEIGHTS: Partial<Record<AddOnKind, string>> = {
  'tear-strip': 'Strip',
  words: 'Height of capitals',
};

/** What an opening of one's own is known by: its words, or its drawing's file. */
function nameOf({ own }: AddOn): string | null {
  if (!own) return null;
  return own.cutting.of === 'words' ? `“${own.cutting.words}”` : own.cutting.origin.name;
}

interface RowProps {
  addOn: AddOn;
  index: number;
  info: AddOnInfo | undefined;
  session: PieceSession;
  unit: UnitInfo;
  panels: PanelView[];
  facts: CutOutView | undefined;
  isOpen: boolean;
  onOpen: () => void;
  onRemove: () => void;
}

function Row(props: RowProps) {
  const starts = useMeta().data?.starts;
  const { addOn, index, info, session, unit, panels, facts, isOpen, onOpen, onRemove } = props;
  const path = session.at(`form.add_ons.${index}`);
  const wrong = session.errors.filter(({ field }) => field.startsWith(`${path}.`));
  const [hasWidth, hasHeight] = info?.measures ?? [true, true];
  const field = (key: 'across' | 'along' | 'width' | 'height' | 'cut' | 'tie', label: string) => {
    const value = addOn[key] ?? starts?.perforation[key as 'cut' | 'tie'] ?? 0;
    return (
      <FigureField
        key={key}
        figure={{ field: `${path}.${key}`, label, value }}
        session={session}
        unit={unit}
        least={key === 'across' || key === 'along' ? -2000 : 0}
      />
    );
  };
  const isStrip = addOn.kind === 'tear-strip';
  const isBroken = wrong.length > 0;
  return (
    <div className={`add-on${isOpen || isBroken ? ' is-open' : ''}`}>
      <header>
        <Button variant="plain" aria-expanded={isOpen} onClick={onOpen}>
          {addOn.panel} <b>{nameOf(addOn) ?? info?.name.toLowerCase() ?? addOn.kind}</b>
        </Button>
        <Button
          variant="plain"
          onClick={onRemove}
          aria-label={`Take ${info?.name ?? 'it'} off ${addOn.panel}`}
        >
          ×
        </Button>
      </header>
      {(isOpen || isBroken) && (
        <>
          <ChoiceField
            label="Panel"
            value={addOn.panel}
            choices={panels
              .filter(({ role }) => role === 'face')
              .map(({ name }) => ({ value: name, label: name }))}
            errors={errorsOf(session, `${path}.panel`)}
            onChoose={(value) => void session.keep(set(`${path}.panel`, value))}
          />
          {!isStrip && field('across', 'Right of middle')}
          {field('along', 'Below middle')}
          {hasWidth && field('width', 'Width')}
          {hasHeight && field('height', HEIGHTS[addOn.kind] ?? 'Height')}
          {isStrip && field('cut', 'Cuts')}
          {isStrip && field('tie', 'Ties')}
          {addOn.own && <OwnOpening own={addOn.own} {...{ facts, session, unit, path }} />}
        </>
      )}
    </div>
  );
}
