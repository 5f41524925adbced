"""The window: Qt widgets over documents; what is computed comes from the layers below."""
