/** The operations, in the order in which they run, each with its settings. */
import { Button } from 'react-bootstrap';

import type { Tooling, ToolingView, UnitInfo } from '../api/generated/types';
import { Rows } from '../card/SpecCard';
import type { JobSession } from '../job/useJobSession';
import { OperationFields } from './OperationFields';

interface Props {
  view: ToolingView;
  tooling: Tooling;
  chosen: number | null;
  forceUnit: string;
  onChoose: (operation: number | null) => void;
  onKeep: (tooling: Tooling) => void;
  onTest: (operation: string) => void;
  session: JobSession;
  unit: UnitInfo;
}

export function OperationRows(props: Props) {
  const { view, tooling, chosen, onChoose, onKeep } = props;
  const ids = view.operations.map(({ id }) => id);
  const move = (at: number, by: number) => {
    const order = [...ids];
    const [own] = order.splice(at, 1);
    if (own) order.splice(at + by, 0, own);
    onKeep({ ...tooling, order });
    onChoose(at + by);
  };
  return (
    <Rows
      title="Operations, in order"
      page="operations"
      aside={
        (tooling.order?.length ?? 0) > 0 && (
          <Button size="sm" variant="link" onClick={() => onKeep({ ...tooling, order: [] })}>
            Usual order
          </Button>
        )
      }
    >
      {view.operations.map((own, at) => (
        <div key={own.id} className={`operation${chosen === at ? ' is-open' : ''}`}>
          {own.before.map((words) => (
            <p key={words} className="operation-stop">
              {words}
            </p>
          ))}
          <Button
            variant="plain"
            aria-expanded={chosen === at}
            onClick={() => onChoose(chosen === at ? null : at)}
          >
            <svg viewBox="0 0 40 6" aria-hidden="true">
              <path d="M0 3H40" className={`line-${own.kind}`} />
            </svg>
            <b>{own.name}</b>
            <span className="figure">{own.is_off ? 'off' : own.time_text}</span>
          </Button>
          {chosen === at && (
            <>
              <div className="operation-moves">
                <Button size="sm" variant="link" disabled={at === 0} onClick={() => move(at, -1)}>
                  Earlier
                </Button>
                <Button
                  size="sm"
                  variant="link"
                  disabled={at + 1 === ids.length}
                  onClick={() => move(at, 1)}
                >
                  Later
                </Button>
                <Button size="sm" variant="link" onClick={() => props.onTest(own.id)}>
                  Test cut
                </Button>
              </div>
              <OperationFields {...props} own={own} />
            </>
          )}
        </div>
      ))}
    </Rows>
  );
}
