import type { ReactNode } from "react";

type Props = { variant: "danger" | "warning" | "light"; className?: string; children: ReactNode };

/**
 * Message is Bootstrap's alert. React-Bootstrap's brings along what makes one go away in motion, which none of ours does and
 * which every first page would load.
 */
export function Message({ variant, className = "", children }: Props) {
  return (
    <div role="alert" className={`alert alert-${variant} ${className}`}>
      {children}
    </div>
  );
}
