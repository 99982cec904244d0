import warning from "bootstrap-icons/icons/exclamation-triangle.svg?raw";
import feather from "bootstrap-icons/icons/feather.svg?raw";
import info from "bootstrap-icons/icons/info-circle.svg?raw";
import octagon from "bootstrap-icons/icons/x-octagon.svg?raw";
import { Icon } from "../shell/Icon";
import type { Caution, Finding } from "../../wire/contract";
import { cautionsAreTranslated } from "../../language/catalogue";
import { t, text, wordOf } from "../../language/text";

/** TranslatedCautions says under cautions that they are a translation, and which text it follows. */
export function TranslatedCautions() {
  return cautionsAreTranslated() ? (
    <p className="text-secondary small">{t("frame.cautions-translated")}</p>
  ) : null;
}

/** Cautions of a practice, whoever is in the room: strong ones first. */
export function Cautions({ list }: { list: Caution[] }) {
  return (
    <>
      {list.map((c) => (
        <p key={c.id} className={`caution ${c.strong ? "strong" : ""}`}>
          {text(c.say)}
        </p>
      ))}
      {list.length > 0 && <TranslatedCautions />}
    </>
  );
}

const icons: { [kind: string]: string } = {
  "leave-out": octagon,
  "gentle-variant": feather,
  carefully: warning,
};

/** Findings is what the rules of care say of a passage for the group at hand. */
export function Findings({ list }: { list: Finding[] }) {
  return (
    <ul className="findings">
      {list.map((f) => (
        <li key={text(f.say)} className={f.do === "leave-out" ? "strong" : ""}>
          <Icon of={icons[f.do] ?? info} /> <strong>{wordOf("do", f.do)}</strong> {text(f.say)}{" "}
          <span className="text-secondary">{text(f.instead)}</span>
        </li>
      ))}
    </ul>
  );
}
