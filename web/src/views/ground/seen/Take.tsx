import { useRef, useState } from "react";
import { DropZone, FileTrigger, isFileDropItem, ProgressBar, Text } from "react-aria-components";
import styled from "styled-components";
import { ApiError, type Schemas } from "../../../api/client";
import { pictureOf, useAddSpot, usePutPhoto } from "../../../api/scouting";
import { useArea } from "../../../api/hooks";
import { useAccount } from "../../../app/session";
import { t } from "../../../app/theme";
import { AreaPlan } from "../../../parts/AreaPlan";
import { Button } from "../../../parts/Button";
import { Hint } from "../../../parts/Field";
import { Fault } from "../../../parts/Notice";
import { Bar, Fields } from "../../../parts/Section";
import { TextField } from "../../../parts/TextField";
import { Camera } from "./Camera";
import { ShotFields } from "./ShotFields";

const ACCEPT = ["image/jpeg", "image/png", "image/webp"];
const NEW = "new";

const Zone = styled(DropZone)`
  display: flex;
  flex-wrap: wrap;
  gap: 12px;
  align-items: center;
  border: 1px dashed ${t.rule};
  padding: 18px;
  margin-top: 16px;
  &[data-drop-target] {
    background: ${t.wash};
    border-color: ${t.accent};
  }
`;
const Queue = styled.ul`
  padding: 0;
  list-style: none;
  margin-top: 12px;
  li {
    display: grid;
    grid-template-columns: minmax(0, 1fr) 140px max-content;
    gap: 12px;
    align-items: center;
    padding: 5px 0;
    border-bottom: 1px solid ${t.hair};
  }
  .name {
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  .wrong {
    grid-column: 1 / -1;
    color: ${t.stop};
  }
`;
const Track = styled.div`
  height: 8px;
  border: 1px solid ${t.ink};
  i {
    display: block;
    height: 100%;
    background: ${t.accent};
  }
`;

interface Sent {
  key: number;
  file: File;
  share: number;
  done: boolean;
  wrong: string;
}

/** Photographs taken or brought, several at once; each says how far it has come, and can be tried again. */
export function Take({
  area_id,
  spots,
  onDone,
}: {
  area_id: number;
  spots: Schemas["SpotOut"][];
  onDone: () => void;
}) {
  const { slug, units } = useAccount();
  const us = units === "us";
  const addSpot = useAddSpot(area_id);
  const put = usePutPhoto(area_id);
  const count = useRef(0);
  const [sent, setSent] = useState<Sent[]>([]);
  const [camera, setCamera] = useState(false);
  const area = useArea(area_id);
  const plan = area.data?.plan;
  const [at, setAt] = useState<{ x: number; y: number } | null>(null);
  const [v, setV] = useState({ spot: spots[0] ? String(spots[0].id) : "", light: "", mown: "", name: "" });
  const change = (part: Partial<typeof v>) => setV((now) => ({ ...now, ...part }));
  const spot = spots.find((s) => String(s.id) === v.spot);
  const mark = (key: number, part: Partial<Sent>) =>
    setSent((now) => now.map((s) => (s.key === key ? { ...s, ...part } : s)));
  const bring = async (key: number, file: File) => {
    mark(key, { wrong: "", share: 0 });
    const noted = { spot_id: spot?.id, light: v.light, mown: v.mown };
    try {
      await put(file, noted, (share) => mark(key, { share }));
      mark(key, { done: true, share: 1 });
    } catch (wrong) {
      const field = wrong instanceof ApiError ? wrong.fields[0] : undefined;
      mark(key, { wrong: field?.problem ?? (wrong as Error).message });
    }
  };
  const take = (files: File[]) => {
    const fresh = files.map((file) => ({ key: ++count.current, file, share: 0, done: false, wrong: "" }));
    setSent((now) => [...now, ...fresh]);
    fresh.reduce((before, s) => before.then(() => bring(s.key, s.file)), Promise.resolve()).catch(() => {});
  };
  const unnamed = v.spot === NEW;
  return (
    <>
      <Fields $columns={3}>
        <ShotFields
          value={v}
          onChange={change}
          spots={spots}
          more={[{ key: NEW, text: "Another spot…", note: "a place one comes back to" }]}
        />
      </Fields>
      {unnamed && (
        <>
          <Fields $columns={3} style={{ marginTop: 14 }}>
            <TextField
              label="Name of the spot"
              name="name"
              value={v.name}
              onChange={(name) => change({ name })}
              hint="What one finds it by"
            />
          </Fields>
          {plan && (
            <>
              <Hint style={{ marginTop: 12 }}>Press the plan where it lies, if you like.</Hint>
              <AreaPlan
                plan={plan}
                us={us}
                label={at ? "The plan, with the spot marked" : "The plan, to mark the spot on"}
                spots={at ? [at] : []}
                onPick={(x, y) => setAt({ x, y })}
              />
            </>
          )}
          <Bar style={{ marginTop: 12 }}>
            <Button
              isDisabled={!v.name.trim() || addSpot.isPending}
              onPress={() =>
                addSpot.mutate(
                  { name: v.name, ...at },
                  {
                    onSuccess: (made) => {
                      change({ spot: String(made.id), name: "" });
                      setAt(null);
                    },
                  },
                )
              }
            >
              Keep the spot
            </Button>
          </Bar>
          <Fault error={addSpot.error} />
        </>
      )}
      {!unnamed && (
        <>
          <Hint style={{ marginTop: 10 }}>
            {spot?.last
              ? "Stand where you stood before, at the same hour and in the same light, before or after mowing alike: light and cut grass change a colour more than a treatment does."
              : "Where it was taken is removed from the picture; when it was taken is kept."}
          </Hint>
          {camera ? (
            <Camera
              ghost={spot?.last ? pictureOf(slug, spot.last) : ""}
              onTake={(file) => take([file])}
              onDone={() => setCamera(false)}
            />
          ) : (
            <Zone
              onDrop={(e) =>
                void Promise.all(e.items.filter(isFileDropItem).map((i) => i.getFile())).then(take)
              }
            >
              <FileTrigger
                acceptedFileTypes={ACCEPT}
                allowsMultiple
                onSelect={(files) => files && take([...files])}
              >
                <Button>Choose photographs</Button>
              </FileTrigger>
              {"mediaDevices" in navigator && (
                <Button onPress={() => setCamera(true)}>Use the camera here</Button>
              )}
              <Text slot="label">or drop them here</Text>
            </Zone>
          )}
        </>
      )}
      {sent.length > 0 && (
        <Queue aria-label="Photographs on their way" aria-live="polite">
          {sent.map((s) => (
            <li key={s.key}>
              <span className="name">{s.file.name}</span>
              <ProgressBar aria-label={`How far ${s.file.name} has come`} value={Math.round(100 * s.share)}>
                <Track>
                  <i style={{ width: `${100 * s.share}%` }} />
                </Track>
              </ProgressBar>
              {s.wrong ? (
                <Button look="quiet" onPress={() => void bring(s.key, s.file)}>
                  Try again
                </Button>
              ) : (
                <span>{s.done ? "kept" : s.share === 1 ? "being kept" : ""}</span>
              )}
              {s.wrong && <span className="wrong">{s.wrong}</span>}
            </li>
          ))}
        </Queue>
      )}
      <Bar style={{ marginTop: 14 }}>
        <Button look="quiet" onPress={onDone}>
          {sent.length > 0 ? "Done" : "Leave it"}
        </Button>
      </Bar>
    </>
  );
}
