import styled from "styled-components";
import type { Schemas } from "../../api/client";
import { t } from "../../app/theme";
import { Button } from "../../parts/Button";
import { Section } from "../../parts/Section";
import { Switch } from "../../parts/Switch";
import { useFold } from "../../parts/useFold";
import { ticked, type Tick } from "./ticks";

const Columns = styled.div<{ $shut: boolean }>`
  display: ${({ $shut }) => ($shut ? "none" : "grid")};
  @media print {
    display: grid;
  }
  grid-template-columns: 1fr 1fr;
  gap: 0 28px;
  h3 {
    font: 600 ${t.s13} ${t.text};
    color: ${t.soft};
  }
  ${t.phone} {
    grid-template-columns: 1fr;
    gap: 14px;
  }
`;

interface Props {
  round: Schemas["RoundOut"];
  open: boolean;
  onTick: (tick: Tick) => void;
}

/** What is worn. What is for mixing is ticked before the loads open. */
export function Wear({ round, open, onTick }: Props) {
  const all = round.sheet.wear.every((w) => ticked(round, 0, w.key));
  const { box, shut, turn } = useFold<HTMLElement>(open && all);
  return (
    <Section
      ref={box}
      title={
        <>
          Put on
          {open && all && (
            <Button look="quiet" data-fold onPress={turn}>
              {shut ? "Protective gear is on · show" : "Fold it away"}
            </Button>
          )}
        </>
      }
    >
      <Columns $shut={shut}>
        {(["mixing", "applying"] as const).map((when) => (
          <div key={when}>
            <h3>{`For ${when}`}</h3>
            {round.sheet.wear
              .filter((w) => w.when === when)
              .map((w) => (
                <Switch
                  key={w.key}
                  large
                  value={!!ticked(round, 0, w.key)}
                  disabled={!open}
                  onChange={(done) => onTick({ load: 0, act: w.key, done })}
                >
                  {w.text}
                </Switch>
              ))}
          </div>
        ))}
      </Columns>
    </Section>
  );
}
