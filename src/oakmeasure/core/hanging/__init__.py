"""From the gaps round a leaf to what is packed, let in, turned, shimmed and planed; practice; the record."""
