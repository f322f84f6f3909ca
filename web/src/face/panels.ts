/** Panels as layers lie on them: the strips of a curved one are one panel. */
import type { FlatView } from '../api/views';

type Panel = FlatView['panels'][number];

export interface WholePanel {
  name: string;
  role: Panel['role'];
  /** SVG path data, mm. */
  path: string;
  /** About how large it is, mm². */
  area: number;
  /** Its names: its own and those of its strips. */
  names: string[];
}

export function wholePanels(flat: FlatView): WholePanel[] {
  const found = new Map<string, WholePanel>();
  for (const { name, shown, role, path, size } of flat.panels) {
    const area = size[0] * size[1];
    const known = found.get(shown);
    found.set(shown, {
      name: shown,
      role,
      path: (known?.path ?? '') + path,
      area: (known?.area ?? 0) + area,
      names: [...(known?.names ?? [shown]), name],
    });
  }
  return [...found.values()];
}
