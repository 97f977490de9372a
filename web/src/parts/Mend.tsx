import type { Schemas } from "../api/client";
import { useThereAndBack } from "../app/useBack";
import { ButtonLink } from "./Button";

/** The way to where something that is missing is put right, and back. */
export function Mend({ way }: { way: Schemas["MendOut"] | null | undefined }) {
  const there = useThereAndBack();
  return way ? <ButtonLink to={there(way.to)}>{way.act}</ButtonLink> : null;
}
