import { Link, useParams } from "react-router";
import styled from "styled-components";
import { api, read, type Schemas } from "../../api/client";
import { useArea, useChange } from "../../api/hooks";
import { useLocks } from "../../api/sky";
import { useAccount, useMay } from "../../app/session";
import { say } from "../../app/toast";
import { t } from "../../app/theme";
import { AreaPlan } from "../../parts/AreaPlan";
import { Button, ButtonLink } from "../../parts/Button";
import { Facts } from "../../parts/Facts";
import { Hint } from "../../parts/Field";
import { Locks } from "../../parts/Locks";
import { Ledger } from "../../parts/Ledger";
import { Fault, Notice } from "../../parts/Notice";
import { Page } from "../../parts/Page";
import { Section } from "../../parts/Section";
import { SubRule } from "../../parts/SubRule";
import { Waiting } from "../../parts/Waiting";
import { areaParts } from "./areaParts";
import { Story } from "./story/Story";
import { dated } from "../../parts/days";

const Tone = styled.span<{ $tone: string }>`
  color: ${({ $tone }) => $tone};
`;
const tones: Record<string, string> = { agree: t.soft, mind: t.caution, differ: t.stop, "": t.soft };

/** How a measurement stands beside the size in use. */
function Beside({ of }: { of: Schemas["AreaWholeOut"]["measurements"][number] }) {
  return <Tone $tone={tones[of.agreement] ?? t.soft}>{of.in_use ? "in use" : of.versus}</Tone>;
}

/** One area: its plan, what it is, how it was measured, its parts, heights and soil. */
export function AreaPage() {
  const { id } = useParams();
  const area = useArea(Number(id));
  return <Waiting of={area}>{(whole) => <AreaView key={whole.area.id} whole={whole} />}</Waiting>;
}

function AreaView({ whole }: { whole: Schemas["AreaWholeOut"] }) {
  const account = useAccount();
  const may = useMay("manager");
  const { area } = whole;
  const locks = useLocks(area.id);
  const at = `/a/${account.slug}/ground`;
  const use = useChange((path, measurement_id: number) =>
    read(
      api.POST("/api/accounts/{account}/areas/{area_id}/measurements/{measurement_id}/use", {
        params: { path: { ...path, area_id: area.id, measurement_id } },
      }),
    ),
  );
  return (
    <Page
      sentence={`${area.name}: ${area.size.text} of ${area.grass_name.toLowerCase()}${area.height ? `, cut at ${area.height.text}` : ""}.`}
      act={
        <ButtonLink look="main" to={`/a/${account.slug}/reckon?area=${area.id}`}>
          Reckon for it
        </ButtonLink>
      }
      margin={
        <>
          <Section title="What it is">
            <Facts
              of={[
                ["Size", `${area.size.text}, ${area.also}`],
                ["Part of", whole.parent && <Link to={`${at}/${area.parent_id}`}>{whole.parent}</Link>],
                ["Grass", [area.grass_name, area.cultivar].filter(Boolean).join(", ")],
                ["Cut at", area.height?.text ?? ""],
                ["Kept as", area.use],
                ["Soil", [area.texture_name, area.ph].filter(Boolean).join(", ")],
                [
                  "Shade",
                  { "": "", none: "in the open", part: "part of the day", full: "shade" }[area.shade] ?? "",
                ],
                ["Slope", area.slope && `${area.slope} %`],
                ["Water zone", area.zone],
                ["Sown", area.sown_on ? dated(area.sown_on) : ""],
                ["Overseeding", area.overseed_on ? dated(area.overseed_on) : ""],
                ["Note", area.note],
              ]}
            />
          </Section>
          {may && whole.plan && (
            <Section title="Not sure of a product?">
              <Hint>
                <Link to={`/a/${account.slug}/book/trials/new?area=${area.id}`}>Try it on part of it</Link>,
                beside plots that get nothing.
              </Hint>
            </Section>
          )}
          {whole.heights.length > 1 && (
            <Section title="Heights of cut">
              <Facts of={whole.heights.map((h) => [h.on, h.text])} />
            </Section>
          )}
        </>
      }
    >
      <SubRule label="Parts of the area’s page" parts={areaParts(account.slug, area.id, may)} />
      <Fault error={use.error} />
      {area.stress !== "none" && (
        <Notice tone="caution" word="Stressed">
          {`It suffers from ${area.stress_text}. Plans that would push it are questioned.`}
        </Notice>
      )}
      {locks.data && locks.data.length > 0 && (
        <Section title="Locked now">
          <Locks of={locks.data} />
        </Section>
      )}
      {area.hazards.map((h) => (
        <Notice key={`${h.kind}${h.name}`} tone="caution" word="Keep off">
          {[h.kind_text, h.name].filter(Boolean).join(", ")}
          {h.buffer ? `: ${h.buffer.text} away.` : "."}
        </Notice>
      ))}
      <Story area_id={area.id} site_id={area.site_id} />
      {whole.plan ? (
        <AreaPlan
          plan={whole.plan}
          us={account.units === "us"}
          label={`Plan of ${area.name}, ${area.size.text}`}
        />
      ) : (
        <Hint>The size was typed. Measure it once, and its plan stands here.</Hint>
      )}
      {whole.parts.length > 0 && (
        <Section title="Its parts">
          <Ledger>
            <tbody>
              {whole.parts.map((p) => (
                <tr key={p.id}>
                  <td>
                    <Link to={`${at}/${p.id}`}>{p.name}</Link>
                  </td>
                  <td className="figure">{p.size.text}</td>
                  <td className="soft">{p.note}</td>
                </tr>
              ))}
            </tbody>
          </Ledger>
          <Hint style={{ marginTop: 8 }}>{whole.rest}</Hint>
        </Section>
      )}
      {whole.measurements.length > 0 && (
        <Section title="How it was measured">
          <Ledger>
            <thead>
              <tr>
                <th>Day</th>
                <th className="wide">By</th>
                <th className="figure">Size</th>
                <th className="wide">Beside the size in use</th>
                {may && <th aria-label="Use it" />}
              </tr>
            </thead>
            <tbody>
              {whole.measurements.map((m) => (
                <tr key={m.id}>
                  <td className="day">
                    {dated(m.taken_on)}
                    <div className="soft narrow">{m.method}</div>
                    <div className="soft">{m.by}</div>
                    <div className="narrow" style={{ whiteSpace: "normal" }}>
                      <Beside of={m} />
                    </div>
                  </td>
                  <td className="wide">{m.method}</td>
                  <td className="figure">{m.size}</td>
                  <td className="wide">
                    <Beside of={m} />
                  </td>
                  {may && (
                    <td className="figure">
                      {!m.in_use && (
                        <Button
                          look="quiet"
                          onPress={() =>
                            use.mutate(m.id, {
                              onSuccess: () => say(`${area.name} is ${m.size} from now on.`),
                            })
                          }
                        >
                          Use this size
                        </Button>
                      )}
                    </td>
                  )}
                </tr>
              ))}
            </tbody>
          </Ledger>
        </Section>
      )}
    </Page>
  );
}
