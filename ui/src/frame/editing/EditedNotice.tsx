import { Alert, Button, Form, Table } from "react-bootstrap";
import { wasChanged } from "../../wire/changed";
import { ErrorAlert } from "../shell/ErrorAlert";
import { text } from "./fields";
import { at, type Difference, type Path } from "./merge";
import type { Edited } from "./useEdited";
import { t } from "../../language/text";

type Props<Shape> = {
  /** as "this group" */
  what: string;
  /** why the last save failed */
  error: Error | null;
  edited: Pick<Edited<Shape>, "draft" | "differences" | "choose" | "typedBefore" | "takeStored">;
  /** what a field is called; null for one that nobody types */
  nameOf: (path: Path) => string | null;
};

/**
 * EditedNotice tells why what is typed is not saved, that another screen saved something else meanwhile, or that it is of an earlier
 * visit.
 */
export function EditedNotice<Shape>({ what, error, edited, nameOf }: Props<Shape>) {
  const fields = edited.differences.flatMap((one) => {
    const name = nameOf(one.path);
    return name === null ? [] : [{ ...one, name }];
  });
  if (fields.length > 0)
    return (
      <>
        {error && !wasChanged(error) && <ErrorAlert error={error} />}
        <Alert variant="warning" className="compare">
          <p>
            {wasChanged(error) && <strong>{t("frame.not-saved-yet")} </strong>}
            {t("frame.another-screen-changed-while-you-were", { what })}
          </p>
          <Table size="sm" responsive>
            <thead>
              <tr>
                <th scope="col">{t("frame.field")}</th>
                <th scope="col">{t("frame.yours")}</th>
                <th scope="col">{t("frame.from-the-other-screen")}</th>
              </tr>
            </thead>
            <tbody>
              {fields.map((field) => (
                <Choose
                  key={field.path.join(" ")}
                  field={field}
                  now={at(edited.draft, field.path)}
                  onChoose={(value) => edited.choose(field.path, value)}
                />
              ))}
            </tbody>
          </Table>
          <Button variant="outline-secondary" size="sm" onClick={edited.takeStored}>
            {t("frame.discard-everything-i-typed")}
          </Button>
        </Alert>
      </>
    );
  if (error) return <ErrorAlert error={error} />;
  if (edited.typedBefore)
    return (
      <Alert variant="light" className="d-flex gap-3 align-items-center">
        <span>{t("frame.what-you-typed-here-before")}</span>
        <Button variant="outline-secondary" size="sm" className="ms-auto" onClick={edited.takeStored}>
          {t("frame.discard-it")}
        </Button>
      </Alert>
    );
  return null;
}

type ChooseProps = {
  field: Difference & { name: string };
  now: unknown;
  onChoose: (value: unknown) => void;
};

/** Choose is one field with its two values. */
function Choose({ field, now, onChoose }: ChooseProps) {
  const value = (label: string, one: unknown) => (
    <td>
      <Form.Check
        type="radio"
        id={`${label} ${field.path.join(" ")}`}
        name={field.path.join(" ")}
        label={inWords(one)}
        checked={inWords(now) === inWords(one)}
        onChange={() => onChoose(one)}
      />
    </td>
  );
  return (
    <tr>
      <th scope="row">{field.name}</th>
      {value("mine", field.mine)}
      {value("theirs", field.theirs)}
    </tr>
  );
}

/** inWords is a value of a field as it can be read. */
function inWords(value: unknown): string {
  if (Array.isArray(value)) return value.map(inWords).join(" · ") || t("frame.nothing");
  if (typeof value === "object" && value !== null)
    return Object.entries(value)
      .map(([name, part]) => `${name.replaceAll("_", " ")} ${inWords(part)}`)
      .join(", ");
  if (typeof value === "boolean") return value ? t("frame.yes") : t("frame.no");
  return text(value) || t("frame.nothing");
}
