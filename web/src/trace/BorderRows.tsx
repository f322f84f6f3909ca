/** The border between what was traced and the cut, and a hole to hang the piece by. */
import { Button } from 'react-bootstrap';

import { remove, set } from '../api/fields';
import type { HoleRule, Join, Traced, TracedView, UnitInfo } from '../api/generated/types';
import { FigureField } from '../card/FigureField';
import { Result, Rows } from '../card/SpecCard';
import { Switch } from '../card/Switch';
import { SwitchField } from '../card/SwitchField';
import type { StageProps } from '../job/StageProps';
import { TOOLS, type Tool } from './tools';

const JOINS: { value: Join; label: string }[] = [
  { value: 'round', label: 'round' },
  { value: 'mitred', label: 'mitred' },
  { value: 'bevelled', label: 'bevelled' },
];

const HOLES: { value: HoleRule; label: string }[] = [
  { value: 'followed', label: 'bordered' },
  { value: 'kept', label: 'kept' },
  { value: 'closed', label: 'closed' },
];

interface Props {
  stage: StageProps;
  own: Traced;
  view: TracedView;
  unit: UnitInfo;
  tool: Tool;
  onTool: (tool: Tool) => void;
}

export function BorderRows({ stage, own, view, unit, tool, onTool }: Props) {
  const { session, piece } = stage;
  const at = (name: string) => session.at(`form.traced.${name}`);
  const keep = (name: string, value: unknown) => void session.keep(set(at(name), value));
  const figure = (name: string, least = 0) => {
    const known = piece.flat.figures.find((one) => one.field === at(name));
    return known && <FigureField figure={known} session={session} unit={unit} least={least} />;
  };
  const oneFrom = view.one_from;
  return (
    <>
      <Rows title="Border" page="border">
        {figure('border.distance', -20)}
        <SwitchField
          label="Corners"
          value={own.border.join}
          choices={JOINS}
          onChoose={(join) => keep('border.join', join)}
        />
        {figure('border.inner')}
        {own.trace.holes && (
          <SwitchField
            label="Holes’ border"
            name="Holes"
            value={own.border.holes}
            choices={HOLES}
            onChoose={(rule) => keep('border.holes', rule)}
          />
        )}
        {own.trace.holes && (
          <div className="row-field trace-part">
            <span>Otherwise than the others</span>
            <Button
              size="sm"
              variant={tool === 'hole' ? 'primary' : 'outline-primary'}
              aria-pressed={tool === 'hole'}
              onClick={() => onTool(tool === 'hole' ? 'look' : 'hole')}
            >
              {TOOLS.hole.label}
            </Button>
          </div>
        )}
        {(own.border.each ?? []).map((say, number) => (
          <div key={say.at.join()} className="row-field trace-part">
            <span>Hole {number + 1}</span>
            <span className="trace-acts">
              <Switch
                label={`Hole ${number + 1}`}
                value={say.rule}
                choices={HOLES}
                onChoose={(rule) => keep(`border.each.${number}.rule`, rule)}
              />
              <Button
                size="sm"
                variant="link"
                aria-label={`as the others: hole ${number + 1}`}
                onClick={() => void session.keep(remove(at(`border.each.${number}`)))}
              >
                as the others
              </Button>
            </span>
          </div>
        ))}
        <Result label="Separate outlines" value={String(view.outlines)} />
        {oneFrom !== null && (
          <div className="row-result">
            <span>One from</span>
            <span className="figure">
              {view.one_from_text}{' '}
              <Button
                size="sm"
                variant="link"
                onClick={() => keep('border.distance', Math.ceil(oneFrom * 100) / 100)}
              >
                take it
              </Button>
            </span>
          </div>
        )}
      </Rows>
      <Rows
        title="Hole to hang it by"
        aside={
          <Switch
            label="Hole to hang it by"
            value={own.eye ? (own.eye.tab ? 'tab' : 'inside') : 'none'}
            choices={[
              { value: 'none', label: 'none' },
              { value: 'inside', label: 'in it' },
              { value: 'tab', label: 'in a tab' },
            ]}
            onChoose={(choice) =>
              keep('eye', choice === 'none' ? null : { ...own.eye, tab: choice === 'tab' })
            }
          />
        }
      >
        {figure('eye.diameter')}
        {figure('eye.edge')}
        {figure('eye.x', -2000)}
      </Rows>
      <Rows
        title="Sticker card"
        page="sticker-card"
        aside={
          <Switch
            label="Sticker card"
            value={own.card ? 'with' : 'none'}
            choices={[
              { value: 'none', label: 'none' },
              { value: 'with', label: 'cut through around' },
            ]}
            onChoose={(choice) => keep('card', choice === 'with' ? {} : null)}
          />
        }
      >
        {figure('card.margin')}
        {figure('card.corner')}
        {figure('card.heading')}
        {figure('card.hole')}
      </Rows>
    </>
  );
}
