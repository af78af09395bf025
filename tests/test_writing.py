"""The one atomic writer: links, modes, owner, umask; protected files; a disk that fails at any moment."""

import errno
import os
import stat
import subprocess
import sys
from pathlib import Path

import pytest

from nullah.core import actions
from nullah.demo.seed_box import seed_box
from nullah.files.errors import FileChangedError, ProjectFileError
from nullah.files.fingerprint import fingerprint
from nullah.files.project_file import read_project, write_project
from nullah.files.versions import settle, versions_of
from nullah.writing import why, write_file

#: Every call with which the writer and the versions touch the disk.
CALLS = ("os.open", "os.write", "os.fsync", "os.fchmod", "os.link", "os.replace", "os.close")


def fail_at(monkeypatch, call, which, number=28):
    """Let the `which`-th call of one function be refused, as a disk that is full does."""
    module, _, name = call.partition(".")
    real, seen = getattr(os, name), [0]

    def refusing(*arguments, **named):
        seen[0] += 1
        if seen[0] == which:
            if name == "close":
                real(*arguments, **named)
            raise OSError(number, os.strerror(number))
        return real(*arguments, **named)

    monkeypatch.setattr(f"{module}.{name}", refusing)
    return seen


def names(folder):
    return sorted(path.name for path in folder.iterdir())


@pytest.mark.parametrize("mode", [0o600, 0o640, 0o644, 0o664, 0o755])
def test_the_mode_of_a_file_stays(tmp_path, mode):
    path = tmp_path / "a"
    path.write_text("old")
    path.chmod(mode)
    write_file(path, "new")
    assert stat.S_IMODE(path.stat().st_mode) == mode and path.read_text() == "new"


@pytest.mark.parametrize("umask", [0o022, 0o077, 0o002])
def test_a_new_file_follows_the_umask(tmp_path, umask):
    before = os.umask(umask)
    try:
        write_file(tmp_path / "a", b"new")
    finally:
        os.umask(before)
    assert stat.S_IMODE((tmp_path / "a").stat().st_mode) == 0o666 & ~umask


def test_links_stay_links(tmp_path):
    (tmp_path / "far").mkdir()
    (tmp_path / "far" / "a").write_text("old")
    (tmp_path / "link").symlink_to(tmp_path / "far" / "a")
    (tmp_path / "again").symlink_to("link")
    write_file(tmp_path / "again", "new")
    assert (tmp_path / "again").is_symlink() and (tmp_path / "link").is_symlink()
    assert (tmp_path / "far" / "a").read_text() == "new" and names(tmp_path / "far") == ["a"]
    (tmp_path / "dangling").symlink_to(tmp_path / "far" / "b")
    write_file(tmp_path / "dangling", "made")
    assert (tmp_path / "far" / "b").read_text() == "made"


def test_a_project_saved_through_a_link_keeps_its_versions_beside_the_file(tmp_path):
    (tmp_path / "far").mkdir()
    (tmp_path / "link.nullah").symlink_to(tmp_path / "far" / "a.nullah")
    for name in ("one", "two"):
        write_project(actions.rename(seed_box(), name), tmp_path / "link.nullah")
    assert names(tmp_path) == ["far", "link.nullah"] and names(tmp_path / "far") == [".a.nullah.1", "a.nullah"]
    assert [read_project(each.path).piece.name for each in versions_of(tmp_path / "link.nullah")] == ["one"]


@pytest.mark.skipif(os.getuid() != 0, reason="only root may give files away")
def test_the_owner_of_a_file_stays(tmp_path):
    path = tmp_path / "a"
    path.write_text("old")
    os.chown(path, 1234, 4321)
    write_file(path, "new")
    assert (path.stat().st_uid, path.stat().st_gid) == (1234, 4321)


def test_extended_attributes_stay(tmp_path):
    path = tmp_path / "a"
    path.write_text("old")
    try:
        os.setxattr(path, "user.note", b"mine")
    except OSError:
        pytest.skip("this file system has none")
    write_file(path, "new")
    assert os.getxattr(path, "user.note") == b"mine"


@pytest.mark.parametrize("mode", [0o444, 0o400])
def test_a_write_protected_file_is_refused_also_for_root(tmp_path, mode):
    path = tmp_path / "a"
    path.write_text("old")
    path.chmod(mode)
    with pytest.raises(OSError, match="write-protected"):
        write_file(path, "new")
    assert path.read_text() == "old" and names(tmp_path) == ["a"]
    with pytest.raises(ProjectFileError, match=r"write-protected\. Your work is safe here"):
        write_project(seed_box(), path)
    assert path.read_text() == "old" and names(tmp_path) == ["a"]


def test_what_is_no_ordinary_file_is_refused(tmp_path):
    os.mkfifo(tmp_path / "pipe")
    for path, words in ((tmp_path, "it is a folder"), (tmp_path / "pipe", "it is not an ordinary file")):
        with pytest.raises(OSError, match=words):
            write_file(path, "x")


@pytest.mark.parametrize("name", ["x" * 255, "ü" * 120, "a b", "-rf", ".hidden", "new\nline"])
def test_any_name_that_a_file_may_have(tmp_path, name):
    write_file(tmp_path / name, "x")
    write_file(tmp_path / name, "y")
    assert (tmp_path / name).read_text() == "y" and names(tmp_path) == [name]


@pytest.mark.parametrize("named", [False, True])
@pytest.mark.parametrize("call", CALLS)
def test_a_call_that_is_refused_leaves_every_file_as_it_was(tmp_path, monkeypatch, call, named):
    """Whichever call of a save fails, and whenever: the file, its versions and their number are as before."""
    if named:
        monkeypatch.delattr(os, "O_TMPFILE")  # as where the system has none
    path = tmp_path / "a.nullah"
    for number in range(6):
        write_project(actions.rename(seed_box(), f"box {number}"), path)
    before = {name: (tmp_path / name).read_bytes() for name in names(tmp_path)}
    tried = 0
    for which in range(1, 12):
        with monkeypatch.context() as patch:
            seen = fail_at(patch, call, which)
            try:
                write_project(actions.rename(seed_box(), "refused"), path)
                saved = True
            except ProjectFileError as error:
                saved = False
                assert "could not be saved" in str(error)
        if seen[0] < which:
            break
        tried += 1
        after = {name: (tmp_path / name).read_bytes() for name in names(tmp_path)}
        if saved:
            # What failed came after the file was replaced, or could be done another way: nothing older is lost but
            # the oldest version.
            assert read_project(path).piece.name == "refused"
            kept = [read_project(each.path).piece.name for each in versions_of(path)]
            assert kept[:3] == ["box 5", "box 4", "box 3"], (call, which)
            for name in after:
                (tmp_path / name).unlink()
            for name, content in before.items():
                (tmp_path / name).write_bytes(content)
        else:
            assert after == before, (call, which)
    assert tried or call == "os.fchmod" or named


@pytest.mark.parametrize("room", [0, 1, 4096, 10_000])
def test_a_disk_that_is_full_part_way_leaves_the_old_file(tmp_path, room):
    """The system itself refuses to write past so many bytes of a file (a limit of the process)."""
    path = tmp_path / "a.nullah"
    write_project(seed_box(), path)
    before = path.read_bytes()
    trial = (
        "import resource, signal, sys; from pathlib import Path\n"
        "from nullah.files.project_file import write_project; from nullah.files.errors import ProjectFileError\n"
        "from nullah.demo.seed_cabinet import seed_cabinet\n"
        "signal.signal(signal.SIGXFSZ, signal.SIG_IGN)\n"
        f"resource.setrlimit(resource.RLIMIT_FSIZE, ({room}, {room}))\n"
        "try: write_project(seed_cabinet(), Path(sys.argv[1]))\n"
        "except ProjectFileError as error: print(error); sys.exit(3)\n"
    )
    done = subprocess.run([sys.executable, "-c", trial, str(path)], capture_output=True, text=True, check=False)
    assert done.returncode == 3, done.stderr
    assert "could not be saved" in done.stdout and names(tmp_path) == ["a.nullah"] and path.read_bytes() == before


@pytest.mark.parametrize("number", [errno.EPERM, errno.ENOENT, errno.EXDEV, errno.EOPNOTSUPP])
def test_where_a_file_without_a_name_cannot_be_given_one_it_is_written_under_a_name(tmp_path, monkeypatch, number):
    (tmp_path / "a").write_text("old")
    with monkeypatch.context() as patch:
        seen = fail_at(patch, "os.link", 1, number)
        write_file(tmp_path / "a", "new")
    assert seen == [1] and (tmp_path / "a").read_text() == "new" and names(tmp_path) == ["a"]


def test_what_a_killed_writer_left_is_swept(tmp_path):
    left = tmp_path / ".nullah-999999999-abcdef.part"
    left.write_text("half")
    mine = tmp_path / f".nullah-{os.getpid()}-abcdef.part"
    mine.write_text("under way")
    write_file(tmp_path / "a", "x")
    assert names(tmp_path) == sorted([mine.name, "a"])


def test_a_save_that_was_killed_before_the_last_step_is_taken_up(tmp_path):
    path = tmp_path / "a.nullah"
    for name in ("one", "two"):
        write_project(actions.rename(seed_box(), name), path)
    # Killed when the new file had taken the place of the old one, which was known as .0 by then.
    os.link(path, tmp_path / ".a.nullah.0")
    write_file(path, "three")
    assert [each.number for each in versions_of(path)] == [0, 1]
    settle(path)
    assert names(tmp_path) == [".a.nullah.1", ".a.nullah.2", "a.nullah"]
    assert [read_project(each.path).piece.name for each in versions_of(path)] == ["two", "one"]
    # Killed before: .0 is the very file that is there.
    os.link(path, tmp_path / ".a.nullah.0")
    settle(path)
    assert names(tmp_path) == [".a.nullah.1", ".a.nullah.2", "a.nullah"]


def test_the_oldest_version_gives_way_and_no_other(tmp_path):
    path = tmp_path / "a.nullah"
    for number in range(1, 8):
        write_project(actions.rename(seed_box(), str(number)), path)
    assert [read_project(each.path).piece.name for each in versions_of(path)] == ["6", "5", "4"]
    (tmp_path / ".a.nullah.2").unlink()
    write_project(actions.rename(seed_box(), "8"), path)
    assert [read_project(each.path).piece.name for each in versions_of(path)] == ["7", "6", "4"], "a gap is filled"


def test_a_file_that_somebody_else_wrote_is_not_written_over(tmp_path):
    path = tmp_path / "a.nullah"
    write_project(seed_box(), path)
    base = fingerprint(path)
    write_project(actions.rename(seed_box(), "mine"), path, base)
    theirs = path.read_text().replace("mine", "theirs")
    path.write_text(theirs)
    with pytest.raises(FileChangedError, match="changed by another program"):
        write_project(actions.rename(seed_box(), "mine again"), path, base)
    assert path.read_text() == theirs and len(versions_of(path)) == 1
    # Written anew with the same content, or gone: nothing to ask.
    path.write_text(theirs)
    write_project(seed_box(), path, fingerprint(path))
    path.unlink()
    write_project(seed_box(), path, base)
    assert path.exists()


def test_why_the_disk_refused_is_said_in_plain_words():
    said = {why(OSError(number, os.strerror(number))) for number in (28, 13, 30, 5, 36, 2)}
    assert said == {
        "the disk is full",
        "it may not be written there",
        "the disk is read-only",
        "the disk failed",
        "the name is too long",
        "there is no such folder",
    }


def test_nothing_writes_files_but_the_writer():
    """Whatever the program puts on the disk goes through one function."""
    root = Path(__file__).parent.parent / "src" / "nullah"
    calls = (
        ".write_text(",
        ".write_bytes(",
        "os.replace(",
        ".replace(path",
        "mkstemp(",
        "NamedTemporaryFile(",
        '"w"',
        '"wb"',
    )
    found = [
        f"{path.relative_to(root)}: {call}"
        for path in root.rglob("*.py")
        if path.name not in ("writing.py", "versions.py")
        for call in calls
        if call in path.read_text(encoding="utf-8")
    ]
    # A device or a pipe is written into, not replaced.
    assert found == ['cli/options.py: "w"']


@pytest.fixture(scope="module")
def writers():
    from tests.torture.disks import writers

    return writers()


@pytest.mark.dear
def test_everything_that_is_written_follows_the_umask_and_keeps_the_mode(tmp_path, writers):
    before = os.umask(0o027)
    try:
        for name, write in writers.items():
            place = tmp_path / name.replace(" ", "-")
            place.mkdir()
            write(place / "a.x")
            for path in (each for each in place.rglob("*") if each.is_file() and each.name != "held"):
                assert stat.S_IMODE(path.stat().st_mode) == 0o640, (name, path)
                path.chmod(0o600)
            write(place / "a.x")
            modes = {stat.S_IMODE(each.stat().st_mode) for each in place.iterdir() if each.is_file()}
            assert modes <= {0o600}, name
    finally:
        os.umask(before)


@pytest.mark.dear
@pytest.mark.parametrize("call", ["write", "fsync", "replace", "link"])
def test_nothing_that_is_written_is_ever_half_there(tmp_path, monkeypatch, writers, call):
    """Each kind of file, where the disk refuses: said, the old file as it was, and nothing left behind."""
    from tests.torture.disks import REFUSALS

    for name, write in writers.items():
        if name == "kept work" or (name, call) == ("project", "link"):
            continue  # the one has a folder of its own, the other keeps its version another way then
        place = tmp_path / name.replace(" ", "-")
        place.mkdir()
        write(place / "a.x")
        before = {path.name: path.read_bytes() for path in place.iterdir()}
        with monkeypatch.context() as patch:
            fail_at(patch, f"os.{call}", 1)
            with pytest.raises(REFUSALS):
                write(place / "a.x")
        assert {path.name: path.read_bytes() for path in place.iterdir()} == before, name


def test_the_folder_is_flushed_after_the_file_took_its_place(tmp_path, monkeypatch):
    done = []
    real_fsync, real_replace = os.fsync, os.replace
    kinds = {True: "folder", False: "file"}

    def fsync(handle):
        done.append(kinds[stat.S_ISDIR(os.fstat(handle).st_mode)])
        real_fsync(handle)

    def replaced(*arguments):
        done.append("replace")
        real_replace(*arguments)

    monkeypatch.setattr("os.fsync", fsync)
    monkeypatch.setattr("os.replace", replaced)
    write_file(tmp_path / "a", "x")
    assert done == ["file", "replace", "folder"]


def test_a_sample_of_kills_inside_saves(tmp_path):
    """Some; `script/torture` makes a thousand."""
    from tests.torture.kills import kills_in_saves

    report = kills_in_saves(12, tmp_path, seed=os.getpid())
    assert report.tried == 12 and not report.failures
