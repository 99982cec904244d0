import "./help.css";
import { Link } from "react-router";
import { Shell } from "../frame/shell/Shell";
import licences from "./licences.txt?raw";
import { t } from "../language/text";

/** LicencesView is the licences of everything that ships inside the program, as `make licences` collects them. */
export function LicencesView() {
  return (
    <Shell view="help">
      <p>
        <Link to="/help">{t("help.manual")}</Link>
      </p>
      <h1>{t("help.licences")}</h1>
      <p>{t("help.what-ships-inside-the-program")}</p>
      <pre className="licences">{licences}</pre>
    </Shell>
  );
}
