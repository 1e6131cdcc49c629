/**
 * What hangs on which supply: volts and amperes of a door, the run of thin wire, bricks, batteries, strips, USB and PoE. Start at
 * {@link app.knottag.core.power.SupplySheet}. Local codes and licensed trades rule where mains or doors are concerned.
 *
 * <p>May use: figure.
 */
package app.knottag.core.power;
