/** What the whole order comes to, and what other sheets or spacings would make of it. */
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Button } from 'react-bootstrap';

import { api } from '../api/client';
import type { Change, Job, Workshop } from '../api/generated/types';
import type { Preview } from '../api/views';
import { Result, Rows } from '../card/SpecCard';

interface Props {
  job: Job;
  preview: Preview;
  workshop: Workshop;
  onApply: (changes: Change[]) => void;
}

export function OrderRows({ job, preview, workshop, onApply }: Props) {
  const [isOpen, setOpen] = useState(false);
  const choices = useQuery({
    queryKey: ['order', job],
    queryFn: ({ signal }) => api.orderChoices(job, signal),
    enabled: isOpen,
    gcTime: 0,
  });
  const { order, layout, sheets } = preview.sheet;
  return (
    <Rows title="Order">
      {order.cards.map((card) => (
        <Result
          key={card.stock}
          label={workshop.stocks[card.stock]?.name ?? card.stock}
          value={[
            `${card.sheets} ${card.sheets === 1 ? 'sheet' : 'sheets'}`,
            ...(card.cost_text && order.cards.length > 1 ? [card.cost_text] : []),
          ].join(', ')}
        />
      ))}
      {preview.pieces.length === 1 && (
        <Result label="On a full sheet" value={String(layout.per_sheet)} />
      )}
      <Result label="Yield" value={order.yield_text} />
      <Result label="Waste" value={order.waste_text} />
      <Result label="Cost of card" value={order.cost_text ?? 'no price in the workshop'} />
      <Button
        variant="plain"
        className="lay-more"
        aria-expanded={isOpen}
        disabled={sheets === 0}
        onClick={() => setOpen(!isOpen)}
      >
        What would change it
      </Button>
      {isOpen && (
        <ul className="order-choices">
          {choices.data?.map((choice) => (
            <li key={choice.remedy.text}>
              <Button variant="bare" onClick={() => onApply(choice.remedy.changes)}>
                <span>{choice.remedy.text}</span>
                <span className="figure">
                  {choice.sheets} × {choice.per_sheet}
                </span>
                <span className="figure">{choice.yield_text}</span>
                <span className="figure">{choice.cost_text ?? choice.waste_text}</span>
              </Button>
            </li>
          ))}
        </ul>
      )}
    </Rows>
  );
}
