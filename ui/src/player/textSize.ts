const lineHeight = 1.22;
const ragged = 1.12; // lines break at words

/** textSize is the largest size in px at which paragraphs of these widths (em) stand in the box, but no less than the least. */
export function textSize(paragraphs: number[], width: number, height: number, least: number): number {
  const fits = (size: number) => {
    const lines = paragraphs.reduce((all, em) => {
      const wide = em * size;
      return all + (wide <= width ? 1 : Math.ceil((wide * ragged) / width));
    }, 0);
    return lines * lineHeight * size <= height;
  };
  let size = Math.floor(height / lineHeight);
  while (size > least && !fits(size)) size--;
  return Math.max(least, size);
}
