/** When it cut a little off: two places are measured, and what they tell is kept with the cutter. */
import { useState } from 'react';
import { Button } from 'react-bootstrap';

import { api, Failure } from '../api/client';
import type { CorrectionView, UnitInfo, Workshop } from '../api/generated/types';
import { PlainLength } from '../card/PlainLength';
import { Rows } from '../card/SpecCard';
import type { JobSession } from '../job/useJobSession';
import { useShowState } from '../workshop/useRecord';

type Pair = [number, number];

interface Props {
  session: JobSession;
  unit: UnitInfo;
  workshop: Workshop;
  /** Where a cut is measured against the print. */
  places: [Pair, Pair];
}

export function CorrectionRows({ session, unit, workshop, places }: Props) {
  const [isOpen, setOpen] = useState(false);
  const [near, setNear] = useState<Pair>([0, 0]);
  const [far, setFar] = useState<Pair>([0, 0]);
  const [told, setTold] = useState<CorrectionView | null>(null);
  const [trouble, setTrouble] = useState<string | null>(null);
  const show = useShowState();
  const id = session.job.sheet.cutter;
  const cutter = id ? workshop.cutters[id] : undefined;
  if (!id || !cutter) return null;
  const attempt = async (work: () => Promise<unknown>) => {
    setTrouble(null);
    try {
      await work();
    } catch (error) {
      if (!(error instanceof Failure)) throw error;
      setTrouble(error.problem.errors[0]?.message ?? error.message);
    }
  };
  const tell = () =>
    attempt(async () =>
      setTold(
        await api.correct({
          unit: session.job.unit,
          near: { at: places[0], off: near },
          far: { at: places[1], off: far },
        }),
      ),
    );
  const keep = (correction: CorrectionView['correction'] | null) =>
    attempt(async () => {
      const { version, workshop: now } = await api.workshopState();
      const own = now.cutters[id] ?? cutter;
      show(
        await api.changeRecord(
          version,
          id,
          { kind: 'cutters', ...own, correction },
          session.job.unit,
        ),
      );
      setTold(null);
      setOpen(false);
    });
  return (
    <Rows
      title="When it cuts a little off"
      page="a-little-off"
      aside={
        <Button variant="plain" onClick={() => setOpen((now) => !now)}>
          {isOpen ? 'close' : 'measure'}
        </Button>
      }
    >
      {cutter.correction && (
        <p className="card-note">
          Corrected since {cutter.correction.day}: whatever {cutter.name} is sent allows for it.{' '}
          <Button variant="plain" onClick={() => void keep(null)}>
            drop it
          </Button>
        </p>
      )}
      {isOpen && (
        <>
          <Place
            name="Near the upper left"
            value={near}
            unit={unit}
            onKeep={(pair) => {
              setNear(pair);
              setTold(null);
            }}
          />
          <Place
            name="Near the lower right"
            value={far}
            unit={unit}
            onKeep={(pair) => {
              setFar(pair);
              setTold(null);
            }}
          />
          <Button size="sm" variant="outline-primary" onClick={() => void tell()}>
            What is it?
          </Button>
          {told && (
            <p className="card-note" role="status">
              {told.words}{' '}
              {told.cause !== 'nothing' && (
                <Button
                  size="sm"
                  variant="outline-primary"
                  onClick={() => void keep(told.correction)}
                >
                  Correct it from now on
                </Button>
              )}
            </p>
          )}
        </>
      )}
      {trouble && (
        <p className="card-note is-broken" role="alert">
          {trouble}
        </p>
      )}
    </Rows>
  );
}

interface PlaceProps {
  name: string;
  value: Pair;
  unit: UnitInfo;
  onKeep: (pair: Pair) => void;
}

/** How far to the right and down of the print a cut fell. */
function Place({ name, value, unit, onKeep }: PlaceProps) {
  return (
    <>
      <PlainLength
        label={`${name}, to the right by`}
        value={value[0]}
        unit={unit}
        onKeep={(mm) => onKeep([mm, value[1]])}
      />
      <PlainLength
        label={`${name}, down by`}
        value={value[1]}
        unit={unit}
        onKeep={(mm) => onKeep([value[0], mm])}
      />
    </>
  );
}
