"""Papers: opening and saving, earlier versions, kept work, and others at the same file."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import replace
from functools import partial
from pathlib import Path

from PySide6.QtWidgets import QFileDialog, QMainWindow

from nullah.core.actions import show_in
from nullah.core.beginning import begun
from nullah.core.catalogue import N_
from nullah.core.lengths import Unit
from nullah.core.my_shop import planned_with
from nullah.core.project import Project
from nullah.core.reader import Reader
from nullah.core.wording.dates import clock, short_day
from nullah.core.wording.facts import error_words
from nullah.desk.banner import Banner, Urgency
from nullah.desk.document import Document
from nullah.desk.exports import Exports
from nullah.desk.settings import Settings
from nullah.files.errors import FileChangedError, ProjectFileError
from nullah.files.fingerprint import Fingerprint, fingerprint
from nullah.files.recovery import Autosave, Kept
from nullah.language import tr, tr_count

_FILTER = N_("Nullah projects (*.nullah)")


class Papers:
    """What is done with files."""

    def __init__(
        self, window: QMainWindow, document: Document, autosave: Autosave, banner: Banner, settings: Settings
    ) -> None:
        self._window, self._document, self._autosave, self._banner = window, document, autosave, banner
        self._settings = settings
        self.exports = Exports(window, document, banner, settings)
        document.changed_elsewhere.connect(self._changed_elsewhere)
        #: Called before another piece takes the place of this one: what is typed and not entered is entered.
        self.before_replacing: Callable[[], None] = lambda: None

    # --- opening ---

    def open_path(self, path: Path) -> bool:
        """Open a project file; on failure say why and leave what is open as it is."""
        from nullah.files.project_file import read_project

        base = fingerprint(path)
        try:
            project = read_project(path)
        except ProjectFileError as error:
            ways = ((tr("Earlier versions …"), partial(self.show_versions, path)),) if self._versions(path) else ()
            self._banner.say(error_words(error), *ways, urgency=Urgency.ERROR)
            return False
        return self._replace(project, path, base=base)

    def _replace(
        self, project: Project, file: Path | None, saved: bool = True, base: Fingerprint | None = None
    ) -> bool:
        """Put another project on the desk; unsaved work of the old one is set aside, not lost."""
        self.before_replacing()
        document = self._document
        name = document.project.piece.name
        aside: Kept | None = None
        if document.unsaved:
            aside = self._autosave.set_aside(document.project, document.file, document.base)
            if aside is None:
                self._banner.say(
                    tr(
                        "{name} is not saved and cannot be set aside: the disk refuses. Save it to a file first.",
                        name=name,
                    ),
                    (tr("Save it …"), self.ask_save),
                    urgency=Urgency.ERROR,
                )
                return False
        document.replace_project(project, file, saved, base)
        if file is not None:
            self._settings.worked_on(file)
        self._banner.forget(Urgency.WORD)
        self._banner.forget(Urgency.QUESTION)
        if aside is not None:
            self._banner.say(
                tr("{name} was not saved. It is kept.", name=name), (tr("Open it again"), partial(self.take_up, aside))
            )
        return True

    def new(self, form: str, unit: Unit) -> None:
        """Begin a new piece of a form, from what the last ones taught."""
        from nullah.files.piece_records import begin_from, read_records, records_file

        fresh = begun(Project(marks=replace(self._document.project.marks, unit=unit)), form)
        if self._settings.shop is not None:
            fresh = planned_with(fresh, self._settings.shop)
        self._replace(begin_from(fresh, read_records(records_file())), None)

    def open_sample(self) -> None:
        """Open the sample piece."""
        from nullah.demo.seed_cabinet import seed_cabinet

        self._replace(seed_cabinet(), None)

    def ask_open(self) -> None:
        """Ask for a file and open it."""
        name, _ = QFileDialog.getOpenFileName(self._window, tr("Open a piece"), self._folder(), tr(_FILTER))
        if name:
            self.open_path(Path(name))

    def _folder(self) -> str:
        return str(self._document.file.parent if self._document.file else Path.home())

    # --- saving ---

    def save(self) -> None:
        """Save to the file it came from, or ask for one."""
        if self._document.file is None:
            self.ask_save()
        else:
            self.save_path(self._document.file)

    def ask_save(self) -> None:
        """Ask for a file and save."""
        self.before_replacing()
        start = self._document.file or Path(self._folder()) / f"{file_name(self._document.project.piece.name)}.nullah"
        name, _ = QFileDialog.getSaveFileName(self._window, tr("Save the piece"), str(start), tr(_FILTER))
        if name:
            path = Path(name)
            self.save_path(path if path.suffix else path.with_suffix(".nullah"))

    def save_path(self, path: Path, over: bool = False) -> bool:
        """Save to a file; on failure say why. The work stays here either way."""
        self.before_replacing()
        try:
            self._document.save(path, over)
            self._settings.worked_on(path)
        except FileChangedError:
            self._changed_elsewhere()
            return False
        except ProjectFileError as error:
            self._banner.say(error_words(error), (tr("Save elsewhere …"), self.ask_save), urgency=Urgency.ERROR)
            return False
        for urgency in (Urgency.WORD, Urgency.QUESTION, Urgency.ERROR):
            self._banner.forget(urgency)
        return True

    # --- others at the same file ---

    def _changed_elsewhere(self) -> None:
        """Ask what is to be done about a file that somebody else has written."""
        file = self._document.file
        if file is None:
            return
        self._banner.say(
            tr(
                "{name} was changed by another program or window. If you keep yours, theirs stays as an "
                "earlier version.",
                name=file.name,
            ),
            (tr("Keep mine"), lambda: self.save_path(file, over=True)),
            (tr("Take theirs"), lambda: self.open_path(file)),
            (tr("Save beside"), lambda: self.save_path(beside(file))),
            urgency=Urgency.QUESTION,
        )

    # --- earlier versions ---

    def _versions(self, path: Path | None) -> bool:
        from nullah.files.versions import versions_of

        return path is not None and bool(versions_of(path))

    def show_versions(self, path: Path | None = None) -> None:
        """Show the earlier versions of a file, by default of the one that is open, to be looked at and taken back."""
        from nullah.desk.history import versions_dialog
        from nullah.files.versions import versions_of

        file = path or self._document.file
        if file is None:
            self._banner.say(tr("This piece has not been saved yet: it has no earlier versions."))
            return
        found = versions_of(file)
        if not found:
            self._banner.say(tr("{name} has no earlier versions: one is kept with every save.", name=file.name))
            return
        versions_dialog(self._window, self._document.project, file, found, partial(self.take_back, file)).open()

    def take_back(self, file: Path, project: Project) -> None:
        """Take an earlier version back: as a step that can be undone, or into the place of a file that is damaged."""
        if self._document.file == file.absolute():
            now = self._document.project
            self._document.do(tr("go back to an earlier version"), lambda _: _with_marks_of(project, now))
            self._banner.say(tr("The earlier version is on the desk. Save it to keep it; Undo takes you back."))
        elif self._replace(project, file, saved=False):
            self._banner.say(tr("The earlier version of {name} is on the desk. Save it to keep it.", name=file.name))

    # --- kept work ---

    def offer_kept(self) -> None:
        """Offer all work that earlier desks left unsaved, if there is any."""
        found = self._autosave.kept()
        if not found:
            return
        newest, more = found[0], len(found) - 1
        try:
            name = newest.read().piece.name
        except ProjectFileError:
            name = tr("A piece that cannot be read any more")
        where = tr(", of {name}", name=newest.file.name) if newest.file else ""
        older = tr(" The file was changed after that.") if newest.file_is_newer else ""
        others = tr_count(more, " {n} more piece is kept.", " {n} more pieces are kept.") if more else ""
        self._banner.say(
            tr(
                "{name}{where}, from {when}, was not saved when the desk closed.{older}{others}",
                name=name,
                where=where,
                when=_when(newest, self._document.plan.reader),
                older=older,
                others=others,
            ),
            (tr("Open it"), partial(self.take_up, newest)),
            (tr("See all …") if more else tr("Look at it …"), self.show_kept),
            urgency=Urgency.OFFER,
        )

    def show_kept(self) -> None:
        """Show all kept work, newest first, to be looked at, opened or deleted."""
        from nullah.desk.history import kept_dialog

        found = self._autosave.kept()
        if not found:
            self._banner.say(tr("There is no kept work: everything that was left unsaved has been taken up."))
            return
        kept_dialog(self._window, found, self._document.plan.reader, self.take_up).open()

    def take_up(self, kept: Kept) -> None:
        """Open work that was left unsaved."""
        try:
            project = kept.read()
        except ProjectFileError as error:
            self._banner.say(error_words(error), urgency=Urgency.ERROR)
            return
        if not self._replace(project, kept.file, saved=False, base=kept.base):
            return
        if self._document.keep():
            kept.drop()
        self._banner.forget(Urgency.OFFER)
        if kept.file_is_newer:
            self._changed_elsewhere()


def _when(kept: Kept, reader: Reader) -> str:
    return f"{short_day(kept.when, reader)} {clock(kept.when)}"


def _with_marks_of(project: Project, other: Project) -> Project:
    return show_in(project, other.marks)


def beside(file: Path) -> Path:
    """Return a free name beside a file: ``box (mine).nullah``, ``box (mine 2).nullah`` …"""
    number = 1
    while True:
        name = f"{file.stem} (mine{f' {number}' if number > 1 else ''}){file.suffix}"
        if not file.with_name(name).exists():
            return file.with_name(name)
        number += 1


def file_name(name: str) -> str:
    """Return a file's name for a piece: letters, figures, spaces as hyphens; never a path.

    Examples
    --------
    >>> file_name("Seed cabinet"), file_name("../x"), file_name("…")
    ('seed-cabinet', '---x', '-')
    """
    kept = "".join(letter if letter.isalnum() or letter in " -_" else "-" for letter in name)
    return kept.strip().lower().replace(" ", "-")[:80] or tr("piece")
