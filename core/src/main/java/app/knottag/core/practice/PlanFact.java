package app.knottag.core.practice;

/** Something that is known, such as when a place is free. */
public record PlanFact(String label, String text) {}
