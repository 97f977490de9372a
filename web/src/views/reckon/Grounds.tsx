import styled from "styled-components";
import type { Schemas } from "../../api/client";
import { useAccount } from "../../app/session";
import { t } from "../../app/theme";
import { Button } from "../../parts/Button";
import { QuantityField } from "../../parts/QuantityField";
import { Switch } from "../../parts/Switch";
import { TextField } from "../../parts/TextField";
import { volumeUnits } from "../../parts/units";
import type { Picked, PickedPart } from "./state";

const Row = styled.li`
  display: grid;
  grid-template-columns: minmax(0, 2fr) 11rem minmax(0, 3fr);
  gap: 4px 20px;
  align-items: center;
  padding: 6px 0;
  position: relative;
  label {
    position: absolute;
    width: 1px;
    height: 1px;
    overflow: hidden;
    clip-path: inset(50%);
  }
  span {
    color: ${t.soft};
  }
  div.acts {
    display: flex;
    flex-wrap: wrap;
    gap: 4px 12px;
  }
  ${t.phone} {
    grid-template-columns: minmax(0, 1fr);
  }
`;

interface Props {
  picked: Picked;
  areas: Schemas["AreaOut"][];
  /** Whether a sprayer with a tank is picked, so that spots can be treated. */
  tank: boolean;
  /** How far the mix for each area reaches, once it is reckoned. */
  reached: string[];
  change: (part: (now: Picked) => Partial<Picked>) => void;
}

/** What a part of a job is called: its area, and its zone where it has one. */
export const nameOf = (part: PickedPart, area: Schemas["AreaOut"]) =>
  `${area.name}${part.zone ? `, ${part.zone}` : ""}`;

/** The ground of the job in its walking order: how much of each area, and zones at rates of their own. */
export function Grounds({ picked, areas, tank, reached, change }: Props) {
  const many = picked.parts.length > 1;
  const units = volumeUnits(useAccount().units);
  const unit = units.find((u) => u.key === "gal" || u.key === "l")!.key;
  const set = (i: number, part: Partial<PickedPart>) =>
    change((now) => ({ parts: now.parts.map((p, j) => (j === i ? { ...p, ...part } : p)) }));
  const split = (i: number) =>
    change((now) => ({
      parts: now.parts.flatMap((p, j) =>
        j === i
          ? [
              { ...p, share: "1/4", zone: "core" },
              { ...p, share: "3/4", zone: "surround" },
            ]
          : [p],
      ),
    }));
  const earlier = (i: number) =>
    change((now) => {
      const parts = [...now.parts];
      parts.splice(i - 1, 0, ...parts.splice(i, 1));
      return { parts };
    });
  const leave = (i: number) =>
    change((now) => {
      const rest = now.parts.filter((_, j) => j !== i);
      const twins = rest.filter((p) => p.area === now.parts[i]!.area);
      return {
        parts: rest.map((p) => (twins.length === 1 && p === twins[0] ? { ...p, share: "", zone: "" } : p)),
      };
    });
  return (
    <>
      {(tank || picked.spots) && (
        <Switch value={picked.spots ?? false} onChange={(spots) => change(() => ({ spots, passes: 1 }))}>
          Spots only: mix so much, and treat them in one outing or several
        </Switch>
      )}
      <ol aria-label="Ground of the job" style={{ marginTop: 8 }}>
        {picked.parts.map((part, i) => {
          const area = areas.find((a) => a.id === part.area);
          if (!area) return null;
          const where = nameOf(part, area);
          return (
            <Row key={`${part.area} ${part.zone}`}>
              <p>
                {many && `${i + 1}. `}
                {where} <span>{area.size.text}</span>
              </p>
              {picked.spots ? (
                <QuantityField
                  label={many ? `Mix for ${where}` : "Mix"}
                  name={`parts.${i}.spray`}
                  value={part.spray ?? { value: "", unit }}
                  units={units}
                  onChange={(spray) => set(i, { spray })}
                />
              ) : (
                <TextField
                  label={many ? `Part of ${where}` : "Part of the area"}
                  name={`parts.${i}.share`}
                  value={part.share}
                  onChange={(share) => set(i, { share })}
                  input={{ placeholder: "all, or 1/4, 20 %" }}
                />
              )}
              <div className="acts">
                {picked.spots && reached[i] && <span>{`reaches ${reached[i]}`}</span>}
                {!part.zone && !picked.spots && (
                  <Button look="quiet" onPress={() => split(i)}>
                    Two rates: a core and what is around it
                  </Button>
                )}
                {i > 0 && (
                  <Button look="quiet" onPress={() => earlier(i)} aria-label={`Earlier: ${where}`}>
                    Earlier
                  </Button>
                )}
                {many && (
                  <Button look="quiet" onPress={() => leave(i)} aria-label={`Remove: ${where}`}>
                    Remove
                  </Button>
                )}
              </div>
            </Row>
          );
        })}
      </ol>
    </>
  );
}
