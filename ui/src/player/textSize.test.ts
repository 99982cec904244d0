import { expect, test } from "vitest";
import { textSize } from "./textSize";

test.each([
  // one line that has its width to spare is as high as the box
  [[5], 600, 61, 13, 50],
  // one that has not is as wide as the box at most
  [[20], 600, 40, 13, 30],
  // two paragraphs share the height
  [[5, 5], 600, 61, 13, 25],
  // what is too long for the box is no smaller than can be read
  [[900], 300, 40, 13, 13],
])("paragraphs of %j em in %d x %d", (paragraphs, width, height, least, size) => {
  expect(textSize(paragraphs, width, height, least)).toBe(size);
});
