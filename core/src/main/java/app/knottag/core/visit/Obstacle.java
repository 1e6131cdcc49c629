package app.knottag.core.visit;

/**
 * Why a device cannot be done on this visit, whatever the plan.
 *
 * @param unit id of the device
 * @param text what stands in the way, and what would have to give
 */
public record Obstacle(long unit, String text) {}
