import { useEffect, useState } from "react";

const known = new Map<string, number>();
let canvas: CanvasRenderingContext2D | null | undefined;
const at = 100; // px

/** widthOf is how wide a bold text is in the face of the screens, in em. */
export function widthOf(text: string): number {
  if (text === "") return 0;
  let width = known.get(text);
  if (width === undefined) {
    canvas ??= document.createElement("canvas").getContext("2d");
    if (!canvas) return text.length * 0.6;
    canvas.font = `700 ${at}px "Atkinson Hyperlegible", system-ui, sans-serif`;
    width = canvas.measureText(text).width / at;
    known.set(text, width);
  }
  return width;
}

/** useFonts draws again when a font has come that texts were not measured with. */
export function useFonts(): void {
  const [, draw] = useState(0);
  useEffect(() => {
    const loaded = () => {
      known.clear();
      draw((n) => n + 1);
    };
    document.fonts.addEventListener("loadingdone", loaded);
    return () => document.fonts.removeEventListener("loadingdone", loaded);
  }, []);
}
