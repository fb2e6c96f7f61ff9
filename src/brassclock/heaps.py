"""The heaps of the process, kept from growing; where the C library is glibc."""

from __future__ import annotations

import ctypes
from contextlib import suppress

M_TRIM_THRESHOLD, M_MMAP_THRESHOLD, M_ARENA_MAX = -1, -3, -8  # of glibc's malloc.h
ALLOCATOR = {M_ARENA_MAX: 2, M_MMAP_THRESHOLD: 1 << 18, M_TRIM_THRESHOLD: 1 << 17}  # heaps; bytes; bytes


def bound_heaps() -> None:
    """Have glibc's allocator keep two heaps, not one for each thread: those grow for hours. To be called before any
    thread is started; elsewhere than on glibc nothing happens."""
    with suppress(OSError, AttributeError):
        libc = ctypes.CDLL("libc.so.6")
        for option, value in ALLOCATOR.items():
            libc.mallopt(option, value)


def give_back() -> None:
    """Give what the heaps no longer need back to the system, where that is glibc's."""
    with suppress(OSError, AttributeError):
        ctypes.CDLL("libc.so.6").malloc_trim(0)
