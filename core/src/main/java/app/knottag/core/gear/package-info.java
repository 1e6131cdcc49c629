/**
 * What routers and switches tell of themselves over SNMP: who hangs at which port, and how the ports are. Start at
 * {@link app.knottag.core.gear.GearReader}.
 *
 * <p>May use: address, hardware, reading.
 */
package app.knottag.core.gear;
