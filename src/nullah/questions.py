"""What of a piece is worked out beside the window, without loading anything of the window: memory for nothing."""

from __future__ import annotations

from collections.abc import Callable

from nullah.background import DroppedError
from nullah.core.drawing import Drawing
from nullah.core.laying import shortage_of
from nullah.core.named_tuple import NamedTuple
from nullah.core.plan import Plan, prove_plan, work_out
from nullah.core.project import Project
from nullah.core.stations.piece import views

TYPE_CHECKING = False
if TYPE_CHECKING:
    from nullah.core.breakdown.buying import BuyingLine
    from nullah.core.proof.prove import Proof
    from nullah.core.work.order_of_work import OrderOfWork


#: What the questions below load when they are asked.
NEEDS = (
    "nullah.core.proof.prove",
    "nullah.core.apprentice.carrying_out",
    "nullah.core.breakdown.buying",
    "nullah.core.work.order_of_work",
)


class Proved(NamedTuple):
    """A proof, and the piece as it is drawn with it: to cut its solids in the window would hold that up."""

    proof: Proof | None
    views: Drawing | None


def prove_project(dropped: Callable[[], bool], project: Project) -> Proved:
    """Prove a project: what a process beside the window answers."""
    from nullah.core.proof.prove import StoppedError

    plan = work_out(project, milling=False, proving=False)
    try:
        proof = prove_plan(plan, dropped)
    except StoppedError as stopped:
        raise DroppedError from stopped
    if dropped():
        raise DroppedError
    return Proved(proof, views(plan.with_proof(proof)) if proof is not None else None)


def proof_of_plan(plan: Plan) -> Proved:
    """Prove a plan, here and now."""
    return Proved(prove_plan(plan), None)


def order_project(dropped: Callable[[], bool], project: Project) -> OrderOfWork:
    """Derive the order of work of a project: what a process beside the window answers."""
    if dropped():
        raise DroppedError
    return order_of_plan(work_out(project, milling=False, proving=False))


def order_of_plan(plan: Plan) -> OrderOfWork:
    """Derive the order of work of a plan, here and now."""
    from nullah.core.work.order_of_work import order_of_work

    return order_of_work(plan)


def buying_of_project(dropped: Callable[[], bool], project: Project) -> tuple[BuyingLine, ...]:
    """Work out what to buy for a project: what a process beside the window answers."""
    if dropped():
        raise DroppedError
    return buying_of_plan(work_out(project, milling=False, proving=False))


def buying_of_plan(plan: Plan) -> tuple[BuyingLine, ...]:
    """Work out what to buy, here and now."""
    from nullah.core.breakdown.buying import buying_list

    return buying_list(shortage_of(plan))
