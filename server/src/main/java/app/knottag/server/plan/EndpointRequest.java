package app.knottag.server.plan;

import app.knottag.core.plan.Method;
import jakarta.validation.constraints.NotNull;

/** What is wanted of a new endpoint; null where the proposal or nothing is wanted. Texts are as typed. */
public record EndpointRequest(
        @NotNull Long segmentId,
        @NotNull String kind,
        Integer number,
        @NotNull String name,
        String address,
        String mac,
        String serial,
        String place,
        String outlet,
        String switchPort,
        String partnerName,
        String partnerAddress,
        Integer partnerTestPort,
        Integer servicePort,
        Long seriesId,
        String hostName,
        Method method,
        String reason) {

    /** The least that can be wanted. */
    public static EndpointRequest of(long segmentId, String kind, String name, Object address, String reason) {
        String text = address == null ? null : address.toString();
        return new EndpointRequest(
                segmentId, kind, null, name, text, null, null, null, null, null, null, null, null, null, null, null,
                null, reason);
    }

    /** The same with its number in a series, and the port that goes with it; null goes by the kind. */
    public EndpointRequest numbered(Integer number, Long seriesId, Integer servicePort) {
        return new EndpointRequest(
                segmentId,
                kind,
                number,
                name,
                address,
                mac,
                serial,
                place,
                outlet,
                switchPort,
                partnerName,
                partnerAddress,
                partnerTestPort,
                servicePort,
                seriesId,
                hostName,
                method,
                reason);
    }

    /** The same with what its label says. */
    public EndpointRequest labelled(Object mac, String serial) {
        return new EndpointRequest(
                segmentId,
                kind,
                number,
                name,
                address,
                mac == null ? null : mac.toString(),
                serial,
                place,
                outlet,
                switchPort,
                partnerName,
                partnerAddress,
                partnerTestPort,
                servicePort,
                seriesId,
                hostName,
                method,
                reason);
    }

    /** The same plugged in somewhere. */
    public EndpointRequest wired(String place, String outlet, String switchPort) {
        return new EndpointRequest(
                segmentId,
                kind,
                number,
                name,
                address,
                mac,
                serial,
                place,
                outlet,
                switchPort,
                partnerName,
                partnerAddress,
                partnerTestPort,
                servicePort,
                seriesId,
                hostName,
                method,
                reason);
    }

    /** The same with a partner. */
    public EndpointRequest paired(String partnerName, Object partnerAddress, Integer testPort) {
        return new EndpointRequest(
                segmentId,
                kind,
                number,
                name,
                address,
                mac,
                serial,
                place,
                outlet,
                switchPort,
                partnerName,
                partnerAddress == null ? null : partnerAddress.toString(),
                testPort,
                servicePort,
                seriesId,
                hostName,
                method,
                reason);
    }

    /** The same with another who keeps its address. */
    public EndpointRequest kept(Method method) {
        return new EndpointRequest(
                segmentId,
                kind,
                number,
                name,
                address,
                mac,
                serial,
                place,
                outlet,
                switchPort,
                partnerName,
                partnerAddress,
                partnerTestPort,
                servicePort,
                seriesId,
                hostName,
                method,
                reason);
    }
}
