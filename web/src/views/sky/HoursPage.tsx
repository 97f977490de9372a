import { useState } from "react";
import styled from "styled-components";
import type { Schemas } from "../../api/client";
import { useProducts } from "../../api/hooks";
import { useFit } from "../../api/sky";
import { useDraft } from "../../app/draft";
import { useAccount } from "../../app/session";
import { t } from "../../app/theme";
import { useSettled } from "../../app/useSettled";
import { Empty } from "../../parts/Empty";
import { Facts } from "../../parts/Facts";
import { FaultsContext, faultsOf } from "../../parts/faults";
import { Hint } from "../../parts/Field";
import { FitMark } from "../../parts/FitMark";
import { FreshLine } from "../../parts/FreshLine";
import { HourGrid } from "../../parts/HourGrid";
import { ManyField } from "../../parts/ManyField";
import { Fault, Notice } from "../../parts/Notice";
import { Page } from "../../parts/Page";
import { Section } from "../../parts/Section";
import { SubRule } from "../../parts/SubRule";
import { TextField } from "../../parts/TextField";
import { useAreaPick } from "./AreaPick";
import { skyParts } from "./skyParts";

const Tools = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 4fr) minmax(0, 6fr) minmax(0, 3fr);
  gap: 16px;
  margin-bottom: 18px;
  ${t.phone} {
    grid-template-columns: minmax(0, 1fr);
  }
`;
const Windows = styled.ol`
  li {
    display: grid;
    grid-template-columns: 84px 1fr;
    gap: 12px;
    padding: 8px 0;
    border-bottom: 1px solid ${t.hair};
  }
  strong {
    font-weight: 600;
  }
`;

/** Hours fit to work: what goes down where, and when it can. */
export function HoursPage() {
  const account = useAccount();
  const products = useProducts();
  const { area, field, empty } = useAreaPick();
  const [hours, setHours] = useState("1");
  const draft = useDraft<{ products: string[] }>(`${account.slug}/sky/hours`, { products: [] });
  const known = (products.data ?? []).filter((p) => draft.value.products.includes(`${p.id}`));
  const body =
    area && known.length && hours.trim()
      ? { area_id: area.id, product_ids: known.map((p) => p.id), hours }
      : null;
  const asked = JSON.parse(useSettled(JSON.stringify(body), 100)) as typeof body;
  const fit = useFit(asked);
  const found = body && !fit.error ? fit.data : undefined;
  return (
    <FaultsContext.Provider value={faultsOf(fit.error)}>
      <Page
        sentence={found?.sentence ?? "When can it go down? Pick an area and what goes into the tank."}
        margin={found && <Asked found={found} />}
      >
        <SubRule label="Parts of the sky" parts={skyParts(account.slug)} />
        {empty || products.data?.length === 0 ? (
          <Empty>It takes an area and a product with its label’s rules to say which hours are fit.</Empty>
        ) : (
          <Tools>
            {field}
            <ManyField
              label="What goes down, one or a tank of several"
              name="product_ids"
              values={known.map((p) => `${p.id}`)}
              options={(products.data ?? []).map((p) => ({
                key: `${p.id}`,
                text: p.name,
                note: p.kind_text,
              }))}
              onChange={(keys) => draft.change({ products: keys })}
            />
            <TextField
              label="The job takes, in hours"
              name="hours"
              value={hours}
              onChange={setHours}
              input={{ inputMode: "decimal" }}
            />
          </Tools>
        )}
        <Fault error={fit.error} besides={["hours"]} />
        {found && <Found found={found} />}
      </Page>
    </FaultsContext.Provider>
  );
}

function Found({ found }: { found: Schemas["FitOut"] }) {
  return (
    <>
      <FreshLine fresh={found.fresh} />
      <p style={{ marginBottom: 12 }}>
        <FitMark verdict={found.verdict} />{" "}
        {(found.verdict === "wait" || found.verdict === "no") && found.change}
      </p>
      {found.contradictions.map((c) => (
        <Notice key={c} tone="stop" word="Not in one tank">
          {c}
        </Notice>
      ))}
      {found.doubt && <Notice tone="caution">{found.doubt}</Notice>}
      {found.windows.length > 0 && (
        <Section title="The best hours first">
          <Windows>
            {found.windows.map((w) => (
              <li key={w.begin}>
                <FitMark verdict={w.good ? "go" : "mind"} />
                <span>
                  <strong>{w.text}</strong>, {w.hours} h
                  {w.minds.map((m) => (
                    <Hint key={m}>{m}</Hint>
                  ))}
                </span>
              </li>
            ))}
          </Windows>
        </Section>
      )}
      {found.hours.length > 0 && (
        <Section title="Every hour">
          <HourGrid hours={found.hours} label="Hours to come" />
        </Section>
      )}
    </>
  );
}

function Asked({ found }: { found: Schemas["FitOut"] }) {
  return (
    <>
      <Section title="What is asked of the hours">
        {found.asks.length ? (
          <Facts of={found.asks.map((a) => [a.name, a.text])} />
        ) : (
          <Hint>The labels ask for nothing by weather that is noted on their cards.</Hint>
        )}
      </Section>
      {found.water_in.length > 0 && (
        <Section title="Afterwards">
          {found.water_in.map((w) => (
            <p key={w}>{w}</p>
          ))}
        </Section>
      )}
      <Section title="Before you go">
        <Hint>
          A forecast is no certainty: look at the sky and feel the wind where you stand. The label, local
          rules and licensed practice come first; keep off water, drains and neighbours, and wear what the
          label asks for.
        </Hint>
      </Section>
    </>
  );
}
