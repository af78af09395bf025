"""What tests compare by value alone."""

from dataclasses import fields, is_dataclass

from nullah.core.lengths import Entry, Length


def untyped(value):
    """Return a value with every entry in it as a bare length: what a file gives back of what nobody typed."""
    if isinstance(value, Entry):
        return Length(value.mm)
    if isinstance(value, tuple):
        made = [untyped(each) for each in value]
        return type(value)(*made) if hasattr(value, "_fields") else tuple(made)
    if is_dataclass(value) and not isinstance(value, Length | type):
        return type(value)(**{each.name: untyped(getattr(value, each.name)) for each in fields(value)})
    return value
