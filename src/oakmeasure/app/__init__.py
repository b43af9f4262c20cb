"""The window. Views hold no arithmetic; they draw a solution and send intents."""
