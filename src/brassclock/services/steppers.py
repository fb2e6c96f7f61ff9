"""The integrators, compiled or loaded from the cache."""

from __future__ import annotations

import threading
from collections.abc import Callable

from brassclock.core.compiled import begin_warming

COLD_S = 3.0  # loading what was compiled before takes less
COLD_WORDS = "Brass Clock is compiled for this machine once: about half a minute."


def warm_all(told: Callable[[], None] | None = None) -> bool:
    """Compile the steppers, or load them from the cache; False when there is no compiler and the plain path stays.

    What is computed meanwhile waits for it a little. `told` is called, in a thread of its own, when it takes long.
    """
    from brassclock.core.fire.puff import model as puff_model
    from brassclock.core.keep.hold import model as keep_model
    from brassclock.core.rise import course as yeast_course

    long = threading.Timer(COLD_S, told or (lambda: None))
    long.daemon = True
    long.start()
    end = begin_warming()
    try:
        return yeast_course.warm() and puff_model.warm() and keep_model.warm()
    finally:
        long.cancel()
        end()
