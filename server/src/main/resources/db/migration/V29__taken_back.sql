-- What somebody said was seen can be taken back; the log keeps that it was said.
grant delete on diagnosis_answer to knot_app;
