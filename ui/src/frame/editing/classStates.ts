import { t } from "../../language/text";
import type { ProgrammeClass } from "../../wire/contract";

/** classStates is how a class of a programme went, in words. */
export const classStates = (): { [state in ProgrammeClass["state"]]: string } => ({
  planned: t("programmes.led-as-planned"),
  eased: t("programmes.eased"),
  "too-much": t("programmes.led-as-planned-too-much"),
  missed: t("programmes.missed"),
  running: t("programmes.being-led"),
  coming: t("programmes.to-come"),
});
