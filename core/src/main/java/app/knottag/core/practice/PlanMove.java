package app.knottag.core.practice;

/**
 * Something that can be done next.
 *
 * @param note what it means at this moment
 */
public record PlanMove(String id, String label, String note) {}
