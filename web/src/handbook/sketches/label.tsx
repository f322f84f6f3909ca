/** Words in a drawing. */
export function label(x: number, y: number, words: string) {
  return (
    <text key={`${x} ${y}`} x={x} y={y}>
      {words}
    </text>
  );
}
