"""What can go wrong with files, apart from what reads and writes them."""


class ProjectFileError(Exception):
    """A project file could not be read or written; the message says which, why and what to do."""
