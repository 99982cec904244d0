import mic from "bootstrap-icons/icons/mic-fill.svg?raw";
import { Icon } from "../frame/shell/Icon";
import type { Ear } from "./useEar";
import { t } from "../language/text";

/** EarLight shows as long as this screen listens, with what it hears; or that it cannot listen any more. */
export function EarLight({ ear, onOpen }: { ear: Ear; onOpen: () => void }) {
  const { hearing, shown, proposal } = ear;
  if (hearing.is !== "on" && hearing.is !== "trouble") return null;
  const on = hearing.is === "on";
  const cannot = !on || shown.dead || ear.deaf || (ear.stroking && shown.strokes === null && !shown.early);
  const heard =
    ear.stroking && shown.strokes !== null
      ? String(shown.strokes)
      : shown.sounds !== null
        ? t("lead.seconds", { seconds: shown.sounds })
        : "";
  return (
    <button
      type="button"
      className={`earlight ${proposal ? "proposes" : ""}`}
      onClick={onOpen}
      aria-label={on ? t("lead.listening") : t("lead.not-listening-any-more")}
    >
      <span className={on ? "dot" : "dot out"} />
      <Icon of={mic} />
      <span className="heard">
        {cannot ? (
          <>
            <span className="still">{t("lead.cannot-hear")}</span>
            <span className="short" aria-hidden>
              –
            </span>
          </>
        ) : (
          heard || <span className="still">{t("lead.listening")}</span>
        )}
      </span>
    </button>
  );
}
