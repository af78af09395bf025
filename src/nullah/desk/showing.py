"""What is shown at the desk: what was typed and drawn at once, all that hangs on it in steps afterwards."""

from __future__ import annotations

import operator
from collections.abc import Callable, Iterator
from functools import partial
from itertools import chain

from nullah.core.bits import Bits
from nullah.core.card import Severity
from nullah.core.drawing import Drawing
from nullah.core.plan import Plan
from nullah.core.refs import FlawRef, PartRef, PieceRef, QuantityRef, Ref
from nullah.core.stations import STATIONS
from nullah.core.stations.in_bits import work_out_in_bits
from nullah.core.stations.station import Station
from nullah.core.wording.card import Headings, WordedCard, WordedRemark, worded
from nullah.core.wording.facts import fact_words
from nullah.desk.afterwards import Afterwards
from nullah.desk.bench_objects import BenchObjects
from nullah.desk.column import CHOOSE
from nullah.desk.frame import FrameWindow
from nullah.desk.menus import Menus
from nullah.desk.picked import Picked
from nullah.desk.stations.base import StationDesk
from nullah.language import tr

_Steps = tuple[Callable[[], object], ...]
#: A hand that drags something rests when it has not moved for so long, ms.
_REST = 80


class Showing:
    """Shows the document in a window.

    Parameters
    ----------
    window : FrameWindow
    picked : Picked
    menus : Menus
    desk : callable
        Gives the desk of the station in hand.
    station : callable
        Gives its number.
    """

    def __init__(
        self,
        window: FrameWindow,
        picked: Picked,
        menus: Menus,
        desk: Callable[[], StationDesk],
        station: Callable[[], int],
    ) -> None:
        self._window, self._picked, self._menus, self._desk, self._station = window, picked, menus, desk, station
        self.document, self.bench = window.document, window.bench
        self.objects = BenchObjects(self.bench, picked.words_of, picked.verbs_of)
        self._afterwards = Afterwards(window)
        self._drawn_for: tuple[object, ...] = ()
        # What is shown, by the project and what is in hand.
        self._shown: tuple[object, object] | None = None
        #: Whether the drawing was left as it was, behind a page that stands in its place.
        self.bench_left = False

    def refresh(self, station: bool = False) -> None:
        """Show what there is now: what was typed and drawn is painted first, all that hangs on it follows.

        Parameters
        ----------
        station : bool
            Whether another station is gone to: what is of it is shown as a whole.
        """
        seen = self._window.place.currentWidget() is self.bench
        shown = self.document.plan.project, self.document.selection
        # Only what was worked out aside has come.
        came = not station and self._shown is not None and all(map(operator.is_, shown, self._shown))
        self._shown = shown
        if not self.ready():
            # The order of work takes long: what was shown stays until it has come, and says that it no longer holds.
            words = tr("The order of work is being worked out …")
            if station:
                self.bench.show_drawing(Drawing(), words, frozenset(), refit=True)
            elif self.bench.drawing.elements:
                self.bench.say_outdated(words)
            self.bench.repaint()
            self._window.card.show_card(self._card_that_waits(words))
            self._afterwards.begin([self._work_out, *self._of_all()])
            return
        if seen or station:
            self._refresh_bench(at_leisure=came and not self.document.patient)
        self.bench_left = not (seen or station)
        if station or self.document.patient:
            seen_at_once, later = self._of_station()
            for step in seen_at_once:
                step()
            self._afterwards.begin([*later, *self._of_all()])
            if self.document.patient:
                self._afterwards.finish()
            return
        if not seen:
            self._desk().refresh()
        elif self.bench.isVisible():
            self.bench.repaint()
        # What is dragged follows the hand; all else comes once the hand rests.
        rest = _REST if self.bench.dragging else 0
        self._afterwards.begin([self._work_out, *chain(*self._of_station()), *self._of_all()], rest)

    def _work_out(self) -> Bits[None]:
        """Work out bit by bit what the other steps ask of the plan."""
        return work_out_in_bits(self.document.plan)

    def _card_that_waits(self, words: str) -> WordedCard:
        """Return a card that says what is waited for: no figure stands on it that may no longer hold."""
        reader = self.document.plan.reader
        headings = Headings("", "", reader.text("Mind"), "")
        mind = WordedRemark(words, words, Severity.NOTE, (), None)
        return WordedCard(reader.text(STATIONS[self._station()].title), (), (), (mind,), (), headings)

    def ready(self) -> bool:
        """Return whether the station in hand can be shown without waiting."""
        return STATIONS[self._station()].id != "daybook" or self.document.order_ready()

    def _refresh_bench(self, at_leisure: bool) -> None:
        plan, selection, station = self.document.plan, self.document.selection, STATIONS[self._station()]
        piece = PieceRef(selection.breakdown.piece or selection.part)
        lit: set[Ref] = {PartRef(selection.part), piece, QuantityRef(selection.quantity)}
        if station.id == "rack" and selection.rack.flaw is not None:
            lit.add(FlawRef(selection.board, selection.rack.flaw))
        drawing = station.draw(plan, selection)
        # Refit for another station or another size of the drawing, not for every click.
        bounds = tuple(round(b, 1) for b in drawing.bounds()) if drawing.elements else ()
        drawn_for = (self._station(), bounds, plan.marks.unit)
        refit, self._drawn_for = drawn_for != self._drawn_for, drawn_for
        invitation = plan.reader.text(station.invitation)
        self.bench.show_drawing(drawing, invitation, frozenset(lit), refit, station.to_scale, at_leisure)

    def _of_station(self) -> tuple[_Steps, _Steps]:
        """Return the steps that show what is of the station in hand besides its drawing: what is seen, and the rest."""
        if self._window.column.side == CHOOSE:
            return (self._refresh_choices, self.objects.refresh), (self._refresh_card,)
        return (self._refresh_card, self._refresh_choices, self.objects.refresh), ()

    def _refresh_card(self) -> None:
        plan = self.document.plan
        card = worded(STATIONS[self._station()].card(plan, self.document.selection), plan.reader)
        self._window.card.show_card(card)
        self._window.column.tell_failures(sum(remark.weight is Severity.FAILURE for remark in card.mind))

    def _refresh_choices(self) -> None:
        self._desk().refresh()
        self._picked.show_tag()

    def _of_all(self) -> Iterator[Callable[[], object]]:
        """Yield the steps that show what is not of the station in hand: the title, all states, and the parts."""
        yield self._refresh_title
        plan, states = self.document.plan, list[str]()
        for each in STATIONS:
            yield partial(self._tell_state, each, plan, states)
        yield lambda: self._window.rod.show_states(states, self._station())
        yield lambda: self._window.strip.show_parts(plan, self.document.selection.part)

    def _tell_state(self, station: Station, plan: Plan, states: list[str]) -> None:
        states.append(fact_words(station.state(plan), plan.reader))

    def _refresh_title(self) -> None:
        self._window.header.refresh()
        self._menus.name_steps()
        name = self.document.project.piece.name or tr("Piece")
        self._window.setWindowTitle(f"{name}{' *' if self.document.unsaved else ''} · Nullah")
