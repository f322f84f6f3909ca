/** The sides of a sheet that has no name. */
import type { SheetSize, UnitInfo } from '../api/generated/types';
import { FigureField } from '../card/FigureField';
import type { JobSession } from '../job/useJobSession';

interface Props {
  session: JobSession;
  unit: UnitInfo;
  pageSize: SheetSize;
}

export function OwnSize({ session, unit, pageSize }: Props) {
  const side = (field: string, label: string, value: number) => (
    <FigureField figure={{ field, label, value }} session={session} unit={unit} />
  );
  return (
    <>
      {side('sheet.size.width', 'Width', pageSize.width)}
      {side('sheet.size.height', 'Height', pageSize.height)}
    </>
  );
}
