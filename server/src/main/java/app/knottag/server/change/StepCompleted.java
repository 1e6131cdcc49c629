package app.knottag.server.change;

import app.knottag.core.kind.Kind;
import java.time.Instant;

/**
 * A step was completed by what was read; it may prove something at Confirm too.
 *
 * @param at when it was done, which may be before it was told
 */
public record StepCompleted(long endpointId, Kind.Step step, Instant at, String by) {}
