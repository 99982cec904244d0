import { settingsQuery } from "../wire/queries";
import { useQuery } from "@tanstack/react-query";
import { Form } from "react-bootstrap";
import { Link } from "react-router";
import { KeyTable } from "../frame/keys/KeyTable";
import { Pad } from "./Pad";

/** KeyCard lists every key. */
export function KeyCard(props: { few: boolean; onFew: () => void; onClose: () => void }) {
  const { data: settings } = useQuery(settingsQuery);
  return (
    <Pad title="Keys" onClose={props.onClose}>
      <Form.Check
        type="switch"
        id="few-keys"
        className="mb-2"
        label="On this device, show only the keys that a hand needs"
        checked={props.few}
        onChange={props.onFew}
      />
      <KeyTable settings={settings} />
      <p className="text-secondary mt-3 mb-0">+0:36 on a key: the class would end so much later.</p>
      <Link to="/keys">Change, try or print the keys</Link>
    </Pad>
  );
}
