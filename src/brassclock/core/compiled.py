"""Steppers run as plain Python until a compiler has had time to make them fast; nobody waits for it.

A stepper is one function with its helpers in one module, written in the subset that numba takes.
`Stepper` calls the plain function until `warm()` has compiled (or loaded from the cache) its twin.
"""

from __future__ import annotations

import types
from collections.abc import Callable, Sequence
from typing import Any


class Stepper:
    """A numeric function in two forms: plain, and compiled once `warm` has run."""

    def __init__(
        self, plain: Callable[..., Any], helpers: Sequence[Callable[..., Any]], fastmath: bool = False
    ) -> None:
        self.plain = plain
        self._fastmath = fastmath
        self._helpers = tuple(helpers)
        self._fast: Callable[..., Any] | None = None

    @property
    def ready(self) -> bool:
        """True if the compiled form answers."""
        return self._fast is not None

    def __call__(self, *args: Any) -> Any:
        return (self._fast or self.plain)(*args)

    def warm(self, *args: Any) -> bool:
        """Compile for these arguments; False when numba is missing (the plain form stays)."""
        try:
            import numba
        except ImportError:
            return False
        shared = dict(self.plain.__globals__)
        twin: Any = None
        for function in (*self._helpers, self.plain):
            assert isinstance(function, types.FunctionType)
            copy = types.FunctionType(function.__code__, shared, function.__name__, function.__defaults__)
            copy.__module__ = function.__module__
            copy.__qualname__ = function.__qualname__
            twin = numba.njit(cache=True, error_model="numpy", fastmath=self._fastmath)(copy)
            shared[function.__name__] = twin
        twin(*args)
        self._fast = twin
        return True
