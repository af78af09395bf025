"""What can go wrong with files, apart from what reads and writes them."""

from nullah.core.limits import one_sentence


class ProjectFileError(Exception):
    """A project file could not be read or written; the message says which, why and what to do."""

    def __init__(self, message: str) -> None:
        super().__init__(one_sentence(message))


class FileChangedError(ProjectFileError):
    """A project file was written by somebody else since it was read."""
