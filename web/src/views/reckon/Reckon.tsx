import { useEffect, useMemo } from "react";
import { useNavigate, useSearchParams } from "react-router";
import { api, ApiError, read, type Schemas } from "../../api/client";
import { useAreas, useChange, useJob, useMachines, useProducts } from "../../api/hooks";
import { useDraft } from "../../app/draft";
import { useClub, useMay } from "../../app/session";
import { useSettled } from "../../app/useSettled";
import { Button, ButtonLink } from "../../parts/Button";
import { Empty } from "../../parts/Empty";
import { FaultsContext, faultsOf } from "../../parts/faults";
import { Fault, Notice } from "../../parts/Notice";
import { Page } from "../../parts/Page";
import { Section } from "../../parts/Section";
import { Working } from "../../parts/Working";
import { Answer } from "./Answer";
import { Delivered } from "./Delivered";
import { Loads } from "./Loads";
import { Picks } from "./Picks";
import { RatePick } from "./RatePick";
import { fromSearch, missing, nothing, toJob, type Picked } from "./state";

/** The sum itself: how much, of what, in which vessel, at what cost, and is that sane? */
export function Reckon() {
  const club = useClub();
  const navigate = useNavigate();
  const [search, setSearch] = useSearchParams();
  const products = useProducts();
  const areas = useAreas();
  const machines = useMachines();
  const { value: picked, change, clear } = useDraft<Picked>(`${club.slug}/reckon`, nothing);
  const may = useMay("applicator");

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
  const job = toJob(here);
  const typed = JSON.stringify(job);
  const key = useSettled(typed, 60);
  const asked = useMemo(() => JSON.parse(key) as typeof job, [key]);
  const reckoned = useJob(asked);
  const start = useChange((path, given: Schemas["StartIn"]) =>
    read(api.POST("/api/clubs/{club}/rounds", { params: { path }, body: given })),
  );

  if (products.data?.length === 0 || areas.data?.areas.length === 0) {
    const to = areas.data?.areas.length === 0 ? "ground/new" : "shelf/new";
    return (
      <Page sentence="There is nothing to reckon with yet.">
        <Empty
          act={
            <ButtonLink look="main" to={`/c/${club.slug}/${to}`}>
              {to === "ground/new" ? "Add an area" : "Add a product"}
            </ButtonLink>
          }
        >
          A dose needs a product’s rate and an area’s size. Put one of each in, and the sum is here.
        </Empty>
      </Page>
    );
  }

  const answer = job && !reckoned.error ? reckoned.data : undefined;
  const error = job ? reckoned.error : null;
  const product = products.data?.find((p) => p.id === here.product);
  const row = product?.rates.find((r) => r.id === here.row);
  const ready =
    answer &&
    !answer.judgement.refused &&
    here.machine !== null &&
    key === typed &&
    !reckoned.isPlaceholderData;
  const begin = () =>
    job &&
    start.mutate(
      { ...job, key: crypto.randomUUID() },
      {
        onSuccess: (round) => {
          clear(nothing);
          void navigate(`/c/${club.slug}/round/${round.id}`);
        },
      },
    );
  const shown = error instanceof ApiError ? error.fields.filter((f) => f.field !== "rate") : [];
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
              <Section title="The working">
                <Working steps={answer.working} />
              </Section>
            </>
          )
        }
      >
        <Fault error={start.error} />
        <Picks
          picked={here}
          change={change}
          products={products.data}
          areas={areas.data?.areas}
          machines={machines.data}
        />
        {row && (
          <RatePick
            row={row}
            rule={answer?.rule}
            picked={here}
            change={change}
            judgement={answer?.judgement}
          />
        )}
        {error && !(error instanceof ApiError) && <Fault error={error} />}
        {shown.map((f) => (
          <Notice key={f.field} tone="stop" word="Cannot be reckoned">
            {f.problem} {f.remedy}
          </Notice>
        ))}
        {answer && (
          <>
            <Answer job={answer} />
            <Loads job={answer} even={here.even} onEven={(even) => change({ even })} />
            <Delivered job={answer} />
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
  const row = product?.rates.some((r) => r.id === picked.row);
  const machine = machines?.find((m) => m.id === picked.machine);
  const fits = machine && (!product || (machine.kind === "sprayer") === product.sprayed);
  return {
    ...picked,
    product: product ? picked.product : null,
    row: row ? picked.row : null,
    area: areas?.some((a) => a.id === picked.area) ? picked.area : null,
    machine: fits ? picked.machine : null,
  };
}
