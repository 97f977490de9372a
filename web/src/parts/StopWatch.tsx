import { useEffect, useRef, useState } from "react";
import styled from "styled-components";
import { Button } from "./Button";

const Row = styled.div`
  display: flex;
  gap: 10px;
  align-items: center;
`;
const Face = styled.span`
  min-width: 5.2ch;
  text-align: right;
`;

interface Props {
  /** What is timed, as in “run 2”. */
  of: string;
  /** The time between start and stop, in seconds to a hundredth. */
  onStop: (seconds: number) => void;
}

/** A clock on one button: press to start, press to stop. */
export function StopWatch({ of, onStop }: Props) {
  const started = useRef(0);
  const [shown, show] = useState<number | null>(null);
  const running = shown !== null;
  useEffect(() => {
    if (!running) return;
    const tick = setInterval(() => show((performance.now() - started.current) / 1000), 100);
    return () => clearInterval(tick);
  }, [running]);
  const press = () => {
    if (!running) {
      started.current = performance.now();
      show(0);
      return;
    }
    onStop(Math.round((performance.now() - started.current) / 10) / 100);
    show(null);
  };
  return (
    <Row>
      <Button
        onPress={press}
        aria-label={running ? `Stop the clock of ${of}` : `Start the clock of ${of}`}
        data-clock={running ? "on" : "off"}
      >
        {running ? "Stop the clock" : "Start the clock"}
      </Button>
      {running && <Face aria-hidden>{shown.toFixed(1)} s</Face>}
    </Row>
  );
}
