import { Button } from "react-bootstrap";
import type { Blocker } from "react-router";
import { Pad } from "./Pad";
import { forget } from "./useGap";
import { t } from "../language/text";

/** LeaveCard asks whether to leave the lead screen while a class goes on. */
export function LeaveCard({ leaving }: { leaving: Blocker }) {
  const stay = () => leaving.reset?.();
  return (
    <Pad title={t("lead.leave-the-lead-screen")} onClose={stay}>
      <p>{t("lead.the-class-goes")}</p>
      <footer>
        <Button size="lg" autoFocus onClick={stay}>
          {t("lead.stay")}
        </Button>
        <Button
          size="lg"
          variant="outline-secondary"
          onClick={() => {
            forget();
            leaving.proceed?.();
          }}
        >
          {t("lead.leave")}
        </Button>
      </footer>
    </Pad>
  );
}
