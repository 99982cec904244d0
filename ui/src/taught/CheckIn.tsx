import type { CheckInSum, CheckInSums as Sums } from "../wire/contract";
import { answerText, questionText } from "../player/checkIn";
import { useSay } from "../player/say";
import { number, plural } from "../player/format";

/** CheckIn is what the room answered before the class and after it: sums, never who. */
export function CheckIn({ sums }: { sums: Sums | null }) {
  const say = useSay();
  if (!sums || sums.people.before + sums.people.after === 0) return null;
  return (
    <section className="told checkin" aria-labelledby="checkedin">
      <h2 id="checkedin">Before and after</h2>
      <p className="mb-1">{questionText(sums.question, say)}</p>
      <div className="parts">
        <Part name="Before" list={sums.before} people={sums.people.before} mean={sums.mean_before} />
        <Part name="After" list={sums.after} people={sums.people.after} mean={sums.mean_after} />
      </div>
      <p className="text-secondary">
        Sums of what people answered. They do not say what caused a difference.
      </p>
    </section>
  );
}

type PartProps = { name: string; list: CheckInSum[]; people: number; mean: number };

function Part({ name, list, people, mean }: PartProps) {
  const say = useSay();
  return (
    <div>
      <h3>
        {name}: {plural(people, "answer")}
        {mean > 0 && `, ${number(mean)} on average`}
      </h3>
      {list.length === 0 ? (
        people > 0 && <p>Too few to show: they would tell who said what.</p>
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
