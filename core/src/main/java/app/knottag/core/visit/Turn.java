package app.knottag.core.visit;

/**
 * One stretch of one device in a plan; minutes from the beginning of the visit.
 *
 * @param unit id of the device
 * @param stretch which of its stretches, counted from 0
 * @param who index of the person in the brief
 * @param from when the hands begin
 * @param until when the hands are free again
 * @param done when it has run by itself
 * @param slack minutes by which it may begin later without the visit ending later
 */
public record Turn(long unit, int stretch, int who, int from, int until, int done, int slack) {}
