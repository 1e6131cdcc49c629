package app.knottag.server.db;

import java.sql.Connection;
import java.sql.SQLException;
import java.util.HashMap;
import java.util.Map;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.beans.factory.DisposableBean;
import org.springframework.boot.jdbc.autoconfigure.DataSourceProperties;
import org.springframework.dao.DataAccessResourceFailureException;
import org.springframework.stereotype.Component;
import tools.jackson.core.type.TypeReference;
import tools.jackson.databind.json.JsonMapper;

/**
 * Work that one server does and no other may begin meanwhile. A claim is an advisory lock of PostgreSQL on a connection of its
 * own, so it ends with the server that holds it, however that ends; what it tells of itself lies in a table for all to read.
 */
@Component
public class Claims implements DisposableBean {

    private static final Logger LOG = LoggerFactory.getLogger(Claims.class);
    private static final int ANSWERS_WITHIN_SECONDS = 3;
    private static final long ASKED_EVERY_NANOS = 500_000_000;

    /** What can be claimed; the number is that of its locks. */
    public enum Work {
        SWEEP(7101),
        CHECKS(7102),
        GEAR(7103),
        NIGHT(7104),
        MAIL(7105);

        private final int number;

        Work(int number) {
            this.number = number;
        }
    }

    private record Key(Work work, long id) {}

    private final Base base;
    private final ClaimStore store;
    private final JsonMapper json;
    private final Map<Key, Claim> mine = new HashMap<>();
    private @Nullable Connection held;

    Claims(DataSourceProperties base, ClaimStore store, JsonMapper json) {
        this.base = Base.of(base);
        this.store = store;
        this.json = json;
    }

    /** Something that is this server's to do until it is closed. */
    public final class Claim implements AutoCloseable {

        private final Key key;
        private volatile boolean lost;
        private volatile boolean stop;
        private volatile long asked = System.nanoTime();

        private Claim(Key key) {
            this.key = key;
        }

        /** Says how far it is; whoever asks any server is told this. */
        public void tell(Object progress) {
            store.tell(key.work, key.id, new Json(json.writeValueAsString(progress)));
        }

        /** Whether somebody wants it to end, or it is not this server's any more; the database is asked twice a second. */
        public boolean ends() {
            if (System.nanoTime() - asked < ASKED_EVERY_NANOS) return stop || lost;
            asked = System.nanoTime();
            var row = store.held(key.work, key.work.number, key.id);
            if (row.isPresent() && row.get().stop()) stop = true;
            keepHold();
            return stop || lost;
        }

        /** Whether the database was away so that another server may have begun the same. */
        public boolean lost() {
            return lost;
        }

        @Override
        public void close() {
            try {
                if (!lost) store.end(key.work, key.id);
            } finally {
                release(this);
            }
        }
    }

    /** Takes work on, or returns empty when this server or another one does it already. */
    public Optional<Claim> take(Work work, long id) {
        var key = new Key(work, id);
        Claim claim;
        synchronized (this) {
            if (mine.containsKey(key) || !lock(key)) return Optional.empty();
            claim = new Claim(key);
            mine.put(key, claim);
        }
        try {
            store.begin(work, id);
            return Optional.of(claim);
        } catch (RuntimeException e) {
            release(claim);
            throw e;
        }
    }

    /** Does something when nobody does it just now; returns whether it was done. */
    public boolean alone(Work work, long id, Runnable what) {
        var claim = take(work, id);
        if (claim.isEmpty()) return false;
        try {
            what.run();
        } finally {
            claim.get().close();
        }
        return true;
    }

    /** What was told last of work that some server does now, {@code begun} until it tells anything; empty when nobody does it. */
    public <T> Optional<T> told(Work work, long id, TypeReference<T> type, T begun) {
        return store.held(work, work.number, id).map(row -> {
            T told = json.readValue(row.told().text(), type);
            return told == null ? begun : told;
        });
    }

    /** Whether some server does it now. */
    public boolean taken(Work work, long id) {
        return store.held(work, work.number, id).isPresent();
    }

    /** Asks whoever does it to end it. */
    public void stop(Work work, long id) {
        store.stop(work, id);
        var own = own(new Key(work, id));
        if (own != null) own.stop = true;
    }

    private synchronized @Nullable Claim own(Key key) {
        return mine.get(key);
    }

    private synchronized void keepHold() {
        try {
            connection();
        } catch (SQLException e) {
            throw away(e);
        }
    }

    private boolean lock(Key key) {
        try {
            return call(connection(), "select pg_try_advisory_lock(?, ?)", key);
        } catch (SQLException e) {
            throw away(e);
        }
    }

    private static DataAccessResourceFailureException away(SQLException e) {
        return new DataAccessResourceFailureException("The database that keeps servers apart does not answer.", e);
    }

    /** The connection that holds all claims. When it had to be made anew, whatever another took meanwhile is lost. */
    private Connection connection() throws SQLException {
        var was = held;
        if (was != null && was.isValid(ANSWERS_WITHIN_SECONDS)) return was;
        forget(was);
        var now = base.open();
        held = now;
        for (var claim : mine.values())
            if (!claim.lost && !call(now, "select pg_try_advisory_lock(?, ?)", claim.key)) {
                claim.lost = true;
                LOG.warn("{} {} may be another server's now", claim.key.work, claim.key.id);
            }
        return now;
    }

    private void forget(@Nullable Connection was) {
        held = null;
        try {
            if (was != null) was.close();
        } catch (SQLException e) {
            LOG.debug("A connection that was gone could not be closed", e);
        }
    }

    private static boolean call(Connection connection, String sql, Key key) throws SQLException {
        try (var ask = connection.prepareStatement(sql)) {
            ask.setInt(1, key.work.number);
            ask.setInt(2, (int) key.id);
            try (var answer = ask.executeQuery()) {
                return answer.next() && answer.getBoolean(1);
            }
        }
    }

    private synchronized void release(Claim claim) {
        mine.remove(claim.key, claim);
        var connection = held;
        if (claim.lost || connection == null) return;
        try {
            call(connection, "select pg_advisory_unlock(?, ?)", claim.key);
        } catch (SQLException e) {
            LOG.debug("The lock has ended with its connection", e);
            forget(connection);
        }
    }

    @Override
    public synchronized void destroy() {
        forget(held);
    }
}
