/** The mark sets compared for this sheet, and the best marks that could be. */
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useEffect, useRef, useState } from 'react';
import { Button, Modal } from 'react-bootstrap';

import { api, Failure } from '../api/client';
import { follow } from '../api/events';
import type { Job, MarkChoiceView } from '../api/generated/types';
import { StateMark } from '../fit/StateMark';
import { SmallSheet } from './SmallSheet';

interface Props {
  job: Job;
  onChoose: (id: string) => void;
  onClose: () => void;
}

export function MarksDialog({ job, onChoose, onClose }: Props) {
  const client = useQueryClient();
  // For which job it is the best: one that is changed meanwhile looks again.
  const [found, setFound] = useState<{ job: Job; choice: MarkChoiceView | null } | null>(null);
  const best = found?.job === job ? found.choice : null;
  const [done, setDone] = useState<number | null>(null);
  const [trouble, setTrouble] = useState<string | null>(null);
  const running = useRef<AbortController | null>(null);
  useEffect(() => () => running.current?.abort(), []);
  const compared = useQuery({
    queryKey: ['marks', job],
    queryFn: ({ signal }) => api.compareMarks(job, signal),
    gcTime: 0,
  });

  const say = (error: unknown) =>
    setTrouble(error instanceof Failure ? error.message : String(error));
  const find = () => {
    const control = new AbortController();
    running.current = control;
    setDone(0);
    setTrouble(null);
    follow('/marks/best', job, control.signal, (name, data) => {
      if (name === 'progress') setDone((data as { done: number }).done);
      else {
        setFound({ job, choice: data as MarkChoiceView | null });
        if (data === null) setTrouble('No marks can be read here: the cutter’s eye knows none.');
      }
    })
      .catch(say)
      .finally(() => setDone(null));
  };
  const use = async (choice: MarkChoiceView) => {
    if (choice.id !== null) {
      onChoose(choice.id);
      return;
    }
    try {
      const { version } = await api.workshopState();
      const state = await api.addRecord(version, { kind: 'mark_sets', ...choice.set }, job.unit);
      await client.invalidateQueries({ queryKey: ['workshop'] });
      if (state.touched) onChoose(state.touched.id);
    } catch (error) {
      say(error);
    }
  };
  const rows = [...(best ? [best] : []), ...(compared.data ?? [])];
  return (
    <Modal show onHide={onClose} size="xl" scrollable aria-label="Marks compared">
      <Modal.Header closeButton>
        <Modal.Title>Marks for this sheet</Modal.Title>
      </Modal.Header>
      <Modal.Body>
        <p className="marks-lead">
          What each mark set leaves of {job.sheet.size.name} for this job, in rows and columns.{' '}
          <Button size="sm" disabled={done !== null} onClick={find}>
            {done === null ? 'Find the best marks' : `Trying … ${Math.round(done * 100)} %`}
          </Button>
        </p>
        {(trouble ?? compared.error) && (
          <p className="lay-trouble" role="alert">
            {trouble ?? compared.error?.message}
          </p>
        )}
        <table className="marks-table">
          <thead>
            <tr>
              <th scope="col">Sheet</th>
              <th scope="col">Marks</th>
              <th scope="col">Usable</th>
              <th scope="col">On a sheet</th>
              <th scope="col">Sheets</th>
              <th scope="col">Against those in use</th>
              <th scope="col">
                <span className="visually-hidden">Use</span>
              </th>
            </tr>
          </thead>
          <tbody>
            {rows.map((choice) => {
              const inUse = choice.id !== null && choice.id === job.sheet.marks;
              return (
                <tr key={choice.id ?? 'best'} className={choice.id === null ? 'is-best' : ''}>
                  <td>
                    <SmallSheet sheet={choice.sheet} label={`Sheet with ${choice.set.name}`} />
                  </td>
                  <td>
                    <b>{choice.set.name}</b>
                    <br />
                    <span className="marks-about">{choice.summary}</span>
                    <br />
                    <span className={`marks-state marks-${choice.state}`}>
                      <StateMark state={choice.state} /> {choice.trouble ?? 'readable and whole'}
                    </span>
                  </td>
                  <td className="figure">{choice.usable_text}</td>
                  <td className="figure">{choice.per_sheet}</td>
                  <td className="figure">{choice.sheets === 0 ? 'none fits' : choice.sheets}</td>
                  <td>{inUse ? 'in use' : choice.gain_text}</td>
                  <td>
                    <Button
                      size="sm"
                      variant="outline-primary"
                      disabled={inUse}
                      aria-label={`Use ${choice.set.name}`}
                      onClick={() => void use(choice)}
                    >
                      {choice.id === null ? 'Add and use' : 'Use'}
                    </Button>
                  </td>
                </tr>
              );
            })}
          </tbody>
        </table>
        {compared.data?.length === 0 && (
          <p>
            This job has no use for marks: nothing is printed, or the cutter does not go by them.
          </p>
        )}
      </Modal.Body>
    </Modal>
  );
}
