"""Pictures as they come from a camera: upright, small, without place or camera; hostile ones are refused unharmed."""

from __future__ import annotations

import io
import struct
import zlib

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from PIL import Image

from brassclock.formats.picture import MOST_BYTES, NoPicture, picture_of

ORIENTATION, GPS, MAKE = 0x0112, 0x8825, 0x010F


def camera(width: int, height: int, kind: str = "JPEG", turned: int | None = None) -> bytes:
    """A picture whose left half is white; with a place and a maker in its head."""
    image = Image.new("RGB", (width, height), "black")
    image.paste("white", (0, 0, width // 2, height))
    exif = Image.Exif()
    exif[MAKE] = "A camera"
    exif.get_ifd(GPS)[1] = "N"
    if turned:
        exif[ORIENTATION] = turned
    out = io.BytesIO()
    image.save(out, kind, exif=exif)
    return out.getvalue()


@pytest.mark.parametrize("kind", ["JPEG", "PNG", "WEBP"])
def test_a_picture_is_made_small_and_tells_no_place(kind: str) -> None:
    found = picture_of(camera(3200, 2400, kind))
    kept = Image.open(io.BytesIO(found.body))
    assert (kept.format, kept.size) == ("JPEG", (1600, 1200)) == ("JPEG", (found.width, found.height))
    assert len(kept.getexif()) == 0 and "exif" not in kept.info and b"A camera" not in found.body


def test_a_picture_taken_sideways_stands_upright() -> None:
    """Orientation 6: the camera was turned a quarter; the white left half of the pixels is the upper half as seen."""
    found = picture_of(camera(800, 400, turned=6))
    kept = Image.open(io.BytesIO(found.body))
    assert kept.size == (400, 800)
    assert kept.getpixel((200, 40))[0] > 200 > 50 > kept.getpixel((200, 760))[0]


def png_head(width: int, height: int) -> bytes:
    """A PNG that claims a size and holds next to nothing."""

    def chunk(name: bytes, body: bytes) -> bytes:
        return struct.pack(">I", len(body)) + name + body + struct.pack(">I", zlib.crc32(name + body))

    head = struct.pack(">IIBBBBB", width, height, 8, 2, 0, 0, 0)
    return b"\x89PNG\r\n\x1a\n" + chunk(b"IHDR", head) + chunk(b"IDAT", zlib.compress(b"\0")) + chunk(b"IEND", b"")


@pytest.mark.parametrize(
    ("raw", "tells"),
    [
        (b"Two hundred grams of flour", "cannot be read as a picture"),
        (b"<svg xmlns='http://www.w3.org/2000/svg'><script>alert(1)</script></svg>", "cannot be read as a picture"),
        (camera(600, 400)[:900], "cannot be read as a picture"),
        (png_head(30_000, 30_000), "at most 60 megapixels"),
        (png_head(9_000, 9_000), "9000 x 9000 px is too large"),
        (png_head(900, 900), "cannot be read as a picture"),
        (b"\xff\xd8" + bytes(MOST_BYTES), "12 MB is too much"),
        (b"", "cannot be read as a picture"),
    ],
    ids=["text", "script", "cut off", "huge", "large", "empty pixels", "heavy", "nothing"],
)
def test_what_is_no_picture_is_told(raw: bytes, tells: str) -> None:
    with pytest.raises(NoPicture, match=tells):
        picture_of(raw)


@settings(max_examples=60, deadline=None)
@given(st.binary(max_size=400), st.integers(0, 300))
def test_no_bytes_get_further_than_the_reader(noise: bytes, at: int) -> None:
    raw = bytearray(camera(60, 40))
    raw[at : at + len(noise)] = noise
    try:
        found = picture_of(bytes(raw))
    except NoPicture:
        return
    assert Image.open(io.BytesIO(found.body)).size == (found.width, found.height)
