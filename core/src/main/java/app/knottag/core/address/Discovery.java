package app.knottag.core.address;

/** How software on one station can find a device: by searching, which ends at the subnet, or by its address. */
public final class Discovery {

    private Discovery() {}

    /** What to do, and why. */
    public record Advice(Way way, String reason) {}

    /** How the device is found. */
    public enum Way {
        SEARCH,
        ENTER_ADDRESS,
        MOVE
    }

    /**
     * Judges whether a search can find the device.
     *
     * @param sameCable whether both hang in the same broadcast domain: one VLAN, wired or bridged
     */
    public static Advice judge(
            Ipv4Address station,
            int stationPrefixLength,
            Ipv4Address device,
            int devicePrefixLength,
            boolean sameCable) {
        var seenByStation = Ipv4Prefix.around(station, stationPrefixLength);
        var seenByDevice = Ipv4Prefix.around(device, devicePrefixLength);
        boolean stationThinksNear = seenByStation.contains(device), deviceThinksNear = seenByDevice.contains(station);
        if (stationThinksNear && deviceThinksNear)
            return sameCable
                    ? new Advice(Way.SEARCH, "Both are in " + seenByStation + ": a search finds it.")
                    : new Advice(
                            Way.MOVE,
                            "Both have addresses in " + seenByStation
                                    + " but hang in different VLANs: neither reaches the other until one lead is moved.");
        if (stationThinksNear != deviceThinksNear)
            return new Advice(
                    Way.MOVE,
                    "The masks disagree: one takes the other for near, the other for far. Give both the same mask.");
        return new Advice(
                Way.ENTER_ADDRESS,
                "They are in different subnets, where a search cannot pass: enter " + device + " by hand.");
    }
}
