import { useEffect, useState } from "react";
import { useNavigate } from "react-router";
import styled from "styled-components";
import { ApiError } from "../api/client";
import { useLine } from "../api/hooks";
import { Button } from "../parts/Button";
import { FaultText } from "../parts/Field";
import { Bar } from "../parts/Section";
import { Working } from "../parts/Working";
import { jobToSearch } from "../views/reckon/state";
import { lately, noteLine } from "./lately";
import { LineExamples } from "./LineExamples";
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

interface Props {
  /** What the address says is asked. */
  asked: string;
  onAsk: (line: string) => void;
  onClose: () => void;
}

/** One line that reckons: a dose, a price, a date, a sum, in the words that people use. */
export default function ReckonLine({ asked: first, onAsk, onClose }: Props) {
  const account = useAccount();
  const navigate = useNavigate();
  const [text, setText] = useState(first);
  const line = useSettled(text, 80);
  useEffect(() => {
    if (line !== first) onAsk(line);
    // The address follows what is typed, never the other way round.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [line]);
  const { data, error } = useLine(line);
  const asked = error instanceof ApiError ? error : null;
  const job = asked ? null : data?.job;
  const close = () => {
    if (data && !error && text.trim()) noteLine(account.slug, text.trim());
    onClose();
  };
  const open = () => {
    if (!job) return;
    noteLine(account.slug, text.trim());
    void navigate(`/a/${account.slug}/reckon?${jobToSearch(job)}`);
  };
  return (
    <Sheet label="Reckon line" onClose={close} top>
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
          onKeyDown={(e) => {
            const last = lately(account.slug)[0];
            if (e.key === "ArrowUp" && !text && last) setText(last);
          }}
        />
      </form>
      {!text.trim() && <LineExamples onPick={setText} />}
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
        <Button onPress={close}>Close</Button>
      </Bar>
      {text.trim() && !error && data && <Working steps={data.working} />}
    </Sheet>
  );
}
