import { useState } from "react";
import styled from "styled-components";
import type { Event } from "../../../api/story";
import { Button } from "../../../parts/Button";
import { Hint } from "../../../parts/Field";
import { PickField } from "../../../parts/PickField";
import { Events } from "./Events";

const FIRST = 12;
const lanes = [
  { key: "", text: "Everything noted" },
  { key: "down", text: "What was put down" },
  { key: "work", text: "What else was done" },
  { key: "seen", text: "What was seen" },
  { key: "regular", text: "The week’s rhythm" },
];
const Pick = styled.div`
  max-width: 260px;
  margin-bottom: 6px;
`;

/** The events, all or of one lane; the first dozen, then the rest at a press. */
export function Told({ events, first = FIRST }: { events: Event[]; first?: number }) {
  const [lane, setLane] = useState("");
  const [all, setAll] = useState(false);
  const mine = events.filter((e) =>
    lane === "regular" ? e.regular : !e.regular && (!lane || e.lane === lane),
  );
  return (
    <>
      <Pick>
        <PickField label="Show" name="lane" value={lane} options={lanes} onChange={setLane} hideLabel />
      </Pick>
      {mine.length > 0 ? (
        <Events events={all ? mine : mine.slice(0, first)} />
      ) : (
        <Hint>Nothing of that in the last year.</Hint>
      )}
      {!all && mine.length > first && (
        <Button look="quiet" onPress={() => setAll(true)}>
          {`Show all ${mine.length}`}
        </Button>
      )}
    </>
  );
}
