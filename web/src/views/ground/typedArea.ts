import type { Schemas } from "../../api/client";
import type { TypedQuantity } from "../../parts/QuantityField";
import { blankSketch, toMeasure, type Sketch } from "./sketch";

export type Area = Schemas["AreaOut"];

/** An area as its form holds it: everything as text, so that nothing is lost while it is half typed. */
export interface TypedArea {
  version: number | null;
  site: string;
  name: string;
  size: TypedQuantity;
  share: string;
  parent: string;
  grass: string;
  blend: { grass: string; share: string }[];
  cultivar: string;
  use: string;
  height: TypedQuantity;
  texture: string;
  shade: string;
  slope: string;
  zone: string;
  sown_on: string;
  overseed_on: string;
  stress: string;
  tested_p: boolean;
  hazards: { kind: string; name: string; buffer: TypedQuantity; lies?: Schemas["LiesIn"] | null }[];
  note: string;
  sketch: Sketch;
}

/** What a form of an area begins with. */
export function typedArea(area: Area | undefined, us: boolean): TypedArea {
  const length = us ? "ft" : "m";
  return {
    version: area?.version ?? null,
    site: area ? `${area.site_id}` : "",
    name: area?.name ?? "",
    size: { value: area?.size.exact ?? "", unit: area?.size.unit ?? (us ? "ft2" : "m2") },
    share: "",
    parent: area?.parent_id ? `${area.parent_id}` : "",
    grass: area?.grass ?? "",
    blend: area?.blend ?? [],
    cultivar: area?.cultivar ?? "",
    use: area?.use ?? "",
    height: { value: area?.height?.exact ?? "", unit: area?.height?.unit ?? (us ? "in" : "mm") },
    texture: area?.texture ?? "",
    shade: area?.shade ?? "",
    slope: area?.slope ?? "",
    zone: area?.zone ?? "",
    sown_on: area?.sown_on ?? "",
    overseed_on: area?.overseed_on ?? "",
    stress: area?.stress ?? "none",
    tested_p: area?.tested_p ?? false,
    hazards:
      area?.hazards.map((h) => ({
        kind: h.kind,
        name: h.name,
        buffer: { value: h.buffer?.exact ?? "", unit: h.buffer?.unit ?? length },
        lies: h.lies,
      })) ?? [],
    note: area?.note ?? "",
    sketch: blankSketch(us),
  };
}

/** What goes to the server: the size as typed, as a share of another, or as it is measured. */
export function toAreaIn(v: TypedArea, measured: boolean): Schemas["AreaIn"] {
  const measure = measured ? toMeasure(v.sketch) : null;
  return {
    version: v.version,
    site_id: v.site ? Number(v.site) : null,
    name: v.name,
    size: measure || v.share.trim() ? null : v.size.value.trim() ? v.size : null,
    share: measure ? "" : v.share,
    measure,
    parent_id: v.parent ? Number(v.parent) : null,
    grass: v.grass,
    blend: v.blend
      .filter((b) => b.grass || b.share.trim())
      .map((b) => ({ grass: b.grass, share: b.share.trim() || null })),
    cultivar: v.cultivar,
    use: v.use,
    height: v.height.value.trim() ? v.height : null,
    texture: v.texture,
    shade: v.shade,
    slope: v.slope.trim() || null,
    zone: v.zone,
    sown_on: v.sown_on || null,
    overseed_on: v.overseed_on || null,
    stress: v.stress,
    tested_p: v.tested_p,
    hazards: v.hazards.map((h) => ({ ...h, buffer: h.buffer.value.trim() ? h.buffer : null })),
    note: v.note,
  };
}
