"""What is said of the staves or strips of a part: which they are, out of what, and which way each lies."""

from __future__ import annotations

from collections.abc import Sequence

from nullah.core.breakdown.glue_up import Stave
from nullah.core.breakdown.rough import Staves
from nullah.core.catalogue import N_
from nullah.core.reader import Reader, sentence

_LIES = {
    (None, None): N_("{stave} out of {board}."),
    (None, True): N_("{stave} out of {board}, its straighter edge to the left."),
    (None, False): N_("{stave} out of {board}, its straighter edge to the right."),
    (True, None): N_("{stave} out of {board}, heart side up."),
    (True, True): N_("{stave} out of {board}, heart side up, its straighter edge to the left."),
    (True, False): N_("{stave} out of {board}, heart side up, its straighter edge to the right."),
    (False, None): N_("{stave} out of {board}, heart side down."),
    (False, True): N_("{stave} out of {board}, heart side down, its straighter edge to the left."),
    (False, False): N_("{stave} out of {board}, heart side down, its straighter edge to the right."),
}


def arrangement_words(
    staves: Staves, laid: Sequence[Stave], woods: Sequence[str], laminated: bool, reader: Reader
) -> tuple[str, ...]:
    """Return how the staves of a part are arranged, step by step.

    Parameters
    ----------
    staves : Staves
    laid : sequence of Stave
        Those that lie on boards, from the left.
    woods : sequence of str
        The woods they are of, each once.
    laminated : bool
        Whether they are strips that stand on edge, face to face.
    reader : Reader
    """
    count = len(staves.widths)
    widths = reader.listed([reader.length(width) for width in staves.widths])
    if len(set(staves.widths)) == 1:
        widths = reader.length(staves.widths[0])
    head = (
        N_("{count} strips, finished {widths} thick: number them, and draw a triangle across the set.")
        if laminated
        else N_("{count} staves, finished {widths} wide: number them, and draw a triangle across the set.")
    )
    said = [reader.text(head, count=str(count), widths=widths)]
    if len(laid) < count:
        missing = count - len(laid)
        return (*said, reader.count(missing, "{n} of them still lies nowhere.", "{n} of them still lie nowhere."))
    for each in laid:
        way = (None, None) if laminated else (each.heart_up, each.straighter_left)
        said.append(reader.text(_LIES[way], stave=sentence(each.name), board=each.board))
    if len(woods) > 1:
        mixed = N_("They are of {woods}, which swell by different amounts: their faces step in a damp or a dry month.")
        said.append(reader.text(mixed, woods=reader.listed(list(woods))))
    if not laminated:
        school = (
            N_("Arcs alternate: cups cancel into a ripple.")
            if staves.alternate
            else N_("Arcs lie all one way: one batten can hold them.")
        )
        said.append(reader.text(school))
    return tuple(said)


def steadied_words(parts: Sequence[str], reader: Reader) -> str:
    """Return what parts do that are glued in later, and put in dry meanwhile.

    Examples
    --------
    >>> steadied_words(["shelf 3", "shelf 4"], Reader())
    'Put shelf 3 and 4 in dry, without glue: they hold it in shape until this is hard.'
    """
    return reader.text(
        N_("Put {parts} in dry, without glue: they hold it in shape until this is hard."), parts=reader.together(parts)
    )
