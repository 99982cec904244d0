import type { Counted, Told as Sums } from "../wire/contract";
import { number, timeOfDay } from "../player/format";
import { t, text } from "../language/text";

/** Told is what those who breathed said on the room's page: sums, never who. */
export function Told({ told }: { told: Sums }) {
  if (told.most === 0) return null;
  const ways = [
    [t("taught.easy"), told.easy],
    [t("taught.right"), told.right],
    [t("taught.too-much"), told.too_much],
  ] as const;
  const all = told.easy + told.right + told.too_much;
  return (
    <section className="told" aria-labelledby="told">
      <h2 id="told">{t("taught.what-the-room-said")}</h2>
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
        {t("taught.of-at-most-answered", { all, most: told.most })}
        {told.main + told.beside > 0 &&
          t("taught.of-who-told-it-took", { main: told.main + told.beside, beside: told.beside })}
        {told.until_ms > 0 && t("taught.more-can-come-until", { until: timeOfDay(told.until_ms) })}.
        {told.unready && t("taught.not-ready-for-a-step", { unready: text(told.unready) })}
      </p>
    </section>
  );
}

/** counted is what people counted at own pace: "9 of 14 counted: 60 to 180 strokes, median 110". */
function counted({ of, people, least, most, median }: Counted, all: number): string {
  if (least === most) return t("taught.of-counted", { people, all, of, least });
  return t("taught.of-counted-to-median", { people, all, least, most, of, median: number(median) });
}
