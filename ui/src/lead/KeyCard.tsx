import { settingsQuery } from "../wire/queries";
import { useQuery } from "@tanstack/react-query";
import { Form } from "react-bootstrap";
import { Link } from "react-router";
import { KeyTable } from "../frame/keys/KeyTable";
import { Pad } from "./Pad";
import { t } from "../language/text";

/** KeyCard lists every key. */
export function KeyCard(props: { few: boolean; onFew: () => void; onClose: () => void }) {
  const { data: settings } = useQuery(settingsQuery);
  return (
    <Pad title={t("lead.keys")} onClose={props.onClose}>
      <Form.Check
        type="switch"
        id="few-keys"
        className="mb-2"
        label={t("lead.on-this-device-show-only")}
        checked={props.few}
        onChange={props.onFew}
      />
      <KeyTable settings={settings} />
      <p className="text-secondary mt-3 mb-0">{t("lead.on-a-key")}</p>
      <Link to="/keys">{t("lead.change-try-or-print-the-keys")}</Link>
    </Pad>
  );
}
