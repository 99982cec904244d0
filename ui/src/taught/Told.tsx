import type { Counted, Told as Sums } from "../wire/contract";
import { number, timeOfDay } from "../player/format";
import { text } from "../language/text";

/** Told is what those who breathed said on the room's page: sums, never who. */
export function Told({ told }: { told: Sums }) {
  if (told.most === 0) return null;
  const ways = [
    ["easy", told.easy],
    ["right", told.right],
    ["too much", told.too_much],
  ] as const;
  const all = told.easy + told.right + told.too_much;
  return (
    <section className="told" aria-labelledby="told">
      <h2 id="told">What the room said</h2>
      <dl>
        {ways.map(([way, n]) => (
          <div key={way}>
            <dt>{way}</dt>
            <dd>
              <span className="bar" style={{ width: `${all === 0 ? 0 : (n / all) * 100}%` }} /> {n}
            </dd>
          </div>
        ))}
      </dl>
      {told.counted && <p className="mb-1">{counted(told.counted, all)}</p>}
      <p className="text-secondary">
        {all} of at most {told.most} answered
        {told.main + told.beside > 0 &&
          `; of ${told.main + told.beside} who told it, ${told.beside} took the gentler lane`}
        {told.until_ms > 0 && `; more can come until ${timeOfDay(told.until_ms)}`}.
        {told.unready && ` Not ready for a step: ${text(told.unready)}.`}
      </p>
    </section>
  );
}

/** counted is what people counted at own pace: "9 of 14 counted: 60 to 180 strokes, median 110". */
function counted({ of, people, least, most, median }: Counted, all: number): string {
  if (least === most) return `${people} of ${all} counted, ${of}: ${least}`;
  return `${people} of ${all} counted: ${least} to ${most} ${of}, median ${number(median)}`;
}
