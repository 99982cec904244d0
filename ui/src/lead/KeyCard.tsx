import { settingsQuery } from "../wire/queries";
import { useQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import { KeyTable } from "../frame/keys/KeyTable";
import { Pad } from "./Pad";

/** KeyCard lists every key. */
export function KeyCard({ onClose }: { onClose: () => void }) {
  const { data: settings } = useQuery(settingsQuery);
  return (
    <Pad title="Keys" onClose={onClose}>
      <KeyTable settings={settings} />
      <p className="text-secondary mt-3 mb-0">+0:36 on a key: the class would end so much later.</p>
      <Link to="/keys">Change, try or print the keys</Link>
    </Pad>
  );
}
