"""Steppers run as plain Python until a compiler has made them fast; nobody waits long for it.

A stepper is one function, with every function of this package that it calls, written in the subset that numba takes.
`Stepper` calls the plain function until `warm()` has compiled (or loaded from the cache) its twin. What was compiled
before is loaded in a second or two, which a plain answer takes several times over: what is asked meanwhile waits for
it, up to PATIENCE_S.
"""

from __future__ import annotations

import dis
import hashlib
import threading
import types
from collections.abc import Callable
from pathlib import Path
from typing import Any

PACKAGE = __name__.partition(".")[0] + "."
PATIENCE_S = 8.0  # a plain forecast takes longer
_over = threading.Event()  # warming is over, or nobody waits for it any longer
_over.set()


def begin_warming() -> Callable[[], None]:
    """Have every stepper wait for its compiled form: until the function returned is called, at most for PATIENCE_S."""
    _over.clear()
    patience = threading.Timer(PATIENCE_S, _over.set)
    patience.daemon = True
    patience.start()

    def end() -> None:
        patience.cancel()
        _over.set()

    return end


class Stepper:
    """A numeric function in two forms: plain, and compiled once `warm` has run."""

    def __init__(self, plain: Callable[..., Any], fastmath: bool = False) -> None:
        assert isinstance(plain, types.FunctionType)
        self.plain = plain
        self._fastmath = fastmath
        self._fast: Callable[..., Any] | None = None

    @property
    def compiled(self) -> bool:
        """True if the compiled form answers now."""
        return self._fast is not None

    @property
    def ready(self) -> bool:
        """True if the compiled form answers; while steppers are warming, once that is known."""
        return self._settled() is not None

    def _settled(self) -> Callable[..., Any] | None:
        """The compiled form, None where there is none; while steppers are warming, once that is known."""
        if self._fast is None:
            _over.wait()
        return self._fast

    def __call__(self, *args: Any) -> Any:
        return (self._settled() or self.plain)(*args)

    def warm(self, *args: Any) -> bool:
        """Compile for these arguments; False when numba is missing (the plain form stays)."""
        try:
            import numba
        except ImportError:
            return False
        compiler = numba.njit(cache=True, error_model="numpy", fastmath=self._fastmath, forceinline=True)
        fast = _twin(self.plain, compiler, _digest(_called(self.plain)), {})
        fast(*args)
        fast.disable_compile()  # other types would be compiled again, in a request
        self._fast = fast
        return True


def _callees(function: types.FunctionType) -> dict[str, types.FunctionType]:
    """The functions of this package that a function names, by the name it uses."""
    named = {i.argval for i in dis.get_instructions(function) if i.opname == "LOAD_GLOBAL"}
    found = {name: function.__globals__.get(name) for name in named}
    return {k: f for k, f in found.items() if isinstance(f, types.FunctionType) and f.__module__.startswith(PACKAGE)}


def _called(function: types.FunctionType) -> set[types.FunctionType]:
    """The function and all that it calls."""
    return {function}.union(*(_called(f) for f in _callees(function).values()))


def _digest(functions: set[types.FunctionType]) -> str:
    """A short digest of the files that they stand in: the cache of one file does not see a change of another."""
    files = sorted({f.__code__.co_filename for f in functions})
    return hashlib.blake2s(b"".join(Path(f).read_bytes() for f in files), digest_size=6).hexdigest()


def _twin(
    function: types.FunctionType, compiler: Callable[[Any], Any], digest: str, made: dict[types.FunctionType, Any]
) -> Any:
    """A compiled copy of the function that calls compiled copies."""
    if function not in made:
        inner = {k: _twin(f, compiler, digest, made) for k, f in _callees(function).items()}
        copy = types.FunctionType(
            function.__code__, {**function.__globals__, **inner}, function.__name__, function.__defaults__
        )
        copy.__module__ = function.__module__
        copy.__qualname__ = f"{function.__qualname__}_{digest}"
        made[function] = compiler(copy)
    return made[function]
