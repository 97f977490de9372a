"""What the core says when it will not compute: the field, the value, the fault and what to do about it."""

from collections.abc import Sequence
from dataclasses import dataclass


@dataclass(frozen=True)
class Choice:
    """One way to read an ambiguous input, in words a person can pick from."""

    text: str
    meaning: str


class InputError(ValueError):
    """An input that no honest number can be made from.

    `field` names the input, `value` is what was given, `problem` says what is wrong with it and `remedy` what to do;
    `choices` are the readings to pick from where there are several.
    """

    code = "invalid"

    def __init__(self, field: str, value: object, problem: str, remedy: str = "", choices: Sequence[Choice] = ()) -> None:
        self.field = field
        self.value = value
        self.problem = problem
        self.remedy = remedy
        self.choices = tuple(choices)
        super().__init__(f"{field}: {self.sentence}")

    @property
    def sentence(self) -> str:
        return f"{self.problem} {self.remedy}".strip()

    def on(self, field: str) -> "InputError":
        """The same fault, reported on another field name."""
        return type(self)(field, self.value, self.problem, self.remedy, self.choices)


class Ambiguous(InputError):
    """A word that the trade uses for two different things; the answer is a question, never a guess."""

    code = "ambiguous"


class NotUnderstood(InputError):
    """Text, or a part of it, that the grammar does not know."""

    code = "not_understood"


class Refused(InputError):
    """A plan that the label forbids. The rule is quoted in `problem`."""

    code = "refused"
