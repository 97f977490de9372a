"""What an answer weighs in memory, about: of a long list some are weighed and the rest taken for alike."""

import sys
from collections.abc import Iterable
from datetime import date, timedelta, tzinfo
from decimal import Decimal
from enum import Enum
from types import FunctionType, MappingProxyType, ModuleType
from typing import Any
from uuid import UUID

import numpy as np
import shapely
from django.db.models import Model, QuerySet
from shapely.geometry.base import BaseGeometry

SOME = 12
"""How many of a list are weighed."""
DEEP = 14
"""How deep things within things are weighed."""
PLAIN = (bool, int, float, complex, date, timedelta, Decimal, UUID, np.generic)
SHARED = (type, Enum, tzinfo, FunctionType, ModuleType)
"""What is there whether or not an answer holds it."""


def weigh(value: Any) -> int:
    """What a value and all within it weigh [bytes]; what it holds twice counts once."""
    return _weigh(value, set(), 0)


def _weigh(value: Any, counted: set[int], depth: int) -> int:
    if value is None or isinstance(value, SHARED) or id(value) in counted or depth > DEEP:
        return 0
    if isinstance(value, PLAIN):
        return sys.getsizeof(value)
    counted.add(id(value))
    if isinstance(value, str | bytes):
        return sys.getsizeof(value)
    if isinstance(value, np.ndarray):
        return 128 + (value.nbytes if value.base is None else value.base.nbytes if isinstance(value.base, np.ndarray) else 0)
    if isinstance(value, dict | MappingProxyType):
        return sys.getsizeof(value) + _alike((part for pair in value.items() for part in pair), 2 * len(value), counted, depth)
    if isinstance(value, list | tuple | set | frozenset):
        return sys.getsizeof(value) + _alike(value, len(value), counted, depth)
    if isinstance(value, QuerySet):
        return 500 + _weigh(value._result_cache, counted, depth + 1)
    if isinstance(value, BaseGeometry):
        return 200 + 16 * int(shapely.get_num_coordinates(value))
    held = getattr(value, "__dict__", None) or {n: getattr(value, n, None) for n in getattr(type(value), "__slots__", ())}
    if isinstance(value, Model):
        held = {k: v for k, v in held.items() if k != "_state"}  # the rows that it refers to are weighed where they are kept
    return sys.getsizeof(value) + _weigh(held, counted, depth + 1)


def _alike(every: Iterable[Any], count: int, counted: set[int], depth: int) -> int:
    """What so many weigh, if the rest is like the first ones."""
    weighed = total = 0
    for one in every:
        if weighed == SOME * 2:
            break
        total += _weigh(one, counted, depth + 1)
        weighed += 1
    return total * count // weighed if weighed else 0
