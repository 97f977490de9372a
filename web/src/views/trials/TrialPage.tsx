import { useState } from "react";
import { Link, useNavigate, useParams } from "react-router";
import styled from "styled-components";
import {
  useChangeTrial,
  useEndTrial,
  useRemoveTrial,
  useResumeTrial,
  useTrial,
  type Trial,
} from "../../api/trials";
import { pictureOf } from "../../api/scouting";
import { useAccount, useMay } from "../../app/session";
import { t } from "../../app/theme";
import { say } from "../../app/toast";
import { Button } from "../../parts/Button";
import { Facts } from "../../parts/Facts";
import { Hint } from "../../parts/Field";
import { Findings } from "../../parts/Findings";
import { Form } from "../../parts/Form";
import { Ledger } from "../../parts/Ledger";
import { Fault, Notice } from "../../parts/Notice";
import { Page } from "../../parts/Page";
import { Bar, Fields, Section } from "../../parts/Section";
import { SubRule } from "../../parts/SubRule";
import { TextField } from "../../parts/TextField";
import { Waiting } from "../../parts/Waiting";
import { bookParts } from "../book/bookParts";
import { Readings } from "./Readings";
import { ScoreForm } from "./ScoreForm";
import { letters, TrialMap } from "./TrialMap";

const Shots = styled.ul`
  display: flex;
  flex-wrap: wrap;
  gap: 10px;
  img {
    display: block;
    width: 112px;
    height: 84px;
    object-fit: cover;
    border: 1px solid ${t.rule};
  }
  span {
    font-size: ${t.s13};
  }
`;

/** One trial: its map, what stands on it, what was scored and what that shows. */
export function TrialPage() {
  const trial = useTrial(Number(useParams().id));
  return <Waiting of={trial}>{(found) => <View key={found.id} trial={found} />}</Waiting>;
}

function View({ trial }: { trial: Trial }) {
  const account = useAccount();
  const navigate = useNavigate();
  const may = useMay("applicator");
  const manager = useMay("manager");
  const [open, setOpen] = useState<"" | "score" | "change">("");
  const end = useEndTrial();
  const resume = useResumeTrial();
  const remove = useRemoveTrial();
  const scoring = open === "score";
  const close = () => setOpen("");
  const at = `/a/${account.slug}`;
  const shots = trial.plots.filter((p) => p.photo_id !== null);
  const fresh = !trial.readings.length && trial.treatments.every((x) => !x.past.length);
  return (
    <Page
      sentence={trial.sentence}
      act={
        may &&
        !trial.ended && (
          <Button look={trial.due ? "main" : "plain"} isDisabled={scoring} onPress={() => setOpen("score")}>
            Score the plots
          </Button>
        )
      }
      margin={
        !scoring && (
          <>
            <Section title="How it was laid out">
              <Facts
                of={[
                  [
                    "On",
                    <Link key="a" to={`${at}/ground/${trial.area_id}`}>
                      {trial.area}
                    </Link>,
                  ],
                  ["Scored", trial.scored],
                  ["Days", trial.days],
                  ["Next", trial.next],
                  ...trial.facts.map((x): [string, string] => [x.name, x.text]),
                  ["Note", trial.note],
                ]}
              />
            </Section>
            {manager && (
              <Section title="The trial itself">
                <Bar style={{ marginTop: 0 }}>
                  {!trial.ended && <Button onPress={() => setOpen("change")}>Change name or days</Button>}
                  {trial.ended ? (
                    <Button
                      onPress={() =>
                        resume.mutate(trial.id, { onSuccess: () => say(`${trial.name} goes on.`) })
                      }
                    >
                      Take it up again
                    </Button>
                  ) : (
                    <Button
                      onPress={() =>
                        end.mutate(trial.id, {
                          onSuccess: () => say(`${trial.name} has ended.`, () => resume.mutate(trial.id)),
                        })
                      }
                    >
                      End it
                    </Button>
                  )}
                  {fresh && (
                    <Button
                      look="stop"
                      onPress={() =>
                        remove.mutate(trial.id, { onSuccess: () => void navigate(`${at}/book/trials`) })
                      }
                    >
                      Begun by mistake
                    </Button>
                  )}
                </Bar>
              </Section>
            )}
          </>
        )
      }
    >
      <SubRule label="Parts of the book" parts={bookParts(account.slug, manager)} />
      {trial.due && !scoring && (
        <Notice tone="note" word="Today">
          {trial.due}
        </Notice>
      )}
      <Fault error={end.error ?? resume.error ?? remove.error} />
      {open === "change" && <ChangeForm trial={trial} onDone={close} />}
      {scoring && (
        <Section title="Scores">
          <ScoreForm trial={trial} onDone={close} />
        </Section>
      )}
      {!scoring && (
        <>
          {trial.findings.length > 0 && (
            <Section title="What makes it say less">
              <Findings of={trial.findings} />
            </Section>
          )}
          <Readings trial={trial} />
          <Section title="The plots">
            {trial.plan && (
              <TrialMap
                plan={{ ...trial.plan, marks: [] }}
                plots={trial.plots}
                us={account.units === "us"}
                label={`Plots of ${trial.name}`}
                names={trial.treatments.map((x) => x.name)}
              />
            )}
            <Ledger style={{ marginTop: 14 }}>
              <thead>
                <tr>
                  <th aria-label="Letter" />
                  <th>Treatment</th>
                  <th className="figure">Ground</th>
                  <th className="wide">Went down on it alone</th>
                  <th aria-label="What to do" />
                </tr>
              </thead>
              <tbody>
                {trial.treatments.map((x, i) => (
                  <tr key={x.id}>
                    <td>
                      <strong>{letters[i]}</strong>
                    </td>
                    <td>
                      {x.name}
                      <div className="soft">
                        {[x.product !== x.name && x.product, x.told].filter(Boolean).join(", ")}
                      </div>
                      <div className="soft">{x.plots}</div>
                      <div className="soft narrow">{x.past.join("; ")}</div>
                    </td>
                    <td className="figure">{x.size}</td>
                    <td className="wide">
                      {x.past.length ? x.past.map((p) => <div key={p}>{p}</div>) : "Nothing"}
                    </td>
                    <td className="figure">
                      {may && !trial.ended && x.product_id !== null && x.area_id !== null && (
                        <div>
                          <Link to={`${at}/reckon?area=${x.area_id}&product=${x.product_id}`}>Reckon it</Link>
                        </div>
                      )}
                      {may && !trial.ended && x.area_id !== null && (
                        <Link
                          to={`${at}/ground/${x.area_id}/seen`}
                          aria-label={`Photograph the plots of ${x.name}`}
                        >
                          Photograph
                        </Link>
                      )}
                    </td>
                  </tr>
                ))}
              </tbody>
            </Ledger>
            <Hint style={{ marginTop: 8 }}>
              Each treatment’s plots are a part of {trial.area} with a past of its own. What goes down on all
              of it goes down on all of them.
            </Hint>
          </Section>
          {shots.length > 0 && (
            <Section title="Latest pictures">
              <Shots>
                {shots.map((p) => (
                  <li key={p.id}>
                    <Link to={`${at}/ground/${p.area_id}/seen/${p.photo_id}`}>
                      <img
                        src={pictureOf(account.slug, p.photo_id!, true)}
                        alt={`Plot ${p.number}`}
                        loading="lazy"
                      />
                    </Link>
                    <span>{`Plot ${p.number}, ${trial.treatments[p.treatment]?.name}`}</span>
                  </li>
                ))}
              </Shots>
            </Section>
          )}
        </>
      )}
    </Page>
  );
}

function ChangeForm({ trial, onDone }: { trial: Trial; onDone: () => void }) {
  const [v, setV] = useState({ name: trial.name, days: trial.days, note: trial.note });
  const change = useChangeTrial(trial.id);
  return (
    <Section title="Name and days">
      <Form
        label="Name and days"
        error={change.error}
        onSubmit={() =>
          change.mutate(
            { ...v, version: trial.version },
            {
              onSuccess: () => {
                say("The trial is changed.");
                onDone();
              },
            },
          )
        }
      >
        <Fields $columns={2}>
          <TextField label="Name" name="name" value={v.name} onChange={(name) => setV({ ...v, name })} />
          <TextField label="On days" name="days" value={v.days} onChange={(days) => setV({ ...v, days })} />
          <TextField label="Note" name="note" value={v.note} onChange={(note) => setV({ ...v, note })} />
        </Fields>
        <Fault error={change.error} besides={["name", "days"]} />
        <Bar>
          <Button type="submit" look="main" isDisabled={change.isPending}>
            Keep it
          </Button>
          <Button look="quiet" onPress={onDone}>
            Leave it
          </Button>
        </Bar>
      </Form>
    </Section>
  );
}
