"""Which board and which piece of stock is in hand at the planing bench."""

from __future__ import annotations

from nullah.core.forecasts import Stock, stocks
from nullah.core.milling.decide import Face
from nullah.core.milling.job import EdgeRead, Job, job_of
from nullah.core.plan import Plan
from nullah.core.rack.board import Board
from nullah.core.stations.station import Hand


def board_in_hand(plan: Plan, hand: Hand) -> Board | None:
    """Give the board in hand: what was picked, or where the part in hand lies, or the first with parts on it."""
    boards = {board.id: board for board in plan.project.boards}
    if hand.board in boards:
        return boards[hand.board]
    forecast = plan.forecast_of(hand.part)
    if forecast is not None and forecast.board in boards:
        return boards[forecast.board]
    used = next((each.board for each in plan.boards if each.placed), None)
    return used or next(iter(boards.values()), None)


def stocks_of(plan: Plan, board: Board) -> tuple[Stock, ...]:
    """Give what is flattened in one piece of a board."""
    placed = next((each.placed for each in plan.boards if each.board.id == board.id), ())
    return stocks(plan.project, plan.assembly, [(board, placed)])


def stock_in_hand(plan: Plan, hand: Hand) -> Stock | None:
    """Give the stock with the part in hand in it, or the first of the board in hand; None with an empty rack."""
    board = board_in_hand(plan, hand)
    if board is None:
        return None
    found = stocks_of(plan, board)
    return next((stock for stock in found if hand.part in stock.parts), found[0] if found else None)


def job_in_hand(plan: Plan, hand: Hand) -> tuple[Stock, Job] | None:
    """Give the stock in hand, and how it is milled."""
    stock = stock_in_hand(plan, hand)
    if stock is None:
        return None
    edge = None if hand.edge is None else EdgeRead(*hand.edge)
    return stock, job_of(stock.board, stock.rect, plan.project.shop, stock.needs, stock.lows, edge)


def face_up(hand: Hand, usual: Face) -> Face:
    """Give the face that lies up: the one chosen, or the usual one."""
    return {"upper": Face.UPPER, "lower": Face.LOWER}.get(hand.face, usual)


def stock_name(plan: Plan, stock: Stock) -> str:
    """Name a piece of stock: the board, or the part, or which end or side of the board it is."""
    board, rect = stock.board, stock.rect
    if rect.length > float(board.length) - 1 and rect.width > float(board.width) - 1:
        return board.name
    if board.id in plan.project.cut_first:
        part = plan.part(stock.parts[0]) if stock.parts else None
        return f"{part.name if part else 'a rough part'}, out of {board.name}"
    if rect.width > float(board.width) - 1:
        return f"{board.name}, its {'left' if rect.x < 1 else 'right'} length"
    return f"{board.name}, its {'lower' if rect.y < 1 else 'upper'} width"
