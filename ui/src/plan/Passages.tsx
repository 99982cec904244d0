import {
  closestCenter,
  DndContext,
  type DragEndEvent,
  KeyboardSensor,
  PointerSensor,
  useSensor,
  useSensors,
  type UniqueIdentifier,
} from "@dnd-kit/core";
import {
  arrayMove,
  SortableContext,
  sortableKeyboardCoordinates,
  verticalListSortingStrategy,
} from "@dnd-kit/sortable";
import { useEffect, useState } from "react";
import type { PassageDoc } from "../wire/plan";
import { Filled } from "../frame/shell/Filled";
import filled from "../frame/filled/plan.webp";
import { carry, nameOf } from "./identity";
import { nextCheck } from "./Checked";
import { PassageRow } from "./PassageRow";
import type { Editor } from "./usePlanEditor";
import { rich, t } from "../language/text";

/** Passages is the running order: each passage a row that is edited in place and dragged to another. */
export function Passages({ editor }: { editor: Editor }) {
  const { document, summary, change, ask } = editor;
  const [opened, setOpened] = useState(""); // the name of the passage whose details are shown
  const replace = (passages: PassageDoc[]) => change({ document: { ...document, passages } });
  const move = (from: number, to: number) => replace(arrayMove(document.passages, from, to));
  const edit = (i: number, next: PassageDoc) => {
    carry(document.passages[i], next);
    replace(document.passages.with(i, next));
  };
  useEffect(() => {
    const listen = (e: KeyboardEvent) => {
      if (e.key !== "F8" || e.defaultPrevented) return;
      if (nextCheck(window.document, window.document.activeElement)) e.preventDefault();
    };
    window.addEventListener("keydown", listen);
    return () => window.removeEventListener("keydown", listen);
  }, []);
  const placeOf = (name: UniqueIdentifier) => document.passages.findIndex((p) => nameOf(p) === name);
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 5 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  const dropped = ({ active, over }: DragEndEvent) => {
    if (over && over.id !== active.id) move(placeOf(active.id), placeOf(over.id));
  };
  return (
    <DndContext sensors={sensors} collisionDetection={closestCenter} onDragEnd={dropped}>
      <SortableContext items={document.passages.map(nameOf)} strategy={verticalListSortingStrategy}>
        <div
          className={`passages ${summary.starts_ms === null ? "" : "dated"}`}
          role="list"
          aria-label={t("frame.running-order")}
        >
          {document.passages.length === 0 && (
            <div className="m-3">
              <p className="text-secondary">
                {rich("plan.nothing-is-planned-yet-type", { kbd: <kbd>talk 1 min "Seat and spine"</kbd> })}
              </p>
              <Filled picture={filled} says={t("plan.passages-from-top-to-bottom")} />
            </div>
          )}
          {document.passages.map((doc, i) => (
            <PassageRow
              key={nameOf(doc)}
              id={nameOf(doc)}
              number={i + 1}
              doc={doc}
              summary={summary.passages[i]}
              errors={summary.errors.filter((e) => e.passage === i + 1)}
              starts={summary.starts_ms}
              open={opened === nameOf(doc)}
              onToggle={() => setOpened(opened === nameOf(doc) ? "" : nameOf(doc))}
              onChange={(next) => edit(i, next)}
              onAsk={(asked) => ask({ ...asked, passage: i + 1 })}
              onMove={(by) => move(i, i + by)}
              onDuplicate={() => replace(document.passages.toSpliced(i + 1, 0, structuredClone(doc)))}
              onRemove={() => replace(document.passages.toSpliced(i, 1))}
              last={i === document.passages.length - 1}
            />
          ))}
        </div>
      </SortableContext>
    </DndContext>
  );
}
