/** The handbook's drawings, in the lines that Aptum draws everything with. */
import { MAKING_SKETCHES } from './sketches/making';
import { WORKING_SKETCHES } from './sketches/working';

const SKETCHES = { ...MAKING_SKETCHES, ...WORKING_SKETCHES };

export type SketchName = keyof typeof SKETCHES;

export function Sketch({ name }: { name: SketchName }) {
  return (
    <svg className="handbook-sketch" viewBox="0 0 240 150" aria-hidden="true">
      {SKETCHES[name]}
    </svg>
  );
}
