import { Link } from "react-router";
import type { Schemas } from "../../api/client";
import { useUseCalibration, useKitOptions } from "../../api/kit";
import { useAccount, useMay } from "../../app/session";
import { say } from "../../app/toast";
import { Button, ButtonLink } from "../../parts/Button";
import { CurveChart } from "../../parts/CurveChart";
import { Facts } from "../../parts/Facts";
import { Findings } from "../../parts/Findings";
import { Hint } from "../../parts/Field";
import { Ledger } from "../../parts/Ledger";
import { Fault, Notice } from "../../parts/Notice";
import { OutputHistory } from "../../parts/OutputHistory";
import { Page } from "../../parts/Page";
import { PatternChart } from "../../parts/PatternChart";
import { Section } from "../../parts/Section";
import { SubRule } from "../../parts/SubRule";
import { machineParts } from "./kitParts";
import { OfMachine } from "./OfMachine";
import { dated } from "../../parts/days";

/** One machine: what it puts down and how that is known, its calibrations, and what was last in it. */
export function MachinePage() {
  return <OfMachine>{(whole) => <MachineView whole={whole} />}</OfMachine>;
}

function sentence(m: Schemas["MachineOut"]) {
  if (m.kind === "spreader") {
    const skew = m.findings.some((f) => f.key === "skewed") ? "; its pattern is skewed" : "";
    return `${m.name}: ${m.state}${m.swath ? `, passes ${m.swath} apart` : ""}${skew}.`;
  }
  return m.output
    ? `${m.name} puts down ${m.output.text} in a pass: ${m.state}.`
    : `${m.name}: its output is not known yet.`;
}

function MachineView({ whole }: { whole: Schemas["MachineWholeOut"] }) {
  const account = useAccount();
  const may = useMay("manager");
  const { machine: m, calibrations, curves, pattern, tank } = whole;
  const at = `/a/${account.slug}/kit/${m.id}`;
  const symbol = calibrations.find((c) => c.rate_value !== null)?.rate.replace(/^[\d.,]+ /, "") ?? "";
  const rated = calibrations.filter((c) => c.rate_value !== null);
  return (
    <Page
      sentence={sentence(m)}
      act={
        <ButtonLink look="main" to={`${at}/calibrate`}>
          Calibrate it
        </ButtonLink>
      }
      margin={
        <>
          <Section title="What it is">
            <MachineFacts machine={m} />
          </Section>
          <Section title={m.kind === "sprayer" ? "In the tank" : "In the hopper"}>
            <p>{tank.sentence}</p>
            {!tank.clean && (
              <Hint style={{ marginTop: 6 }}>
                <Link to={`${at}/clean`}>Clean it, and note it.</Link>
              </Hint>
            )}
          </Section>
        </>
      }
    >
      <SubRule label="Parts of the machine’s page" parts={machineParts(account.slug, m, may)} />
      <Findings of={m.findings} />
      {m.kind === "sprayer" && rated.length > 1 && (
        <Section title="Its output, season by season">
          <OutputHistory
            symbol={symbol}
            points={rated.map((c) => ({
              on: c.taken_on,
              rate: c.rate_value!,
              text: `${c.method_text}, ${c.rate}`,
              bench: c.method !== "round",
              inForce: c.in_force,
            }))}
          />
          <Hint>
            A disc is a bench, a ring is what a finished round really put down. The band is 5 % about what is
            in use.
          </Hint>
        </Section>
      )}
      {curves.map((c) => (
        <Section key={c.product_id} title={`Settings for ${c.product}`}>
          {c.problem && (
            <Notice tone="caution" word="The tests disagree">
              {c.problem} Leave one of them out below.
            </Notice>
          )}
          <CurveChart curve={c} />
        </Section>
      ))}
      {pattern && (
        <Section title="Its pattern, left to right as one walks">
          {pattern.skewed && (
            <Notice tone="caution" word="Skewed">
              More falls on one side than the other. Look for a caked cone, a bent fin or a leaning frame, and
              lay the pans again.
            </Notice>
          )}
          <PatternChart pattern={pattern} />
        </Section>
      )}
      <Calibrations whole={whole} />
    </Page>
  );
}

function MachineFacts({ machine: m }: { machine: Schemas["MachineOut"] }) {
  const droplets = useKitOptions().data?.droplets.find((d) => d.key === `${m.droplets}`)?.text;
  return (
    <Facts
      of={[
        ["Built as", m.form_text],
        ["Holds", m.capacity.text],
        ["A filling covers", m.reach],
        ["Passes apart", m.swath],
        [
          "Nozzles",
          [m.nozzle, m.nozzle_spacing && `${m.nozzle_spacing.text} apart`].filter(Boolean).join(", "),
        ],
        ["Pressure", m.pressure?.text ?? ""],
        ["Droplets", droplets?.toLowerCase() ?? ""],
        ["Note", m.note],
      ]}
    />
  );
}

function Calibrations({ whole }: { whole: Schemas["MachineWholeOut"] }) {
  const mayKeep = useMay("applicator");
  const use = useUseCalibration(whole.machine.id);
  const spreads = whole.machine.kind === "spreader";
  if (!whole.calibrations.length)
    return (
      <Section title="Calibrations">
        <Hint>None yet. A bench takes a quarter of an hour and some water.</Hint>
      </Section>
    );
  const turn = (c: Schemas["CalibrationOut"]) =>
    use.mutate(
      { id: c.id, act: c.in_use ? "leave" : "use" },
      {
        onSuccess: () =>
          say(c.in_use ? "It is not used; the list keeps it." : "It is used again.", () =>
            use.mutate({ id: c.id, act: c.in_use ? "use" : "leave" }),
          ),
      },
    );
  return (
    <Section title="Calibrations">
      <Fault error={use.error} />
      <Ledger>
        <thead>
          <tr>
            <th>Day</th>
            <th>How</th>
            {spreads && <th className="figure">Setting</th>}
            <th className="figure">Puts down</th>
            {!spreads && <th className="figure wide">Since the one before</th>}
            <th className="wide">With</th>
            {mayKeep && <th aria-label="Use it" />}
          </tr>
        </thead>
        <tbody>
          {whole.calibrations.map((c) => (
            <tr key={c.id} data-calibration={c.method}>
              <td className="day">
                {dated(c.taken_on)}
                <div className="soft">{c.by}</div>
              </td>
              <td>
                {c.method_text}
                {c.in_force && <strong>, in use</strong>}
                {!c.in_use && (
                  <span className="soft">{c.method === "round" && !spreads ? ", noted" : ", not used"}</span>
                )}
                {c.old && <span className="soft">, run out</span>}
                <div className="soft wide">{[c.nozzle, c.weather, c.note].filter(Boolean).join("; ")}</div>
              </td>
              {spreads && <td className="figure">{c.setting}</td>}
              <td className="figure loose">{c.rate}</td>
              {!spreads && <td className="figure wide">{c.versus}</td>}
              <td className="wide soft">{c.with_what}</td>
              {mayKeep && (
                <td className="figure loose">
                  <Button
                    look="quiet"
                    aria-label={`${c.in_use ? "Do not use" : "Use it"}: ${c.method_text} of ${dated(c.taken_on)}`}
                    onPress={() => turn(c)}
                  >
                    {c.in_use ? "Do not use" : "Use it"}
                  </Button>
                </td>
              )}
            </tr>
          ))}
        </tbody>
      </Ledger>
    </Section>
  );
}
