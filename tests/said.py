"""What a reader would be told of a remark or a finding."""

from nullah.core.plan import work_out
from nullah.core.project import Project
from nullah.core.reader import Reader
from nullah.core.wording.facts import fact_words


def said(what, of=None):
    """Return a remark's sentence, or that of a finding's remark, with the names of a plan or project it is about."""
    fact = getattr(what, "remark", what).fact
    if isinstance(of, Project):
        of = work_out(of, milling=False, proving=False)
    return fact_words(fact, of.reader if of is not None else Reader())
