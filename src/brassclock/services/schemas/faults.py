"""Field faults of what was given, in a cook's words: what is wrong, and what would be right."""

from typing import Any

from pydantic import ValidationError

from brassclock.core.errors import FieldFault

MOST_QUOTED = 60
WORDS = {  # by the validator's type; {given} is what was given, the others are the bounds of the field
    "missing": "This is needed. Give it.",
    "extra_forbidden": "This is not known here. Leave it out, or see how it is spelt.",
    "float_parsing": "{given} is no number. Write one, as 21 or 21.5.",
    "float_type": "{given} is no number. Write one, as 21 or 21.5.",
    "int_parsing": "{given} is no whole number. Write one, as 8.",
    "int_type": "{given} is no whole number. Write one, as 8.",
    "int_from_float": "{given} is no whole number. Write one, as 8.",
    "finite_number": "{given} is no number that can be used. Write one, as 21.5.",
    "string_type": "{given} is no text. Write it in words.",
    "bool_type": "{given} is neither yes nor no. Give true or false.",
    "bool_parsing": "{given} is neither yes nor no. Give true or false.",
    "list_type": "{given} is no list. Give one, as [].",
    "dict_type": "{given} is no set of named values.",
    "model_type": "{given} is no set of named values.",
    "model_attributes_type": '{given} is no set of named values. Give them, as {{"name": "value"}}.',
    "literal_error": "{given} is none of them. Use {expected}.",
    "greater_than_equal": "{given} is too little. Give {ge} or more.",
    "less_than_equal": "{given} is too much. Give {le} or less.",
    "greater_than": "{given} is too little. Give more than {gt}.",
    "less_than": "{given} is too much. Give less than {lt}.",
    "string_too_long": "That is too long. At most {max_length} letters fit.",
    "string_too_short": "That is too short. At least {min_length} letters are needed.",
    "too_long": "These are {actual_length}. At most {max_length} fit.",
    "too_short": "These are {actual_length}. At least {min_length} are needed.",
    "string_pattern_mismatch": "{given} cannot be used here: it has other letters or another length than this wants.",
}
QUOTED = ("value_error", "missing")


def faults_of(error: ValidationError) -> list[FieldFault]:
    """Every field fault of a validation, quoting what was given."""
    return [
        FieldFault("/" + "/".join(str(part) for part in e["loc"] if part != "[key]"), _words(e))
        for e in error.errors(include_url=False)
    ]


def _words(e: Any) -> str:
    given = f"“{str(e.get('input'))[:MOST_QUOTED]}”"
    if e["type"] in WORDS:
        return WORDS[e["type"]].format(given=given, **(e.get("ctx") or {}))
    words = str(e["msg"]).removeprefix("Value error, ")
    return words if e["type"] in QUOTED else f"{words.rstrip('.')}. Given: {given}."
