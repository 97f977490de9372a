import { useState } from "react";
import type { Schemas } from "../api/client";
import { t } from "../app/theme";
import { Button } from "./Button";
import { FileDrop } from "./FileDrop";
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

const acts: Record<string, string> = {
  add: "Add",
  change: "Change",
  same: "As it is",
  refused: "At fault",
};

/** A file brought in: first what it would change, line by line; then, where nothing is at fault, the change itself. */
export function ImportBench({ accept, about, preview, keep, onKept }: Props) {
  const [file, setFile] = useState<Taken | null>(null);
  const take = async (picked: File | undefined) => {
    if (!picked) return;
    const taken = { name: picked.name, text: await picked.text() };
    setFile(taken);
    preview.mutate(taken);
  };
  const seen = preview.data;
  return (
    <>
      <FileDrop
        accept={accept}
        label="File to bring in"
        about={about}
        onTake={(picked) => void take(picked)}
      />
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
