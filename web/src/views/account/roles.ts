import type { Schemas } from "../../api/client";

export type RoleName = Schemas["RoleIn"]["role"];

export const roles: { key: RoleName; text: string; note: string }[] = [
  { key: "manager", text: "Manager", note: "changes everything" },
  { key: "applicator", text: "Applicator", note: "reads everything, works rounds" },
  { key: "viewer", text: "Viewer", note: "reads everything" },
];
