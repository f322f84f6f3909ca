/** Figures as fields show them, where nothing that the server sent has their text. */
import { useQuery } from '@tanstack/react-query';

import { api } from '../api/client';
import type { Measured, UnitInfo } from '../api/generated/types';

/** The text of a value in mm (or in degrees, pieces or g/m²); of none where there is no value. */
export function useLengthText(value: number | null, unit: UnitInfo, measured: Measured): string {
  // Inches are written as fractions, which the server knows how to; the rest are plain decimals.
  const isFraction = unit.unit === 'in' && measured === 'length';
  const read = useQuery({
    queryKey: ['length', value, unit.unit],
    queryFn: ({ signal }) =>
      api.readLength({ text: `${value ?? 0}mm`, unit: unit.unit, measured }, signal),
    enabled: isFraction && value !== null,
    staleTime: Infinity,
    retry: false,
  });
  if (value === null) return '';
  const isLength = measured === 'length' || measured === 'caliper';
  const decimals = measured === 'caliper' ? 4 : isLength ? unit.decimals : 2;
  const digits = 10 ** decimals;
  const plain = Math.round((isLength ? value / unit.millimetres : value) * digits) / digits;
  return (isFraction && read.data?.text) || String(plain);
}
