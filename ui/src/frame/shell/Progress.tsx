type Props = {
  /** from 0 to 1 */
  done: number;
  /** what it is the progress of, for those who hear it */
  of: string;
  /** what stands in it */
  label?: string;
  className?: string;
};

/** Progress is how much of something is done. */
export function Progress({ done, of, label, className = "" }: Props) {
  const percent = Math.round(100 * done);
  return (
    <div
      className={`progress ${className}`}
      role="progressbar"
      aria-label={of}
      aria-valuenow={percent}
      aria-valuemin={0}
      aria-valuemax={100}
    >
      <div className="progress-bar" style={{ width: `${percent}%` }}>
        {label}
      </div>
    </div>
  );
}
