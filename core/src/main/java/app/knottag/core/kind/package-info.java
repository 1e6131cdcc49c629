/**
 * Kinds of endpoint as data files. Start at {@link app.knottag.core.kind.Kinds}.
 *
 * <p>May use: figure, log, reading, worksheet.
 */
package app.knottag.core.kind;
