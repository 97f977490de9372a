import { useNavigate, useParams } from "react-router";
import { api, read, send, type Schemas } from "../../api/client";
import { useChange } from "../../api/hooks";
import { useVessels } from "../../api/kit";
import { useDraft } from "../../app/draft";
import { useAccount, useMay } from "../../app/session";
import { say } from "../../app/toast";
import { Button } from "../../parts/Button";
import { CardForm } from "../../parts/CardForm";
import { Empty } from "../../parts/Empty";
import { Hint } from "../../parts/Field";
import { Fault } from "../../parts/Notice";
import { Page } from "../../parts/Page";
import { PickField } from "../../parts/PickField";
import { QuantityField, typedOf } from "../../parts/QuantityField";
import { Bar, Fields } from "../../parts/Section";
import { TextField } from "../../parts/TextField";
import { cupUnits, weightUnits } from "../../parts/units";
import { Waiting } from "../../parts/Waiting";
import { CupCheck } from "./CupCheck";
import { shapes } from "./kitParts";

type Own = Schemas["OwnVesselOut"];

function typed(vessel: Own | undefined) {
  const unit = vessel?.capacity.unit ?? "ml";
  return {
    version: vessel?.version ?? null,
    name: vessel?.name ?? "",
    shape: vessel?.shape ?? ("cup" as Own["shape"]),
    capacity: typedOf(vessel?.capacity, unit),
    graduation: typedOf(vessel?.graduation, unit),
  };
}

function VesselForm({ vessel }: { vessel?: Own }) {
  const account = useAccount();
  const navigate = useNavigate();
  const may = useMay("manager");
  const checks = useMay("applicator");
  const draft = useDraft(`${account.slug}/vessel/${vessel?.id ?? "new"}`, typed(vessel));
  const { value, change } = draft;
  const save = useChange((path, body: Schemas["OwnVesselIn"]) =>
    vessel
      ? read(
          send.PUT("/api/accounts/{account}/vessels/{vessel_id}", {
            params: { path: { ...path, vessel_id: vessel.id } },
            body,
          }),
        )
      : read(send.POST("/api/accounts/{account}/vessels", { params: { path }, body })),
  );
  const retire = useChange((path, vessel_id: number) =>
    read(
      api.DELETE("/api/accounts/{account}/vessels/{vessel_id}", { params: { path: { ...path, vessel_id } } }),
    ),
  );
  const putBack = useChange((path, vessel_id: number) =>
    read(
      api.POST("/api/accounts/{account}/vessels/{vessel_id}/put-back", {
        params: { path: { ...path, vessel_id } },
      }),
    ),
  );
  const keep = useChange((path, { vessel_id, ...body }: Schemas["CupIn"] & { vessel_id: number }) =>
    read(
      api.POST("/api/accounts/{account}/vessels/{vessel_id}/check", {
        params: { path: { ...path, vessel_id } },
        body,
      }),
    ),
  );
  const units = (shape: Own["shape"]) => (shape === "scale" ? weightUnits : cupUnits)(account.units);
  const reshape = (shape: Own["shape"]) => {
    const same = (value.shape === "scale") === (shape === "scale");
    const unit = same ? value.capacity.unit : shape === "scale" ? "g" : "ml";
    change({ shape, capacity: { ...value.capacity, unit }, graduation: { ...value.graduation, unit } });
  };
  if (vessel?.retired)
    return (
      <Page sentence={`${vessel.name} is retired: no dose is measured with it.`}>
        <Fault error={putBack.error} />
        {may && (
          <Bar>
            <Button
              look="main"
              onPress={() =>
                putBack.mutate(vessel.id, {
                  onSuccess: () => {
                    say(`${vessel.name} is back.`);
                    void navigate(`/a/${account.slug}/kit`);
                  },
                })
              }
            >
              Put it back
            </Button>
          </Bar>
        )}
      </Page>
    );
  return (
    <Page
      sentence={
        vessel ? `${vessel.name}${vessel.state ? `: ${vessel.state}.` : "."}` : "A vessel to measure with."
      }
    >
      <CardForm
        what="vessel"
        place="kit"
        card={vessel}
        add="Add the vessel"
        added="is in the kit"
        body={() => ({
          ...value,
          graduation: value.graduation.value.trim() ? value.graduation : null,
        })}
        save={save}
        remove={retire}
        putBack={putBack}
        draft={draft}
        placed={["name", "shape", "capacity", "graduation"]}
      >
        <Fields>
          <TextField label="Name" name="name" value={value.name} onChange={(name) => change({ name })} />
          <PickField
            label="What it is"
            name="shape"
            value={value.shape}
            options={Object.entries(shapes).map(([key, text]) => ({ key, text }))}
            onChange={(key) => reshape(key as Own["shape"])}
          />
          <QuantityField
            label={value.shape === "scale" ? "Weighs up to" : "Holds"}
            name="capacity"
            value={value.capacity}
            units={units(value.shape)}
            onChange={(capacity) => change({ capacity })}
          />
          <QuantityField
            label={value.shape === "scale" ? "Shows steps of" : "Between two marks"}
            name="graduation"
            value={value.graduation}
            units={units(value.shape)}
            onChange={(graduation) => change({ graduation })}
            hint={value.shape === "scale" ? undefined : "Empty where it has none, as a spoon has."}
          />
        </Fields>
      </CardForm>
      <Hint style={{ marginTop: 12 }}>
        What has held a pesticide never goes back to the kitchen or the medicine shelf: mark it, and keep it
        locked up with the products.
      </Hint>
      {vessel && !vessel.weighs && (
        <CupCheck
          of={`${vessel.id}`}
          unit={vessel.capacity.unit}
          act={(check, forget) =>
            checks && (
              <>
                <Fault error={keep.error} />
                <Bar>
                  <Button
                    look="main"
                    isDisabled={keep.isPending}
                    onPress={() =>
                      keep.mutate(
                        { vessel_id: vessel.id, ...check },
                        {
                          onSuccess: () => {
                            forget();
                            say(`Kept: doses go by what ${vessel.name} really holds.`);
                          },
                        },
                      )
                    }
                  >
                    Keep this check
                  </Button>
                </Bar>
              </>
            )
          }
        />
      )}
    </Page>
  );
}

/** Add a vessel, change one, check its marks with water, or retire it. */
export function VesselPage() {
  const { id } = useParams();
  const vessels = useVessels();
  if (id === "new") return <VesselForm key="new" />;
  return (
    <Waiting of={vessels}>
      {(list) => {
        const vessel = list.find((v) => v.id === Number(id));
        return vessel ? (
          <VesselForm key={`${vessel.id} ${vessel.version}`} vessel={vessel} />
        ) : (
          <Page sentence="There is no such vessel.">
            <Empty>It may have been put away in another window.</Empty>
          </Page>
        );
      }}
    </Waiting>
  );
}
