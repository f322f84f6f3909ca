/** A sheet as a small picture: its window, its marks, its copies. */
import type { SmallSheet as Sheet } from '../api/generated/types';

export function SmallSheet({ sheet, label }: { sheet: Sheet; label: string }) {
  const [width, height] = sheet.page;
  return (
    <svg
      className="small-sheet"
      viewBox={`-3 -3 ${width + 6} ${height + 6}`}
      role="img"
      aria-label={label}
    >
      <rect className="small-page" width={width} height={height} />
      <path className="small-window" d={sheet.cut_window} fillRule="evenodd" />
      <path className="small-copy" d={sheet.copies} />
      <path className="marks" d={sheet.marks} />
    </svg>
  );
}
