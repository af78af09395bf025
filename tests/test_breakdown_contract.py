"""The answer of `nullah breakdown`, checked from its files alone, as an outsider would check it."""

import csv
import json
import random

import pytest

from nullah.cli import main

KERF = 2.0
NEAR = 0.02


def write(path, heading, rows):
    with path.open("w", newline="") as stream:
        writer = csv.writer(stream)
        writer.writerow(heading)
        writer.writerows(rows)


def make_case(folder, seed, boards=6, parts=8):
    """Write boards, flaws and parts at random; give them as plain tuples."""
    rng = random.Random(seed)
    rack = [(f"b{i}", rng.randint(500, 1800), rng.randint(90, 280), rng.choice([18, 25])) for i in range(boards)]
    flaws = []
    for name, length, width, _ in rack:
        for _ in range(rng.randint(0, 4)):
            x, y = rng.randint(0, length - 40), rng.randint(0, width - 30)
            kind = rng.choice(["check", "split", "knot", "sap", "wane", "runout"])
            flaws.append((name, x, x + rng.randint(5, 40), y, y + rng.randint(5, 30), kind))
    wanted = [
        (
            f"p{i}",
            rng.randint(1, 4),
            rng.randint(60, 700),
            rng.randint(25, 150),
            rng.choice([15, 22]),
            rng.choice(["clear", "any"]),
            rng.choice(["", "yes"]),
        )
        for i in range(parts)
    ]
    write(folder / "b.csv", ["board", "length", "width", "thickness"], rack)
    write(folder / "f.csv", ["board", "from", "to", "low", "high", "kind"], flaws)
    write(folder / "p.csv", ["part", "quantity", "length", "width", "thickness", "needs", "turn"], wanted)
    return rack, flaws, wanted


def sawn(board, cuts, pieces):
    """Saw a board by the list of cuts: every cut must cross the whole of one piece. Give what is left."""
    in_hand = [(0.0, 0.0, board[1], board[2])]
    for number, cut in enumerate(cuts, start=1):
        assert cut["order"] == number
        x, y, length = cut["x_mm"], cut["y_mm"], cut["length_mm"]
        for piece in in_hand:
            px, py, long, wide = piece
            cross = cut["kind"] == "cross" and abs(y - py) < NEAR and abs(length - wide) < NEAR
            rip = cut["kind"] == "rip" and abs(x - px) < NEAR and abs(length - long) < NEAR
            if cross and px - NEAR <= x <= px + long + NEAR:
                parts = [(px, py, x - px, wide), (x + KERF, py, px + long - x - KERF, wide)]
                break
            if rip and py - NEAR <= y <= py + wide + NEAR:
                parts = [(px, py, long, y - py), (px, y + KERF, long, py + wide - y - KERF)]
                break
        else:
            pytest.fail(f"cut {number} on {board[0]} does not cross any piece")
        in_hand.remove(piece)
        in_hand += parts
    for piece in pieces:
        assert any(
            abs(px + long - piece["x_mm"] - piece["length_mm"]) < NEAR + KERF * (px + long >= board[1] - KERF)
            and abs(py + wide - piece["y_mm"] - piece["width_mm"]) < NEAR + KERF * (py + wide >= board[2] - KERF)
            and piece["x_mm"] - px < KERF + NEAR
            and px <= piece["x_mm"] + NEAR
            and piece["y_mm"] - py < KERF + NEAR
            and py <= piece["y_mm"] + NEAR
            for px, py, long, wide in in_hand
        ), f"{piece} does not come out of {board[0]} whole"


@pytest.mark.parametrize("seed", range(12))
def test_the_answer_keeps_every_rule(tmp_path, seed):
    rack, flaws, wanted = make_case(tmp_path, seed)
    words = ["--boards", "b.csv", "--parts", "p.csv", "--flaws", "f.csv", "--kerf", "2mm", "--seconds", "0.7"]
    words = [str(tmp_path / word) if word.endswith(".csv") else word for word in words]
    assert main(["breakdown", *words, "--json", str(tmp_path / "o.json")]) == 0
    answer = json.loads((tmp_path / "o.json").read_text())
    by_name = {part[0]: part for part in wanted}
    assert [board["board"] for board in answer["boards"]] == [board[0] for board in rack]

    placed = [piece["part"] for board in answer["boards"] for piece in board["pieces"]]
    for name, quantity, *_ in wanted:
        assert placed.count(name) + [u["part"] for u in answer["unplaced"]].count(name) == quantity
    assert all(item["why"] for item in answer["unplaced"])

    used = 0.0
    for board, shown in zip(rack, answer["boards"], strict=True):
        name, length, width, thickness = board
        for piece in shown["pieces"]:
            _, _, long, wide, thick, needs, turn = by_name[piece["part"]]
            size = (wide, long) if turn else (long, wide)
            assert (piece["length_mm"], piece["width_mm"]) == size
            assert thick <= thickness
            x0, y0 = piece["x_mm"], piece["y_mm"]
            x1, y1 = x0 + size[0], y0 + size[1]
            assert x0 >= -NEAR and y0 >= -NEAR and x1 <= length + NEAR and y1 <= width + NEAR
            for where, start, end, low, high, kind in flaws:
                if where == name and (needs == "clear" or kind not in ("knot", "sap")):
                    assert x1 <= start + NEAR or x0 >= end - NEAR or y1 <= low + NEAR or y0 >= high - NEAR
            for other in shown["pieces"]:
                if other is not piece:
                    ox, oy = other["x_mm"], other["y_mm"]
                    gap_x = max(ox - x1, x0 - ox - other["length_mm"])
                    gap_y = max(oy - y1, y0 - oy - other["width_mm"])
                    assert max(gap_x, gap_y) >= KERF - NEAR
        used += width * max((p["x_mm"] + p["length_mm"] for p in shown["pieces"]), default=0.0)
        sawn(board, shown["cuts"], shown["pieces"])
    assert answer["consumed_mm2"] == pytest.approx(used)
    assert answer["bound_mm2"] <= used + 1e-6


def test_the_bound_is_proven_where_a_perfect_layout_exists(tmp_path):
    # Four quarters of a board without kerf: nothing can be better, and the answer knows.
    write(tmp_path / "b.csv", ["board", "length", "width", "thickness"], [("a", 400, 200, 20)])
    write(
        tmp_path / "p.csv",
        ["part", "quantity", "length", "width", "thickness", "needs"],
        [("q", 4, 200, 100, 20, "clear")],
    )
    words = ["--boards", str(tmp_path / "b.csv"), "--parts", str(tmp_path / "p.csv"), "--kerf", "0mm"]
    assert main(["breakdown", *words, "--seconds", "5", "--json", str(tmp_path / "o.json")]) == 0
    answer = json.loads((tmp_path / "o.json").read_text())
    assert answer["consumed_mm2"] == answer["bound_mm2"] == 400 * 200


def test_a_board_whose_parts_all_fail_still_answers(tmp_path):
    write(tmp_path / "b.csv", ["board", "length", "width", "thickness"], [("a", 400, 200, 10)])
    write(
        tmp_path / "p.csv",
        ["part", "quantity", "length", "width", "thickness", "needs"],
        [("thick", 2, 100, 100, 20, "any")],
    )
    words = ["--boards", str(tmp_path / "b.csv"), "--parts", str(tmp_path / "p.csv"), "--seconds", "0.6"]
    assert main(["breakdown", *words, "--json", str(tmp_path / "o.json")]) == 0
    answer = json.loads((tmp_path / "o.json").read_text())
    assert [item["part"] for item in answer["unplaced"]] == ["thick", "thick"]
    assert answer["consumed_mm2"] == answer["bound_mm2"] == 0
    assert "thickest board is 10 mm" in answer["unplaced"][0]["why"]
