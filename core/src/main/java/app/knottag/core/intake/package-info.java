/**
 * Taking over what a site already has, from text: spreadsheets, hosts lines, neighbour tables, lease lists. Start at
 * {@link app.knottag.core.intake.IntakePlan}; the readers are {@link app.knottag.core.intake.Sheet} and
 * {@link app.knottag.core.intake.Listing}. Everything is all or nothing, with a preview.
 *
 * <p>May use: address, hardware, log, plan, reading.
 */
package app.knottag.core.intake;
