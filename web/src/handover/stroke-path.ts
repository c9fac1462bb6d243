/** Strokes, each x and y by turns, as the path of a drawing; a touch of the pen is a dot. */
export const strokePath = (strokes: readonly (readonly number[])[]): string =>
  strokes
    .map((stroke) => {
      const points = stroke.flatMap((x, i) => (i % 2 === 0 ? [`${x} ${stroke[i + 1] ?? 0}`] : []))
      const [first = '0 0', ...rest] = points
      return `M${first}${(rest.length > 0 ? rest : [first]).map((point) => `L${point}`).join('')}`
    })
    .join('')
