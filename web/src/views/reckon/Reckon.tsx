import { useEffect, useMemo, useState } from "react";
import { useNavigate, useSearchParams } from "react-router";
import { ApiError, read, send, type Schemas } from "../../api/client";
import {
  useAreas,
  useChange,
  useJob,
  useMachines,
  useProductOptions,
  useProducts,
  useRowFits,
} from "../../api/hooks";
import { useDraft } from "../../app/draft";
import { useAccount, useMay } from "../../app/session";
import { useSettled } from "../../app/useSettled";
import { Button } from "../../parts/Button";
import { FaultsContext, faultsOf } from "../../parts/faults";
import { Fault, Notice } from "../../parts/Notice";
import { Page } from "../../parts/Page";
import { Bar, Section } from "../../parts/Section";
import { SubRule } from "../../parts/SubRule";
import { Working } from "../../parts/Working";
import { FitNote } from "../sky/FitNote";
import { Answer } from "./Answer";
import { Delivered } from "./Delivered";
import { DoneForm } from "./DoneForm";
import { LabelSays } from "./LabelSays";
import { Loads } from "./Loads";
import { Looked } from "./Looked";
import { Picks } from "./Picks";
import { RatePick } from "./RatePick";
import { Season } from "./Season";
import { When } from "./When";
import {
  fromSearch,
  matched,
  missing,
  nothing,
  reckonParts,
  toJob,
  type Picked,
  type PickedPart,
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
  const { value: picked, change, clear } = useDraft<Picked>(`${account.slug}/reckon`, nothing);
  const may = useMay("applicator");
  const [done, setDone] = useState(false);

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
  const grounds = useMemo(() => [...new Set(here.parts.map((p) => p.area))], [here.parts]);
  const fits = useRowFits(here.product, grounds, here.target);
  const known =
    fits.data?.product_id === here.product && fits.data?.target === here.target ? fits.data.fits : undefined;
  useEffect(() => {
    const next = known && matched(here.parts, known);
    if (next) change({ parts: next });
  }, [known, here.parts, change]);

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
  const product = products.data?.find((p) => p.id === here.product);
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
  const set = (i: number, part: Partial<PickedPart>) =>
    change({ parts: here.parts.map((p, j) => (j === i ? { ...p, ...part } : p)) });
  const split = (i: number) =>
    change({
      parts: here.parts.flatMap((p, j) =>
        j === i
          ? [
              { ...p, share: "1/4", zone: "core" },
              { ...p, share: "3/4", zone: "surround" },
            ]
          : [p],
      ),
    });
  const leave = (i: number) => {
    const gone = here.parts[i]!;
    const rest = here.parts.filter((_, j) => j !== i);
    const twins = rest.filter((p) => p.area === gone.area);
    change({
      parts: rest.map((p) => (twins.length === 1 && p === twins[0] ? { ...p, share: "", zone: "" } : p)),
    });
  };
  const shown = error instanceof ApiError ? error.fields.filter((f) => !f.field.startsWith("parts.")) : [];
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
              {here.product !== null && here.parts[0] && !here.on && !here.clock && (
                <FitNote area={here.parts[0].area} product={here.product} />
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
        <When picked={here} change={change} />
        {product &&
          here.parts.map((part, i) => {
            const area = areas.data?.areas.find((a) => a.id === part.area);
            return (
              area && (
                <RatePick
                  key={`${part.area} ${part.zone}`}
                  index={i}
                  part={part}
                  area={area}
                  product={product}
                  fits={known?.[part.area]}
                  answer={answer?.parts.length === here.parts.length ? answer.parts[i] : undefined}
                  alone={here.parts.length === 1}
                  said={(answer?.parts.slice(0, i) ?? []).flatMap((p) => p.findings.map((f) => f.sentence))}
                  change={(p) => set(i, p)}
                  split={() => split(i)}
                  leave={() => leave(i)}
                />
              )
            );
          })}
        {error && !(error instanceof ApiError) && <Fault error={error} />}
        {fits.error && <Fault error={fits.error} />}
        {shown.map((f) => (
          <Notice key={f.field} tone="stop" word="Cannot be reckoned">
            {f.problem} {f.remedy}
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
            <Loads job={answer} even={here.even} onEven={(even) => change({ even })} />
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
              </Bar>
            )}
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
  const product = products?.find((p) => p.id === picked.product);
  const machine = machines?.find((m) => m.id === picked.machine);
  const fits = machine && (!product || machine.takes.includes(product.id));
  const parts = picked.parts
    .filter((p) => areas?.some((a) => a.id === p.area))
    .map((p) => (product?.rates.some((r) => r.id === p.row) ? p : { ...p, row: null }));
  return {
    ...picked,
    product: product ? picked.product : null,
    parts,
    machine: fits ? picked.machine : null,
  };
}
