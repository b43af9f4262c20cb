"""From a leaf to its making: operations in working order, glue-ups, finish, time, log, mishaps, lessons, labels."""
