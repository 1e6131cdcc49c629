/**
 * Kinds of endpoint as data files. Start at {@link app.knottag.core.kind.Kinds}.
 */
package app.knottag.core.kind;
