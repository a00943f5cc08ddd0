"""The lay plan: how the pieces lie on the cloth.

`bed` is the cloth as it lies, folded or not; `cutouts` what is cut at once from it; `columns` and `packer` are two
engines that place cutouts; `settling` slides them together; `sound` tells what is wrong with a plan; `search` looks for
better ones; `plan` is what comes of it.
"""
