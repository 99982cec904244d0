import { Link } from "react-router";
import { Shell } from "./Shell";

export function NotFound() {
  return (
    <Shell view="nowhere">
      <h1>There is nothing here</h1>
      <p>
        The address may be mistyped, or what it named is gone. <Link to="/">Go to today</Link>.
      </p>
    </Shell>
  );
}
