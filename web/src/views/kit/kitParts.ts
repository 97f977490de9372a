import type { Schemas } from "../../api/client";

/** What vessels are called by their shape. */
export const shapes: Record<Schemas["OwnVesselOut"]["shape"], string> = {
  syringe: "Syringe",
  cup: "Cup",
  jug: "Jug",
  spoon: "Spoon",
  scale: "Scale",
};

/** The parts of a machine's page, as its sub-rule shows them. */
export function machineParts(account: string, machine: Schemas["MachineOut"], may: boolean) {
  const at = `/a/${account}/kit/${machine.id}`;
  const sprays = machine.kind === "sprayer";
  return [
    { to: at, text: "The machine" },
    { to: `${at}/calibrate`, text: "Calibrate" },
    ...(sprays && machine.form !== "hose_end"
      ? [
          { to: `${at}/nozzle`, text: "Nozzle" },
          { to: `${at}/pace`, text: "Pace" },
        ]
      : []),
    ...(sprays ? [] : [{ to: `${at}/setting`, text: "Setting" }]),
    { to: `${at}/clean`, text: sprays ? "Tank" : "Hopper" },
    ...(may ? [{ to: `${at}/change`, text: "Change it" }] : []),
  ];
}
