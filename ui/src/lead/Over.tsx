import { Link } from "react-router";
import { clock } from "../player/format";
import type { Score } from "../wire/contract";
import { t } from "../language/text";

/** focus is for a link, which autoFocus does not reach. */
function focus(link: HTMLAnchorElement | null) {
  link?.focus();
}

/** Over is what stands where the class was, once it has ended: the way to its record. */
export function Over({ score, live }: { score: Score; live: boolean }) {
  if (!live)
    return (
      <section className="over">
        <h2 className="h1">{t("lead.the-plan-ends-here")}</h2>
      </section>
    );
  if (score.sample)
    return (
      <section className="over">
        <h2 className="h1">{t("lead.sample-class-finished")}</h2>
        <p>{t("lead.not-saved-it-was-a-sample")}</p>
        <Link className="btn btn-primary btn-lg" to="/" ref={focus}>
          {t("lead.plan-my-own")}
        </Link>
      </section>
    );
  if (score.class_id < 0)
    return (
      <section className="over">
        <h2 className="h1">{t("lead.the-class-has-ended")}</h2>
        <p>{t("lead.kept-until-the-server-answers", { end: clock(score.end_ms) })}</p>
        <Link className="btn btn-primary btn-lg" to="/" ref={focus}>
          {t("lead.today")}
        </Link>
      </section>
    );
  return (
    <section className="over">
      <h2 className="h1">{t("lead.the-class-has-ended")}</h2>
      <p>{t("lead.were-taught-the-record-is-kept", { end: clock(score.end_ms) })}</p>
      <Link className="btn btn-primary btn-lg" to={`/taught/${score.class_id}`} ref={focus}>
        {t("lead.read-what-was-taught")}
      </Link>{" "}
      <Link className="btn btn-outline-primary btn-lg" to={`/taught/${score.class_id}/home`}>
        {t("lead.give-home-practice")}
      </Link>{" "}
      <Link className="btn btn-outline-secondary btn-lg" to="/">
        {t("lead.today")}
      </Link>
    </section>
  );
}
