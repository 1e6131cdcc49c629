package app.knottag.core.impact;

/** One thing rests on another. */
record Tie(Thing holder, Bond bond, Thing held) {}
