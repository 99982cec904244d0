import { Link } from "react-router";
import { t } from "../language/text";

/** focus is for a link, which autoFocus does not reach. */
function focus(link: HTMLAnchorElement | null) {
  link?.focus();
}

/** Over is what stands where the sample class was, once it has ended: there is no record to go to. */
export function Over({ live }: { live: boolean }) {
  return (
    <section className="over">
      <h2 className="h1">{live ? t("lead.sample-class-finished") : t("lead.the-plan-ends-here")}</h2>
      {live && (
        <Link className="btn btn-primary btn-lg" to="/" ref={focus}>
          {t("rehearse.to-the-start")}
        </Link>
      )}
    </section>
  );
}
