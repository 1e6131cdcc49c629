/**
 * All worksheets. Start at {@link app.knottag.core.worksheet.Worksheets}; a new one is a class and a line there.
 *
 * <p>May use: figure, guard, mail, place, power, storage.
 */
package app.knottag.core.worksheet;
