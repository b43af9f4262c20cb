"""The window. Views hold no arithmetic; they draw a solution and send intents."""

# Qt's binding reads the source of every module that is imported after it, to see whether it is used there: some
# 70 ms for the core and its libraries. Imported before, they are left alone.
import oakmeasure.core.drawings.views
import oakmeasure.core.solve
import oakmeasure.files.jobfile  # noqa: F401
