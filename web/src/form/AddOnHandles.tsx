/** Handles by which add-ons are dragged on the flat; arrow keys nudge them. */
import { useRef } from 'react';

import { set } from '../api/fields';
import { structureOf } from '../api/forms';
import type { AddOn, CutOutView, PanelView } from '../api/generated/types';
import { Handle, tenth } from '../board/Handle';
import type { View } from '../board/view';
import type { PieceSession } from '../job/pieces';

interface Props {
  session: PieceSession;
  panels: PanelView[];
  cutOuts: CutOutView[];
  view: View;
  picked: number | null;
  onPick: (index: number) => void;
}

export function AddOnHandles({ session, panels, cutOuts, view, picked, onPick }: Props) {
  const taken = useRef<AddOn | null>(null);
  const addOns = structureOf(session.own.form)?.add_ons ?? [];
  return (
    <g className="handles">
      {addOns.map((addOn, index) => {
        const panel = panels.find(({ name }) => name === addOn.panel);
        if (!panel) return null;
        const isStrip = addOn.kind === 'tear-strip';
        const isRound = ['window-round', 'hang-hole'].includes(addOn.kind);
        const own = cutOuts.find(({ add_on: at }) => at === index);
        const path = session.at(`form.add_ons.${index}`);
        return (
          <Handle
            key={index}
            at={[panel.centre[0] + addOn.across, panel.centre[1] + addOn.along]}
            size={
              own?.size ?? [
                isStrip ? panel.size[0] : addOn.width,
                isRound ? addOn.width : addOn.height,
              ]
            }
            view={view}
            label={`Move ${addOn.kind.replaceAll('-', ' ')} on ${addOn.panel}`}
            isPicked={picked === index}
            onPick={() => {
              taken.current = addOn;
              onPick(index);
            }}
            onMove={(across, along) => {
              const from = taken.current ?? addOn;
              session.propose(
                set(`${path}.across`, isStrip ? 0 : tenth(from.across + across)),
                set(`${path}.along`, tenth(from.along + along)),
              );
            }}
            onKeep={() => void session.keep()}
          />
        );
      })}
    </g>
  );
}
