"""Facts into sentences, with the units of the reader.

What has no module here yet still writes its sentences where it stands.
"""
