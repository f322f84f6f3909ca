/** Where the drawing stands on the screen: pixels = millimetres × scale + offset. */
export interface View {
  x: number;
  y: number;
  scale: number;
}

export interface Box {
  x: number;
  y: number;
  width: number;
  height: number;
}

/** Pixels kept free around the drawing when it is fitted. */
export interface Padding {
  left: number;
  top: number;
  right: number;
  bottom: number;
}

const SMALLEST = 0.05;
const LARGEST = 200;

export const clampScale = (scale: number) => Math.min(LARGEST, Math.max(SMALLEST, scale));

/** The view in which `box` fills the screen inside the padding. */
export function fitted(box: Box, width: number, height: number, padding: Padding): View {
  const room = {
    width: Math.max(40, width - padding.left - padding.right),
    height: Math.max(40, height - padding.top - padding.bottom),
  };
  const scale = clampScale(
    Math.min(room.width / Math.max(box.width, 1), room.height / Math.max(box.height, 1)),
  );
  return {
    scale,
    x: padding.left + (room.width - box.width * scale) / 2 - box.x * scale,
    y: padding.top + (room.height - box.height * scale) / 2 - box.y * scale,
  };
}

/** The view zoomed by `factor` with the point under (`px`, `py`) staying where it is. */
export function zoomed(view: View, factor: number, px: number, py: number): View {
  const scale = clampScale(view.scale * factor);
  const ratio = scale / view.scale;
  return { scale, x: px - (px - view.x) * ratio, y: py - (py - view.y) * ratio };
}
