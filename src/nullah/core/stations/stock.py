"""Which board and which piece of stock is in hand at the planing bench."""

from __future__ import annotations

from nullah.core.forecasts import Stock, stocks
from nullah.core.milling.decide import BoardFace
from nullah.core.milling.job import EdgeRead, Job, job_of
from nullah.core.plan import Plan
from nullah.core.rack.board import Board
from nullah.core.stations.selection import Selection
from nullah.core.wording.stock import Cutoff, piece_words, stock_words


def selected_board(plan: Plan, selection: Selection) -> Board | None:
    """Return the board in hand: what was picked, or where the part in hand lies, or the first with parts on it."""
    boards = {board.id: board for board in plan.project.boards}
    if selection.board in boards:
        return boards[selection.board]
    forecast = plan.forecast_of(selection.part)
    if forecast is not None and forecast.board in boards:
        return boards[forecast.board]
    used = next((each.board for each in plan.boards if each.placed), None)
    return used or next(iter(boards.values()), None)


def stocks_of(plan: Plan, board: Board) -> tuple[Stock, ...]:
    """Return what is flattened in one piece of a board."""
    placed = next((each.placed for each in plan.boards if each.board.id == board.id), ())
    return stocks(plan.project, plan.assembly, [(board, placed)])


def selected_stock(plan: Plan, selection: Selection) -> Stock | None:
    """Return the stock with the part in hand in it, or the first of the board in hand; None with an empty rack."""
    board = selected_board(plan, selection)
    if board is None:
        return None
    found = stocks_of(plan, board)
    return next((stock for stock in found if selection.part in stock.parts), found[0] if found else None)


def selected_job(plan: Plan, selection: Selection) -> tuple[Stock, Job] | None:
    """Return the stock in hand, and how it is milled."""
    stock = selected_stock(plan, selection)
    if stock is None:
        return None
    edge = None if selection.milling.edge is None else EdgeRead(*selection.milling.edge)
    return stock, job_of(stock.board, stock.rect, plan.project.shop, stock.needs, stock.lows, edge)


def face_up(selection: Selection, usual: BoardFace) -> BoardFace:
    """Return the face that lies up: the one chosen, or the usual one."""
    upper = selection.milling.upper
    return usual if upper is None else BoardFace.UPPER if upper else BoardFace.LOWER


def stock_name(plan: Plan, stock: Stock) -> str:
    """Name a piece of stock: the board, or the part, or which end or side of the board it is."""
    board, rect = stock.board, stock.rect
    if rect.length > float(board.length) - 1 and rect.width > float(board.width) - 1:
        return board.name
    if board.id in plan.project.cut_first:
        part = plan.part(stock.parts[0]) if stock.parts else None
        return stock_words(board.name, None if part is None else part.name, plan.reader)
    if rect.width > float(board.width) - 1:
        return piece_words(board.name, Cutoff.LEFT if rect.x < 1 else Cutoff.RIGHT, plan.reader)
    return piece_words(board.name, Cutoff.LOWER if rect.y < 1 else Cutoff.UPPER, plan.reader)
