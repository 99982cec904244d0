import { type ReactNode, useLayoutEffect, useRef, useState } from "react";
import { Button, ButtonGroup } from "react-bootstrap";
import { useNavigate } from "react-router";
import { t } from "../../language/text";

/** The two sizes of paper, in mm. */
const papers = { A4: { width: 210, height: 297 }, Letter: { width: 215.9, height: 279.4 } };
type Size = keyof typeof papers;

const margin = 12; // mm
// Sizes of text in pt: in one column as large as it can be, in two as small as can be read at arm's length.
const oneColumn = { from: 15, to: 9 };
const twoColumns = { from: 11, to: 6 };

/** squeeze makes the text as large as one page allows; what does not fit at the smallest goes on to a second. */
function squeeze(page: HTMLElement): void {
  page.classList.remove("spread");
  for (const [dense, { from, to }] of [
    [false, oneColumn],
    [true, twoColumns],
  ] as const) {
    page.classList.toggle("dense", dense);
    for (let points = from; points >= to; points -= 0.25) {
      page.style.fontSize = `${points}pt`;
      if (page.scrollHeight <= page.clientHeight) return;
    }
  }
  page.classList.add("spread");
}

/** Paper is one page to print: its text is made as small as it has to be for one page. */
export function Paper({ back, tools, children }: { back: string; tools?: ReactNode; children: ReactNode }) {
  const navigate = useNavigate();
  const [size, setSize] = useState<Size>(() =>
    localStorage.getItem("paper") === "Letter" ? "Letter" : "A4",
  );
  const sheet = useRef<HTMLDivElement>(null);
  const { width, height } = papers[size];
  const choose = (next: Size) => {
    localStorage.setItem("paper", next);
    setSize(next);
  };
  useLayoutEffect(() => {
    if (sheet.current) squeeze(sheet.current);
  });
  return (
    <div className="papers">
      <style>{`@page { size: ${size}; margin: 0; }`}</style>
      <nav className="papertools" aria-label={t("frame.printing")}>
        <Button variant="outline-secondary" onClick={() => void navigate(back)}>
          {t("frame.back")}
        </Button>
        {tools}
        <ButtonGroup aria-label={t("frame.paper")}>
          {(Object.keys(papers) as Size[]).map((name) => (
            <Button
              key={name}
              variant={name === size ? "primary" : "outline-primary"}
              aria-pressed={name === size}
              onClick={() => choose(name)}
            >
              {name}
            </Button>
          ))}
        </ButtonGroup>
        <Button onClick={() => window.print()}>{t("frame.print")}</Button>
      </nav>
      <main
        ref={sheet}
        className="paper"
        style={{ width: `${width}mm`, height: `${height - 0.5}mm`, padding: `${margin}mm` }}
      >
        {children}
      </main>
    </div>
  );
}
