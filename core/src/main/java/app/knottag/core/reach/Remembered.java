package app.knottag.core.reach;

import app.knottag.core.address.Ipv4Address;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.Supplier;

/** Probes of one round: the same question is asked once only, whoever needs the answer. */
public final class Remembered implements Probes {

    private final Probes probes;
    private final Map<List<Object>, Object> known = new ConcurrentHashMap<>();

    /** Remembers what these probes find. */
    public Remembered(Probes probes) {
        this.probes = probes;
    }

    @SuppressWarnings("unchecked")
    private <T> T once(Supplier<T> probe, Object... question) {
        return (T) known.computeIfAbsent(List.of(question), k -> probe.get());
    }

    @Override
    public List<Ipv4Address> own() {
        return once(probes::own, "own");
    }

    @Override
    public boolean answers(Ipv4Address address) {
        return once(() -> probes.answers(address), "answers", address);
    }

    @Override
    public boolean there(Ipv4Address address) {
        return once(() -> probes.there(address), "there", address);
    }

    @Override
    public String lacks() {
        return once(probes::lacks, "lacks");
    }

    /** The table changes with every answer, so it is looked at anew. */
    @Override
    public List<Neighbour> neighbours() {
        return probes.neighbours();
    }

    @Override
    public Connection connect(Ipv4Address address, int port) {
        return once(() -> probes.connect(address, port), "connect", address, port);
    }

    @Override
    public Optional<String> ask(Ipv4Address address, int port, String line) {
        return once(() -> probes.ask(address, port, line), "ask", address, port, line);
    }

    @Override
    public Heard talk(Call call) {
        return once(() -> probes.talk(call), "talk", call);
    }
}
