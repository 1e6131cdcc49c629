package app.knottag.server.change;

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
        String model,
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

    /** Begins with the least that can be wanted. */
    public static Wish of(long segmentId, String kind, String name, Object address, String reason) {
        return new Wish(segmentId, kind, name, text(address), reason);
    }

    private static String text(Object value) {
        return value == null ? null : value.toString();
    }

    /** A request that is being put together by the program itself. */
    public static final class Wish {
        private final long segmentId;
        private final String kind;
        private final String name;
        private final String address;
        private final String reason;
        private Integer number;
        private Long seriesId;
        private Integer servicePort;
        private String mac;
        private String serial;
        private String model;
        private String place;
        private String outlet;
        private String switchPort;
        private String partnerName;
        private String partnerAddress;
        private Integer partnerTestPort;
        private Method method;

        private Wish(long segmentId, String kind, String name, String address, String reason) {
            this.segmentId = segmentId;
            this.kind = kind;
            this.name = name;
            this.address = address;
            this.reason = reason;
        }

        /** With its number in a series, and the port that goes with it; null goes by the kind. */
        public Wish numbered(Integer number, Long seriesId, Integer servicePort) {
            this.number = number;
            this.seriesId = seriesId;
            this.servicePort = servicePort;
            return this;
        }

        /** With what its label says. */
        public Wish labelled(Object mac, String serial) {
            this.mac = text(mac);
            this.serial = serial;
            return this;
        }

        /** With its exact model. */
        public Wish model(String model) {
            this.model = model;
            return this;
        }

        /** Plugged in somewhere. */
        public Wish wired(String place, String outlet, String switchPort) {
            this.place = place;
            this.outlet = outlet;
            this.switchPort = switchPort;
            return this;
        }

        /** With a partner. */
        public Wish paired(String partnerName, Object partnerAddress, Integer testPort) {
            this.partnerName = partnerName;
            this.partnerAddress = text(partnerAddress);
            this.partnerTestPort = testPort;
            return this;
        }

        /** With another who keeps its address. */
        public Wish kept(Method method) {
            this.method = method;
            return this;
        }

        public EndpointRequest done() {
            return new EndpointRequest(
                    segmentId,
                    kind,
                    number,
                    name,
                    address,
                    mac,
                    serial,
                    model,
                    place,
                    outlet,
                    switchPort,
                    partnerName,
                    partnerAddress,
                    partnerTestPort,
                    servicePort,
                    seriesId,
                    null,
                    method,
                    reason);
        }
    }
}
