package app.knottag.server.plan;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.address.Ipv4Prefix;
import app.knottag.core.hardware.Mac;
import app.knottag.core.knot.Knot;
import app.knottag.core.runbook.Standing.Station;
import java.time.Instant;
import java.util.List;

/** Everything that a tag says. */
record EndpointView(long id, long siteId, long segmentId, String segment, Ipv4Prefix prefix, String kind, String kindName, String labelPlace, String name,
        Integer number, Ipv4Address address, Ipv4Address mask, String method, Mac mac, String serial, Integer servicePort, String partner,
        Ipv4Address partnerAddress, String place, String outlet, String switchPort, String tagCode, Station station, Knot knot, String standing,
        List<String> oneSlipFrom, Instant confirmedAt, String confirmedBy, boolean retired, int version) {}
