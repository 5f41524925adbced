"""The metals and fillers of a works as a document: two tables in the columns of the catalogue.

They are kept as tables, every cell as it was written: who brought one in can lay it beside what stands here.
"""

from typing import Final, Literal

from anlage.core.document import DocumentKind, Part, Text

FORMAT: Final = "anlage-materials"
VERSION: Final = 1


class MaterialsHeader(Part):
    """One document a works, under one name."""

    number: Text = "materials"
    title: Text = "Metals and fillers of this works"


class Materials(Part):
    """What is added to the catalogue, CSV; "" for nothing."""

    format: Literal["anlage-materials"] = FORMAT
    version: Literal[1] = VERSION
    header: MaterialsHeader = MaterialsHeader()
    metals: Text = ""
    fillers: Text = ""


MATERIALS = DocumentKind(Materials, FORMAT, VERSION)
