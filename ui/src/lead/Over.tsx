import { Link } from "react-router";
import { clock } from "../player/format";
import type { Score } from "../wire/contract";

/** focus is for a link, which autoFocus does not reach. */
function focus(link: HTMLAnchorElement | null) {
  link?.focus();
}

/** Over is what stands where the class was, once it has ended: the way to its record. */
export function Over({ score, live }: { score: Score; live: boolean }) {
  if (!live)
    return (
      <section className="over">
        <h2 className="h1">The plan ends here</h2>
      </section>
    );
  if (score.sample)
    return (
      <section className="over">
        <h2 className="h1">Sample class finished</h2>
        <p>Not saved: it was a sample. After your own classes the record appears here.</p>
        <Link className="btn btn-primary btn-lg" to="/" ref={focus}>
          Plan my own
        </Link>
      </section>
    );
  return (
    <section className="over">
      <h2 className="h1">The class has ended</h2>
      <p>{clock(score.end_ms)} were taught. The record is kept.</p>
      <Link className="btn btn-primary btn-lg" to={`/taught/${score.class_id}`} ref={focus}>
        Read what was taught
      </Link>{" "}
      <Link className="btn btn-outline-primary btn-lg" to={`/taught/${score.class_id}/home`}>
        Give home practice
      </Link>{" "}
      <Link className="btn btn-outline-secondary btn-lg" to="/">
        Today
      </Link>
    </section>
  );
}
