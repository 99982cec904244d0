import { programmesQuery } from "./queries";
import { useQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import { DeletedLately } from "../frame/dialogs/BringBack";
import { ErrorAlert } from "../frame/shell/ErrorAlert";
import { text } from "../language/text";

/** Programmes is what a group follows over weeks. */
export function Programmes({ group }: { group: number }) {
  const programmes = useQuery(programmesQuery(group));
  if (programmes.isError)
    return <ErrorAlert error={programmes.error} retry={() => void programmes.refetch()} />;
  return (
    <section aria-label="Programmes">
      {programmes.data?.length === 0 && (
        <p className="text-secondary">
          None yet. Under <em>Paper and files</em> of a plan it becomes the first class of a programme: steps
          over weeks, which wait or step back when a class was eased.
        </p>
      )}
      {programmes.data?.map((p) => (
        <p key={p.id} className="mb-2">
          <Link to={`/programmes/${p.id}`}>{p.name}</Link> · step {p.step} of {p.steps}, {p.says}.{" "}
          {text(p.why)}
        </p>
      ))}
      <DeletedLately kinds={["programme"]} />
    </section>
  );
}
