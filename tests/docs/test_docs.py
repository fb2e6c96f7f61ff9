"""The documents say what the program does: tables fresh, every command and key named, every picture there."""

from __future__ import annotations

import ast
import importlib
import re
import tomllib
from functools import cache
from pathlib import Path

import grimp
import pytest

import licences
import science_tables
from brassclock.cli import parser

ROOT = Path(__file__).parents[2]
README = (ROOT / "README.md").read_text("utf-8")


def test_parameter_tables_are_fresh() -> None:
    page = science_tables.PAGE.read_text("utf-8")
    assert science_tables.renewed(page) == page, "docs/science.md is stale: make tables"
    whole = science_tables.ALL.read_text("utf-8")
    assert science_tables.every_parameter() == whole, "docs/parameters.md is stale: make tables"


def test_the_licences_of_what_is_needed_are_fresh() -> None:
    assert licences.PAGE.read_text("utf-8") == licences.page(), "docs/licences.md is stale: python tools/licences.py"


SETTINGS = {"MOST_PREHEAT_S", "HOPELESS_S"}  # bounds of the computation


@pytest.mark.parametrize("room", ["surfaces", "risk", "heating", "legs", "ends", "layers", "actions", "edges"])
def test_every_number_of_the_heat_has_its_class(room: str) -> None:
    """A float that stands in these modules says its unit, range, class and source; a setting of the computation is
    named."""
    module = vars(importlib.import_module(f"brassclock.core.fire.{room}"))
    plain = {k for k, v in module.items() if k.isupper() and type(v) is float}
    plain |= {k for k, v in module.items() if k.isupper() and isinstance(v, dict) and float in map(type, v.values())}
    assert plain - SETTINGS == set()


def test_every_command_and_target_is_told() -> None:
    commands = next(a.choices for a in parser()._actions if isinstance(a.choices, dict))
    assert {c for c in commands if f"`brass-clock {c}" not in README} == set()
    makefile = (ROOT / "Makefile").read_text("utf-8")
    told = set(re.findall(r"make ([a-z]+)", README))
    assert {t for t in told if not re.search(rf"^{t}:", makefile, re.MULTILINE)} == set()


def test_docstrings_name_what_they_describe() -> None:
    """A docstring begins with a noun or a verb, not with a question."""
    asks = re.compile(r"(What|How|Whether|Where|When|Why|Which)\b")
    found = []
    for path in [*(ROOT / "src").rglob("*.py"), *(ROOT / "tools").glob("*.py")]:
        for node in ast.walk(ast.parse(path.read_text("utf-8"))):
            if isinstance(node, (ast.Module, ast.ClassDef, ast.FunctionDef)) and asks.match(
                ast.get_docstring(node) or ""
            ):
                found.append(f"{path.relative_to(ROOT)}: {getattr(node, 'name', 'the module')}")
    assert found == []


def test_every_key_is_told() -> None:
    source = (ROOT / "web/src/frame/KeysSheet.tsx").read_text("utf-8")
    keys = re.findall(r'^  \["([^"]+)", (?:"|SAY)', source, re.MULTILINE)
    assert len(keys) >= 9
    assert [k for k in keys if f"`{k}`" not in README] == []


def test_every_name_of_the_architecture_exists() -> None:
    """Every dotted name told there is a module of the house, or something in one."""
    page = (ROOT / "docs/architecture.md").read_text("utf-8")
    names = set(re.findall(r"`((?:services|core|store|api)(?:\.\w+)+)`", page))
    assert len(names) > 15
    missing = []
    for name in sorted(names):
        module, _, rest = f"brassclock.{name}".rpartition(".")
        try:
            importlib.import_module(f"brassclock.{name}")
        except ModuleNotFoundError:
            if not hasattr(importlib.import_module(module), rest):
                missing.append(name)
    assert missing == []


def test_every_link_leads_somewhere() -> None:
    for page in (ROOT / "README.md", ROOT / "CONTRIBUTING.md", *(ROOT / "docs").rglob("*.md")):
        links = re.findall(r"\]\(([^)#]+)\)", page.read_text("utf-8"))
        missing = [x for x in links if "://" not in x and not (page.parent / x).exists()]
        assert missing == [], f"{page.name}: {missing}"


MOST_FLOORS = 9


def test_the_services_have_nine_floors() -> None:
    """The longest chain of imports inside the services, counted in modules."""
    house = grimp.build_graph("brassclock")
    rooms = {m for m in house.modules if m.startswith("brassclock.services.")}
    below = {m: sorted(house.find_modules_directly_imported_by(m) & rooms) for m in rooms}

    @cache
    def chain(module: str) -> tuple[str, ...]:
        return max(((module, *chain(lower)) for lower in below[module]), key=len, default=(module,))

    longest = max(map(chain, rooms), key=len)
    assert len(longest) <= MOST_FLOORS, " > ".join(longest)


def test_the_lock_holds_every_package_that_is_asked_for() -> None:
    project = tomllib.loads((ROOT / "pyproject.toml").read_text("utf-8"))["project"]
    asked = [*project["dependencies"], *project["optional-dependencies"]["dev"]]
    locked = set(re.findall(r"^([a-z0-9._-]+)==", (ROOT / "requirements.lock").read_text("utf-8"), re.MULTILINE))
    names = [re.split(r"[\[<>=!~ ]", x)[0].lower().replace("_", "-") for x in asked]
    assert len(names) > 15
    assert [n for n in names if n not in locked] == []
