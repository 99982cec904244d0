import type { CSSProperties } from "react";
import { useBox } from "./useBox";
import { widthOf } from "./widthOf";
import { textSize } from "./textSize";

/** fitted tells CSS how wide a text is, in em: it stands in one line, smaller where it must be (stage.css). */
export function fitted(text: string): CSSProperties {
  return { "--em": Math.max(widthOf(text), 0.5).toFixed(3) } as CSSProperties;
}

const least = 13; // px; what is longer scrolls

type Props = {
  /** what is there now, each by itself */
  lines: string[];
  /** what the teacher wrote for the whole passage; smaller where there are lines */
  script: string;
  pattern?: boolean;
  /** the largest that a line may be, as a share of the height */
  most?: number;
};

/** Words is what is to be said, as large as the place for it allows. */
export function Words({ lines, script, pattern = false, most = 1 }: Props) {
  const [ref, box] = useBox<HTMLDivElement>();
  const texts = [...lines, ...(script === "" ? [] : script.split("\n"))];
  const longest = Math.max(1, ...texts.flatMap((text) => text.split(" ").map(widthOf)));
  const size =
    box &&
    Math.min(
      textSize(texts.map(widthOf), box.width, box.height, least),
      box.width / longest,
      Math.max(least, box.height * most),
    );
  return (
    <div className={pattern ? "words pattern" : "words"} ref={ref}>
      <div style={size ? { fontSize: `${size}px` } : undefined}>
        {lines.map((line, i) => (
          <p className="line" key={i}>
            {line}
          </p>
        ))}
        {script !== "" && <p className={lines.length > 0 ? "script below" : "script"}>{script}</p>}
      </div>
    </div>
  );
}
