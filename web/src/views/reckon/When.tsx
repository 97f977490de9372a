import { useState } from "react";
import styled from "styled-components";
import { t } from "../../app/theme";
import { Button } from "../../parts/Button";
import { DateField, TimeField } from "../../parts/DateField";
import type { Picked } from "./state";

const Row = styled.div<{ $open?: boolean }>`
  display: flex;
  flex-wrap: wrap;
  align-items: ${({ $open }) => ($open ? "end" : "center")};
  gap: 8px 16px;
  margin-top: 8px;
  color: ${t.soft};
  & > div {
    width: 12rem;
  }
  & > button {
    margin-bottom: ${({ $open }) => ($open ? "4px" : 0)};
  }
`;

interface Props {
  picked: Picked;
  change: (part: Partial<Picked>) => void;
}

/** The day and the hour of the job: now, unless another is said. */
export function When({ picked, change }: Props) {
  const [open, setOpen] = useState(false);
  if (!open && !picked.on && !picked.clock)
    return (
      <Row>
        <span>For now.</span>
        <Button onPress={() => setOpen(true)}>Another day or hour</Button>
      </Row>
    );
  return (
    <Row $open>
      <DateField label="Day" name="on" value={picked.on} onChange={(on) => change({ on })} />
      <TimeField label="Hour" name="clock" value={picked.clock} onChange={(clock) => change({ clock })} />
      <Button
        onPress={() => {
          setOpen(false);
          change({ on: "", clock: "" });
        }}
      >
        For now
      </Button>
    </Row>
  );
}
