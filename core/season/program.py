"""A mixed-integer program as it is built, and what HiGHS finds: told how far it is, and ended by whoever asked.

HiGHS: Huangfu Q, Hall JAJ (2018) Math Prog Comp 10:119-142, through its own binding.
"""

import math
from collections.abc import Callable, Sequence
from dataclasses import dataclass
from importlib import import_module
from typing import Any

import numpy as np
from scipy.sparse import coo_array


@dataclass(frozen=True)
class Progress:
    """How far a search is: what the best plan found comes to, and the least that any can; neither where none is known [money]."""

    best: float | None
    least: float | None


UNKNOWN = Progress(None, None)
Watch = Callable[[Progress], bool]
"""Told how far a search is, now and then; it is ended where the answer is False."""


class Program:
    """The rows and columns of a program as they are built."""

    def __init__(self) -> None:
        self.costs: list[float] = []
        self.low: list[float] = []
        self.high: list[float] = []
        self.whole: list[int] = []
        self.rows: list[tuple[list[int], list[float], float]] = []

    def column(self, cost: float, high: float = 1.0, whole: bool = True, low: float = 0.0) -> int:
        """A quantity to be chosen between `low` and `high`, and its number.

        Args:
            cost: of one of it [money].
            high: its most [1].
            whole: whether it is counted in wholes.
            low: its least [1].
        """
        self.costs.append(cost)
        self.low.append(low)
        self.high.append(high)
        self.whole.append(int(whole))
        return len(self.costs) - 1

    def at_most(self, columns: Sequence[int], shares: Sequence[float], most: float) -> None:
        """A sum of quantities that may not pass a bound.

        Args:
            columns: the quantities, by number.
            shares: how much of each counts [1].
            most: the bound [1].
        """
        if columns:
            self.rows.append((list(columns), list(shares), most))

    def solve(self, limits: "Limits", watch: Watch | None, base: float) -> "Solved":
        """What HiGHS finds.

        Args:
            limits: when it may end.
            watch: told how far it is.
            base: what costs have to be counted from [money].
        """
        highs: Any = import_module("highspy")  # slow to load, and for plans alone
        solver = highs.Highs()
        solver.setOptionValue("log_to_console", False)
        solver.setOptionValue("output_flag", False)
        solver.setOptionValue("time_limit", limits.seconds)
        solver.setOptionValue("mip_rel_gap", limits.gap)
        if not any(self.whole):
            solver.setOptionValue("presolve", "off")  # it takes longer than it saves here
        solver.passModel(self._told(highs))
        if watch and any(self.whole):

            def heard(event: Any) -> None:
                best, least = (x + base if math.isfinite(x) else None for x in _bounds(event.data_out))
                if not watch(Progress(best, least)):
                    event.interrupt()

            solver.cbMipInterrupt += heard
        if any(self.whole):
            solver.run()
        else:
            _in_steps(highs, solver, limits.seconds, watch)
        info, status, solution = solver.getInfo(), solver.getModelStatus(), solver.getSolution()
        values = list(solution.col_value) if info.primal_solution_status == 2 else None  # 2: it keeps every row
        bound = info.mip_dual_bound if any(self.whole) else self.least(solution.row_dual)
        least = bound if math.isfinite(bound) else None
        return Solved(values, least, status == highs.HighsModelStatus.kOptimal, status == highs.HighsModelStatus.kInfeasible)

    def least(self, prices: Sequence[float]) -> float:
        """The least that quantities within their bounds and rows can cost, whole or not, by any prices put on the rows [money].

        What each quantity costs once the rows it takes part in are paid for is met by its better bound, so that it holds for
        prices of a search that was cut short, too: Neumaier A, Shcherbina O (2004) Math Program 99:283-296.

        Args:
            prices: what one more of each row's bound would change the cost by, none of them above zero [money]; of no row
                where nothing is known.
        """
        if not len(prices):
            return -math.inf
        paid = np.minimum(np.asarray(prices, float), 0.0)
        left = np.asarray(self.costs) - self._matrix().T @ paid
        met = np.where(left > 0, left * np.asarray(self.low), left * np.asarray(self.high))
        return math.fsum(met) + math.fsum(paid * np.array([most for _, _, most in self.rows]))

    def _matrix(self) -> Any:
        """How much of each quantity counts in each row, as rows by columns."""
        at = [(r, c, v) for r, (columns, shares, _) in enumerate(self.rows) for c, v in zip(columns, shares, strict=True)]
        rows, columns, values = (np.array(x) for x in zip(*at, strict=True)) if at else (np.zeros(0, int),) * 3
        return coo_array((values, (rows, columns)), shape=(len(self.rows), len(self.costs))).tocsr()

    def _told(self, highs: Any) -> Any:
        matrix = self._matrix()
        program = highs.HighsLp()
        program.num_col_, program.num_row_ = len(self.costs), len(self.rows)
        program.col_cost_, program.col_lower_, program.col_upper_ = map(np.array, (self.costs, self.low, self.high))
        program.row_lower_ = np.full(len(self.rows), -highs.kHighsInf)
        program.row_upper_ = np.array([most for _, _, most in self.rows], float)
        program.a_matrix_.format_ = highs.MatrixFormat.kRowwise
        program.a_matrix_.start_, program.a_matrix_.index_, program.a_matrix_.value_ = matrix.indptr, matrix.indices, matrix.data
        kinds = (highs.HighsVarType.kContinuous, highs.HighsVarType.kInteger)
        program.integrality_ = [kinds[w] for w in self.whole]
        return program


@dataclass(frozen=True)
class Limits:
    """When a search may end: after so long [s], or where no plan can be cheaper by more than a share of `gap`."""

    seconds: float
    gap: float


@dataclass(frozen=True)
class Solved:
    """The quantities that were found, if any; the least that any can cost, if known; `done` where none is cheaper than what was
    found, `never` where none can be.
    """

    values: list[float] | None
    least: float | None
    done: bool
    never: bool


STEP = 0.25
"""How long a program without whole numbers is solved at a time [s]; asked at every pivot, who watches would hold it up (ours)."""


def _in_steps(highs: Any, solver: Any, seconds: float, watch: Watch | None) -> None:
    """Solve what can be taken up again where it stood, until it is done, its time is over, or whoever watches ends it."""
    until = 0.0
    while until < seconds and (not watch or watch(UNKNOWN)):
        until = min(seconds, until + STEP)
        solver.setOptionValue("time_limit", until)
        solver.run()
        if solver.getModelStatus() != highs.HighsModelStatus.kTimeLimit:
            return


def _bounds(data: Any) -> tuple[float, float]:
    return data.mip_primal_bound, data.mip_dual_bound
