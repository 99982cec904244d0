import type { CheckInSum, CheckInSums as Sums } from "../wire/contract";
import { answerText, questionText } from "../player/checkIn";
import { useSay } from "../player/say";
import { number } from "../player/format";
import { t } from "../language/text";

/** CheckIn is what the room answered before the class and after it: sums, never who. */
export function CheckIn({ sums }: { sums: Sums | null }) {
  const say = useSay();
  if (!sums || sums.people.before + sums.people.after === 0) return null;
  return (
    <section className="told checkin" aria-labelledby="checkedin">
      <h2 id="checkedin">{t("frame.before-and-after")}</h2>
      <p className="mb-1">{questionText(sums.question, say)}</p>
      <div className="parts">
        <Part
          name={t("taught.before")}
          list={sums.before}
          people={sums.people.before}
          mean={sums.mean_before}
        />
        <Part name={t("taught.after")} list={sums.after} people={sums.people.after} mean={sums.mean_after} />
      </div>
      <p className="text-secondary">{t("taught.sums-of-what-people-answered-they")}</p>
    </section>
  );
}

type PartProps = { name: string; list: CheckInSum[]; people: number; mean: number };

function Part({ name, list, people, mean }: PartProps) {
  const say = useSay();
  return (
    <div>
      <h3>
        {t("taught.answers-of", { name, people })}
        {mean > 0 && t("taught.on-average", { mean: number(mean) })}
      </h3>
      {list.length === 0 ? (
        people > 0 && <p>{t("taught.too-few-to-show-they-would")}</p>
      ) : (
        <dl>
          {list.map((sum) => (
            <div key={sum.answer}>
              <dt>{answerText(sum.answer, say)}</dt>
              <dd>
                <span className="bar" style={{ width: `${(sum.people / people) * 100}%` }} /> {sum.people}
              </dd>
            </div>
          ))}
        </dl>
      )}
    </div>
  );
}
