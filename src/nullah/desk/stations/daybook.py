"""The Day Book on the desk: done with one key, a timer, measurements, notes, what went wrong; hours and glue."""

from __future__ import annotations

from collections.abc import Callable
from datetime import datetime
from functools import partial
from pathlib import Path

from PySide6.QtGui import QKeySequence, QShortcut
from PySide6.QtWidgets import QComboBox, QFileDialog, QWidget

from nullah.core.bench.tasks import Task
from nullah.core.catalogue import N_
from nullah.core.fixes import Fix, MakeAgain, Shim
from nullah.core.lengths import Length
from nullah.core.limits import quoted, read_number
from nullah.core.refs import PartRef, Ref, TaskRef
from nullah.core.stations.daybook import card, selected_task
from nullah.core.stations.selection import DayBookSelection
from nullah.core.wording.card import worded
from nullah.core.wording.facts import error_words, fact_words
from nullah.core.wording.fixes import fix_words, why_again
from nullah.core.wording.task_titles import task_title
from nullah.core.work import recording
from nullah.core.work.day_book import WorkState, record_of, standing
from nullah.desk.bench import Bench
from nullah.desk.book_page import BookPage
from nullah.desk.document import Document
from nullah.desk.fields import ValueField
from nullah.desk.glance import GlancePage
from nullah.desk.order_table import OrderTable
from nullah.desk.stations.base import StationDesk, Verb, action, chooser, entry, labelled, reach, show_choice, tabs
from nullah.desk.stations.working import WorkingRow
from nullah.files.piece_records import RecordsError, keep_record, records_file
from nullah.language import tr, tr_pairs

CALENDAR = "calendar"
_LOOKS = (
    ("", N_("Next")),
    ("order", N_("Order")),
    (CALENDAR, N_("Calendar")),
    ("book", N_("The book")),
    ("glance", N_("Glance")),
)


def simulated_calliper(true: Length, place: str) -> Length:
    """Read a simulated calliper on something of that size; the numerical libraries load when it is first read."""
    from nullah.instruments.shape_gauges import SimulatedGauges

    return SimulatedGauges().calliper(true, place)


class DaybookDesk(StationDesk):
    """What is done at the bench. `clock` may be put in the place of the clock, `records` of the user's own file."""

    def __init__(self, document: Document, bench: Bench) -> None:
        super().__init__(document, bench)
        self.clock: Callable[[], datetime] = datetime.now
        self._asked_to_wait = False
        self.records: Path = records_file()
        self.calliper: Callable[[Length, str], Length] = simulated_calliper
        self._look = ""
        self.looks = tabs(self, tr_pairs(_LOOKS), self.show_look, self.line.looks)
        self.looks[""].setChecked(True)
        self.timer = action(tr("Start the timer"), self._timer, self.line.verbs)
        self.keep = action(tr("Save its times"), self._keep_record, self.line.verbs)
        self.done = action(tr("Done"), self._done, self.line.verbs, main=True)
        self.done.setToolTip(tr("Ctrl+Return"))
        first = self.section(tr("This task"))
        self.minutes = entry(tr("minutes it took"), 64)
        self._minutes_pair = labelled(tr("minutes it took"), self.minutes, first)
        second = self.section(tr("Measured"))
        self.what: QComboBox = chooser(tr("what was measured"), [], lambda _: None, second, tr("Measured"))
        self.figure = ValueField(tr("as it is"), width=80)
        self.figure.entered.connect(self._measured)
        self._measure_pairs = (
            self.what.parentWidget(),
            labelled(tr("it measures"), self.figure, second),
            action(tr("Read the caliper"), self._read_calliper, second),
        )
        noting = self.section(tr("Into the book"))
        self.text = entry(tr("note"), 200)
        self.text.returnPressed.connect(self._note)
        self._more = [
            labelled(tr("Note"), self.text, noting),
            action(tr("Photograph …"), self._ask_photo, noting),
            action(tr("It went wrong …"), self._open_wrong, noting),
        ]
        third = self.section(tr("Make again"))
        self.wrong: QComboBox = chooser(tr("part to make again"), [], lambda _: self._show_woods(), third, tr("Part"))
        self.wood: QComboBox = chooser(tr("wood for another"), [], lambda _: None, third, tr("New wood"))
        self.why = entry(tr("what went wrong"), 200)
        self._wrong_row = [
            self.wrong.parentWidget(),
            self.wood.parentWidget(),
            labelled(tr("What went wrong"), self.why, third),
            action(tr("Make it again"), self._remake, third),
        ]
        self._wrong_open = False
        self.working = WorkingRow(document, self.section, lambda: self._standing(), self.clock, self.offer_shop)
        self.said = self.notice
        self._pages: dict[str, QWidget] = {}
        shortcut = QShortcut(QKeySequence("Ctrl+Return"), self.line)
        shortcut.activated.connect(self._done)

    # --- what is looked at ---

    def show_look(self, look: str) -> None:
        """Look at the next step, at the order, the calendar, the book, or from afar."""
        self._look = look
        self.said.setText("")
        self.looks[look].setChecked(True)
        self._select(self.document.selection.daybook._replace(calendar=look == CALENDAR))
        self.refresh()
        self.page_wanted.emit()

    def _select(self, selection: DayBookSelection) -> None:
        self.document.select(self.document.selection._replace(daybook=selection))

    def page(self) -> QWidget | None:
        if self._look in ("", CALENDAR):
            return None
        if self._look not in self._pages:
            self._pages[self._look] = self._make_page()
        return self._pages[self._look]

    def _make_page(self) -> QWidget:
        if self._look == "order":
            return OrderTable(self._pick)
        return BookPage(self.document) if self._look == "book" else GlancePage()

    def fills_window(self) -> bool:
        return self._look == "glance"

    def clicked(self, ref: Ref | None) -> bool:
        if self._look == CALENDAR and not isinstance(ref, TaskRef):
            self._select(self.document.selection.daybook._replace(task=""))
            return True
        if not isinstance(ref, TaskRef):
            return False
        if self._look == CALENDAR:
            self._select(self.document.selection.daybook._replace(task=ref.task))
        else:
            self._pick(ref.task)
        return True

    def _pick(self, task_id: str) -> None:
        self._look = ""
        self.looks[""].setChecked(True)
        self._select(self.document.selection.daybook._replace(task=task_id, calendar=False))
        self.page_wanted.emit()

    def picked(self) -> Ref | None:
        picked = self.document.selection.daybook.task
        if self._look == CALENDAR:
            return TaskRef(picked) if picked else None
        task = self._task() if self._look == "" else None
        return TaskRef(task.id) if task is not None else None

    def verbs(self, ref: Ref) -> tuple[Verb, ...]:
        if not isinstance(ref, TaskRef):
            return ()
        if self._look == CALENDAR:
            return (Verb(tr("Show it"), partial(self._pick, ref.task)),)
        return (
            Verb(tr("Done"), self._done),
            Verb(self.timer.text(), self._timer),
            Verb(tr("Note"), partial(reach, self.text)),
            Verb(tr("It went wrong …"), self._open_wrong),
        )

    def _standing(self) -> WorkState:
        return standing(self.document.plan, self.clock())

    def _task(self) -> Task | None:
        """Return the task in hand; none while what is shown is of an order that no longer holds."""
        if not self.document.order_ready():
            self._say(tr("The order of work is being worked out. A moment, please."))
            self._asked_to_wait = True
            return None
        return selected_task(self._standing(), self.document.selection)

    # --- what is done ---

    def _done(self) -> None:
        task = self._task()
        if task is None:
            return
        minutes: float | None = None
        if self.minutes.text().strip():
            minutes = read_number(self.minutes.text())
            if minutes is None or not 0 <= minutes <= 10_000:
                self._say(tr("{typed} are no minutes.", typed=quoted(self.minutes.text())))
                return
        title = task_title(task, self.document.plan.reader)
        came = recording.finish(self.document.plan, task, title, self.clock(), minutes)
        self.minutes.clear()
        selection = self.document.selection
        self.document.selection = selection._replace(daybook=selection.daybook._replace(task=""))
        self.document.do(tr("done: {title}", title=title), lambda _: came.project)
        self._say(" ".join(fact_words(fact, self.document.plan.reader) for fact in came.said))

    def _timer(self) -> None:
        task = self._task()
        if task is None:
            return
        now, running = self.clock(), self.document.project.timer
        if running is not None and running.task == task.id:
            self.document.do(tr("stop the timer"), recording.stop_timer)
        else:
            self.document.do(tr("start the timer"), lambda p: recording.start_timer(p, task, now))

    def _measured(self, value: object) -> None:
        name = str(self.what.currentData() or "")
        if not isinstance(value, Length) or not name:
            self.figure.complain(tr("A length."))
            return
        now = self.clock()
        plan = self.document.plan
        sentence = self.document.do(
            tr("measure {what}", what=self.what.currentText()), lambda _: recording.measured(plan, name, value, now)
        )
        if sentence:
            self.figure.complain(sentence)
        else:
            self.figure.line.clear()
            index = self.what.currentIndex() + 1
            if index < self.what.count():
                self.what.setCurrentIndex(index)
            elif (following := self._task()) is not None and name not in following.measures:
                self._say(tr("All of it is measured; the next task stands here."))

    def _read_calliper(self) -> None:
        """Take what the calliper says of the thing that is measured."""
        name, ledger = str(self.what.currentData() or ""), self.document.plan.ledger
        if ledger is not None and name in ledger.quantities:
            self._measured(self.calliper(ledger.length(name), name))

    def _note(self) -> None:
        text, now, task = self.text.text().strip(), self.clock(), self._task()
        if text:
            self.text.clear()
            self.document.do(tr("a note"), lambda p: recording.note(p, now, text, task, self._title(task)))

    def _title(self, task: Task | None) -> str:
        return "" if task is None else task_title(task, self.document.plan.reader)

    def _ask_photo(self) -> None:
        pictures = tr("Photographs (*.jpg *.jpeg *.png *.webp)")
        name, _ = QFileDialog.getOpenFileName(self, tr("A photograph"), str(Path.home()), pictures)
        if name:
            self.add_photo(Path(name))

    def add_photo(self, path: Path) -> None:
        """Put a photograph into the book by its file; the file stays where it is."""
        if not path.is_file():
            self._say(tr("There is no photograph {path}.", path=path))
            return
        now, task = self.clock(), self._task()
        self.document.do(tr("a photograph"), lambda p: recording.note(p, now, "", task, self._title(task), str(path)))

    def _open_wrong(self) -> None:
        self._wrong_open = not self._wrong_open
        self.refresh()
        # What is in hand is what went wrong, as a rule.
        show_choice(self.wrong, self.document.selection.part)
        self._show_woods()

    def _remake(self) -> None:
        part = str(self.wrong.currentData() or "")
        if part:
            self.remake(part, self.why.text(), str(self.wood.currentData() or ""))
            self.why.clear()
            self._wrong_open = False
            self.refresh()

    def remake(self, part: str, why: str, board: str = "") -> None:
        """Make a part again: out of a board, or the smallest piece of wood that will do; take its tasks up again."""
        reader = self.document.plan.reader
        words = partial(fact_words, reader=reader)
        came = recording.remake(self.document.plan, part, why, self.clock(), words, board)
        self.document.do(tr("make {part} again", part=reader.part(part)), lambda _: came.project)
        self._say(" ".join(map(words, came.said)))

    def fix(self, fix: Fix) -> None:
        """Carry out what the card offers for a figure that came out otherwise."""
        match fix:
            case MakeAgain(part=part):
                self.remake(part, why_again(fix, self.document.plan.reader))
            case Shim(quantity=quantity):
                plan, now = self.document.plan, self.clock()
                self.document.do(
                    fix_words(fix, self.document.plan.reader), lambda _: recording.shim(plan, quantity, now)
                )

    def _keep_record(self) -> None:
        record = record_of(self.document.plan)
        try:
            keep_record(self.records, record)
        except RecordsError as error:
            self._say(error_words(error))
            return
        self._say(tr("Kept: the next new piece starts from these rates and this waste."))

    def _say(self, sentence: str) -> None:
        self.said.setText(sentence)

    # --- what is shown ---

    def refresh(self) -> None:
        if self._asked_to_wait:
            self._asked_to_wait = False
            self._say("")
        selection, now = self.document.selection, recording.stamp(self.clock())
        if selection.daybook.now != now:
            self._select(selection.daybook._replace(now=now))
            return
        plan, stand = self.document.plan, self._standing()
        task = selected_task(stand, selection)
        at_task = self._look in ("", "glance") and task is not None
        running = self.document.project.timer
        self.timer.setText(
            tr("Stop the timer")
            if running is not None and task is not None and running.task == task.id
            else tr("Start the timer")
        )
        for widget in (self.done, self.timer, self._minutes_pair):
            widget.setVisible(at_task)
        self.keep.setVisible(stand.finished)
        self._show_measured(stand, task if self._look == "" else None)
        for widget in self._more:
            widget.setVisible(self._look == "" and bool(plan.parts))
        self._show_wrong()
        self.working.show_row(self._look == CALENDAR)
        self._show_page(stand, task)

    def _show_measured(self, stand: WorkState, task: Task | None) -> None:
        """Offer what the task measures; at milling the thickness of its parts."""
        ledger = self.document.plan.ledger
        names: list[str] = []
        if task is not None and ledger is not None:
            names = list(task.measures)
            for each in task.parts if isinstance(task.subject, PartRef) else ():
                part = self.document.plan.part(each)
                names += reversed(part.quantities) if part is not None else ()
            names = [name for name in dict.fromkeys(names) if name in ledger.quantities]
        for pair in self._measure_pairs:
            if pair is not None:
                pair.setVisible(bool(names))
        wanted = [(name, self.document.plan.reader.title(name)) for name in names] if ledger is not None else []
        if wanted != [(str(self.what.itemData(i)), self.what.itemText(i)) for i in range(self.what.count())]:
            self.what.clear()
            for name, title in wanted:
                self.what.addItem(title, name)
        self.figure.set_unit(self.document.project.marks.unit)

    def _show_wrong(self) -> None:
        for widget in self._wrong_row:
            if widget is not None:
                widget.setVisible(self._wrong_open and self._look == "")
        parts = [(part.id, part.name) for part in self.document.plan.parts]
        if parts != [(str(self.wrong.itemData(i)), self.wrong.itemText(i)) for i in range(self.wrong.count())]:
            self.wrong.clear()
            for part_id, name in parts:
                self.wrong.addItem(name, part_id)
            show_choice(self.wrong, self.document.selection.part)
        if self._wrong_open:
            self._show_woods()

    def _show_woods(self) -> None:
        """Offer the pieces of wood that another could come out of."""
        woods = recording.wood_for(self.document.plan, str(self.wrong.currentData() or ""))
        wanted = [(wood.board, wood.name + (f", {wood.other}" if wood.other else "")) for wood in woods]
        wanted = wanted or [("", tr("nothing on the rack"))]
        if wanted != [(str(self.wood.itemData(i)), self.wood.itemText(i)) for i in range(self.wood.count())]:
            self.wood.clear()
            for board, name in wanted:
                self.wood.addItem(name, board)

    def _show_page(self, stand: WorkState, task: Task | None) -> None:
        page = self._pages.get(self._look)
        if isinstance(page, OrderTable):
            page.show_standing(stand, self.document.plan.reader, task.id if task is not None else "")
        elif isinstance(page, BookPage):
            page.refresh()
        elif isinstance(page, GlancePage):
            plan = self.document.plan
            page.show_card(worded(card(plan, self.document.selection), plan.reader))
