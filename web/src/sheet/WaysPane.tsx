/** Ways to fit: each tried, with its drawing, its figures and one button. */
import { useEffect, useState } from 'react';
import { Button, Offcanvas } from 'react-bootstrap';

import { Failure } from '../api/client';
import { follow } from '../api/events';
import type { Change, Job, WayKind, WaysDone, WayView } from '../api/generated/types';
import { SmallSheet } from './SmallSheet';

const KINDS: Record<WayKind, string> = {
  turned: 'Turn it',
  marks: 'Other marks',
  sheet: 'Another sheet',
  cutter: 'Another cutter',
  smaller: 'Make it smaller',
  structure: 'Another structure',
  split: 'In two parts',
};

/** What came of the search, in words. */
function summed({ found, ruled_out, piece, others }: WaysDone): string {
  if (ruled_out) return `Nothing here takes it: ${ruled_out}.`;
  const ways = found === 1 ? 'One way' : `${found} ways`;
  const more =
    others === 1
      ? ' One more fits nowhere: it comes next.'
      : ` ${others} more fit nowhere: they come next.`;
  const next = others > 0 ? more : '';
  const whose = piece ? ` for “${piece}”` : '';
  return `${ways}${whose}, each one tried. Nothing changes until you choose one.${next}`;
}

interface Props {
  job: Job;
  onApply: (changes: Change[]) => void;
  onClose: () => void;
}

export function WaysPane({ job, onApply, onClose }: Props) {
  const [ways, setWays] = useState<WayView[]>([]);
  const [done, setDone] = useState<WaysDone | null>(null);
  const [trouble, setTrouble] = useState<string | null>(null);
  useEffect(() => {
    const control = new AbortController();
    follow('/ways', job, control.signal, (name, data) => {
      if (name === 'way') setWays((known) => [...known, data as WayView]);
      else if (name === 'done') setDone(data as WaysDone);
    }).catch((error: unknown) => {
      setTrouble(error instanceof Failure ? error.message : String(error));
    });
    return () => control.abort();
  }, [job]);
  const kinds = [...new Set(ways.map((way) => way.kind))];
  return (
    <Offcanvas show onHide={onClose} placement="end" className="ways-pane" aria-label="Ways to fit">
      <Offcanvas.Header closeButton>
        <Offcanvas.Title>Ways to fit</Offcanvas.Title>
      </Offcanvas.Header>
      <Offcanvas.Body>
        <p className="ways-sum" role="status">
          {trouble ?? (done ? summed(done) : 'Trying …')}
        </p>
        {kinds.map((kind) => (
          <section key={kind}>
            <h3>{KINDS[kind]}</h3>
            <ul>
              {ways
                .filter((way) => way.kind === kind)
                .map((way) => (
                  <li key={way.remedy.text} className="way">
                    <SmallSheet sheet={way.sheet} label={`The sheet then: ${way.remedy.text}`} />
                    <div>
                      <p className="way-text">{way.remedy.text}</p>
                      <dl>
                        {way.figures.map(([name, value]) => (
                          <div key={name}>
                            <dt>{name}</dt>
                            <dd className="figure">{value}</dd>
                          </div>
                        ))}
                      </dl>
                      <Button
                        size="sm"
                        variant="outline-primary"
                        aria-label={`Do it: ${way.remedy.text}`}
                        onClick={() => onApply(way.remedy.changes)}
                      >
                        Do it
                      </Button>
                    </div>
                  </li>
                ))}
            </ul>
          </section>
        ))}
      </Offcanvas.Body>
    </Offcanvas>
  );
}
