"""The linear programmes behind cutting plans."""
