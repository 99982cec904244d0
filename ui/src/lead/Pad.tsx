import { type ReactNode, useEffect, useLayoutEffect, useRef } from "react";
import { t } from "../language/text";

type Props = {
  title: string;
  /** closes it, with Esc too */
  onClose: () => void;
  /** what is to be pressed at its end, and its errors */
  children: ReactNode;
};

/**
 * Pad is what is opened on the lead screen. It takes the place of the keys, never that of the word, the count and the lamps.
 * It has the focus, so that its keys are live at once.
 */
export function Pad({ title, onClose, children }: Props) {
  const pad = useRef<HTMLElement>(null);
  useEffect(() => {
    if (!pad.current?.contains(document.activeElement)) pad.current?.focus();
    return () => (document.activeElement as HTMLElement | null)?.blur();
  }, [title]);
  useLayoutEffect(() => {
    const listen = (event: KeyboardEvent) => {
      if (event.key === "Escape") onClose();
    };
    window.addEventListener("keydown", listen);
    return () => window.removeEventListener("keydown", listen);
  }, [onClose]);
  return (
    <section className="pad" role="dialog" aria-labelledby="pad-title" tabIndex={-1} ref={pad}>
      <header>
        <h2 id="pad-title">{title}</h2>
        <button type="button" className="key" onClick={onClose}>
          <kbd>Esc</kbd>
          <span className="name">{t("frame.back")}</span>
        </button>
      </header>
      {children}
    </section>
  );
}
