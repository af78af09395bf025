"""Dovetails: how they are laid out, told and cut. What the type is as a joint stands in `joint_type`."""
