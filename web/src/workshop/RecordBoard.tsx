/** A record, drawn: what a machine leaves of a sheet, and what takes the rest. */
import { useState } from 'react';

import type { DrawnPart, RecordDrawing, UnitInfo } from '../api/generated/types';
import { Board } from '../board/Board';
import { HATCHES, HatchPatterns, HatchSwatch, TAKEN_BY } from '../board/hatches';

interface Props {
  drawing: RecordDrawing;
  unit: UnitInfo;
  name: string;
  colour: string;
}

const PADDING = { left: 56, top: 56, right: 56, bottom: 64 };

const fillOf = (part: DrawnPart, colour: string) =>
  part.by ? `url(#record-${part.by})` : part.what === 'sheet' ? colour : undefined;

export function RecordBoard({ drawing, unit, name, colour }: Props) {
  const [hovered, setHovered] = useState<string | null>(null);
  const [width, height] = drawing.size;
  const scale = Math.max(1, Math.max(width, height) / 420);
  const takers = TAKEN_BY.filter((by) => drawing.parts.some((part) => part.by === by));
  const signs = [
    ...new Set(drawing.parts.filter((part) => part.what === 'sign').map((part) => part.name)),
  ];
  const window = drawing.parts.find((part) => part.what === 'window');
  return (
    <div className="board-wrap">
      <Board
        label={`Drawing of ${name}`}
        box={{ x: 0, y: 0, width, height }}
        padding={PADDING}
        unit={unit}
        hint={hovered}
        drawing={
          <g className="record-drawing">
            <defs>
              <HatchPatterns name="record-" scale={scale} />
            </defs>
            {drawing.parts.map((part, at) => (
              <path
                key={`${at} ${part.name}`}
                className={`drawn drawn-${part.what}`}
                d={part.path}
                fillRule="evenodd"
                style={{ fill: fillOf(part, colour) }}
                onPointerEnter={() => setHovered(part.name)}
                onPointerLeave={() => setHovered(null)}
              />
            ))}
          </g>
        }
      >
        <ul className="legend record-legend" aria-label="What takes room">
          {takers.map((by) => (
            <li key={by}>
              <HatchSwatch by={by} />
              {HATCHES[by].name}
            </li>
          ))}
          {signs.map((name) => (
            <li key={name}>
              <svg viewBox="0 0 24 14" aria-hidden="true">
                <path className="drawn drawn-sign" d="M4 7H20" />
              </svg>
              {name}
            </li>
          ))}
          {window && <li className="record-left">{window.name}</li>}
        </ul>
      </Board>
    </div>
  );
}
