import { clock } from "../player/format";
import type { Preview } from "../wire/contract";
import { t } from "../language/text";

// A pause lasts until it is taken up again, and that an end ends the class needs no figure.
const unforeseen = ["pause", "end"];

/** moves tells by how much later or earlier the class would end: "+0:24"; nothing where it would not. */
export function moves(preview: Preview | undefined): string {
  if (!preview || preview.answer.refused || unforeseen.includes(preview.answer.do)) return "";
  if (preview.answer.late_ms > 0) return t("lead.late-2", { late: clock(preview.answer.late_ms) });
  const seconds = Math.round(preview.change_ms / 1000);
  return seconds === 0 ? "" : `${seconds > 0 ? "+" : "−"}${clock(Math.abs(seconds) * 1000)}`;
}
