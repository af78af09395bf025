"""The project on the desk: what is open, its history, what is in hand, and where it is kept."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import replace
from pathlib import Path

from PySide6.QtCore import QFileSystemWatcher, QObject, QTimer, Signal

from nullah.core.actions import show_in
from nullah.core.bits import Bits
from nullah.core.catalogue import AMERICAN, Catalogue
from nullah.core.frozen_record import FrozenRecord
from nullah.core.lengths import LengthError, Marks
from nullah.core.past_limits import past_limits
from nullah.core.plan import Plan, keep_proof, known_proof, prove_plan, work_out
from nullah.core.project import Project
from nullah.core.rack.board import BoardError
from nullah.core.stations.piece import keep_views
from nullah.core.stations.selection import BreakdownSelection, Selection
from nullah.core.wording.facts import error_words, fact_words
from nullah.desk.afterwards import Afterwards
from nullah.files.fingerprint import Fingerprint, fingerprint
from nullah.files.recovery import Autosave
from nullah.language import tr
from nullah.memory import Sparing

TYPE_CHECKING = False
if TYPE_CHECKING:
    from concurrent.futures import Future

    from nullah.core.breakdown.buying import BuyingLine
    from nullah.core.work.order_of_work import OrderOfWork
    from nullah.desk.asking import Asker
    from nullah.questions import Proved

#: Work is kept so long after the first change that is not kept yet, in ms: a killed program loses at most
#: what was done in one and a half seconds, and writing takes its time too.
AUTOSAVE_AFTER = 1000
#: It is looked whether much is kept of earlier plans when nothing was done for so long, in ms, and after so many
#: changes without such a rest.
SPARED_AFTER, SPARED_CHANGES = 2000, 10


class _Step(FrozenRecord):
    name: str
    before: Project


class Document(QObject):
    """Holds the project and tells when it, or what is in hand, has changed.

    `changed` follows every new plan; `hand_changed` what is picked or pointed at; `replaced` another
    project; `warned` carries a sentence when unsaved work cannot be kept; `changed_elsewhere` tells
    that somebody else has written the file.
    """

    changed = Signal()
    selection_changed = Signal()
    replaced = Signal()
    warned = Signal(str)
    #: Something was done, by its name.
    done = Signal(str)
    changed_elsewhere = Signal()
    #: Work was kept beside the window, or could not be.
    _kept = Signal(object)

    def __init__(
        self, project: Project, autosave: Autosave, file: Path | None = None, catalogue: Catalogue = AMERICAN
    ) -> None:
        super().__init__()
        #: The terms in which the reader is written to; they belong to the desk, not to the piece.
        self.catalogue = catalogue
        project = self._in_terms(project)
        self.project = project
        self.file = file.absolute() if file else None
        #: What the file held when it was last read or written here.
        self.base: Fingerprint | None = None
        self._told_of: Fingerprint | None = None
        self._watch = QFileSystemWatcher(self)
        self._watch.fileChanged.connect(self.look_at_file)
        self._watch.directoryChanged.connect(self.look_at_file)
        self.selection = Selection()
        self._numbers = False
        self.prover: Asker | None = None
        self._orderer: Asker | None = None
        self._buyer: Asker | None = None
        #: Whether everything is worked out before it is shown: for pictures and tests.
        self.patient = False
        self._undo: list[_Step] = []
        self._redo: list[_Step] = []
        self._saved: Project | None = project
        # The last answer to whether anything is unsaved, and for which two projects it was given.
        self._compared: tuple[Project, Project | None, bool] = (project, project, False)
        self._autosave = autosave
        self._warned = False
        self._keeping: Future[str] | None = None
        # What was left kept when it was closed: whoever asks once more, at the very end, keeps no second copy.
        self._left: Project | None = None
        self._timer = QTimer(self)
        self._timer.setSingleShot(True)
        self._timer.setInterval(AUTOSAVE_AFTER)
        self._timer.timeout.connect(self._keep_beside)
        self._kept.connect(self._take_kept)
        self._asking = QTimer(self)
        self._asking.setSingleShot(True)
        self._asking.timeout.connect(self._ask_for_proof)
        # What came and is got ready, bit by bit, before it is shown.
        self._arrivals = Afterwards(self)
        self._sparing = Sparing()
        self._resting = QTimer(self)
        self._resting.setSingleShot(True)
        self._changes = 0
        self._resting.timeout.connect(self._spare)
        self.plan: Plan = self._plan_of(project)
        self._to_prove = self.plan

    def _in_terms(self, project: Project) -> Project:
        return replace(project, marks=replace(project.marks, catalogue=self.catalogue))

    def take_terms(self, catalogue: Catalogue) -> None:
        """Write to the reader in other terms; the piece and what can be undone are the same."""
        self.catalogue = catalogue
        for steps in (self._undo, self._redo):
            steps[:] = [replace(step, before=self._in_terms(step.before)) for step in steps]
        self._saved = self._in_terms(self._saved) if self._saved is not None else None
        self.project = self._in_terms(self.project)
        self._work_out()

    # --- what follows ---

    def numbers_ready(self, patient: bool = False) -> None:
        """Say that the numerical libraries are loaded: from now on milling and the proof are worked out too.

        Where `patient`, every change waits for its proof: for pictures and tests.
        """
        from nullah.desk.asking import Asker
        from nullah.questions import (
            buying_of_plan,
            buying_of_project,
            order_of_plan,
            order_project,
            proof_of_plan,
            prove_project,
        )

        self._numbers, self.patient = True, patient
        self.prover = Asker(prove_project, proof_of_plan, behind=2)
        self.prover.answered.connect(self._proved)
        self._orderer = Asker(order_project, order_of_plan, behind=1)
        self._orderer.answered.connect(self._ordered)
        self._buyer = Asker(buying_of_project, buying_of_plan, behind=2)
        self._buyer.answered.connect(self._counted)
        self._work_out()

    def _work_out(self) -> None:
        self.plan = self._worked_out()
        self.changed.emit()

    def _plan_of(self, project: Project) -> Plan:
        return work_out(project, milling=self._numbers, proving=False, aside=not self.patient)

    def _worked_out(self) -> Plan:
        """Return the plan of the project, with its proof if that is there at once."""
        plan = self._plan_of(self.project)
        if self.prover is None:
            return plan
        known = known_proof(plan)
        if known is not None:
            return plan.with_proof(known)
        if self.patient:
            return plan.with_proof(prove_plan(plan))
        # Asked once the window has painted what was typed.
        self._to_prove = plan
        self._asking.start(0)
        return plan

    def _ask_for_proof(self) -> None:
        if self.prover is not None:
            self.prover.ask(self._to_prove)

    def order_ready(self) -> bool:
        """Return whether the order of work can be shown; where it cannot, it is asked for: `changed` tells when."""
        from nullah.core.work.order_of_work import known_order, order_key

        if self.patient or self._orderer is None or known_order(self.plan) is not None:
            return True
        asked = self._orderer.asked
        if asked is None or order_key(asked) != order_key(self.plan):
            self._orderer.ask(self.plan)
        return False

    def count_boards_to_buy(self) -> None:
        """Have it worked out what to buy for parts that lie nowhere, unless it is known: `changed` tells when it is."""
        from nullah.core.breakdown.buying import known_buying_list
        from nullah.core.laying import shortage_of

        if self.patient or self._buyer is None or not self.plan.unplaced:
            return
        shortage, asked = shortage_of(self.plan), self._buyer.asked
        if shortage.parts and known_buying_list(shortage) is None and (asked is None or shortage_of(asked) != shortage):
            self._buyer.ask(self.plan)

    def _counted(self, plan: Plan, lines: tuple[BuyingLine, ...]) -> None:
        """Take what to buy, as it was worked out aside."""
        from nullah.core.breakdown.buying import keep_buying_list
        from nullah.core.laying import shortage_of

        keep_buying_list(shortage_of(plan), lines)
        if shortage_of(plan) == shortage_of(self.plan):
            self.changed.emit()

    def _ordered(self, plan: Plan, order: OrderOfWork) -> None:
        """Take an order of work that was derived aside, if it is still of the plan that is shown."""
        from nullah.core.work.order_of_work import keep_order, order_key

        if order_key(plan) == order_key(self.plan):
            keep_order(self.plan, order)
            shown = self.plan
            self._arrivals.begin([lambda: self._stand(shown), lambda: self._show_order_of(shown)])

    def _stand(self, plan: Plan) -> Bits[object]:
        from nullah.core.stations.daybook import time_of
        from nullah.core.work.day_book import standing_in_bits

        return standing_in_bits(plan, time_of(plan, self.selection))

    def _show_order_of(self, plan: Plan) -> None:
        from nullah.core.work.order_of_work import order_key

        if order_key(plan) == order_key(self.plan):
            self.changed.emit()

    def _proved(self, plan: Plan, proved: Proved) -> None:
        """Take a proof that was worked out aside, if it is still of the plan that is shown."""
        if proved.proof is not None:
            keep_proof(plan, proved.proof)
        if proved.views is not None:
            keep_views(plan.with_proof(proved.proof), proved.views)
        if plan.proof_key == self.plan.proof_key:
            self.plan = self.plan.with_proof(proved.proof)
            self.changed.emit()

    def tentative(self, action: Callable[[Project], Project]) -> Plan | None:
        """Work out what an action would lead to, without taking it; None if it is refused."""
        try:
            return work_out(action(self.project), milling=False, proving=False)
        except (BoardError, LengthError):
            return None

    def preview(self, action: Callable[[Project], Project] | None) -> None:
        """Show what an action would lead to, without taking it; None shows what there is."""
        project = self.project if action is None else action(self.project)
        before = self.plan
        self.plan = replace(self._plan_of(project), proof=before.proof)
        self.changed.emit()

    # --- actions ---

    def do(self, name: str, action: Callable[[Project], Project]) -> str:
        """Carry out an action under a name; give an empty text, or the sentence that refuses it."""
        try:
            after = action(self.project)
        except (BoardError, LengthError) as error:
            return error_words(error, self.plan.reader)
        if after == self.project:
            return ""
        past = past_limits(after)
        if past is not None:
            return fact_words(past, self.plan.reader)
        step = _Step(name, self.project)
        self._take(after)
        self._undo.append(step)
        self._redo.clear()
        self.changed.emit()
        self.done.emit(name)
        return ""

    def _take(self, project: Project) -> None:
        """Take a project; one that cannot be worked out is not taken, and the desk stays as it was."""
        before = self.project
        self.project = project
        try:
            self.plan = self._worked_out()
        except BaseException:
            self.project = before
            raise
        # Not anew with every change: work is kept however fast changes follow each other.
        if not self._timer.isActive():
            self._timer.start()
        self._changes += 1
        self._resting.start(SPARED_AFTER if self._changes < SPARED_CHANGES else 0)

    def _spare(self) -> None:
        # All is let go only at rest: what is wanted next is worked out anew.
        rests, self._changes = self._changes < SPARED_CHANGES, 0
        self._sparing.look((lambda: self._plan_of(self.project)) if rests else None)

    @property
    def undo_name(self) -> str:
        """The name of what undo would take back, or empty."""
        return self._undo[-1].name if self._undo else ""

    @property
    def redo_name(self) -> str:
        """The name of what redo would do again, or empty."""
        return self._redo[-1].name if self._redo else ""

    def undo(self) -> None:
        """Take the last action back."""
        self._swap(self._undo, self._redo)

    def redo(self) -> None:
        """Do again what was taken back."""
        self._swap(self._redo, self._undo)

    def _swap(self, source: list[_Step], target: list[_Step]) -> None:
        if not source:
            return
        step, now = source[-1], self.project
        word = tr("Undo") if source is self._undo else tr("Redo")
        # The unit shown belongs to the desk, not to the story of the piece.
        self._take(show_in(step.before, self.project.marks))
        source.pop()
        target.append(_Step(step.name, now))
        self.changed.emit()
        self.done.emit(f"{word}: {step.name}")

    def show_in(self, marks: Marks) -> None:
        """Show figures in another unit; no step of the history."""
        saved_before = not self.unsaved
        self.project = show_in(self.project, marks)
        if saved_before and self.file is None:
            self._saved = self.project
        self._work_out()

    # --- in hand ---

    def pick_part(self, part: str) -> None:
        """Take a part in hand, across all stations."""
        lies_on = next(
            (b.board.id for b in self.plan.boards for i in b.placed if part in i.part.parts), self.selection.board
        )
        self.select(self.selection._replace(part=part, board=lies_on, breakdown=BreakdownSelection()))

    def select(self, selection: Selection) -> None:
        """Take something else in hand."""
        if selection != self.selection:
            self.selection = selection
            self.selection_changed.emit()

    # --- keeping ---

    @property
    def unsaved(self) -> bool:
        """Whether there is anything that no file holds."""
        project, saved, answer = self._compared
        if project is not self.project or saved is not self._saved:
            answer = self.project != self._saved
            self._compared = (self.project, self._saved, answer)
        return answer

    def replace_project(
        self, project: Project, file: Path | None, saved: bool = True, base: Fingerprint | None = None
    ) -> None:
        """Open another project.

        Parameters
        ----------
        project : Project
        file : Path or None
            Where it will be saved.
        saved : bool
            Whether the file holds it.
        base : Fingerprint, optional
            What the file held when the work on it began; what it holds now, if left out.
        """
        self._undo.clear()
        self._redo.clear()
        self.file = file.absolute() if file else None
        project = self._in_terms(project)
        self.project = project
        self._saved = project if saved else None
        self.selection = Selection()
        self._timer.stop()
        if saved:
            self._autosave.done()
        else:
            self._timer.start()
        self._know_file(base or (fingerprint(self.file) if self.file else None))
        self.replaced.emit()
        self._work_out()
        self.selection_changed.emit()

    def save(self, file: Path, over: bool = False) -> None:
        """Save to a file.

        Raises
        ------
        FileChangedError
            If it is the file that is open, somebody else has written it, and not `over`.
        ProjectFileError
            If the disk refuses; the work stays unsaved here.
        """
        from nullah.files.project_file import write_project

        file = file.absolute()
        write_project(self.project, file, self.base if file == self.file and not over else None)
        self.file = file
        self._saved = self.project
        self._know_file(fingerprint(file))
        self._timer.stop()
        self._autosave.done()
        self.changed.emit()

    # --- others at the same file ---

    def _know_file(self, base: Fingerprint | None) -> None:
        """Take what the file holds as known, and watch it and its folder: a replaced file is another one."""
        self.base = self._told_of = base
        watched = {*self._watch.files(), *self._watch.directories()}
        wanted = set() if self.file is None else {str(p) for p in (self.file, self.file.parent) if p.exists()}
        if watched - wanted:
            self._watch.removePaths(list(watched - wanted))
        if wanted - watched:
            self._watch.addPaths(list(wanted - watched))

    def look_at_file(self) -> None:
        """Tell if somebody else has written the file that is open; each change of it once."""
        if self.file is None or self.base is None:
            return
        if str(self.file) not in self._watch.files() and self.file.exists():
            self._watch.addPath(str(self.file))
        now = fingerprint(self.file, self._told_of)
        if now is None or now.same_content(self._told_of):
            return
        self._told_of = now
        if not now.same_content(self.base):
            self.changed_elsewhere.emit()

    def keep(self) -> bool:
        """Keep unsaved work where it will be found if the program is killed; say whether all is safe."""
        self._timer.stop()
        if self.unsaved and self.project is not self._left:
            self._take_kept(self._begin_to_keep())
        return not self._warned

    def _keep_beside(self) -> None:
        if self.unsaved:
            self._begin_to_keep().add_done_callback(self._kept.emit)

    def _begin_to_keep(self) -> Future[str]:
        self._keeping = self._autosave.keep_beside(self.project, self.file, self.base)
        return self._keeping

    def _take_kept(self, kept: Future[str]) -> None:
        """Say why work cannot be kept, once until it can be again; of keeping more than one, only the last counts."""
        if kept is not self._keeping:
            return
        sentence = kept.result()
        if sentence and not self._warned:
            self.warned.emit(sentence)
        self._warned = bool(sentence)

    def rest(self) -> None:
        """Stop what is worked out aside, and wait until it has stopped."""
        self._asking.stop()
        self._arrivals.begin(())
        for asker in (self.prover, self._orderer, self._buyer):
            if asker is not None:
                asker.wait()

    def close(self) -> bool:
        """Close: unsaved work stays kept and is offered at the next start. Say whether all is safe."""
        self.rest()
        if not self.unsaved:
            self._timer.stop()
            self._autosave.done()
        elif self.keep():
            self._autosave.leave()
            self._left = self.project
        else:
            return False
        # Who has closed a piece wants to hear no more of its file.
        watched = [*self._watch.files(), *self._watch.directories()]
        if watched:
            self._watch.removePaths(watched)
        return True
