import { useState } from "react";
import styled from "styled-components";
import { api, read, type Schemas } from "../../api/client";
import { useChange, usePoured } from "../../api/hooks";
import { useAccount } from "../../app/session";
import { useSettled } from "../../app/useSettled";
import { t } from "../../app/theme";
import { Button } from "../../parts/Button";
import { FaultsContext, faultsOf } from "../../parts/faults";
import { Fault, Notice } from "../../parts/Notice";
import { QuantityField, type TypedQuantity } from "../../parts/QuantityField";
import { Verdict } from "../../parts/Verdict";
import { doseUnits } from "../../parts/units";

const Box = styled.div`
  display: grid;
  gap: 8px;
  max-width: 460px;
  margin: 4px 0 10px;
  padding-left: 12px;
  border-left: 2px solid ${t.rule};
  @media print {
    display: none;
  }
`;
const Row = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 12px;
  align-items: end;
`;
const Told = styled.p`
  color: ${t.soft};
`;

interface Props {
  round: Schemas["RoundOut"];
  load: Schemas["LoadOut"];
  place: number;
  pour: Schemas["PourOut"];
  open: boolean;
  /** Its act is ticked. The check keeps its place, so that nothing moves under the next tick. */
  poured: boolean;
}

/** What was really measured of one product for one load: the rate that it makes, before anything is topped up. */
export function PourCheck({ round, load, place, pour, open, poured }: Props) {
  const { units } = useAccount();
  const kept = round.poured.find((p) => p.load === load.number && p.place === place);
  const unit = pour.measure?.vessel.unit ?? "";
  const list = [...doseUnits(units, true), ...doseUnits(units, false)];
  const start = list.find((u) => u.text === unit)?.key ?? list[0]!.key;
  const [typed, setTyped] = useState<TypedQuantity>(() => ({
    value: kept?.amount.exact ?? "",
    unit: kept?.amount.unit ?? start,
  }));
  const settled = useSettled(JSON.stringify(typed), 150);
  const asked = (JSON.parse(settled) as TypedQuantity).value.trim()
    ? { load: load.number, place, amount: JSON.parse(settled) as TypedQuantity }
    : null;
  const check = usePoured(round.id, open ? asked : null);
  const save = useChange((path, amount: TypedQuantity | null) =>
    read(
      api.POST("/api/accounts/{account}/rounds/{round_id}/poured", {
        params: { path: { ...path, round_id: round.id } },
        body: { load: load.number, place, amount },
      }),
    ),
  );
  const same = kept && kept.amount.exact === typed.value && kept.amount.unit === typed.unit;
  const found = open ? (typed.value.trim() ? check.data : undefined) : kept?.found;
  if (!open && !kept) return null;
  const label = round.mix.length > 1 ? `Really measured of ${pour.product}` : "Really measured";
  return (
    <FaultsContext.Provider value={faultsOf(check.error)}>
      <Box data-pour={`${load.number}-${place}`}>
        {open ? (
          <Row>
            <QuantityField label={label} name="amount" value={typed} units={list} onChange={setTyped} />
            <Button
              isDisabled={!typed.value.trim() ? !kept : !check.data || !!same || save.isPending}
              onPress={() => save.mutate(typed.value.trim() ? typed : null)}
              aria-label={`Note ${label.charAt(0).toLowerCase()}${label.slice(1)}`}
            >
              {same ? "Noted" : "Note it"}
            </Button>
          </Row>
        ) : (
          <Told>{`${label}: ${kept!.amount.text}, ${kept!.by}.`}</Told>
        )}
        {found && <Told data-answer="poured">{found.sentence}</Told>}
        {found?.slip && (
          <Notice tone={found.stops ? "stop" : "caution"} word={poured ? "It went in" : "Before it goes in"}>
            {found.slip}
          </Notice>
        )}
        {found && found.judgement.stand !== "within" && <Verdict judgement={found.judgement} />}
        <Fault error={save.error} besides={["amount"]} />
      </Box>
    </FaultsContext.Provider>
  );
}
