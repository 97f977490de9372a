import { t } from "../../../app/theme";
import type { Turn } from "../../../api/programme";

type Stand = Turn["stand"];

/** How each state of a turn looks: a mark and a tone; its word is always beside it. */
export const marks: Record<Stand, string> = {
  late: "■",
  due: "◆",
  coming: "▷",
  later: "○",
  waiting: "◌",
  done: "●",
  skipped: "×",
  missed: "□",
};
export const tones: Record<Stand, string> = {
  late: t.stop,
  due: t.stop,
  coming: t.caution,
  later: t.ink,
  waiting: t.soft,
  done: t.accent,
  skipped: t.soft,
  missed: t.soft,
};

export const keyOf = (turn: Turn) => `${turn.step_id}-${turn.area_id}-${turn.number}`;
export const open = (turn: Turn) => !["done", "skipped", "missed"].includes(turn.stand);
