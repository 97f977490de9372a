import { scaleLinear } from "d3-scale";
import { Fragment } from "react";
import styled from "styled-components";
import type { Schemas } from "../../api/client";
import { useClocks, useSky } from "../../api/sky";
import { useAccount, useMay } from "../../app/session";
import { t } from "../../app/theme";
import { dayOf } from "../../parts/days";
import { Empty } from "../../parts/Empty";
import { Facts } from "../../parts/Facts";
import { FreshLine } from "../../parts/FreshLine";
import { Hint } from "../../parts/Field";
import { Page } from "../../parts/Page";
import { Section } from "../../parts/Section";
import { SubRule } from "../../parts/SubRule";
import { Waiting } from "../../parts/Waiting";
import { HoldForm } from "./HoldForm";
import { OneAxis } from "./OneAxis";
import { skyParts } from "./skyParts";

const Two = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  gap: 24px;
  ${t.phone} {
    grid-template-columns: minmax(0, 1fr);
  }
`;
const Sheet = styled.svg`
  display: block;
  width: 100%;
  max-width: 460px;
  height: auto;
  .axis {
    stroke: ${t.rule};
    fill: none;
  }
  .band {
    fill: ${t.cautionWash};
  }
  .line {
    fill: none;
    stroke: ${t.accent};
    stroke-width: 2;
  }
  .due {
    stroke: ${t.stop};
    stroke-dasharray: 5 3;
  }
  .now {
    fill: ${t.accent};
  }
  text {
    font: 500 12px ${t.text};
    ${t.phone} {
      font-size: 17px;
    }
    fill: ${t.soft};
  }
`;

/** Where every regulator stands. */
export function ClocksPage() {
  const account = useAccount();
  const clocks = useClocks();
  const sky = useSky(account.sites[0]!.id);
  return (
    <Waiting of={clocks}>
      {(list) => (
        <Page sentence={sentence(list)}>
          <SubRule label="Parts of the sky" parts={skyParts(account.slug)} />
          {sky.data && list.length > 0 && <FreshLine fresh={sky.data.fresh} />}
          {list.length === 0 && (
            <Empty>
              When a growth regulator is in the book its clock runs here for ninety days: degree days since
              the application against its target, and the label’s days beside it.
            </Empty>
          )}
          {list.map((c, i) => (
            <Fragment key={`${c.area_id} ${c.product}`}>
              <Clock clock={c} />
              {stacked(list, c) && list.findIndex((x) => x.area_id === c.area_id) === i && (
                <OneAxis clocks={list.filter((x) => x.area_id === c.area_id)} />
              )}
            </Fragment>
          ))}
        </Page>
      )}
    </Waiting>
  );
}

const stacked = (list: Schemas["ClockOut"][], c: Schemas["ClockOut"]) =>
  list.filter((x) => x.area_id === c.area_id && x.track.length > 1).length > 1;

function sentence(list: Schemas["ClockOut"][]) {
  if (!list.length) return "No growth regulator is at work.";
  const out = list.filter((c) => ["due", "ended", "rebound"].includes(c.stage));
  const count = list.length === 1 ? "One regulator is at work" : `${list.length} regulators are at work`;
  return out.length
    ? `${count}; the hold runs out on ${out.map((c) => c.area).join(", ")}.`
    : `${count}, and all of them hold.`;
}

const date = (on: string | null) => on && dayOf(on);

function Clock({ clock: c }: { clock: Schemas["ClockOut"] }) {
  const may = useMay("manager");
  const spread =
    c.earliest && c.latest && c.earliest !== c.latest ? `${date(c.earliest)} to ${date(c.latest)}` : "";
  const label = [
    c.calendar_first && `from ${date(c.calendar_first)}`,
    c.calendar_last && `by ${date(c.calendar_last)}`,
  ];
  return (
    <Section title={`${c.product} on ${c.area}`}>
      <p style={{ marginBottom: 10 }}>{c.sentence}</p>
      <Two>
        <div>
          <Facts
            of={[
              ["Put down", date(c.since)],
              ["By degree days", c.lacks || (c.due ? date(c.due) : "beyond the forecast")],
              ["Its spread", spread],
              ["By the label", label.filter(Boolean).join(", ")],
              ["Running total", c.season],
              ["The house", c.school],
            ]}
          />
          {c.together && <Hint style={{ marginTop: 6 }}>{c.together}</Hint>}
          {may && c.active && <HoldForm key={c.version} clock={c} />}
          {c.cautions.map((x) => (
            <Hint key={x} style={{ marginTop: 6 }}>
              {x}
            </Hint>
          ))}
        </div>
        {c.shape.length > 1 && <Shape clock={c} />}
      </Two>
    </Section>
  );
}

/** The shares of the target that lie between two points of the shape. */
const STEP = 0.05;

/** Growth over that of untreated turf, by the share of the target that has run: a shape, never a yield. */
function Shape({ clock: c }: { clock: Schemas["ClockOut"] }) {
  const x = scaleLinear([0, 3], [34, 450]).clamp(true);
  const y = scaleLinear([0.6, 1.2], [130, 12]).clamp(true);
  const now = Math.min(3, c.share ?? 0);
  const here = c.shape[Math.round(now / STEP)] ?? 1;
  return (
    <figure style={{ margin: 0 }}>
      <Sheet
        viewBox="0 0 460 168"
        role="img"
        aria-label={`${Math.round((c.share ?? 0) * 100)} % of the target has run`}
      >
        <rect className="band" x={x(1.5)} width={x(3) - x(1.5)} y={12} height={118} />
        <path className="axis" d={`M34 ${y(1)}H450`} />
        <path className="due" d={`M${x(1)} 12V130`} />
        <path
          className="line"
          d={c.shape.map((s, i) => `${i ? "L" : "M"}${x(i * STEP).toFixed(1)} ${y(s).toFixed(1)}`).join("")}
        />
        <circle className="now" cx={x(now)} cy={y(here)} r={6} />
        <text x={x(1)} y={146} textAnchor="middle">
          target
        </text>
        <text x={x(2.25)} y={146} textAnchor="middle">
          rebound
        </text>
        <text x={36} y={26}>
          growth, untreated = line
        </text>
      </Sheet>
      <Hint as="figcaption">
        A shape to see where it stands; clippings of your own turf may differ by half.
      </Hint>
    </figure>
  );
}
