import { useAreas } from "../../api/hooks";
import { useAsked } from "../../app/asked";
import { PickField } from "../../parts/PickField";

/** The area in the address, the first one (of a site) where it names none; and a field to pick another. */
export function useAreaPick(site?: number) {
  const areas = useAreas();
  const [search, change] = useAsked();
  const list = (areas.data?.areas ?? []).filter((a) => site === undefined || a.site_id === site);
  const asked = Number(search.get("area"));
  const area = list.find((a) => a.id === asked) ?? list[0];
  const pick = (id: number) => change({ area: String(id) });
  const field = (
    <PickField
      label="Area"
      name="area_id"
      value={area ? String(area.id) : null}
      options={list.map((a) => ({ key: String(a.id), text: a.name, note: a.grass_name }))}
      onChange={(key) => pick(Number(key))}
    />
  );
  return { area: area ?? null, pick, field, empty: areas.data !== undefined && list.length === 0 };
}
