/** A border that is printed inside the cut: a layer of its own, beneath the picture, that follows the outline at a distance. */
import { Link } from 'react-router';

import { add, move, remove, set } from '../api/fields';
import { useMeta } from '../api/queries';
import type { UnitInfo } from '../api/generated/types';
import { PlainLength } from '../card/PlainLength';
import { Rows } from '../card/SpecCard';
import { Switch } from '../card/Switch';
import { ColourField } from '../face/ColourField';
import { faceBegun, type ShapeLayer } from '../face/layers';
import type { StageProps } from '../job/StageProps';

/** What the layer is known by. */
const ID = 'printed-border';

interface Props {
  stage: StageProps;
  unit: UnitInfo;
  /** How far before the cut it ends at first, mm. */
  ends: number;
}

export function PrintedBorder({ stage, unit, ends }: Props) {
  const { session, piece, id } = stage;
  const starts = useMeta().data?.starts;
  const layers = session.own.face?.layers ?? [];
  const own = layers.find(({ id: known }) => known === ID) as ShapeLayer | undefined;
  const panel = piece.flat.panels[0]?.name;
  const start = starts?.layers.find(({ kind }) => kind === 'shape');
  const begin = () => {
    if (!starts || start?.kind !== 'shape' || panel === undefined) return;
    const begun = faceBegun(session, starts.face);
    const layer = {
      ...start,
      id: ID,
      name: 'Printed border',
      panels: [panel],
      size: { by: 'inset', mm: ends },
    };
    const added = add(session.at('face.layers'), layer);
    // Beneath all others.
    const lowered =
      layers.length > 0 ? [move(session.at(`face.layers.${ID}`), -layers.length)] : [];
    void session.keep(...begun, added, ...lowered);
  };
  const field = (name: string) => session.at(`face.layers.${ID}.${name}`);
  return (
    <Rows
      title="Printed border"
      page="border"
      aside={
        <Switch
          label="Printed border"
          value={own ? 'with' : 'none'}
          choices={[
            { value: 'none', label: 'none' },
            { value: 'with', label: 'in a colour' },
          ]}
          onChoose={(choice) => {
            if (choice === 'with' && !own) begin();
            if (choice === 'none' && own)
              void session.keep(remove(session.at(`face.layers.${ID}`)));
          }}
        />
      }
    >
      {own && (
        <>
          <PlainLength
            label="Ends before the cut"
            value={own.size.by === 'inset' ? own.size.mm : 0}
            unit={unit}
            onTry={(mm) => session.propose(set(field('size'), { by: 'inset', mm }))}
            onKeep={(mm) => void session.keep(set(field('size'), { by: 'inset', mm }))}
          />
          <ColourField
            label="In"
            colour={own.fill ?? '#ffffff'}
            onTry={(colour) => session.propose(set(field('fill'), colour))}
            onKeep={(colour) => void session.keep(set(field('fill'), colour))}
          />
          <p className="card-note">
            It lies beneath the picture.{' '}
            <Link to={`/jobs/${id}/face?piece=${piece.id}`}>On Face</Link> it is copied for a second
            one.
          </p>
        </>
      )}
    </Rows>
  );
}
