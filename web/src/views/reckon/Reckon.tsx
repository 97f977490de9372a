import { useEffect, useMemo, useState } from "react";
import { useNavigate, useSearchParams } from "react-router";
import { ApiError, read, send, type Schemas } from "../../api/client";
import { useAreas, useChange, useJob, useMachines, useProductOptions, useProducts } from "../../api/hooks";
import { useDraft } from "../../app/draft";
import { useAccount, useMay } from "../../app/session";
import { useSettled } from "../../app/useSettled";
import { Button } from "../../parts/Button";
import { FaultsContext, faultsOf } from "../../parts/faults";
import { Mend } from "../../parts/Mend";
import { Fault, Notice } from "../../parts/Notice";
import { Page } from "../../parts/Page";
import { Bar, Section } from "../../parts/Section";
import { SubRule } from "../../parts/SubRule";
import { Working } from "../../parts/Working";
import { FitNote } from "../sky/FitNote";
import { Answer } from "./Answer";
import { Component } from "./Component";
import { Delivered } from "./Delivered";
import { DoneForm } from "./DoneForm";
import { Grounds } from "./Grounds";
import { Hose } from "./Hose";
import { KeepMix } from "./KeepMix";
import { LabelSays } from "./LabelSays";
import { Loads } from "./Loads";
import { Looked } from "./Looked";
import { Picks } from "./Picks";
import { Season } from "./Season";
import { When } from "./When";
import {
  added,
  fromSearch,
  missing,
  noDose,
  nothing,
  noProduct,
  reckonParts,
  toJob,
  type Picked,
} from "./state";

/** The sum itself: how much, of what, in which vessel, at what cost, and is that sane? */
export function Reckon() {
  const account = useAccount();
  const navigate = useNavigate();
  const [search, setSearch] = useSearchParams();
  const products = useProducts();
  const areas = useAreas();
  const machines = useMachines();
  const options = useProductOptions();
  const { value: picked, change, clear } = useDraft<Picked>(`${account.slug}/mix`, nothing);
  const may = useMay("applicator");
  const [done, setDone] = useState(false);
  const [keeping, setKeeping] = useState(false);

  useEffect(() => {
    const asked = fromSearch(search);
    if (!asked) return;
    change(asked);
    setSearch({}, { replace: true });
  }, [search, change, setSearch]);

  const here = useMemo(
    () => stillHere(picked, products.data, areas.data?.areas, machines.data),
    [picked, products, areas, machines],
  );
  const hose = machines.data?.find((m) => m.id === here.machine && m.form === "hose_end");
  const tank = machines.data?.some((m) => m.id === here.machine && m.kind === "sprayer") && !hose;
  const job = toJob(here);
  const typed = JSON.stringify(job);
  const key = useSettled(typed, 60);
  const asked = useMemo(() => JSON.parse(key) as typeof job, [key]);
  const reckoned = useJob(asked);
  const start = useChange((path, given: Schemas["JobIn"]) =>
    read(send.POST("/api/accounts/{account}/rounds", { params: { path }, body: given })),
  );
  const { reset } = start;
  useEffect(reset, [typed, reset]); // what stood against another plan does not stand against this one
  const sub = <SubRule label="Parts of Reckon" parts={reckonParts(account.slug)} />;

  const answer = job && !reckoned.error ? reckoned.data : undefined;
  const error = job ? reckoned.error : null;
  const ready =
    answer && !answer.refused && here.machine !== null && key === typed && !reckoned.isPlaceholderData;
  const begin = () =>
    job &&
    start.mutate(job, {
      onSuccess: (round) => {
        clear(nothing);
        void navigate(`/a/${account.slug}/round/${round.id}`);
      },
    });
  const shown =
    error instanceof ApiError
      ? error.fields.filter((f) => !f.field.startsWith("parts.") && !f.field.startsWith("mix."))
      : [];
  return (
    <FaultsContext.Provider value={faultsOf(error)}>
      <Page
        sentence={
          answer?.headline ??
          (error ? "That cannot be reckoned as it stands." : missing(here) || "Reckoning …")
        }
        act={
          may && (
            <Button look="main" isDisabled={!ready || start.isPending} onPress={begin}>
              Start the round
            </Button>
          )
        }
        margin={
          answer && (
            <>
              <LabelSays job={answer} />
              {here.parts[0] && !here.on && !here.clock && (
                <FitNote
                  area={here.parts[0].area}
                  products={here.mix.flatMap((c) => (c.product === null ? [] : [c.product]))}
                />
              )}
              <Section title="The working">
                <Working steps={answer.working} />
              </Section>
            </>
          )
        }
      >
        {sub}
        <Fault error={start.error} />
        <Picks
          picked={here}
          change={change}
          products={products.data}
          areas={areas.data?.areas}
          machines={machines.data}
          targets={options.data?.targets}
        />
        {hose && <Hose machine={hose} picked={here} change={change} />}
        <When picked={here} change={change} />
        {here.parts.length > 0 && (
          <Grounds
            picked={here}
            areas={areas.data?.areas ?? []}
            tank={tank ?? false}
            reached={answer?.parts.map((p) => p.treated.text) ?? []}
            change={change}
          />
        )}
        {here.parts.length > 0 &&
          here.mix.map((c, place) => (
            <Component
              key={c.product ?? `new ${place}`}
              place={place}
              picked={here}
              change={change}
              products={products.data ?? []}
              areas={areas.data?.areas ?? []}
              targets={options.data?.targets ?? []}
              answer={answer?.mix.length === here.mix.length ? answer : undefined}
            />
          ))}
        {here.parts.length > 0 && here.mix.every((c) => c.product !== null) && (
          <Bar>
            <Button onPress={() => change((now) => added(now))}>Add to the tank</Button>
          </Bar>
        )}
        {error && !(error instanceof ApiError) && <Fault error={error} />}
        {shown.map((f) => (
          <Notice key={f.field} tone="stop" word="Cannot be reckoned">
            {f.problem} {f.remedy} <Mend way={f.mend} />
          </Notice>
        ))}
        {answer && (
          <Looked
            answer={answer}
            said={here.said}
            change={(part) => change({ said: { ...here.said, ...part } })}
          />
        )}
        {answer && (
          <>
            <Answer job={answer} />
            <Loads job={answer} picked={here} change={change} />
            <Season job={answer} />
            <Delivered job={answer} />
          </>
        )}
        {answer && job && may && here.machine !== null && (done || key === typed) && (
          <>
            {done ? (
              <DoneForm
                job={job}
                answer={answer}
                settled={key === typed}
                onDone={() => clear(nothing)}
                onClose={() => setDone(false)}
              />
            ) : (
              <Bar>
                <Button onPress={() => setDone(true)}>It is done already</Button>
                <Button onPress={() => setKeeping(true)}>Keep this mix</Button>
              </Bar>
            )}
            {keeping && !done && <KeepMix job={job} onDone={() => setKeeping(false)} />}
          </>
        )}
        {answer && here.machine === null && may && (
          <Notice tone="note" word="Next">
            Pick a machine to see the loads and start the round.
          </Notice>
        )}
      </Page>
    </FaultsContext.Provider>
  );
}

/** What was picked before, less what has been put away since. */
function stillHere(
  picked: Picked,
  products: Schemas["ProductOut"][] | undefined,
  areas: Schemas["AreaOut"][] | undefined,
  machines: Schemas["MachineOut"][] | undefined,
): Picked {
  const shelf = (id: number | null) => products?.find((p) => p.id === id);
  const mix = picked.mix.map((c) => (shelf(c.product) ? c : noProduct));
  const machine = machines?.find((m) => m.id === picked.machine);
  const fits = mix.every((c) => c.product === null || machine?.takes.includes(c.product));
  const parts = picked.parts
    .filter((p) => areas?.some((a) => a.id === p.area))
    .map((p) => ({
      ...p,
      doses: mix.map((c, i) => {
        const dose = p.doses[i] ?? noDose;
        return shelf(c.product)?.rates.some((r) => r.id === dose.row) ? dose : { ...dose, row: null };
      }),
    }));
  const dial = machine?.form === "hose_end" ? picked.dial : nothing.dial;
  const undiluted = machine?.form === "hose_end" && picked.undiluted;
  return { ...picked, mix, parts, machine: machine && fits ? picked.machine : null, dial, undiluted };
}
