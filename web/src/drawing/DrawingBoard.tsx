/** The lines of a drawing, those of a row lit, loose ends marked, and a dimension taken from place to place. */
import type { DrawingView } from '../api/generated/types';
import { Dimensions } from '../board/Dimensions';
import { FlatBoard } from '../board/FlatBoard';
import { MateNumbers, PanelNames } from '../board/FlatDrawing';
import type { View } from '../board/view';
import { Legend } from '../form/Legend';
import type { StageProps } from '../job/StageProps';
import { NodeHandles, reachOf } from './NodeHandles';
import type { Mending } from './useMending';

/** What a press on the board is for: nothing, an end of a known dimension, or the panel that stays. */
export type BoardTool = 'look' | 'measure' | 'root' | 'mend';

const PRESSES: Record<Exclude<BoardTool, 'look'>, string> = {
  measure: 'Press on two places',
  root: 'Press on the panel that stays',
  mend: 'Press on a line',
};

interface Props {
  stage: StageProps;
  view: DrawingView;
  /** The row that is pointed at. */
  lit: string | null;
  tool: BoardTool;
  /** The panel that is pointed at. */
  panel: string | null;
  onPanel: (panel: string | null) => void;
  /** Places that were pressed, in units of the file. */
  ends: [number, number][];
  onPress: (place: [number, number], reach: number) => void;
  mending: Mending;
}

export function DrawingBoard({
  stage,
  view,
  lit,
  tool,
  panel,
  onPanel,
  ends,
  onPress,
  mending,
}: Props) {
  const { piece, session } = stage;
  const { flat } = piece;
  const [width, height] = flat.size;
  const place = (seen: View, [x, y]: [number, number]) =>
    [
      seen.x + (view.at[0] + x * view.unit) * seen.scale,
      seen.y + (view.at[1] + y * view.unit) * seen.scale,
    ] as const;
  const press = (seen: View, event: React.PointerEvent<SVGRectElement>) => {
    event.stopPropagation();
    const svg = event.currentTarget.ownerSVGElement ?? event.currentTarget;
    const frame = svg.getBoundingClientRect();
    const x = (event.clientX - frame.left - seen.x) / seen.scale;
    const y = (event.clientY - frame.top - seen.y) / seen.scale;
    const place: [number, number] = [(x - view.at[0]) / view.unit, (y - view.at[1]) / view.unit];
    onPress(place, reachOf(seen, view.unit));
  };
  return (
    <FlatBoard
      stage={stage}
      label={`Drawing of ${session.job.name}, ${flat.size_text}`}
      padding={{ left: 71, top: 48, right: 30, bottom: 79 }}
      isPrinted={false}
      lit={panel}
      onLit={onPanel}
      overlay={(seen) => (
        <>
          <g
            className="drawn-rows"
            transform={`translate(${seen.x} ${seen.y}) scale(${seen.scale})`}
            aria-hidden="true"
          >
            {view.rows
              .filter((row) => !row.meaning || row.meaning === 'printed' || row.id === lit)
              .map((row) => (
                <path
                  key={row.id}
                  d={row.path}
                  className={row.id === lit ? 'is-lit' : row.meaning ? 'is-printed' : 'is-open'}
                />
              ))}
            <path d={view.bends} className="is-bend" />
          </g>
          <g className="loose-ends" aria-hidden="true">
            {view.loose.map(([x, y]) => (
              <circle
                key={`${x} ${y}`}
                cx={seen.x + x * seen.scale}
                cy={seen.y + y * seen.scale}
                r={5}
              />
            ))}
          </g>
          {view.creases.length > 0 && (
            <>
              <PanelNames flat={flat} view={seen} />
              <MateNumbers flat={flat} view={seen} />
            </>
          )}
          <Dimensions
            dimensions={flat.dimensions}
            box={{ x: 0, y: 0, width, height }}
            view={seen}
            field={null}
          />
          {ends.length > 0 && (
            <g className="measured" aria-hidden="true">
              {ends.length === 2 && (
                <polyline points={ends.map((end) => place(seen, end).join()).join(' ')} />
              )}
              {ends.map((end) => (
                <circle key={end.join()} cx={place(seen, end)[0]} cy={place(seen, end)[1]} r={4} />
              ))}
            </g>
          )}
          {tool !== 'look' && (
            <rect
              className="trace-tool"
              role="img"
              x={seen.x - 2000}
              y={seen.y - 2000}
              width={width * seen.scale + 4000}
              height={height * seen.scale + 4000}
              aria-label={PRESSES[tool]}
              onPointerDown={(event) => press(seen, event)}
            />
          )}
          {tool === 'mend' && mending.picked && (
            <NodeHandles
              {...{ mending, picked: mending.picked, view: seen }}
              unit={view.unit}
              at={view.at}
            />
          )}
        </>
      )}
    >
      <Legend flat={flat} />
    </FlatBoard>
  );
}
