import { useRef, useState } from "react";
import styled from "styled-components";
import type { Schemas } from "../api/client";
import { t } from "../app/theme";
import { Button } from "./Button";
import { Ledger } from "./Ledger";
import { Fault, Notice } from "./Notice";
import { Bar } from "./Section";

type Import = Schemas["ImportOut"];

interface Props {
  /** What files are taken, as an input's `accept`. */
  accept: string;
  about: string;
  preview: { mutate: (file: Taken) => void; data?: Import; error: Error | null; isPending: boolean };
  keep: {
    mutate: (file: Taken, then: { onSuccess: (done: Import) => void }) => void;
    error: Error | null;
    isPending: boolean;
  };
  onKept: (done: Import) => void;
}

export interface Taken {
  name: string;
  text: string;
}

const Drop = styled.label`
  display: grid;
  gap: 6px;
  justify-items: start;
  border: 1px dashed ${t.rule};
  padding: 24px;
  max-width: 60ch;
  cursor: pointer;
  input {
    font: inherit;
  }
  &:focus-within {
    outline: 2px solid ${t.accent};
  }
`;
const acts: Record<string, string> = {
  add: "Add",
  change: "Change",
  same: "As it is",
  refused: "At fault",
};

/** A file brought in: first what it would change, line by line; then, where nothing is at fault, the change itself. */
export function ImportBench({ accept, about, preview, keep, onKept }: Props) {
  const [file, setFile] = useState<Taken | null>(null);
  const input = useRef<HTMLInputElement>(null);
  const take = async (picked: File | undefined) => {
    if (!picked) return;
    const taken = { name: picked.name, text: await picked.text() };
    setFile(taken);
    preview.mutate(taken);
  };
  const seen = preview.data;
  return (
    <>
      <Drop>
        <span>{about}</span>
        <input
          ref={input}
          type="file"
          accept={accept}
          aria-label="File to bring in"
          onChange={(e) => void take(e.target.files?.[0])}
        />
      </Drop>
      <Fault error={preview.error ?? keep.error} />
      {seen && (
        <div style={{ marginTop: 24 }}>
          <Notice tone={seen.refused ? "stop" : "note"} word={seen.refused ? "At fault" : "It would be"}>
            {seen.sentence}
          </Notice>
          <Ledger>
            <thead>
              <tr>
                <th className="figure">Line</th>
                <th>Name</th>
                <th>What happens</th>
                <th>Changes, or what is at fault</th>
              </tr>
            </thead>
            <tbody>
              {seen.lines.map((line) => (
                <tr key={line.line}>
                  <td className="figure">{line.line}</td>
                  <td>{line.name}</td>
                  <td style={line.act === "refused" ? { color: t.stop, fontWeight: 600 } : undefined}>
                    {acts[line.act]}
                  </td>
                  <td>
                    {[...line.changes, ...line.problems].map((c) => (
                      <div key={c}>{c}</div>
                    ))}
                  </td>
                </tr>
              ))}
            </tbody>
          </Ledger>
          <Bar>
            <Button
              look="main"
              isDisabled={seen.refused > 0 || keep.isPending || !file}
              onPress={() => file && keep.mutate(file, { onSuccess: onKept })}
            >
              Bring it in
            </Button>
          </Bar>
        </div>
      )}
    </>
  );
}
