import { useEffect, useRef } from "react";
import styled from "styled-components";
import type { Schemas } from "../../api/client";
import { useSkyDay } from "../../api/sky";
import { t } from "../../app/theme";
import { Button } from "../../parts/Button";
import { Facts } from "../../parts/Facts";
import { Ledger } from "../../parts/Ledger";
import { Section } from "../../parts/Section";
import { Waiting } from "../../parts/Waiting";

const Two = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 5fr) minmax(0, 7fr);
  gap: 28px;
  ${t.phone} {
    grid-template-columns: minmax(0, 1fr);
  }
`;
const Model = styled.div`
  padding: 8px 0;
  border-bottom: 1px solid ${t.hair};
  h3 small {
    font: 400 ${t.s13} ${t.text};
    color: ${t.soft};
  }
  dl {
    margin-top: 4px;
  }
`;
const Hours = styled.div`
  max-height: 420px;
  overflow: auto;
  [data-foretold] {
    background: ${t.wash};
  }
  td {
    padding-block: 4px;
    white-space: nowrap;
  }
`;

interface Props {
  area: number;
  on: string;
  onFold: () => void;
}

/** A day unfolded: the hours, what they come to, and how each model made its value of them. */
export function DayUnfolded({ area, on, onFold }: Props) {
  const day = useSkyDay(area, on);
  const top = useRef<HTMLElement>(null);
  useEffect(() => {
    top.current?.scrollIntoView({ block: "nearest" });
  }, []);
  return (
    <Waiting of={day}>
      {(data) => (
        <Section
          ref={top}
          title={
            <>
              {data.label}
              <Button look="quiet" onPress={onFold}>
                Fold it up
              </Button>
            </>
          }
        >
          <Two>
            <div>
              <Facts of={data.facts.map((f) => [f.name, f.text])} />
            </div>
            <div>
              {data.models.map((m) => (
                <ModelSum key={`${m.disease} ${m.model}`} model={m} />
              ))}
            </div>
          </Two>
          <HourTable hours={data.hours} />
        </Section>
      )}
    </Waiting>
  );
}

function ModelSum({ model: m }: { model: Schemas["ExplainOut"] }) {
  return (
    <Model data-model={m.model}>
      <details>
        <summary>
          <strong>{m.name}</strong>, {m.model}: {m.value}, {m.state_text}
        </summary>
        <Facts of={m.lines.map((l) => [l.name, l.text])} />
      </details>
    </Model>
  );
}

function HourTable({ hours }: { hours: Schemas["SkyHourOut"][] }) {
  return (
    <Hours tabIndex={0} role="group" aria-label="The hours of the day">
      <Ledger>
        <thead>
          <tr>
            <th>Hour</th>
            <th>Air</th>
            <th>Humidity</th>
            <th>Dew point</th>
            <th>Wet bulb</th>
            <th>Delta-T</th>
            <th>VPD</th>
            <th>Rain</th>
            <th>Wind</th>
            <th>Leaf</th>
            <th>Soil</th>
          </tr>
        </thead>
        <tbody>
          {hours.map((h) => (
            <tr key={h.at} data-foretold={h.forecast || undefined}>
              <td>
                {h.label}
                {h.forecast && <span className="soft"> forecast</span>}
              </td>
              <td>{h.air}</td>
              <td>{h.humidity}</td>
              <td>{h.dew}</td>
              <td>{h.wet_bulb}</td>
              <td>{h.delta}</td>
              <td>{h.deficit}</td>
              <td>{h.rain}</td>
              <td>{h.wind}</td>
              <td>{h.wet}</td>
              <td>{h.soil}</td>
            </tr>
          ))}
        </tbody>
      </Ledger>
    </Hours>
  );
}
