import { useState } from "react";
import { useNavigate } from "react-router";
import styled from "styled-components";
import { ApiError } from "../api/client";
import { useLine } from "../api/hooks";
import { Button } from "../parts/Button";
import { FaultText } from "../parts/Field";
import { Bar } from "../parts/Section";
import { Working } from "../parts/Working";
import { jobToSearch } from "../views/reckon/state";
import { useAccount } from "./session";
import { Sheet } from "./Sheet";
import { t } from "./theme";
import { useSettled } from "./useSettled";

const Input = styled.input`
  width: 100%;
  border: 0;
  border-bottom: 2px solid ${t.accent};
  background: none;
  font: 400 ${t.s24} ${t.text};
  padding: 6px 0;
  outline: none !important;
  &::placeholder {
    color: ${t.soft};
  }
`;
const Answer = styled.p<{ $refused: boolean }>`
  color: ${({ $refused }) => ($refused ? t.stop : t.ink)};
  font: 500 ${t.s24} / 1.3 ${t.serif};
  margin: 18px 0 6px;
`;
const Details = styled.ul`
  color: ${t.soft};
`;
const Ways = styled.ul`
  margin-top: 16px;
  color: ${t.soft};
  display: grid;
  gap: 4px;
  code {
    font: 500 ${t.s15} ${t.text};
    color: ${t.ink};
  }
`;

const ways: [string, string][] = [
  ["RATE of PRODUCT on AREA and half of AREA with MACHINE", "the dose and its loads"],
  ["how far does AMOUNT go at RATE", "the ground it covers"],
  ["what rate is AMOUNT of PRODUCT on AREA", "the sum backwards; “less AMOUNT” for what is left"],
  ["what does RATE of PRODUCT bring", "its nutrients and actives"],
  ["compare PRODUCT and PRODUCT on AREA for TARGET", "side by side"],
  ["measure AMOUNT of PRODUCT", "which vessel, which mark"],
  ["cup MARK weighs WEIGHT at 68 F", "whether a cup is true"],
  ["RATE in UNIT per AREA, or AMOUNT in UNIT", "a conversion"],
];

/** One line that reckons: a rate on an area, how far an amount goes, a conversion. */
export function ReckonLine({ onClose }: { onClose: () => void }) {
  const account = useAccount();
  const navigate = useNavigate();
  const [text, setText] = useState("");
  const line = useSettled(text, 80);
  const { data, error } = useLine(line);
  const asked = error instanceof ApiError ? error : null;
  const job = asked ? null : data?.job;
  const open = () => {
    if (!job) return;
    onClose();
    void navigate(`/a/${account.slug}/reckon?${jobToSearch(job)}`);
  };
  return (
    <Sheet label="Reckon line" onClose={onClose} top>
      <form
        onSubmit={(e) => {
          e.preventDefault();
          open();
        }}
      >
        <Input
          autoFocus
          aria-label="Reckon line"
          placeholder="0.4 fl oz/M on …"
          value={text}
          spellCheck={false}
          autoComplete="off"
          onChange={(e) => setText(e.target.value)}
        />
      </form>
      {!text.trim() && (
        <Ways>
          {ways.map(([how, what]) => (
            <li key={how}>
              <code>{how}</code>: {what}
            </li>
          ))}
        </Ways>
      )}
      <div aria-live="polite">
        {text.trim() && asked && asked.fields[0] && (
          <div style={{ marginTop: 18 }}>
            <FaultText fault={asked.fields[0]} onPick={setText} />
          </div>
        )}
        {text.trim() && error && !asked && <p>{error.message}</p>}
        {text.trim() && !error && data && (
          <>
            <Answer $refused={data.refused}>{data.sentence}</Answer>
            <Details>
              {data.details.map((d) => (
                <li key={d}>{d}</li>
              ))}
            </Details>
          </>
        )}
      </div>
      <Bar style={{ margin: "16px 0" }}>
        {job && (
          <Button look="main" onPress={open}>
            Open in Reckon
          </Button>
        )}
        <Button onPress={onClose}>Close</Button>
      </Bar>
      {text.trim() && !error && data && <Working steps={data.working} />}
    </Sheet>
  );
}
