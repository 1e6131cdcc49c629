package app.knottag.server.live;

import app.knottag.server.db.Base;
import app.knottag.server.db.Ear;
import app.knottag.server.record.ByClock;
import app.knottag.server.record.ByClock.Standing;
import app.knottag.server.web.Scope;
import io.micrometer.core.instrument.Gauge;
import io.micrometer.core.instrument.MeterRegistry;
import io.micrometer.core.instrument.binder.MeterBinder;
import java.io.IOException;
import java.time.Clock;
import java.util.ArrayDeque;
import java.util.Deque;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.stream.Collectors;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.boot.jdbc.autoconfigure.DataSourceProperties;
import org.springframework.context.event.ContextClosedEvent;
import org.springframework.context.event.EventListener;
import org.springframework.dao.DataAccessException;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Component;
import org.springframework.web.servlet.mvc.method.annotation.SseEmitter;

/**
 * The streams of all open pages (server-sent events). What the database tells is gathered for a moment and told to all of them.
 * A stream ends after a few minutes; the page opens the next by itself, and whoever is signed out by then gets none.
 */
@Component
public class LiveStreams implements MeterBinder {

    private static final Logger LOG = LoggerFactory.getLogger(LiveStreams.class);

    /** Whoever was away for less, and has missed no more changes than that, is told what was changed meanwhile. */
    private static final int KEPT = 500;

    private static final int OF_ONE_PERSON = 24;
    private static final int OF_ALL = 2_000;

    /** A page that does not take so many events in time has gone. */
    private static final int BEHIND = 50;

    private static final long LASTS_SECONDS = 300;
    private static final long AGAIN_MILLIS = 500;

    /** One open page. */
    private static final class Stream {
        final SseEmitter emitter = new SseEmitter(0L);
        final String person;
        final Scope scope;
        final long begun = System.nanoTime();
        final AtomicInteger behind = new AtomicInteger();
        private CompletableFuture<?> tail = CompletableFuture.completedFuture(null);

        Stream(String person, Scope scope) {
            this.person = person;
            this.scope = scope;
        }

        /** One after the other, and never in the thread that tells all of them. */
        synchronized void then(Runnable work, ExecutorService hands) {
            behind.incrementAndGet();
            tail = tail.handleAsync(
                    (done, failed) -> {
                        try {
                            work.run();
                        } finally {
                            behind.decrementAndGet();
                        }
                        return null;
                    },
                    hands);
        }

        boolean old() {
            return System.nanoTime() - begun > TimeUnit.SECONDS.toNanos(LASTS_SECONDS);
        }
    }

    private record Told(long number, Changed changed) {}

    private final String own = UUID.randomUUID().toString();
    private final List<Stream> streams = new CopyOnWriteArrayList<>();
    private final ExecutorService hands = Executors.newFixedThreadPool(4, work -> {
        var thread = new Thread(work, "live");
        thread.setDaemon(true);
        return thread;
    });
    private final Deque<Told> told = new ArrayDeque<>();
    private final List<ByClock> byClock;
    private final Clock clock;
    private final Ear ear;
    private long number;
    private Changed pending = Changed.NOTHING;
    private Set<Standing> standing = Set.of();

    LiveStreams(List<ByClock> byClock, Clock clock, DataSourceProperties base) {
        this.byClock = byClock;
        this.clock = clock;
        ear = new Ear(Base.of(base), "knot", this::hears);
    }

    @Override
    public void bindTo(MeterRegistry registry) {
        Gauge.builder("knot.pages", streams, List::size)
                .description("Pages that listen")
                .register(registry);
    }

    private synchronized void hears(Optional<String> what) {
        pending = pending.and(what.map(Changed::read).orElse(Changed.EVERYWHERE));
    }

    /**
     * Opens a stream. It begins with what was changed since the event that the page got last, when that is known here; with
     * everything, when it is not.
     *
     * @param scope of which sites it is told
     * @param last the id of the last event, or empty for a page that opens
     */
    Optional<SseEmitter> open(String person, Scope scope, String last) {
        long own = streams.stream().filter(s -> s.person.equals(person)).count();
        if (own >= OF_ONE_PERSON || streams.size() >= OF_ALL) return Optional.empty();
        var stream = new Stream(person, scope);
        stream.emitter.onCompletion(() -> streams.remove(stream));
        stream.emitter.onError(e -> streams.remove(stream));
        synchronized (this) {
            streams.add(stream);
            send(stream, new Told(number, since(last)));
        }
        return Optional.of(stream.emitter);
    }

    private Changed since(String last) {
        if (last.isEmpty()) return Changed.NOTHING;
        var parts = last.split(" ");
        if (parts.length != 2 || !parts[0].equals(own) || !parts[1].matches("\\d{1,18}")) return Changed.EVERYWHERE;
        long had = Long.parseLong(parts[1]);
        boolean all = had == number || !told.isEmpty() && told.getFirst().number() <= had + 1;
        if (had > number || !all) return Changed.EVERYWHERE;
        return told.stream().filter(t -> t.number() > had).map(Told::changed).reduce(Changed.NOTHING, Changed::and);
    }

    /** What has come together is told to all. */
    @Scheduled(fixedDelay = 200)
    synchronized void tell() {
        if (pending.equals(Changed.NOTHING)) return;
        var now = new Told(++number, pending);
        pending = Changed.NOTHING;
        told.addLast(now);
        if (told.size() > KEPT) told.removeFirst();
        for (var stream : streams) if (!now.changed().within(stream.scope).equals(Changed.NOTHING)) send(stream, now);
    }

    /** What has become another by the clock alone; nobody asks while nobody looks. */
    @Scheduled(fixedDelay = 5_000)
    void tick() {
        if (streams.isEmpty()) return;
        try {
            var now = clock.instant();
            var stands = byClock.stream().flatMap(b -> b.standing(now).stream()).collect(Collectors.toSet());
            var other = new HashSet<>(stands);
            other.removeAll(standing);
            standing.stream().filter(s -> !stands.contains(s)).forEach(other::add);
            standing = stands;
            synchronized (this) {
                for (var s : other) pending = pending.and(Changed.at(s.siteId(), s.endpointId()));
            }
        } catch (DataAccessException e) {
            LOG.debug("Nobody can tell what the clock changes while the database is gone", e);
        }
    }

    /** Whoever has gone without a word is found out, and long streams end, so that it is asked again who may listen. */
    @Scheduled(fixedDelay = 20_000)
    void heartbeat() {
        for (var stream : streams) {
            if (stream.old() || stream.behind.get() > BEHIND) end(stream);
            else stream.then(() -> write(stream, SseEmitter.event().comment("")), hands);
        }
    }

    private void send(Stream stream, Told what) {
        var changed = what.changed().within(stream.scope);
        stream.then(
                () -> write(
                        stream,
                        SseEmitter.event()
                                .id(own + " " + what.number())
                                .name("changed")
                                .reconnectTime(AGAIN_MILLIS)
                                .data(changed)),
                hands);
    }

    private void write(Stream stream, SseEmitter.SseEventBuilder event) {
        try {
            stream.emitter.send(event);
        } catch (IOException | IllegalStateException gone) {
            LOG.debug("A page has gone: {}", gone.getMessage());
            streams.remove(stream);
        }
    }

    private void end(Stream stream) {
        streams.remove(stream);
        stream.emitter.complete();
    }

    /** A server that stops waits for nobody who only listens. */
    @EventListener(ContextClosedEvent.class)
    void close() {
        ear.close();
        streams.forEach(this::end);
        hands.shutdown();
    }
}
