"""Pictures as they come from a camera: read with bounds, turned upright, made small, stripped of all else."""

from __future__ import annotations

import io
from dataclasses import dataclass

MOST_BYTES = 12_000_000
MOST_SIDE, MOST_MEGAPIXELS = 20_000, 60
KEPT_SIDE = 1600  # of the longer side [px]
QUALITY = 82
KINDS = ("JPEG", "PNG", "WEBP")
PLAIN = {0xE0, 0xDB, 0xC0, 0xC2, 0xC4, 0xDD}  # segments of a JPEG that holds a picture and nothing else
SCAN, START, END = 0xDA, b"\xff\xd8", b"\xff\xd9"


class NoPicture(ValueError):
    """Bytes that are no picture here; the text says what is wrong and what would be right."""


@dataclass(frozen=True)
class Picture:
    """A JPEG with its size [px]. It holds no place, no camera and no time."""

    body: bytes
    width: int
    height: int


def picture_of(raw: bytes) -> Picture:
    """A picture of at most 1600 px, upright. Raises NoPicture for too many bytes or pixels, and for what is none of
    JPEG, PNG or WebP, whatever its name says.

    The size is read off the head before a pixel is decoded.
    """
    from PIL import Image, ImageOps  # loaded when a picture comes: it would hold up the start

    if len(raw) > MOST_BYTES:
        most = MOST_BYTES // 1_000_000
        raise NoPicture(f"{len(raw) / 1e6:.0f} MB is too much for a picture. Send less than {most} MB.")
    try:
        with Image.open(io.BytesIO(raw), formats=KINDS) as image:
            width, height = image.size
            if max(width, height) > MOST_SIDE or width * height > MOST_MEGAPIXELS * 1_000_000:
                raise NoPicture(f"{width} x {height} px is too large. Send at most {MOST_MEGAPIXELS} megapixels.")
            image.draft("RGB", (KEPT_SIDE, KEPT_SIDE))
            upright = ImageOps.exif_transpose(image).convert("RGB")
    except NoPicture:
        raise
    except Image.DecompressionBombError:  # told by the library before the size is known here
        raise NoPicture(f"That picture is far too large. Send at most {MOST_MEGAPIXELS} megapixels.") from None
    except Exception as fault:  # the library tells a broken file in many ways
        raise NoPicture("That cannot be read as a picture. Send a JPEG, a PNG or a WebP.") from fault
    upright.thumbnail((KEPT_SIDE, KEPT_SIDE))
    plain = Image.new("RGB", upright.size)
    plain.paste(upright)
    out = io.BytesIO()
    plain.save(out, "JPEG", quality=QUALITY, optimize=True)
    return Picture(out.getvalue(), *plain.size)


def kept_of(raw: bytes) -> Picture:
    """A picture that was kept before, byte for byte where it is plain and small; else as `picture_of` makes it."""
    from PIL import Image

    if len(raw) <= MOST_BYTES and _is_plain(raw):
        try:
            with Image.open(io.BytesIO(raw), formats=("JPEG",)) as image:
                if max(image.size) <= KEPT_SIDE:
                    image.load()
                    return Picture(raw, *image.size)
        except Exception:  # the library tells a broken file in many ways; the other way tells it in words
            return picture_of(raw)
    return picture_of(raw)


def _is_plain(raw: bytes) -> bool:
    """True for a JPEG of one scan and its tables: no place, no camera, no text, nothing after its end."""
    if not raw.startswith(START) or not raw.endswith(END):
        return False
    at = len(START)
    while at + 4 <= len(raw) and raw[at] == 0xFF and raw[at + 1] in PLAIN:
        at += 2 + int.from_bytes(raw[at + 2 : at + 4], "big")
    return raw[at : at + 2] == bytes((0xFF, SCAN)) and END not in raw[at:-2]
