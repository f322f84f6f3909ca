/** What a piece's form is drawn from. */
import type { ChosenStructure, Form, Gathered, LineDrawing, Traced } from './generated/types';

/** The structure with its figures, where it is drawn from one. */
export const structureOf = (form: Form): ChosenStructure | null =>
  'structure' in form ? form : null;

/** The outline, where it is traced from a picture. */
export const tracedOf = (form: Form): Traced | null => ('traced' in form ? form.traced : null);

/** The card, where it holds other pieces. */
export const gatheredOf = (form: Form): Gathered | null =>
  'gathered' in form ? form.gathered : null;

/** The drawing, where its lines come from elsewhere. */
export const drawingOf = (form: Form): LineDrawing | null =>
  'drawing' in form ? form.drawing : null;
