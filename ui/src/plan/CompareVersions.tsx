import { savedElsewhereQuery } from "./queries";
import { useMutation, useQuery } from "@tanstack/react-query";
import { Button, Modal, Table } from "react-bootstrap";
import { Link } from "react-router";
import { ErrorAlert } from "../frame/shell/ErrorAlert";
import { Loading } from "../frame/shell/Loading";
import { clock, day, timeOfDay } from "../player/format";
import { post } from "../wire/api";
import type { Plan, PlanSave, PlanSummary } from "../wire/contract";
import { forgetUnsaved } from "./unsaved";
import type { Editor } from "./usePlanEditor";
import { rich, t } from "../language/text";

type Props = { editor: Editor; id: number; onClose: () => void };

/** CompareVersions shows what was typed here beside what another screen saved, to choose from. Neither is lost. */
export function CompareVersions({ editor, id, onClose }: Props) {
  const there = useQuery(savedElsewhereQuery(id));
  const mine = (): PlanSave => ({ revision: 0, group_id: editor.group, document: editor.document });
  const copy = useMutation({ mutationFn: () => post<Plan>("/plans", mine()) });
  const showTheirs = () => {
    forgetUnsaved(id);
    window.location.reload();
  };
  return (
    <Modal show centered size="xl" onHide={onClose} aria-labelledby="compare-versions">
      <Modal.Header closeButton closeLabel={t("frame.close")}>
        <Modal.Title id="compare-versions">{t("plan.two-versions-of-this-plan")}</Modal.Title>
      </Modal.Header>
      <Modal.Body>
        <p>{t("plan.another-screen-saved-this-plan-while")}</p>
        {there.isPending && <Loading what={t("plan.reading-the-other-version")} />}
        {there.isError && <ErrorAlert error={there.error} retry={() => void there.refetch()} />}
        {copy.isError && <ErrorAlert error={copy.error} />}
        {there.data && <BothVersions mine={editor.summary} theirs={there.data.summary} />}
        {copy.isSuccess && (
          <p role="status">
            {rich("plan.your-version-is-saved", {
              link: <Link to={`/plan/${copy.data.id}`}>{t("plan.a-plan-of-its-own")}</Link>,
            })}
          </p>
        )}
      </Modal.Body>
      <Modal.Footer>
        {copy.isSuccess ? (
          <Button onClick={showTheirs}>{t("plan.show-the-other-version-here")}</Button>
        ) : (
          <>
            <Button variant="outline-secondary" disabled={!there.data} onClick={showTheirs}>
              {t("plan.use-the-other-version")}
            </Button>
            <Button
              variant="outline-primary"
              disabled={!there.data || copy.isPending}
              onClick={() => copy.mutate()}
            >
              {t("plan.keep-both-save-mine-as-another")}
            </Button>
            <Button
              disabled={!there.data}
              onClick={() => {
                void editor.overwrite(there.data!.revision);
                onClose();
              }}
            >
              {t("plan.use-mine")}
            </Button>
          </>
        )}
      </Modal.Footer>
    </Modal>
  );
}

/** BothVersions is the two versions line by line; a line that differs is marked. */
function BothVersions({ mine, theirs }: { mine: PlanSummary; theirs: PlanSummary }) {
  const left = linesOf(mine);
  const right = linesOf(theirs);
  return (
    <Table size="sm">
      <colgroup>
        <col width="50%" />
        <col width="50%" />
      </colgroup>
      <thead>
        <tr>
          <th scope="col">{t("frame.yours")}</th>
          <th scope="col">{t("frame.from-the-other-screen")}</th>
        </tr>
      </thead>
      <tbody>
        {Array.from({ length: Math.max(left.length, right.length) }, (_, i) => (
          <tr key={i} className={left[i] === right[i] ? undefined : "table-warning"}>
            <td>{left[i]}</td>
            <td>{right[i]}</td>
          </tr>
        ))}
      </tbody>
    </Table>
  );
}

function linesOf(summary: PlanSummary): string[] {
  const at = summary.starts_ms === null ? [] : [`${day(summary.starts_ms)}, ${timeOfDay(summary.starts_ms)}`];
  const passages = summary.passages.map((passage, i) => `${i + 1}. ${passage.name}, ${passage.short}`);
  return [
    summary.title || t("frame.untitled"),
    ...at,
    t("plan.takes", { length: clock(summary.length_ms) }),
    ...passages,
  ];
}
