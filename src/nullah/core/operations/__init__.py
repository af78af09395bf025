"""What a hand does to a part, as data that can be carried out.

An operation knows its own fields and nothing else: from them come its settings, the lines it draws and needs, the
wood it takes away, its words and its picture. It sees neither the plan nor the designed part, so a wrong figure makes
a wrong part, and is noticed when it is carried out.

Everything is in the frame of the part's blank, in mm: x from the reference end along the grain, y from the face edge
across it, z from the face side into the wood.
"""
