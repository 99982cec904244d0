import type { HomeSheet } from "../../wire/contract";
import { t } from "./words";

/** TooMuch is what to do when it was too much, and whom to ask. */
export function TooMuch({ sheet, onBack }: { sheet: HomeSheet; onBack: () => void }) {
  return (
    <main className="before toomuch">
      <h1>{t("page.too-much-2")}</h1>
      <ol>
        {sheet.too_much.map((line) => (
          <li key={line}>{line}</li>
        ))}
      </ol>
      <p>{sheet.stop}</p>
      <p className="keys">
        <button type="button" className="btn btn-primary" onClick={onBack}>
          {t("page.back")}
        </button>
      </p>
    </main>
  );
}
