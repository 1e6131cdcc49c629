package app.knottag.server.machine;

import app.knottag.core.today.Machine;
import app.knottag.server.log.Log;
import app.knottag.server.record.Concerned;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.LongSupplier;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.boot.context.event.ApplicationReadyEvent;
import org.springframework.context.event.EventListener;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Component;
import org.springframework.transaction.support.TransactionTemplate;

/** Knows how the machine stands, and notices when its clock is set: a second hand beside it never is. */
@Component
public class MachineWatch implements Concerned {

    private static final Logger LOG = LoggerFactory.getLogger(MachineWatch.class);

    /** A clock that is kept by a time server is moved by less. */
    private static final Duration JUMP = Duration.ofMinutes(1);

    private final Disk disk;
    private final BackupStore store;
    private final Log log;
    private final TransactionTemplate transaction;
    private final boolean backups;
    private final Clock clock;
    private final LongSupplier hand;
    private Instant then;
    private long handThen;

    @Autowired
    MachineWatch(
            Disk disk,
            BackupStore store,
            Log log,
            TransactionTemplate transaction,
            @Value("${knot.backups:false}") boolean backups) {
        this(disk, store, log, transaction, backups, new Hands(Clock.systemUTC(), System::nanoTime));
    }

    /** The clock of the machine, and one that nobody can set. */
    record Hands(Clock clock, LongSupplier nanos) {}

    MachineWatch(Disk disk, BackupStore store, Log log, TransactionTemplate transaction, boolean backups, Hands hands) {
        this.disk = disk;
        this.store = store;
        this.log = log;
        this.transaction = transaction;
        this.backups = backups;
        clock = hands.clock();
        hand = hands.nanos();
        then = clock.instant();
        handThen = hand.getAsLong();
    }

    /** The last entry of the log can only be later than now when the clock was set back while nobody ran. */
    @EventListener(ApplicationReadyEvent.class)
    void begins() {
        store.lastEntry()
                .map(last -> Duration.between(last, clock.instant()))
                .filter(d -> d.plus(JUMP).isNegative())
                .ifPresent(this::jumped);
    }

    @Scheduled(fixedDelay = 30_000, initialDelay = 30_000)
    void look() {
        var now = clock.instant();
        long handNow = hand.getAsLong();
        var by = Duration.between(then, now).minusNanos(handNow - handThen);
        then = now;
        handThen = handNow;
        if (by.abs().compareTo(JUMP) > 0) jumped(by);
    }

    private void jumped(Duration by) {
        LOG.warn("The clock of this machine jumped by {}", by);
        transaction.executeWithoutResult(
                t -> log.write(Log.entry("Knot Tag", "clock jumped").after(Map.of("seconds", by.toSeconds()))));
    }

    /** Whether the database answers; where it does not, that is the answer to everything. */
    boolean stands() {
        return store.answers() == 1;
    }

    Optional<Long> room() {
        return disk.free().stream().boxed().findFirst();
    }

    Optional<Instant> lastBackup() {
        return store.last();
    }

    @Override
    public List<Machine.Concern> concerns() {
        var jump = store.jump().map(j -> new Machine.Jump(j.at(), Duration.ofSeconds(j.seconds())));
        return Machine.of(new Machine.State(disk.free(), backups(), jump), clock.instant());
    }

    private Optional<Machine.Backups> backups() {
        return backups
                ? store.first()
                        .map(since -> new Machine.Backups(
                                since,
                                store.last(),
                                store.rehearsed(),
                                store.failed().map(f -> new Machine.Failed(f.at(), f.why()))))
                : Optional.empty();
    }
}
