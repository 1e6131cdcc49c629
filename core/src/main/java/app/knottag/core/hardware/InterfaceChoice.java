package app.knottag.core.hardware;

import app.knottag.core.hardware.Interface.Medium;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;

/**
 * Which interface of a device a registration must hold: the one by which it will join, which need not be the one on the
 * label that is easiest to read.
 *
 * @param chosen the interface to register, or empty when it has to be read first
 * @param because why this one, or how to find out, in one sentence
 */
public record InterfaceChoice(Optional<Interface> chosen, String because) {

    /**
     * Chooses by how the device joins.
     *
     * @param joins the medium that the registry is about, or empty when it takes whatever counts
     */
    public static InterfaceChoice of(List<Interface> interfaces, Optional<Medium> joins) {
        if (interfaces.isEmpty())
            return new InterfaceChoice(Optional.empty(), "No MAC is on record. Read it from the label first.");
        var adapter = first(interfaces, Medium.ADAPTER);
        if (adapter.isPresent() && joins.filter(m -> m == Medium.WIRELESS).isEmpty())
            return new InterfaceChoice(
                    adapter, "The adapter carries the identity: the network sees its MAC, not that of the device.");
        if (joins.isPresent()) {
            var same = first(interfaces, joins.get());
            return same.isPresent()
                    ? new InterfaceChoice(same, "It joins by its " + joins.get().words() + " interface.")
                    : new InterfaceChoice(
                            Optional.empty(),
                            "It joins by its " + joins.get().words()
                                    + " interface, whose MAC is not on record. Read it, or take it from the network's table.");
        }
        var wan = first(interfaces, Medium.WAN);
        if (wan.isPresent())
            return new InterfaceChoice(
                    wan, "A small box shows the network its WAN side; the LAN side stays behind it.");
        return interfaces.stream()
                .filter(Interface::counts)
                .findFirst()
                .map(i -> new InterfaceChoice(
                        Optional.of(i), "Its " + i.medium().words() + " interface is the one in use."))
                .orElseGet(() -> new InterfaceChoice(
                        interfaces.stream().min(Comparator.comparing(Interface::medium)),
                        "None is marked as the one in use; wired comes before wireless."));
    }

    private static Optional<Interface> first(List<Interface> interfaces, Medium medium) {
        return interfaces.stream().filter(i -> i.medium() == medium).findFirst();
    }

    /**
     * Explains a MAC that was seen on the network beside those on record.
     *
     * @return what it is, or empty when nothing on this device explains it
     */
    public static Optional<String> explain(Mac seen, List<Interface> interfaces) {
        for (var i : interfaces)
            if (i.mac().equals(seen))
                return Optional.of(
                        i.counts()
                                ? "The very interface that is registered."
                                : "Its " + i.medium().words() + " interface, which is not the one that counts.");
        for (var i : interfaces)
            if (i.mac().neighbourOf(seen))
                return Optional.of(
                        "Next to its " + i.medium().words() + " MAC " + i.mac() + ": the same box, another interface.");
        return Optional.empty();
    }
}
