package app.knottag.server.change;

import app.knottag.core.kind.Kind;

/** A step was completed by what was read; it may prove something at Confirm too. */
public record StepCompleted(long endpointId, Kind.Step step, String by) {}
