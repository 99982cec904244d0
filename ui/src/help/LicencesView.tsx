import "./help.css";
import { Link } from "react-router";
import { Shell } from "../frame/shell/Shell";
import licences from "./licences.txt?raw";

/** LicencesView is the licences of everything that ships inside the program, as `make licences` collects them. */
export function LicencesView() {
  return (
    <Shell view="help">
      <p>
        <Link to="/help">Manual</Link>
      </p>
      <h1>Licences</h1>
      <p>What ships inside the program, and the terms of each: Go modules, scripts, styles and fonts.</p>
      <pre className="licences">{licences}</pre>
    </Shell>
  );
}
