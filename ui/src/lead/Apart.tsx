import plug from "bootstrap-icons/icons/plug.svg?raw";
import type { Alone } from "../apart/leader";
import { Icon } from "../frame/shell/Icon";
import { failureText, t } from "../language/text";

/** Apart says that the class goes on by this screen alone, and how much the program does not have yet. */
export function Apart({ alone: { unsent, unkept, refused } }: { alone: Alone }) {
  return (
    <span className="offline" role="status">
      <Icon of={plug} /> <span className="still">{t("lead.leading-from-this-device", { unsent })}</span>
      <span className="short">{t("lead.to-send-short", { unsent })}</span>
      {unkept && unsent > 0 && <b> {t("lead.not-kept-here")}</b>}
      {refused && <b> {t("lead.not-taken-yet", { why: failureText(refused) })}</b>}
    </span>
  );
}
