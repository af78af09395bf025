"""How the records of the core stand in a JSON file: one model each, made from the record itself.

A field of a record stands under its own name, as its type says (`kind_of`); what the type does not
say (another name, limits, closed sets) is said once, where the record is described. Reading and
writing both follow from that description, and so does the published schema.
"""

from __future__ import annotations

from collections.abc import Callable, Collection, Mapping
from dataclasses import MISSING, fields, is_dataclass
from enum import Enum
from functools import partial
from operator import methodcaller
from types import GenericAlias, NoneType, UnionType
from typing import Annotated, Any, Literal, Union, get_args, get_origin, get_type_hints

from pydantic import AfterValidator, BaseModel, ConfigDict, Field, create_model

from nullah.core.identity import kept_by_identity
from nullah.core.lengths import Length, read_length
from nullah.core.limits import LONGEST_MM, NAME_TEXT, OTHERS, shown
from nullah.core.named_tuple import NamedTuple


class Kind(NamedTuple):
    """How a value stands in a file.

    Parameters
    ----------
    form : type
        What pydantic checks JSON data by; what comes out is the core's value.
    write : callable
        The way back: a value of the core as JSON data.
    """

    form: Any
    write: Callable[[Any], Any]


class _Strict(BaseModel):
    """Unknown fields are refused, never dropped."""

    # Built when something is read: writing needs no more than the fields.
    model_config = ConfigDict(extra="forbid", frozen=True, defer_build=True)


def same(value: Any) -> Any:
    """Return a value as it is."""
    return value


def plain(form: Any, *limits: Any) -> Kind:
    """Return the kind of values that stand in the file as they are, within limits."""
    return Kind(_annotated(form, *limits), same)


def coded(form: Any, read: Callable[[Any], Any], write: Callable[[Any], Any]) -> Kind:
    """Return the kind of values that are read from `form` and written as it.

    `read` raises `ValueError` with a sentence for what cannot be.
    """
    return Kind(_annotated(form, AfterValidator(read)), write)


def _annotated(form: Any, *limits: Any) -> Any:
    for limit in limits:
        form = Annotated[form, limit]
    return form


#: A line that can be printed: names, ids, titles.
NAME = plain(str, AfterValidator(shown), Field(max_length=NAME_TEXT))
LENGTH = coded(Annotated[str, Field(examples=["1 7/8 in", "47.5 mm"])], read_length, methodcaller("as_text"))
#: A place on a board or in a piece, in mm.
PLACE_MM = plain(float, Field(ge=-LONGEST_MM, le=LONGEST_MM))


def number(least: float, most: float) -> Kind:
    """Return the kind of floats from `least` to `most`."""
    return plain(float, Field(ge=least, le=most))


def whole(least: int, most: int) -> Kind:
    """Return the kind of whole numbers from `least` to `most`."""
    return plain(int, Field(ge=least, le=most))


def one_of(texts: Collection[str]) -> Kind:
    """Return the kind of texts that are one of a closed set."""
    return plain(Literal[tuple(texts)])


def choice_of(enumeration: type[Enum]) -> Kind:
    """Return the kind of an enumeration's members, by their values."""
    return coded(Literal[tuple(member.value for member in enumeration)], enumeration, lambda member: member.value)


def either(true: str, false: str) -> Kind:
    """Return the kind of a flag that stands as one of two texts."""
    return coded(Literal[true, false], partial(str.__eq__, true), lambda flag: true if flag else false)


def optional(kind: Kind) -> Kind:
    """Return the kind of values that may be None, which stands as ``null``."""
    return Kind(kind.form | None, lambda value: None if value is None else kind.write(value))


def or_empty(kind: Kind) -> Kind:
    """Return the kind of values that may be None, which stands as an empty text."""
    form = _annotated(kind.form | Literal[""], AfterValidator(lambda value: None if value == "" else value))
    return Kind(form, lambda value: "" if value is None else kind.write(value))


def several(kind: Kind, most: int = OTHERS, least: int = 0, into: Callable[[Any], Any] = tuple) -> Kind:
    """Return the kind of lists of a kind, from `least` to `most` long; `into` makes the core's collection."""
    length = Field(min_length=least, max_length=most) if least else Field(max_length=most)
    # Of a long list, such as the book, little is another from one time that it is kept to the next.
    each = kept_by_identity(2048)(kind.write)
    write = list if kind.write is same else lambda values: [each(value) for value in values]
    return coded(_annotated(GenericAlias(list, (kind.form,)), length), into, write)


def together(*kinds: Kind) -> Kind:
    """Return the kind of tuples of fixed length, a kind for each place."""
    form = GenericAlias(tuple, tuple(kind.form for kind in kinds))
    return Kind(form, lambda values: [kind.write(value) for kind, value in zip(kinds, values, strict=True)])


def named(kind: Kind, names: Kind = NAME, most: int = OTHERS) -> Kind:
    """Return the kind of pairs of name and value, each name once; they stand as an object."""
    form = _annotated(GenericAlias(dict, (names.form, kind.form)), Field(max_length=most))
    write = dict if kind.write is same else lambda pairs: {name: kind.write(value) for name, value in pairs}
    return coded(form, lambda read: tuple(read.items()), write)


def record(
    cls: type[Any],
    kinds: Mapping[str, Kind] | None = None,
    *,
    names: Mapping[str, str] | None = None,
    required: Collection[str] = (),
    left_out: Collection[str] = (),
    tags: Mapping[str, tuple[Any, ...]] | None = None,
    check: Callable[[Any], Any] = same,
    about: str = "",
) -> Kind:
    """Return the kind of a dataclass or named tuple of the core: an object with its fields.

    Parameters
    ----------
    cls : type
    kinds : mapping of str to Kind, optional
        Of fields whose type does not say how they stand; the others are `kind_of` their types.
    names : mapping of str to str, optional
        What fields are called in the file, where that is not their own name.
    required : collection of str
        Fields that must be there although the core has a usual value for them.
    left_out : collection of str
        Fields that do not stand in the file.
    tags : mapping of str to tuple, optional
        What else must stand in the object: names and the values they may have.
    check : callable
        Takes the value that was read and returns it, put right; raises `ValueError` with a sentence.
    about : str
        A sentence for the page of the format; the first of the record's own docstring if left out.
    """
    kinds, names, defaults = kinds or {}, names or {}, _defaults(cls)
    hints = {name: hint for name, hint in get_type_hints(cls).items() if name in cls.__match_args__}
    members = {name: kinds.get(name) or kind_of(hint) for name, hint in hints.items() if name not in left_out}
    stand = {name: names.get(name, name) for name in members}
    schema: dict[str, Any] = {name: (Literal[values], ...) for name, values in (tags or {}).items()}
    for name, kind in members.items():
        schema[name] = (kind.form, _field(kind, stand[name], defaults.get(name, MISSING), name in required))
    model = create_model(
        cls.__name__.removeprefix("_"), __base__=_Strict, __doc__=about or _first_sentence(cls), **schema
    )

    def read(found: Any) -> Any:
        return check(cls(**{name: getattr(found, name) for name in members}))

    def write(value: Any) -> dict[str, Any]:
        return {stand[name]: kind.write(getattr(value, name)) for name, kind in members.items()}

    return coded(model, read, write)


def _defaults(cls: type[Any]) -> dict[str, Any]:
    """Return the usual values of a record's fields, where it has them."""
    if not is_dataclass(cls):
        return dict(cls._field_defaults)
    found = {}
    for each in fields(cls):
        if each.default is not MISSING:
            found[each.name] = each.default
        elif each.default_factory is not MISSING:
            found[each.name] = each.default_factory()
    return found


def _field(kind: Kind, name: str, usual: Any, required: bool) -> Any:
    if required or usual is MISSING:
        return Field(alias=name)
    # What is usual is a value of the core: the schema shows it as it would stand in the file.
    return Field(alias=name, default_factory=lambda: usual, json_schema_extra={"default": kind.write(usual)})


def _first_sentence(cls: type[Any]) -> str:
    return (cls.__doc__ or "").strip().split("\n\n")[0].replace("\n    ", " ")


def tagged(tag: str, records: Mapping[type[Any], tuple[str, Kind]]) -> Kind:
    """Return the kind of one of several records, told apart by a text under the name `tag`."""
    form = _annotated(Union[tuple(kind.form for _, kind in records.values())], Field(discriminator=tag))  # noqa: UP007

    def write(value: Any) -> dict[str, Any]:
        text, kind = records[type(value)]
        return {tag: text, **kind.write(value)}

    return Kind(form, write)


def kind_of(hint: Any) -> Kind:
    """Return how values of a type stand in a file, where nothing else is said.

    Raises
    ------
    TypeError
        For a type that does not say.
    """
    if hint in _SIMPLE:
        return _SIMPLE[hint]
    if isinstance(hint, type) and issubclass(hint, Enum):
        return choice_of(hint)
    inner = get_args(hint)
    if get_origin(hint) in (Union, UnionType) and NoneType in inner and len(inner) == 2:
        return optional(kind_of(next(each for each in inner if each is not NoneType)))
    if get_origin(hint) is tuple and inner[-1] is Ellipsis:
        return several(kind_of(inner[0]))
    if get_origin(hint) is tuple:
        return together(*map(kind_of, inner))
    if get_origin(hint) is frozenset:
        return several(kind_of(inner[0]), into=frozenset)._replace(write=sorted)
    if isinstance(hint, type) and hasattr(hint, "__match_args__"):
        return record(hint)
    raise TypeError(f"{hint} does not say how it stands in a file")


_SIMPLE: dict[Any, Kind] = {str: NAME, bool: plain(bool), float: PLACE_MM, Length: LENGTH}
