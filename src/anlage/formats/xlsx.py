"""Tables as a spreadsheet; a text is a text there, never a formula."""

import io
from collections.abc import Sequence

from openpyxl import Workbook
from openpyxl.styles import Font

from anlage.formats.tables import Table


def as_xlsx(tables: Sequence[Table]) -> bytes:
    """Return tables as the sheets of one workbook; texts are texts, numbers are numbers."""
    book = Workbook()
    book.remove(book.active)
    for table in tables:
        sheet = book.create_sheet(table.title[:31])
        for column, head in enumerate(table.head, 1):
            cell = sheet.cell(1, column, head)
            cell.font = Font(bold=True)
            widest = max([len(head), *(len(f"{row[column - 1] or ''}") for row in table.rows)])
            sheet.column_dimensions[cell.column_letter].width = min(widest + 2, 60)
        for place, row in enumerate(table.rows, 2):
            for column, value in enumerate(row, 1):
                cell = sheet.cell(place, column)
                cell.value = value
                if isinstance(value, str):
                    cell.data_type = "s"
        sheet.freeze_panes = "A2"
    target = io.BytesIO()
    book.save(target)
    return target.getvalue()
