package app.knottag.core.register;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.address.Ipv4Prefix;
import app.knottag.core.hardware.Mac;
import java.util.List;
import java.util.Optional;

/** One endpoint as it stands in the register file; everything another site needs to take it over. */
public record RegisterRow(
        String name,
        String kind,
        Optional<Integer> number,
        Optional<Ipv4Address> address,
        String segment,
        Ipv4Prefix prefix,
        Optional<Ipv4Address> gateway,
        List<Ipv4Address> resolvers,
        Optional<Mac> mac,
        String serial,
        String model,
        Optional<Integer> port,
        String place,
        String outlet,
        String switchPort,
        String partner,
        Optional<Ipv4Address> partnerAddress,
        Optional<Integer> partnerTestPort) {}
