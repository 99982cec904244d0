import { Link } from "react-router";
import { Shell } from "./Shell";
import { rich, t } from "../../language/text";

export function NotFound() {
  return (
    <Shell view="nowhere">
      <h1>{t("frame.there-is-nothing-here")}</h1>
      <p>
        {rich("frame.the-address-may-be-mistyped", { link: <Link to="/">{t("frame.go-to-today")}</Link> })}
      </p>
    </Shell>
  );
}
