"""What the core says when it will not compute: the field, the value, the fault and what to do about it."""

from collections.abc import Sequence
from dataclasses import dataclass


@dataclass(frozen=True)
class Choice:
    """One way to read an ambiguous input, in words a person can pick from."""

    text: str
    meaning: str


@dataclass(frozen=True)
class Mend:
    """Where something is put right: `what` of a thing is missing, such as the output of a machine, and the `id` of its card."""

    what: str
    id: int | None = None


OUTPUT, DENSITY = "output", "density"
"""What can be missing: the output of a machine, the density of a product."""


class InputError(ValueError):
    """An input that no honest number can be made from.

    `field` names the input, `value` is what was given, `problem` says what is wrong with it and `remedy` what to do;
    `choices` are the readings to pick from where there are several, `mend` is where what is missing is put right.
    """

    code = "invalid"

    def __init__(
        self,
        field: str,
        value: object,
        problem: str,
        remedy: str = "",
        choices: Sequence[Choice] = (),
        *,
        mend: Mend | None = None,
    ) -> None:
        self.field = field
        self.value = value
        self.problem = problem
        self.remedy = remedy
        self.choices = tuple(choices)
        self.mend = mend
        super().__init__(f"{field}: {self.sentence}")

    @property
    def sentence(self) -> str:
        return f"{self.problem} {self.remedy}".strip()

    def on(self, field: str) -> "InputError":
        """The same fault, reported on another field name."""
        return type(self)(field, self.value, self.problem, self.remedy, self.choices, mend=self.mend)


class Ambiguous(InputError):
    """A word that the trade uses for two different things; the answer is a question, never a guess."""

    code = "ambiguous"


class NotUnderstood(InputError):
    """Text, or a part of it, that the grammar does not know."""

    code = "not_understood"


class Refused(InputError):
    """A plan that the label forbids. The rule is quoted in `problem`."""

    code = "refused"
