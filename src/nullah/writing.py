"""Writing files: the one way in which anything of the program reaches the disk.

A new file is whole on the disk before the old one is touched. What the old one was stays: a link
still points to it, mode, owner and extended attributes are kept; a new file follows the umask. A
file that is write-protected is refused. When the disk is full or fails, older files stay as they
were, and nothing is left behind.
"""

from __future__ import annotations

import contextlib
import errno
import os
import stat
from collections.abc import Callable, Iterator
from pathlib import Path

#: How files under way are named: by the process that writes them, so that what a killed one left can be told.
_UNDER_WAY = ".nullah-{}-{}.part"
# The mode of any new file, less what the umask takes.
_MODE = 0o666
# Why a file without a name may not be given one, on file systems that have them and cannot do that.
_CANNOT_LINK = (errno.ENOENT, errno.EPERM, errno.EACCES, errno.EXDEV, errno.EINVAL, errno.EOPNOTSUPP, errno.ENOSYS)
#: Folders in which this process has looked for what killed ones left.
_swept: set[str] = set()


def write_file(path: Path, content: bytes | str, before_replacing: Callable[[Path], None] | None = None) -> None:
    """Write a file so that at every moment either the old or the new one stands there whole.

    Parameters
    ----------
    path : Path
        Where; a symbolic link is followed.
    content : bytes or str
        Text is written in UTF-8.
    before_replacing : callable, optional
        Called with the file's own path when the new one is whole on the disk and before the old one is replaced.

    Raises
    ------
    OSError
        If the file is protected, is no ordinary file, or the disk refuses; what stood there is as it was.
    """
    data = content.encode("utf-8") if isinstance(content, str) else content
    target = Path(os.path.realpath(path))
    old = _refuse_protected(target)
    sweep(target.parent)

    def ready(handle: int) -> None:
        _fill(handle, target, data, old)
        if before_replacing is not None:
            before_replacing(target)

    beside = _unnamed(target.parent, ready) or _under_a_name(target.parent, ready)
    try:
        os.replace(beside, target)
    except BaseException:
        _unlink(beside)
        raise
    sync_folder(target.parent)


def _refuse_protected(target: Path) -> os.stat_result | None:
    """Return what is known of the file that is to be replaced, or None where there is none."""
    try:
        old = os.stat(target)
    except FileNotFoundError:
        return None
    if stat.S_ISDIR(old.st_mode):
        raise IsADirectoryError(errno.EISDIR, "it is a folder", str(target))
    if not stat.S_ISREG(old.st_mode):
        raise OSError(errno.EINVAL, "it is not an ordinary file", str(target))
    # Root may write anything: a file whose owner protected it is refused all the same.
    if not old.st_mode & 0o222 or not os.access(target, os.W_OK):
        raise PermissionError(errno.EACCES, "it is write-protected", str(target))
    return old


def _unnamed(folder: Path, ready: Callable[[int], None]) -> Path | None:
    """Make a new file that has no name until it is ready, so that a kill leaves nothing behind; return its path.

    None on a system or a file system that has no such files, or cannot give them a name.
    """
    handle = _open_unnamed(folder)
    if handle is None:
        return None
    beside = _free_name(folder)
    try:
        try:
            ready(handle)
            named = _named(handle, beside)
        finally:
            os.close(handle)
    except BaseException:
        _unlink(beside)
        raise
    return beside if named else None


def _under_a_name(folder: Path, ready: Callable[[int], None]) -> Path:
    """Make a new file under a name of its own from the beginning; return its path."""
    beside = _free_name(folder)
    handle = os.open(beside, os.O_CREAT | os.O_EXCL | os.O_WRONLY | os.O_CLOEXEC, _MODE)
    try:
        try:
            ready(handle)
        finally:
            os.close(handle)
    except BaseException:
        _unlink(beside)
        raise
    return beside


def _unlink(path: Path) -> None:
    with contextlib.suppress(OSError):
        os.unlink(path)


def _named(handle: int, path: Path) -> bool:
    """Return a file without a name one; False on a file system that has such files and cannot do that."""
    try:
        os.link(f"/proc/self/fd/{handle}", path, src_dir_fd=handle)
    except OSError as error:
        if error.errno not in _CANNOT_LINK:
            raise
        return False
    return True


def _fill(handle: int, target: Path, data: bytes, old: os.stat_result | None) -> None:
    """Write the content, take after the old file, and flush both to the disk."""
    view = memoryview(data)
    while view:
        view = view[os.write(handle, view) :]
    if old is not None:
        _take_after(handle, target, old)
    os.fsync(handle)


def _open_unnamed(folder: Path) -> int | None:
    """Open a new file without a name, so that a kill leaves nothing behind; None where the system has none."""
    if hasattr(os, "O_TMPFILE") and os.path.isdir("/proc/self/fd"):
        with contextlib.suppress(OSError):
            return os.open(folder, os.O_TMPFILE | os.O_WRONLY | os.O_CLOEXEC, _MODE)
    return None


def _free_name(folder: Path) -> Path:
    return folder / _UNDER_WAY.format(os.getpid(), os.urandom(6).hex())


def _take_after(handle: int, target: Path, old: os.stat_result) -> None:
    """Give a new file the owner, the mode and the extended attributes of the old one, as far as one may."""
    new = os.fstat(handle)
    if (new.st_uid, new.st_gid) != (old.st_uid, old.st_gid):
        try:
            os.fchown(handle, old.st_uid, old.st_gid)
        except PermissionError:
            with contextlib.suppress(PermissionError):
                os.fchown(handle, -1, old.st_gid)
    os.fchmod(handle, stat.S_IMODE(old.st_mode))
    with contextlib.suppress(OSError):
        for name in os.listxattr(target):
            with contextlib.suppress(OSError):
                os.setxattr(handle, name, os.getxattr(target, name))


def sync_folder(folder: Path) -> None:
    """Flush the names in a folder to the disk, where the file system knows how."""
    with contextlib.suppress(OSError):
        handle = os.open(folder, os.O_RDONLY | os.O_DIRECTORY | os.O_CLOEXEC)
        try:
            os.fsync(handle)
        finally:
            os.close(handle)


def sweep(folder: Path) -> None:
    """Remove what processes that were killed left in a folder; each folder is looked at once."""
    if str(folder) in _swept:
        return
    _swept.add(str(folder))
    for path in _under_way(folder):
        with contextlib.suppress(OSError, ValueError):
            if not _alive(int(path.name.split("-")[1])):
                path.unlink()


def _under_way(folder: Path) -> Iterator[Path]:
    with contextlib.suppress(OSError):
        yield from folder.glob(_UNDER_WAY.format("*", "*"))


def _alive(process: int) -> bool:
    try:
        os.kill(process, 0)
    except ProcessLookupError:
        return False
    except PermissionError:
        return True
    return True


def why(error: OSError) -> str:
    """Return in a few words why the disk refused, for a sentence that names the file."""
    words = {
        errno.ENOSPC: "the disk is full",
        errno.EDQUOT: "the disk is full for you (quota)",
        errno.EACCES: "it may not be written there",
        errno.EPERM: "it may not be written there",
        errno.EROFS: "the disk is read-only",
        errno.EIO: "the disk failed",
        errno.ENAMETOOLONG: "the name is too long",
        errno.ENOENT: "there is no such folder",
        errno.ENOTDIR: "there is no such folder",
    }
    said = error.strerror or str(error) or "the disk refuses"
    known = words.get(error.errno or 0)
    return said if known is None or said.startswith("it is") else known
