import { useState } from "react";
import { Link, useNavigate, useParams } from "react-router";
import { useMoveOuting, useNoteJob, useOuting, useStartJob, type Act, type Outing } from "../../api/outings";
import { useAccount, useMay } from "../../app/session";
import { Button, ButtonLink } from "../../parts/Button";
import { Clocks } from "../../parts/Clocks";
import { Locks } from "../../parts/Locks";
import { Fault, Notice } from "../../parts/Notice";
import { Page } from "../../parts/Page";
import { Bar, Section, Stack } from "../../parts/Section";
import { Waiting } from "../../parts/Waiting";
import { nobodyLooked, saidIn, type Said } from "../reckon/state";
import { ActList } from "./ActList";
import { SiteNotes } from "./SiteNotes";
import { Closing } from "./AtTheEnd";
import { NextJob, SkipJob } from "./NextJob";
import { OnPaper } from "./OnPaper";
import { Means, StopForNow } from "./RestOfIt";
import { StopActs } from "./Skip";

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
          {outing.clocks.length > 0 && (
            <Section title="By when">
              <Clocks of={outing.clocks} />
            </Section>
          )}
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
      {outing.jobs
        .filter((j) => j.falls.length > 0)
        .map((j) => (
          <Section key={j.position} title="Where its loads run out">
            <ul>
              {j.falls.map((line) => (
                <li key={line}>{line}</li>
              ))}
            </ul>
          </Section>
        ))}
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
              if (job.state === "under_way")
                return <Link to={`/a/${account.slug}/round/${job.round_id}`}>Go on with its sheet</Link>;
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
                    !["open", "under_way"].includes(
                      outing.jobs.find((j) => j.position === a.job)?.state ?? "",
                    ) && s.state !== "skipped"
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
