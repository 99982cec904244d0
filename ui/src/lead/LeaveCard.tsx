import { Button } from "react-bootstrap";
import type { Blocker } from "react-router";
import { Pad } from "./Pad";
import { forget } from "./useGap";

/** LeaveCard asks whether to leave the lead screen while a class goes on. */
export function LeaveCard({ leaving }: { leaving: Blocker }) {
  const stay = () => leaving.reset?.();
  return (
    <Pad title="Leave the lead screen?" onClose={stay}>
      <p>The class goes on. You can pick it up again from any screen.</p>
      <footer>
        <Button size="lg" autoFocus onClick={stay}>
          Stay
        </Button>
        <Button
          size="lg"
          variant="outline-secondary"
          onClick={() => {
            forget();
            leaving.proceed?.();
          }}
        >
          Leave
        </Button>
      </footer>
    </Pad>
  );
}
