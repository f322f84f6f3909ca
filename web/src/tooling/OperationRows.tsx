/** The operations, in the order in which they run, each with its settings. */
import { Button } from 'react-bootstrap';

import { set } from '../api/fields';
import type { FieldChange, Tooling, ToolingView, UnitInfo } from '../api/generated/types';
import { Rows } from '../card/SpecCard';
import type { JobSession } from '../job/useJobSession';
import { OperationFields } from './OperationFields';

interface Props {
  view: ToolingView;
  tooling: Tooling;
  /** The one that is open, by its id. */
  chosen: string | null;
  forceUnit: string;
  onChoose: (operation: string | null) => void;
  onKeep: (...changes: FieldChange[]) => void;
  onTest: (operation: string) => void;
  session: JobSession;
  unit: UnitInfo;
}

/** The operations in the order that is asked for by now, which what is drawn may not show yet. */
function inOrder(view: ToolingView, order: string[]) {
  const places = view.operations.map(({ id }) => order.indexOf(id));
  if (places.includes(-1)) return view.operations;
  return order.flatMap((id) => view.operations.filter((own) => own.id === id));
}

export function OperationRows(props: Props) {
  const { view, tooling, chosen, onChoose, onKeep, session } = props;
  const operations = inOrder(view, tooling.order ?? []);
  const move = (id: string, by: number) => {
    const order = (session.newest('tooling.order') ?? []) as string[];
    const ids = inOrder(view, order).map((own) => own.id);
    const at = ids.indexOf(id);
    const to = Math.min(Math.max(at + by, 0), ids.length - 1);
    onKeep(set('tooling.order', ids.toSpliced(at, 1).toSpliced(to, 0, id)));
  };
  return (
    <Rows
      title="Operations, in order"
      page="operations"
      aside={
        (tooling.order?.length ?? 0) > 0 && (
          <Button size="sm" variant="link" onClick={() => onKeep(set('tooling.order', null))}>
            Usual order
          </Button>
        )
      }
    >
      {operations.map((own, at) => (
        <div key={own.id} className={`operation${chosen === own.id ? ' is-open' : ''}`}>
          {own.before.map((words) => (
            <p key={words} className="operation-stop">
              {words}
            </p>
          ))}
          <Button
            variant="plain"
            aria-expanded={chosen === own.id}
            onClick={() => onChoose(chosen === own.id ? null : own.id)}
          >
            <svg viewBox="0 0 40 6" aria-hidden="true">
              <path d="M0 3H40" className={`line-${own.kind}`} />
            </svg>
            <b>{own.name}</b>
            {own.is_off || own.lines > 0 ? (
              <span className="figure">{own.is_off ? 'off' : own.time_text}</span>
            ) : (
              <small>other sheets</small>
            )}
          </Button>
          {chosen === own.id && (
            <>
              <div className="operation-moves">
                <Button
                  size="sm"
                  variant="link"
                  disabled={at === 0}
                  onClick={() => move(own.id, -1)}
                >
                  Earlier
                </Button>
                <Button
                  size="sm"
                  variant="link"
                  disabled={at + 1 === operations.length}
                  onClick={() => move(own.id, 1)}
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
