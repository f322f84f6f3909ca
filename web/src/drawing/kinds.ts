/** Files of lines, by their endings. */
export const DRAWINGS = '.svg,.dxf,.pdf,.fold';

/** Files that can be printed: pictures and drawings. */
export const ART = `image/*,application/pdf,${DRAWINGS}`;
