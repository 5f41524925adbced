"""The guide, page by page; it lies in `docs`, and beside the tables once it is installed."""

from functools import cache

from anlage.data.files import FOLDER

PLACES = (FOLDER / "guide.md", FOLDER.parents[2] / "docs" / "guide.md")


@cache
def guide_pages() -> dict[str, str]:
    """Return the pages of the guide by their headings, as Markdown without pictures."""
    text = next(path for path in PLACES if path.exists()).read_text(encoding="utf-8")
    pages: dict[str, list[str]] = {}
    title = ""
    for line in text.splitlines():
        if line.startswith("#"):
            title = line.lstrip("#").strip()
            pages[title] = [f"## {title}"]
        elif title and not line.startswith("!["):
            pages[title].append(line)
    return {name: "\n".join(lines) for name, lines in pages.items()}
