"""Breakdown on the desk: laying the parts out, by search and by hand, and sawing them out in order."""

from __future__ import annotations

from dataclasses import replace
from functools import partial

from PySide6.QtCore import Qt

from nullah.core import actions
from nullah.core.board_plans import BoardPlan
from nullah.core.breakdown.facts import LiesWrongly
from nullah.core.breakdown.search import Layout
from nullah.core.catalogue import N_
from nullah.core.fraction import Fraction
from nullah.core.laying import saw_up, take_layout, task_of
from nullah.core.rack.board import Board
from nullah.core.refs import BoardRef, PieceRef, Ref
from nullah.core.stations.breakdown import selected_board, selected_piece
from nullah.core.stations.selection import BreakdownSelection, Selection
from nullah.core.wording.facts import fact_words
from nullah.desk.bench import Bench
from nullah.desk.document import Document
from nullah.desk.search import SearchRunner
from nullah.desk.stations.base import Section, StationDesk, Verb, action, chooser, show_choice, tabs
from nullah.desk.stations.part_tool import PartTool
from nullah.desk.stations.wood_asked import WoodAskedRows
from nullah.desk.text_label import TextLabel
from nullah.language import tr, tr_count, tr_pairs

_HOW_MUCH = [("0.0", N_("not at all")), ("0.5", N_("some")), ("1.0", N_("much"))]
_WISHES = (("sawing", N_("little sawing")), ("value", N_("dear boards kept")), ("risk", N_("away from flaws")))
_FLAWED = [("0", N_("nothing")), ("1/10", "10 %"), ("1/5", "20 %"), ("3/10", "30 %"), ("2/5", "40 %")]
#: A board that is only tried, not on the rack.
_TRIED = "tried"


class BreakdownDesk(StationDesk):
    """The search, what it weighs, what parts ask, and the saw order."""

    def __init__(self, document: Document, bench: Bench) -> None:
        super().__init__(document, bench)
        self.runner = SearchRunner()
        self._trying: Board | None = None
        self._swapping = ""
        self._make_line()
        self.asked = WoodAskedRows(document, self.section, self.pin_or_let_go, self._begin_swap)
        self._make_board(self.section(tr("This board")))
        self._make_more()
        self.progress = self.notice
        self.runner.progress.connect(self._tell)
        self.runner.better.connect(self._better)
        self.runner.found.connect(self._found)
        self.runner.failed.connect(self.say)
        self.tool = PartTool(self)

    def _make_line(self) -> None:
        self.looks = tabs(self, ((False, tr("Layout")), (True, tr("Saw order"))), self.show_order, self.line.looks)
        self.looks[False].setChecked(True)
        self.where = TextLabel()
        self.line.verbs.addWidget(self.where)
        self.back = action(tr("Back"), lambda: self.step(-1), self.line.verbs)
        self.next = action(tr("Next cut"), lambda: self.step(1), self.line.verbs, main=True)
        self.clear = action(tr("Remove all parts"), self._lift_all, self.line.verbs)
        self.stop = action(tr("Stop"), self.runner.stop, self.line.verbs)
        self.lay_out = action(tr("Lay the parts out"), self._start, self.line.verbs, main=True)

    def _make_board(self, row: Section) -> None:
        self.one_more = action(tr("Try one more like it"), self._try_one_more, row)
        self.one_more.setToolTip(
            tr("Lay everything out with one more board like the one in hand, and say what that saves")
        )
        self.put_tried = action(tr("Add it to the rack"), self._put_tried, row)
        self.sawn = action(tr("Mark as sawn"), self._saw_up, row)
        self.sawn.setToolTip(
            tr("The board in hand is sawn: its parts stay, and its offcuts come to the rack as boards")
        )

    def _make_more(self) -> None:
        row = self.section(tr("Priorities"))
        how_much = tr_pairs(_HOW_MUCH)
        self.wishes = {
            name: chooser(title, how_much, partial(self._wish, name), row, title) for name, title in tr_pairs(_WISHES)
        }
        self.flawed = chooser(
            tr("over for flaws when buying"),
            tr_pairs(_FLAWED),
            self._expect_flaws,
            row,
            tr("when buying, over for flaws"),
        )
        boxes = [box.parentWidget() for box in (*self.wishes.values(), self.flawed)]
        self._more = [
            *(box for box in boxes if box is not None),
            self.offer_shop(tr("Allowances, and what the saw takes")),
        ]

    # --- what is shown ---

    def refresh(self) -> None:
        self.document.count_boards_to_buy()
        project, selection = self.document.project, self.document.selection
        cut = selection.breakdown.cut
        running, ordering = self.runner.running, cut is not None
        self.looks[ordering].setChecked(True)
        self.lay_out.setVisible(not ordering)
        self.lay_out.setEnabled(bool(project.boards and self.document.plan.rough) and not running)
        self.stop.setVisible(running)
        self.clear.setVisible(not ordering)
        self.clear.setEnabled(bool(project.layout) and not running)
        board = self._board
        self.looks[True].setEnabled(ordering or any(each.cuts for each in self.document.plan.boards))
        for button in (self.one_more, self.sawn):
            button.setVisible(not ordering)
            button.setEnabled(board is not None and not running)
        self.sawn.setEnabled(board is not None and bool(board.cuts) and not board.board.sawn and not running)
        self.put_tried.setVisible(self._trying is not None and not running)
        self.back.setVisible(ordering)
        self.next.setVisible(ordering)
        self.where.setVisible(ordering)
        count = len(board.cuts) if board is not None else 0
        self.back.setEnabled(cut is not None and cut > 0)
        self.next.setEnabled(cut is not None and cut < count - 1)
        self.where.setText(tr("cut {cut} of {count}", cut=cut + 1, count=count) if cut is not None else "")
        self.asked.refresh(not ordering)
        for widget in self._more:
            widget.setVisible(not ordering)
        for name, box in self.wishes.items():
            show_choice(box, str(float(getattr(project.wishes, name))))
        show_choice(self.flawed, str(project.flawed_share))

    @property
    def _board(self) -> BoardPlan | None:
        """The board in hand."""
        return selected_board(self.document.plan, self.document.selection)

    def clicked(self, ref: Ref | None) -> bool:
        piece = self.document.plan.rough_part(ref.piece) if isinstance(ref, PieceRef) else None
        if piece is not None:
            self.document.select(
                self.document.selection._replace(part=piece.parts[0], breakdown=BreakdownSelection(piece.id))
            )
            return True
        if not isinstance(ref, BoardRef) or self.document.selection.breakdown.cut is not None:
            return False
        self.document.select(self.document.selection._replace(board=ref.board, part="", breakdown=BreakdownSelection()))
        return True

    def picked(self) -> Ref | None:
        selection = self.document.selection
        if selection.breakdown.cut is not None:
            return None
        piece = selected_piece(self.document.plan, selection)
        if piece is not None and any(item.part == piece.id for item in self.document.project.layout):
            return PieceRef(piece.id)
        return BoardRef(selection.board) if selection.board and not selection.part else None

    def verbs(self, ref: Ref) -> tuple[Verb, ...]:
        if isinstance(ref, PieceRef):
            return self.asked.verbs()
        board = self._board
        if not isinstance(ref, BoardRef) or board is None:
            return ()
        return (
            Verb(tr("Try one more like it"), self._try_one_more, enabled=not self.runner.running),
            Verb(tr("Saw order"), partial(self.show_order, True), enabled=bool(board.cuts)),
            Verb(tr("Mark as sawn"), self._saw_up, enabled=bool(board.cuts) and not board.board.sawn),
        )

    def leave(self) -> None:
        self.runner.wait()

    def say(self, sentence: str) -> None:
        """Say something over the bench."""
        self.progress.setText(sentence)

    def _tell(self, text: str) -> None:
        self.say(
            tr("With one more like {board}: {saves}", board=self._trying.source, saves=text)
            if self._trying is not None
            else text
        )

    # --- the search ---

    def _start(self) -> None:
        self._trying = None
        self.runner.start(task_of(self.document.plan), self.document.project.marks)
        self.refresh()

    def _better(self, layout: Layout) -> None:
        """Show the best so far while it is looked for."""
        if self._trying is None:
            self.document.preview(lambda p: actions.accept_layout(p, layout.placements))

    def _found(self, layout: Layout) -> None:
        """Take the best layout into the project, as one step that can be undone; or tell what another board saves."""
        if self._trying is not None:
            self._tell_saving(layout)
            return
        self.document.do(tr("lay the parts out"), lambda p: take_layout(p, layout.placements))
        self.document.preview(None)
        self.refresh()

    def _try_one_more(self) -> None:
        """Lay everything out with one more board like the one in hand."""
        board = self._board
        if board is None or self.runner.running:
            return
        like = board.board
        self._trying = replace(
            like, id=_TRIED, name=tr("another {name}", name=like.name), flaws=(), source=like.name, sawn=False
        )
        self.runner.start(task_of(self.document.plan, (self._trying,)), self.document.project.marks)
        self.refresh()

    def _tell_saving(self, layout: Layout) -> None:
        plan = self.document.plan
        used = sum(each.consumed for each in plan.boards)
        more = len(plan.unplaced) - len(layout.unplaced)
        words_for = tr_count(more, "{n} more part would lie", "{n} more parts would lie") if more > 0 else ""
        if more == 0:
            saved = used - layout.consumed
            area = plan.marks.write_area(abs(saved))
            needed = any(item.board == _TRIED for item in layout.placements)
            words_for = tr("{area} less wood used", area=area) if saved > 1 and needed else tr("it would save nothing")
        self._tell(f"{words_for}.")
        self.refresh()

    def _put_tried(self) -> None:
        """Put the board that was only tried on the rack."""
        board, self._trying = self._trying, None
        if board is not None:
            found = replace(board, source="")
            self.document.do(tr("put {name} on the rack", name=found.name), lambda p: actions.add_boards(p, (found,)))
            self.say("")
            self.refresh()

    def _lift_all(self) -> None:
        """Lift all parts but the pinned ones and those that are sawn out."""
        self.document.do(tr("lift all parts"), actions.lift_all)
        self.say("")

    # --- the saw order ---

    def show_order(self, shown: bool) -> None:
        """Show the saw order of the board in hand, or where its parts lie."""
        selection = self.document.selection
        board = self._board
        if shown and (board is None or not board.cuts):
            first = next((each for each in self.document.plan.boards if each.cuts), None)
            selection = selection._replace(
                board=first.board.id if first else "", part="", breakdown=BreakdownSelection()
            )
        self._select_cut(selection, 0 if shown else None)
        self.bench.setFocus()

    def step(self, by: int) -> None:
        """Go to another cut of the saw order."""
        board, selection = self._board, self.document.selection
        count = len(board.cuts) if board is not None else 0
        self._select_cut(selection, max(0, min(count - 1, (selection.breakdown.cut or 0) + by)))

    def _select_cut(self, selection: Selection, cut: int | None) -> None:
        self.document.select(selection._replace(breakdown=selection.breakdown._replace(cut=cut)))

    def step_key(self, key: Qt.Key) -> bool:
        """Go through the saw order by key: space and right on, left back, Escape out."""
        ways = {Qt.Key.Key_Right: 1, Qt.Key.Key_Space: 1, Qt.Key.Key_Left: -1, Qt.Key.Key_Backspace: -1}
        if key == Qt.Key.Key_Escape:
            self.show_order(False)
            return True
        if key not in ways:
            return False
        self.step(ways[key])
        return True

    def _saw_up(self) -> None:
        board = self._board
        if board is not None:
            self.document.do(tr("{name} is sawn up", name=board.board.name), lambda p: saw_up(p, board.board.id))

    # --- by hand ---

    def pin_or_let_go(self) -> None:
        """Pin the piece in hand where it lies, or let it go."""
        piece = selected_piece(self.document.plan, self.document.selection)
        placed = next((item for item in self.document.project.layout if piece and item.part == piece.id), None)
        if piece is not None and placed is not None:
            word = tr("let go of") if placed.pinned else "pin"
            self.document.do(f"{word} {piece.name}", lambda p: actions.pin(p, piece.id, not placed.pinned))

    def _begin_swap(self) -> None:
        piece = selected_piece(self.document.plan, self.document.selection)
        if piece is not None:
            self._swapping = piece.id
            self.say(
                tr(
                    "Click the part that {name} is to change places with.",
                    name=self.document.plan.reader.with_article(piece.name),
                )
            )

    def take_swap(self, piece_id: str) -> bool:
        """Let the part clicked change places with the one in hand, if that was asked for and both may lie there."""
        one, self._swapping = self._swapping, ""
        if not one or one == piece_id:
            return False
        tried = self.document.tentative(lambda p: actions.swap(p, one, piece_id))
        names = {rough.id: rough.name for rough in self.document.plan.rough}
        if tried is not None:
            wrong = {part: why for board in tried.boards for part, why in board.wrong.items()}
            why = wrong.get(one, wrong.get(piece_id))
            stuck = next((board.not_sawable for board in tried.boards if board.not_sawable is not None), None)
            if why is not None:
                fact = LiesWrongly(names[one if one in wrong else piece_id], why)
                self.say(tr("They cannot change places. {why}", why=fact_words(fact, tried.reader)))
                return True
            if stuck is not None:
                self.say(tr("They cannot change places. {why}", why=fact_words(stuck, tried.reader)))
                return True
        self.document.do(
            tr("swap {one} and {other}", one=names[one], other=names[piece_id]),
            lambda p: actions.swap(p, one, piece_id),
        )
        self.say("")
        return True

    # --- figures ---

    def _wish(self, name: str, share: str) -> None:
        wishes = {name: float(share)}
        self.document.do(
            tr("weigh {name}", name=tr(dict(_WISHES)[name])), lambda p: actions.wish(p, replace(p.wishes, **wishes))
        )

    def _expect_flaws(self, share: str) -> None:
        self.document.do(
            tr("{percent:.0f} % over for flaws", percent=float(Fraction(share)) * 100),
            lambda p: actions.expect_flaws(p, Fraction(share)),
        )
