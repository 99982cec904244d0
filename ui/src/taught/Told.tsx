import type { Told as Sums } from "../wire/contract";
import { timeOfDay } from "../player/format";
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
