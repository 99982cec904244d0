import { box } from "./draw";

/** Layout is where people sit: rows, those behind between those before and a little smaller. */
export type Layout = { scale: number; places: { x: number; y: number; scale: number }[] };

const behind = 0.86; // as large as the row before it

/** layout finds how many sit in a row so that everybody is as large as can be. */
export function layout(people: number, width: number, height: number): Layout {
  let best: Layout = { scale: 0, places: [] };
  for (let rows = 1; rows <= Math.min(4, people); rows++) {
    const across = Math.ceil(people / rows);
    // The rows overlap by a quarter: heads stand between the bodies before them.
    const tall = Array.from({ length: rows }, (_, row) => behind ** row);
    const high = tall.reduce((sum, one, row) => sum + (row === rows - 1 ? one : 0.74 * one), 0);
    const scale = Math.min(
      width / ((across + (rows > 1 ? 0.5 : 0)) * box.width),
      height / (high * box.height),
    );
    if (scale <= best.scale) continue;
    const places: Layout["places"] = [];
    let bottom = height;
    for (let row = 0; row < rows; row++) {
      const size = scale * tall[row]!;
      const seated = Math.min(across, people - row * across);
      const step = width / (across + (rows > 1 ? 0.5 : 0));
      const left = (width - seated * step) / 2 + (row % 2 === 1 ? step / 2 : 0) - (rows > 1 ? step / 4 : 0);
      for (let i = 0; i < seated; i++)
        places.push({
          x: left + (i + 0.5) * step - (size * box.width) / 2,
          y: bottom - size * box.height,
          scale: size,
        });
      bottom -= 0.74 * size * box.height;
    }
    best = { scale, places };
  }
  return best;
}
