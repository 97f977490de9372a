import { TextField } from "./TextField";

interface Props {
  label: string;
  name: string;
  value: string;
  onChange: (value: string) => void;
  hint?: string;
}

/** A day. */
export function DateField(props: Props) {
  return <TextField {...props} input={{ type: "date" }} />;
}

/** A time of day. */
export function TimeField(props: Props) {
  return <TextField {...props} input={{ type: "time" }} />;
}

/** Today at this device, as a day field holds it. */
export function todayHere(): string {
  const now = new Date();
  return new Date(now.getTime() - now.getTimezoneOffset() * 60_000).toISOString().slice(0, 10);
}
