/** The unit of the Workshop's pages: the browser remembers it. */
import { useState } from 'react';

import { useMeta, useUnit } from '../api/queries';
import type { Unit, UnitInfo } from '../api/generated/types';

const KEPT_AS = 'workshop-unit';

interface WorkshopUnit {
  unit: UnitInfo;
  units: Unit[];
  choose: (unit: Unit) => void;
}

export function useWorkshopUnit(): WorkshopUnit {
  const [chosen, setChosen] = useState(() => localStorage.getItem(KEPT_AS));
  const units = (useMeta().data?.units ?? []).map((known) => known.unit);
  const unit = useUnit(units.find((known) => known === chosen) ?? 'mm');
  return {
    unit,
    units,
    choose: (next) => {
      localStorage.setItem(KEPT_AS, next);
      setChosen(next);
    },
  };
}
