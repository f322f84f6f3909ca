/** Width and height of a sheet that has no name. */
import { useEffect, useState } from 'react';

import { api } from '../api/client';
import type { SheetSize, UnitInfo } from '../api/generated/types';
import { FigureField } from '../card/FigureField';
import type { JobSession } from '../job/useJobSession';

interface Props {
  session: JobSession;
  unit: UnitInfo;
  pageSize: SheetSize;
}

export function OwnSize({ session, unit, pageSize }: Props) {
  return (
    <>
      <Side
        session={session}
        unit={unit}
        field="sheet.size.width"
        label="Width"
        mm={pageSize.width}
      />
      <Side
        session={session}
        unit={unit}
        field="sheet.size.height"
        label="Height"
        mm={pageSize.height}
      />
    </>
  );
}

interface SideProps {
  session: JobSession;
  unit: UnitInfo;
  field: string;
  label: string;
  mm: number;
}

function Side({ session, unit, field, label, mm }: SideProps) {
  const [text, setText] = useState('');
  useEffect(() => {
    const asked = new AbortController();
    api
      .readLength({ text: `${mm}mm`, unit: unit.unit, measured: 'length' }, asked.signal)
      .then((read) => setText(read.text))
      .catch(() => undefined);
    return () => asked.abort();
  }, [mm, unit.unit]);
  return <FigureField figure={{ field, label, value: mm, text }} session={session} unit={unit} />;
}
