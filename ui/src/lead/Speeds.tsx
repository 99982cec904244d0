import { Button, ButtonGroup } from "react-bootstrap";

type Props = { label: string; speeds: number[]; speed: number; onChange: (speed: number) => void };

/** Speeds chooses how fast the clock of this page alone runs. */
export function Speeds({ label, speeds, speed, onChange }: Props) {
  return (
    <ButtonGroup aria-label={label}>
      {speeds.map((one) => (
        <Button
          key={one}
          size="sm"
          variant={one === speed ? "primary" : "outline-primary"}
          aria-pressed={one === speed}
          onClick={() => onChange(one)}
        >
          ×{one}
        </Button>
      ))}
    </ButtonGroup>
  );
}
