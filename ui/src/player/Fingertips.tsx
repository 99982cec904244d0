import "./fingertips.css";
import { memo } from "react";

// The four fingers from the index finger on: the root, the tip when stretched, and where it meets the thumb when bent.
const fingers = [
  { root: [42, 66], tip: [36, 22], meets: [27, 50] },
  { root: [54, 64], tip: [52, 14], meets: [33, 44] },
  { root: [66, 66], tip: [68, 20], meets: [40, 44] },
  { root: [77, 71], tip: [83, 34], meets: [47, 50] },
] as const;

/** Fingertips draws an open hand whose thumb meets one fingertip after the other, one for each syllable. */
export const Fingertips = memo(function Fingertips({ finger }: { finger: number }) {
  const touched = fingers[finger % fingers.length]!;
  const [x, y] = touched.meets;
  return (
    <svg
      className="hand-drawing tips"
      viewBox="0 0 100 112"
      aria-hidden
      data-finger={finger % fingers.length}
    >
      <path className="palm" d="M40 66C50 60 72 60 80 72C84 88 74 104 58 104C46 104 38 92 40 66Z" />
      {fingers.map(({ root, tip }) =>
        root === touched.root ? null : (
          <path key={root[0]} className="finger" d={`M${root[0]} ${root[1]}L${tip[0]} ${tip[1]}`} />
        ),
      )}
      <path
        className="finger closing"
        d={`M${touched.root[0]} ${touched.root[1]}Q${touched.root[0]} ${y - 24} ${x} ${y}`}
      />
      <path className="finger thumb closing" d={`M46 94Q22 84 ${x} ${y}`} />
    </svg>
  );
});
