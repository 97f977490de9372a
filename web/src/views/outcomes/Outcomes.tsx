import { Link } from "react-router";
import styled from "styled-components";
import type { Schemas } from "../../api/client";
import { useAreas } from "../../api/hooks";
import { useOutcomes } from "../../api/outcomes";
import { useAsked } from "../../app/asked";
import { useAccount, useMay } from "../../app/session";
import { t } from "../../app/theme";
import { Empty } from "../../parts/Empty";
import { Facts } from "../../parts/Facts";
import { Hint } from "../../parts/Field";
import { Ledger } from "../../parts/Ledger";
import { Page } from "../../parts/Page";
import { PickField } from "../../parts/PickField";
import { Fields, Section } from "../../parts/Section";
import { SubRule } from "../../parts/SubRule";
import { Waiting } from "../../parts/Waiting";
import { bookParts } from "../book/bookParts";
import { Skill } from "./Skill";

const ALL = "all";
const Rows = styled.div`
  display: grid;
  gap: 18px;
`;
const Row = styled.article`
  padding-bottom: 14px;
  border-bottom: 1px solid ${t.hair};
  h3 {
    font: 600 ${t.s15} ${t.text};
    margin-bottom: 6px;
  }
  > p {
    margin-top: 6px;
    color: ${t.soft};
    font-size: ${t.s13};
  }
  ul {
    margin-top: 6px;
    color: ${t.caution};
  }
`;

/** One product against one thing: how often, at what pressure, what was seen, what a protected day cost. */
function Effect({ of }: { of: Schemas["EffectOut"] }) {
  return (
    <Row>
      <h3>{`${of.product} against ${of.target.toLowerCase()}`}</h3>
      <Facts
        of={[
          ["Put down", `${of.times === 1 ? "Once" : `${of.times} times`}, ${of.areas}`],
          ["Pressure then", of.pressure],
          ["Seen after", of.seen],
          ["Said to be", of.answers],
          ["Protected", [of.protected, of.cost && `for ${of.cost}`].filter(Boolean).join(" ")],
          ["A protected day", of.per_day],
        ]}
      />
      {of.lapses.length > 0 && (
        <ul>
          {of.lapses.map((x) => (
            <li key={x}>{x}</li>
          ))}
        </ul>
      )}
      {of.verdict && <p>{of.verdict}</p>}
    </Row>
  );
}

/** Did it work? What came of applications, how the forecasts did on this ground, what became of plans. */
export function Outcomes() {
  const account = useAccount();
  const manager = useMay("manager");
  const [search, setSearch] = useAsked();
  const areas = useAreas().data?.areas ?? [];
  const asked = {
    year: Number(search.get("year")) || undefined,
    area: Number(search.get("area")) || undefined,
  };
  const outcomes = useOutcomes(asked.year, asked.area);
  const change = (field: string, value: string) => setSearch({ [field]: value === ALL ? "" : value });
  return (
    <Waiting of={outcomes}>
      {(found) => (
        <Page
          sentence={found.sentence}
          margin={
            <>
              <Section title="How to read it">
                <Hint>
                  Counts are told with the range that chance leaves them. Products that went down on other
                  days met other weather: they are not ranked here. A trial compares them side by side.
                </Hint>
                <p style={{ marginTop: 8 }}>
                  <Link to={`/a/${account.slug}/book/trials`}>Trials</Link>
                </p>
              </Section>
              {found.kept.length > 0 && (
                <Section title={`Plans of ${found.year}`}>
                  <Facts of={found.kept.map((x) => [x.name, x.text])} />
                </Section>
              )}
            </>
          }
        >
          <SubRule label="Parts of the book" parts={bookParts(account.slug, manager)} />
          <Fields $columns={4}>
            <PickField
              label="Year"
              name="year"
              value={`${found.year}`}
              options={found.years.map((y) => ({ key: `${y}`, text: `${y}` }))}
              onChange={(v) => change("year", v)}
            />
            <PickField
              label="Area"
              name="area"
              value={search.get("area") ?? ALL}
              options={[
                { key: ALL, text: "All of them" },
                ...areas.map((a) => ({ key: `${a.id}`, text: a.name })),
              ]}
              onChange={(v) => change("area", v)}
            />
          </Fields>
          <Section title="What came of it">
            {found.effects.length === 0 && (
              <Empty>
                Nothing went down against a disease, a weed or an insect then. What does, is asked about on
                its days, and the answers stand here.
              </Empty>
            )}
            <Rows>
              {found.effects.map((x) => (
                <Effect key={`${x.product} ${x.target}`} of={x} />
              ))}
            </Rows>
            {found.untold && <Hint style={{ marginTop: 10 }}>{found.untold}</Hint>}
          </Section>
          <Section title="Forecasts against what was seen">
            {found.skills.length === 0 ? (
              <Empty>
                Nobody noted yet whether a disease was there or not. Notes of none are worth as much as notes
                of some: only both together tell whether a forecast is any good here.
              </Empty>
            ) : (
              <Rows>
                {found.skills.map((x) => (
                  <Skill key={`${x.site} ${x.disease}`} of={x} />
                ))}
              </Rows>
            )}
          </Section>
          {found.plans.length > 0 && (
            <Section title="What became of plans">
              <Ledger>
                <tbody>
                  {found.plans.map((p) => (
                    <tr key={p.id}>
                      <td>
                        {p.title}
                        <div className="soft">{p.window}</div>
                      </td>
                      <td className="figure" data-became={p.became}>
                        {p.text}
                      </td>
                    </tr>
                  ))}
                </tbody>
              </Ledger>
            </Section>
          )}
        </Page>
      )}
    </Waiting>
  );
}
