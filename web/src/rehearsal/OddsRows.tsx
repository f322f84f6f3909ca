/** The odds: what a thousand sheets come to, as a gauge over their distribution. */
import { useEffect, useRef, useState } from 'react';
import { Button } from 'react-bootstrap';

import { Failure } from '../api/client';
import { follow } from '../api/events';
import type { Day, OddsAsk, OddsProgress, OddsView } from '../api/generated/types';
import type { Preview } from '../api/views';
import { Rows } from '../card/SpecCard';
import type { JobSession } from '../job/useJobSession';

interface Props {
  session: JobSession;
  preview: Preview;
  day: Day;
  seed: number;
  sheet: number;
}

const SHEETS = 1000;

export function OddsRows({ session, preview, day, seed, sheet }: Props) {
  const [view, setView] = useState<{ key: string; odds: OddsView } | null>(null);
  const [done, setDone] = useState<number | null>(null);
  const [trouble, setTrouble] = useState<string | null>(null);
  const asking = useRef<AbortController | null>(null);
  useEffect(() => () => asking.current?.abort(), []);
  const key = `${preview.sheetKey} ${day} ${sheet}`;
  const ask = async (sheets: number) => {
    asking.current?.abort();
    const asked = new AbortController();
    asking.current = asked;
    setDone(0);
    setTrouble(null);
    const body: OddsAsk = { job: session.latest(), sheet, day, sheets, seed };
    try {
      await follow('/odds', body, asked.signal, (name, data) => {
        if (name === 'progress') setDone((data as OddsProgress).done);
        if (name === 'done') setView({ key, odds: data as OddsView });
      });
    } catch (error) {
      if (!(error instanceof Failure)) throw error;
      setTrouble(error.message);
    }
    if (asking.current === asked) setDone(null);
  };
  const odds = view?.key === key ? view.odds : null;
  return (
    <Rows
      title={odds ? `${odds.tried.toLocaleString('en')} sheets` : 'Many sheets'}
      aside={
        done === null ? (
          <span>
            <Button variant="plain" onClick={() => void ask(SHEETS)}>
              {odds ? 'again' : '1,000'}
            </Button>{' '}
            <Button variant="plain" onClick={() => void ask(SHEETS * 10)}>
              10,000
            </Button>
          </span>
        ) : (
          <Button variant="plain" onClick={() => asking.current?.abort()}>
            stop at {done.toLocaleString('en')}
          </Button>
        )
      }
    >
      {trouble && <p className="card-note is-broken">{trouble}</p>}
      {odds ? (
        <>
          <OddsGauge odds={odds} />
          <p className="card-note">{odds.words}</p>
          <p className="card-note">{odds.sure}</p>
        </>
      ) : (
        <p className="card-note">
          One sheet is luck. Of a thousand, each with its own errors, you see what usually happens.
        </p>
      )}
    </Rows>
  );
}

/** The worst place of each sheet, with a needle where the bleed ends. */
function OddsGauge({ odds }: { odds: OddsView }) {
  const most = Math.max(...odds.bars.map(({ count }) => count), 1);
  const to = Math.max(odds.to, odds.bound * 1.1);
  const at = (mm: number) => (mm / to) * 280;
  const wide = at(odds.to) / odds.bars.length;
  return (
    <svg className="odds-gauge" viewBox="0 0 280 92" role="img" aria-label={odds.words}>
      {odds.bars.map(({ count, state }, bar) => (
        <rect
          // A bar is known by its place alone.
          key={bar}
          className={`is-${state}`}
          x={bar * wide + 0.4}
          width={Math.max(0.5, wide - 0.8)}
          y={64 - (count / most) * 60}
          height={(count / most) * 60}
        />
      ))}
      <path className="odds-rule" d="M0 64H280" />
      <path className="odds-needle" d={`M${at(odds.bound)} 65l5 8h-10z`} />
      <text x="0" y="84">
        0
      </text>
      <text x={Math.min(at(odds.bound), 272)} y="84" textAnchor="middle">
        {odds.bound_text}
      </text>
    </svg>
  );
}
