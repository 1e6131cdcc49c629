package app.knottag.server.plan;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.address.Ipv4Prefix;
import app.knottag.core.hardware.Mac;
import app.knottag.core.plan.Method;
import app.knottag.core.runbook.Stage.Station;
import app.knottag.core.status.Status;
import java.time.Instant;
import java.util.List;
import org.jspecify.annotations.Nullable;

/** Everything that a tag says. */
record EndpointView(
        long id,
        long siteId,
        long segmentId,
        String segment,
        Ipv4Prefix prefix,
        String kind,
        String kindName,
        String labelPlace,
        String name,
        @Nullable Integer number,
        @Nullable Ipv4Address address,
        Ipv4Address mask,
        Method method,
        String methodWords,
        String hostName,
        @Nullable Mac mac,
        String serial,
        String model,
        @Nullable Instant awaySince,
        String awayWhy,
        @Nullable Integer servicePort,
        String partner,
        @Nullable Ipv4Address partnerAddress,
        @Nullable Integer partnerPort,
        String place,
        String outlet,
        String switchPort,
        String tagCode,
        Station station,
        Status status,
        String standing,
        List<String> oneSlipFrom,
        @Nullable Instant confirmedAt,
        @Nullable String confirmedBy,
        boolean retired,
        int version) {}
