import { useMutation, useQueryClient } from "@tanstack/react-query";
import { Button } from "react-bootstrap";
import { post } from "../wire/api";
import type { Record, RemarkAdd, Unsaid as UnsaidLine } from "../wire/contract";
import { ErrorAlert } from "../frame/shell/ErrorAlert";
import { recordQuery } from "./queries";
import { t } from "../language/text";

const kinds = (): { [kind: string]: string } => ({
  line: t("taught.your-words"),
  talk: t("taught.a-talk"),
  script: t("taught.what-you-wrote"),
});
const became = (): { [kind: string]: string } => ({
  next: t("taught.comes-next-time"),
  used: t("taught.used-since"),
  "put-away": t("taught.put-away"),
});

/** Unsaid is what was planned to be said and was not reached, each for next time or never again. */
export function Unsaid({ record }: { record: Record }) {
  const queries = useQueryClient();
  const id = record.class.id;
  const settle = useMutation({
    mutationFn: ({ kind, text }: Pick<RemarkAdd, "kind" | "text">) =>
      post<Record>(`/classes/${id}/remarks`, { kind, text, newest: 0 } satisfies RemarkAdd),
    onSuccess: (fresh) => {
      queries.setQueryData(recordQuery(id).queryKey, fresh);
      void queries.invalidateQueries({ queryKey: ["returning"] });
    },
  });
  if (record.unsaid.length === 0) return null;
  return (
    <section className="unsaid">
      <h2>{t("taught.planned-and-not-said")}</h2>
      {settle.isError && <ErrorAlert error={settle.error} />}
      <ul>
        {record.unsaid.map((one) => (
          <li key={`${one.passage} ${one.text}`}>
            <span>
              <strong>{one.name}</strong>, {kinds()[one.kind]}: {one.text}
            </span>
            {one.settled === "" ? (
              <Choice one={one} onSettle={settle.mutate} waits={settle.isPending} />
            ) : (
              <small>{became()[one.settled]}</small>
            )}
          </li>
        ))}
      </ul>
    </section>
  );
}

type ChoiceProps = {
  one: UnsaidLine;
  waits: boolean;
  onSettle: (remark: { kind: string; text: string }) => void;
};

function Choice({ one: { text }, waits, onSettle }: ChoiceProps) {
  return (
    <>
      <Button
        size="sm"
        variant="outline-primary"
        disabled={waits}
        onClick={() => onSettle({ kind: "next", text })}
      >
        {t("taught.next-time")}
      </Button>
      <Button
        size="sm"
        variant="outline-secondary"
        disabled={waits}
        onClick={() => onSettle({ kind: "put-away", text })}
      >
        {t("taught.no-more")}
      </Button>
    </>
  );
}
