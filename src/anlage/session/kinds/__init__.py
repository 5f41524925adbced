"""The kinds of document, a file each: what the layers above need to know of one."""
