import { useEffect, useState } from "react";
import styled from "styled-components";
import { t } from "../app/theme";
import { leftTo } from "./days";

const Small = styled.small`
  color: ${t.soft};
  white-space: nowrap;
  &[data-over] {
    color: ${t.stop};
    font-weight: 600;
  }
  @media print {
    display: none;
  }
`;
const EVERY = 20_000;

/** The time that is left as it runs down: so many seconds when it was told, by the server's clock and not by the device's. */
export function Left({ seconds }: { seconds: number }) {
  const [gone, setGone] = useState(0);
  useEffect(() => {
    const told = performance.now();
    const look = () => setGone((performance.now() - told) / 1000);
    look();
    const beat = window.setInterval(look, EVERY);
    return () => window.clearInterval(beat);
  }, [seconds]);
  const left = seconds - gone;
  return <Small data-over={left <= 0 || undefined}>{leftTo(left)}</Small>;
}
