import { useState } from "react";
import { useNavigate, useParams } from "react-router";
import { read, send, type Schemas } from "../../api/client";
import { useArea, useChange, useGroundOptions } from "../../api/hooks";
import { useDraft } from "../../app/draft";
import { useAccount, useMay } from "../../app/session";
import { say } from "../../app/toast";
import { Button } from "../../parts/Button";
import { DateField, todayHere } from "../../parts/DateField";
import { Fault, Notice } from "../../parts/Notice";
import { Page } from "../../parts/Page";
import { Bar } from "../../parts/Section";
import { SubRule } from "../../parts/SubRule";
import { Waiting } from "../../parts/Waiting";
import { areaParts } from "./areaParts";
import { MeasureBench } from "./MeasureBench";
import { blankSketch, toMeasure, type Sketch } from "./sketch";

/** Measure an area once more: it is compared with the size in use, and can take its place. */
export function MeasurePage() {
  const { id } = useParams();
  const account = useAccount();
  const navigate = useNavigate();
  const may = useMay("manager");
  const area = useArea(Number(id));
  const options = useGroundOptions();
  const draft = useDraft<Sketch>(`${account.slug}/measure/${id}`, blankSketch(account.units === "us"));
  const [on, setOn] = useState(todayHere());
  const keep = useChange((path, body: Schemas["MeasurementIn"]) =>
    read(
      send.POST("/api/accounts/{account}/areas/{area_id}/measurements", {
        params: { path: { ...path, area_id: Number(id) } },
        body,
      }),
    ),
  );
  const body = toMeasure(draft.value);
  const save = (use: boolean) =>
    body &&
    keep.mutate(
      { ...body, taken_on: on, use },
      {
        onSuccess: (whole) => {
          draft.clear();
          say(
            use ? `${whole.area.name} is ${whole.area.size.text} from now on.` : "The measurement is kept.",
          );
          void navigate(`/a/${account.slug}/ground/${id}`);
        },
      },
    );
  return (
    <Waiting of={area}>
      {({ area: a }) => (
        <Page sentence={`Measure ${a.name} again: two tapings that agree can be trusted.`}>
          <SubRule label="Parts of the area’s page" parts={areaParts(account.slug, a.id, may)} />
          <Waiting of={options}>
            {({ methods }) => (
              <MeasureBench sketch={draft.value} onChange={draft.change} methods={methods} areaId={a.id} />
            )}
          </Waiting>
          <Fault error={keep.error} />
          {may ? (
            <>
              <div style={{ maxWidth: 220, marginTop: 24 }}>
                <DateField label="Measured on" name="taken_on" value={on} onChange={setOn} />
              </div>
              <Bar>
                <Button look="main" isDisabled={!body || keep.isPending} onPress={() => save(false)}>
                  Keep the measurement
                </Button>
                <Button isDisabled={!body || keep.isPending} onPress={() => save(true)}>
                  Keep it and use its size
                </Button>
              </Bar>
            </>
          ) : (
            <Notice tone="note">A manager can keep it.</Notice>
          )}
        </Page>
      )}
    </Waiting>
  );
}
