package app.knottag.core.reach;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.intake.Recognised;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.FutureTask;
import java.util.function.Supplier;

/** Probes of one round: the same question is asked once only, whoever needs the answer, and whoever comes later waits for it. */
public final class Remembered implements Probes {

    private final Probes probes;
    private final Map<List<Object>, FutureTask<?>> known = new ConcurrentHashMap<>();

    /** Remembers what these probes find. */
    public Remembered(Probes probes) {
        this.probes = probes;
    }

    @SuppressWarnings("unchecked")
    private <T> T once(Supplier<T> probe, Object... question) {
        var task = (FutureTask<T>) known.computeIfAbsent(List.of(question), k -> new FutureTask<>(probe::get));
        task.run();
        try {
            return task.get();
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new IllegalStateException(e);
        } catch (ExecutionException e) {
            throw e.getCause() instanceof RuntimeException own ? own : new IllegalStateException(e.getCause());
        }
    }

    /** Where one stands may change in the middle of a run, so it is looked at anew. */
    @Override
    public Here here() {
        return probes.here();
    }

    @Override
    public Recognised.Echo echo(Ipv4Address address) {
        return once(() -> probes.echo(address), "echo", address);
    }

    @Override
    public Whois whois(Ipv4Address address) {
        return once(() -> probes.whois(address), "whois", address);
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
    public ServiceReply talk(Call call) {
        return once(() -> probes.talk(call), "talk", call);
    }

    @Override
    public Swept sweep(List<Ipv4Address> hosts, Swept.Listener listener) {
        return once(() -> probes.sweep(hosts, listener), "sweep", hosts);
    }
}
