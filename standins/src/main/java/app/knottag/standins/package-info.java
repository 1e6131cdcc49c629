/**
 * Simulated devices of the demo's garden centre. They live on loopback addresses and speak real protocols: echo over
 * UDP (RFC 862), one-line handshakes over TCP, a neighbour table over HTTP. Start at
 * {@link app.knottag.standins.Bench}.
 */
package app.knottag.standins;
