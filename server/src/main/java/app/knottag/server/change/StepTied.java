package app.knottag.server.change;

import app.knottag.core.kind.Kind;

/** A step was tied by what was read; it may prove something at Confirm too. */
public record StepTied(long endpointId, Kind.Step step, String by) {}
