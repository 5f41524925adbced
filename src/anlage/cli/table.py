"""The table of commands: what each does, and the module that answers it; a module loads when its command is given.

Every module has `add_arguments`, which says what the command takes, and `answer`, which returns an `Answer`, or the
exit status of a command that prints nothing of its own.
"""

from collections.abc import Mapping
from types import MappingProxyType

COMMANDS: Mapping[str, tuple[str, str]] = MappingProxyType({
    "calc": ("anlage.cli.calc", "work out one quantity: heat input, run-out, joint, shrinkage and more"),
    "coupon": ("anlage.cli.coupon", "say what a test coupon would buy, variable by variable"),
    "ranges": ("anlage.cli.ranges", "say what a record allows, variable by variable"),
    "check": ("anlage.cli.check", "judge a procedure by its code and its records"),
    "diff": ("anlage.cli.diff", "compare two procedures variable by variable, and say what each change costs"),
    "draft": ("anlage.cli.draft", "propose a whole procedure from metals, thickness, position and processes"),
    "plan": ("anlage.cli.plan", "plan the fewest coupons, or the cheapest, that cover a list of joints"),
    "print": ("anlage.cli.print_sheet", "write the sheet of a procedure as PDF"),
    "schema": ("anlage.cli.schema", "print the JSON Schema of a kind of document"),
    "export": ("anlage.cli.export", "write a document as JSON, or its pictures and tables"),
    "import": ("anlage.cli.import_document", "add a JSON document to a works file"),
    "verify": ("anlage.cli.verify", "prove that the issued revisions of a works file never changed"),
    "recover": ("anlage.cli.recover", "save what can be read of a damaged works file into a new one"),
    "rules": ("anlage.cli.rules", "read, print, check and correct the rules of a code"),
    "verify-pack": ("anlage.cli.verify_pack", "tell every fault of a code pack with file, line and reason"),
    "demo": ("anlage.cli.demo", "open the demo in the window"),
    "screenshots": ("anlage.cli.screenshots", "take a picture of every place of the demo"),
})  # fmt: skip
