import "./filled.css";

/** Filled is what an empty view will look like: a picture of the demo's, and what it is for. */
export function Filled({ picture, says }: { picture: string; says: string }) {
  return (
    <figure className="filled">
      <img src={picture} alt="" width={640} height={400} loading="lazy" />
      <figcaption>{says}</figcaption>
    </figure>
  );
}
