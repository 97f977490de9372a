import { useState, type ReactNode } from "react";
import { Link, useNavigate, useParams } from "react-router";
import styled from "styled-components";
import {
  useCloseAct,
  useJobMachine,
  useMoveOuting,
  useNoteJob,
  useOrderAgain,
  useOuting,
  usePause,
  useSkipJob,
  useSkipStop,
  useStartJob,
  type Act,
  type Outing,
} from "../../api/outings";
import { useJob } from "../../api/hooks";
import { useAccount, useMay } from "../../app/session";
import { t } from "../../app/theme";
import { Button, ButtonLink } from "../../parts/Button";
import { Findings } from "../../parts/Findings";
import { Form } from "../../parts/Form";
import { Locks } from "../../parts/Locks";
import { Fault, Notice } from "../../parts/Notice";
import { Page } from "../../parts/Page";
import { PickField } from "../../parts/PickField";
import { Bar, OnScreen, Section, Stack } from "../../parts/Section";
import { Switch } from "../../parts/Switch";
import { TextField } from "../../parts/TextField";
import { Waiting } from "../../parts/Waiting";
import { Looked } from "../reckon/Looked";
import { nobodyLooked, saidIn, type Said } from "../reckon/state";
import { ActList } from "./ActList";
import { SiteNotes } from "./SiteNotes";

const Headline = styled.p`
  padding-bottom: 8px;
`;
const One = styled.div`
  padding-bottom: 8px;
  > a {
    display: inline-block;
    padding: 4px 0 4px 36px;
    font-size: ${t.s13};
  }
`;

type Stop = Act["stops"][number];

interface Skipping {
  what: string;
  error: Error | null;
  skip: (why: string, done: () => void) => void;
}

/** A way to skip something, which asks why. */
function Skip({ what, error, skip }: Skipping) {
  const [asked, setAsked] = useState(false);
  const [why, setWhy] = useState("");
  const close = () => setAsked(false);
  if (!asked) return <Button look="quiet" onPress={() => setAsked(true)}>{`Skip ${what}`}</Button>;
  return (
    <Form label={`Skip ${what}`} error={error} onSubmit={() => skip(why, close)}>
      <TextField
        label={`Why is ${what} skipped?`}
        name="why"
        value={why}
        hint="Locked gate, a dog, people on it, rain."
        onChange={setWhy}
      />
      <Bar>
        <Button type="submit">Skip it</Button>
        <Button look="quiet" onPress={close}>
          Keep it
        </Button>
      </Bar>
    </Form>
  );
}

function StopActs({ outing, stop, begun }: { outing: Outing; stop: Stop; begun: boolean }) {
  const skip = useSkipStop(outing.id);
  const stop_id = stop.id;
  if (stop_id === null || stop.state === "done" || begun) return null;
  if (stop.state === "skipped")
    return (
      <Button look="quiet" onPress={() => skip.mutate({ stop_id, why: "", skip: false })}>
        Put it back
      </Button>
    );
  return (
    <Skip
      what={stop.area}
      error={skip.error}
      skip={(why, done) => skip.mutate({ stop_id, why, skip: true }, { onSuccess: done })}
    />
  );
}

type Asked = NonNullable<Outing["jobs"][number]["asked"]>;

/** The next job as it is reckoned now: what the hour says of it, and what is to be looked at before it begins. */
function NextJob({
  asked,
  said,
  change,
  children,
}: {
  asked: Asked;
  said: Said;
  change: (said: Said) => void;
  children: ReactNode;
}) {
  const found = useJob({ ...asked, said: saidIn(said) });
  const findings = (found.data?.parts ?? [])
    .flatMap((p) => p.doses.flatMap((d) => d?.findings ?? []))
    .filter((f) => f.act === "refuse" || f.act === "warn");
  const once = findings.filter((f, i) => findings.findIndex((g) => g.sentence === f.sentence) === i);
  return (
    <Section title="Now">
      <Fault error={found.error} />
      <Headline>{found.data?.headline ?? "…"}</Headline>
      {once.length > 0 && <Findings of={once} />}
      {found.data && (
        <Looked answer={found.data} said={said} change={(part) => change({ ...said, ...part })} />
      )}
      {children}
    </Section>
  );
}

/** Skip what is left of the next job, all of it. */
function SkipJob({ outing, job }: { outing: Outing; job: Outing["jobs"][number] }) {
  const skip = useSkipJob(outing.id);
  return (
    <Skip
      what="all of it"
      error={skip.error}
      skip={(why, done) => skip.mutate({ position: job.position, why, skip: true }, { onSuccess: done })}
    />
  );
}

type ClosingAct = Outing["closing"][number];

/** An act at the end; where something is to be said with it, that is asked for first. */
function OneClosing({ outing, act, may }: { outing: Outing; act: ClosingAct; may: boolean }) {
  const { slug } = useAccount();
  const close = useCloseAct(outing.id);
  const [asked, setAsked] = useState(false);
  const [note, setNote] = useState(act.note);
  const send = (done: boolean) =>
    close.mutate({ key: act.key, done, note: done ? note : "" }, { onSuccess: () => setAsked(false) });
  return (
    <One>
      <Switch
        large
        value={act.done}
        disabled={!may}
        onChange={(done) => (done && act.asks ? setAsked(true) : send(done))}
      >
        {act.text}
        {act.by && <small>{` (${[act.note, act.by].filter(Boolean).join(", ")})`}</small>}
      </Switch>
      {act.machine_id !== null && !act.done && may && (
        <Link to={`/a/${slug}/kit/${act.machine_id}/clean`}>Step by step</Link>
      )}
      {asked && (
        <Form label={act.text} error={close.error} onSubmit={() => send(true)}>
          <TextField
            label={act.asks}
            name="note"
            value={note}
            hint="Nothing; or 1 gal, onto the rough at half rate."
            onChange={setNote}
          />
          <Bar>
            <Button type="submit">Note it</Button>
            <Button look="quiet" onPress={() => setAsked(false)}>
              Not yet
            </Button>
          </Bar>
        </Form>
      )}
      {!asked && <Fault error={close.error} />}
    </One>
  );
}

function Closing({ outing, may }: { outing: Outing; may: boolean }) {
  if (!outing.closing.length) return null;
  return (
    <Section title="At the end">
      {outing.closing.map((c) => (
        <OneClosing key={c.key} outing={outing} act={c} may={may} />
      ))}
    </Section>
  );
}

/** Stop for a while, and say why; the hours are judged again when it goes on. */
function StopForNow({ outing }: { outing: Outing }) {
  const pause = usePause(outing.id);
  const [asked, setAsked] = useState(false);
  const [why, setWhy] = useState("");
  if (!asked) return <Button onPress={() => setAsked(true)}>Stop for now</Button>;
  return (
    <Form
      label="Stop for now"
      error={pause.error}
      onSubmit={() => pause.mutate({ why }, { onSuccess: () => setAsked(false) })}
    >
      <TextField
        label="Why does it stop?"
        name="why"
        value={why}
        hint="The wind, rain, a breakdown, called away."
        onChange={setWhy}
      />
      <Bar>
        <Button type="submit">Stop the outing</Button>
        <Button look="quiet" onPress={() => setAsked(false)}>
          Go on
        </Button>
      </Bar>
    </Form>
  );
}

/** Which machine does the next job, and how many people go on. */
function Means({ outing, job }: { outing: Outing; job: Outing["jobs"][number] | undefined }) {
  const machine = useJobMachine(outing.id);
  const order = useOrderAgain(outing.id);
  return (
    <>
      <Fault error={machine.error ?? order.error} />
      {job && job.machines.length > 1 && (
        <PickField
          label={`${job.title}: with`}
          name="machine_id"
          value={`${job.machine_id}`}
          options={job.machines}
          onChange={(key) => machine.mutate({ position: job.position, machine_id: Number(key) })}
        />
      )}
      <PickField
        label="People from here on"
        name="people"
        value={`${outing.people}`}
        options={[1, 2, 3, 4, 5, 6].map((n) => ({ key: `${n}`, text: n === 1 ? "1 person" : `${n} people` }))}
        onChange={(key) => order.mutate({ people: Number(key) })}
      />
      <Button onPress={() => order.mutate({})} isDisabled={order.isPending}>
        Order the rest again from now
      </Button>
    </>
  );
}

/** What of an outing goes on paper. */
function OnPaper({ outing }: { outing: Outing }) {
  const { slug } = useAccount();
  const at = `/api/accounts/${slug}/proof/outings/${outing.id}`;
  const papers = [
    { to: `${at}/sheet.pdf`, text: "Sheet for whoever goes" },
    ...(outing.applications.length
      ? [
          { to: `${at}/gate.pdf`, text: "Notices for the gates" },
          { to: `${at}/notes.pdf`, text: "Customers’ notes" },
        ]
      : []),
  ];
  return (
    <OnScreen>
      <Section title="On paper">
        <ul>
          {papers.map((p) => (
            <li key={p.to}>
              <a href={p.to} target="_blank" rel="noreferrer">
                {p.text}
              </a>
            </li>
          ))}
        </ul>
      </Section>
    </OnScreen>
  );
}

function Followed({ outing }: { outing: Outing }) {
  const account = useAccount();
  const go = useNavigate();
  const start = useStartJob();
  const note = useNoteJob();
  const move = useMoveOuting(outing.id);
  const open = outing.status === "planned" || outing.status === "under_way";
  const may = useMay("applicator") && open;
  const next = outing.jobs.find((j) => j.position === outing.next);
  const watered = next && (next.kind === "water" || next.kind === "mow");
  const [looked, setLooked] = useState<{ job: number | null; said: Said }>({ job: null, said: nobodyLooked });
  /** What somebody looked at before a job: of no other. */
  const saidOf = (position: number) => (looked.job === position ? looked.said : nobodyLooked);
  const begin = (position: number) =>
    start.mutate(
      { outing_id: outing.id, position, said: saidIn(saidOf(position)) },
      { onSuccess: (round) => void go(`/a/${account.slug}/round/${round.id}`) },
    );
  const state = (a: Act) => {
    const job = outing.jobs.find((j) => j.position === a.job);
    if (job && (job.state === "done" || job.state === "skipped")) return "done";
    return job && job.position === outing.next && !["ready", "clean"].includes(a.kind) ? "now" : "";
  };
  const seen = outing.closing.every((c) => c.done);
  return (
    <Page
      steady={open}
      sentence={outing.sentence}
      act={
        may &&
        (outing.paused ? (
          <Button look="main" onPress={() => move.mutate("go-on")} isDisabled={move.isPending}>
            Go on with the outing
          </Button>
        ) : (
          <>
            {next?.state === "under_way" && (
              <ButtonLink look="main" to={`/a/${account.slug}/round/${next.round_id}`}>
                Go on: {next.title}
              </ButtonLink>
            )}
            {next?.state === "open" && !watered && (
              <Button look="main" onPress={() => begin(next.position)} isDisabled={start.isPending}>
                {next.title}: mix sheet
              </Button>
            )}
            {next?.state === "open" && watered && (
              <Button
                look="main"
                onPress={() => note.mutate({ outing_id: outing.id, position: next.position })}
                isDisabled={note.isPending}
              >
                {next.title}: done
              </Button>
            )}
            {!next && (
              <Button look="main" onPress={() => move.mutate("finish")} isDisabled={!seen || move.isPending}>
                Finish the outing
              </Button>
            )}
          </>
        ))
      }
      margin={
        <>
          {outing.locks.length > 0 && (
            <Section title="Locked now">
              <Locks of={outing.locks} />
            </Section>
          )}
          <SiteNotes sites={outing.sites} />
          {open && <Closing outing={outing} may={may} />}
          {may && next && !outing.paused && (
            <Section title="The rest of it">
              <Stack>
                <Means outing={outing} job={next.state === "open" ? next : undefined} />
                <StopForNow outing={outing} />
              </Stack>
            </Section>
          )}
          <OnPaper outing={outing} />
          {!open && (
            <p>
              <Link to={`/a/${account.slug}/round/outing/new?like=${outing.id}`}>Do the same again</Link>
            </p>
          )}
        </>
      }
    >
      <Fault error={start.error ?? note.error ?? move.error} />
      {outing.paused && <Notice tone="note">{outing.paused}</Notice>}
      {outing.crew && <p>Goes: {outing.crew}</p>}
      {outing.over.length > 0 && (
        <Section title="What was done">
          <ul>
            {outing.over.map((line) => (
              <li key={line}>{line}</li>
            ))}
          </ul>
        </Section>
      )}
      {may && !outing.paused && next?.state === "open" && next.asked && (
        <NextJob
          key={next.position}
          asked={next.asked}
          said={saidOf(next.position)}
          change={(said) => setLooked({ job: next.position, said })}
        >
          <SkipJob outing={outing} job={next} />
        </NextJob>
      )}
      {open && (
        <Section title="In order">
          <ActList
            acts={outing.acts}
            people={outing.people}
            state={state}
            act={(a) => {
              const job = outing.jobs.find((j) => j.position === a.job);
              if (!may || !job || ["ready", "clean"].includes(a.kind) || job.position === outing.next)
                return null;
              if (job.state !== "open") return null;
              return ["water", "mow"].includes(a.kind) ? (
                <Button
                  look="quiet"
                  onPress={() => note.mutate({ outing_id: outing.id, position: job.position })}
                >
                  Note it as done
                </Button>
              ) : (
                <Button look="quiet" onPress={() => begin(job.position)}>
                  Start this one now
                </Button>
              );
            }}
            stop={(a, s) =>
              may && (
                <StopActs
                  outing={outing}
                  stop={s}
                  begun={
                    outing.jobs.find((j) => j.position === a.job)?.state !== "open" && s.state !== "skipped"
                  }
                />
              )
            }
          />
        </Section>
      )}
      {may && (
        <Bar>
          <Button look="stop" onPress={() => move.mutate("give-up")} isDisabled={move.isPending}>
            Give up the rest
          </Button>
        </Bar>
      )}
    </Page>
  );
}

/** An outing that is followed: what to do now, what comes after, and its end. */
export function OutingPage() {
  const outing = useOuting(Number(useParams().id));
  return <Waiting of={outing}>{(data) => <Followed outing={data} />}</Waiting>;
}
