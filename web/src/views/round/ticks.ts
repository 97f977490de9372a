import { useMutation, useQueryClient } from "@tanstack/react-query";
import { api, NoConnection, read, type Schemas } from "../../api/client";
import { useAccount } from "../../app/session";

type Round = Schemas["RoundOut"];
export type Tick = Schemas["TickIn"];

/**
 * Tick an act. The box shows it at once; without a connection it is sent again until it arrives, and a refusal takes
 * the tick back.
 */
export function useTick(round_id: number) {
  const account = useAccount().slug;
  const queries = useQueryClient();
  const key = [account, "round", round_id];
  return useMutation({
    mutationKey: key,
    scope: { id: `ticks-${round_id}` },
    mutationFn: (body: Tick) =>
      read(
        api.POST("/api/accounts/{account}/rounds/{round_id}/ticks", {
          params: { path: { account, round_id } },
          body,
        }),
      ),
    retry: (_, error) => error instanceof NoConnection,
    retryDelay: 2000,
    onMutate: async (tick) => {
      await queries.cancelQueries({ queryKey: key });
      queries.setQueryData<Round>(key, (now) => now && withTick(now, tick));
    },
    // an answer is older than the ticks still on their way: the last one brings the whole round
    onSuccess: (round) => queries.isMutating({ mutationKey: key }) === 1 && queries.setQueryData(key, round),
    onError: () => void queries.invalidateQueries({ queryKey: key }),
  });
}

function withTick(round: Round, { load, act, done }: Tick): Round {
  const others = round.ticks.filter((x) => !(x.load === load && x.act === act));
  const ticks = done ? [...others, { load, act, by: "", at: new Date().toISOString() }] : others;
  return { ...round, ticks };
}

export function ticked(round: Round, load: number, act: string) {
  return round.ticks.find((x) => x.load === load && x.act === act);
}
