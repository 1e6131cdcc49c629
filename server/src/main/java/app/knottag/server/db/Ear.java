package app.knottag.server.db;

import java.sql.Connection;
import java.sql.SQLException;
import java.util.Optional;
import java.util.concurrent.atomic.AtomicBoolean;
import java.util.function.Consumer;
import org.postgresql.PGConnection;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/** Hears what the database tells on one channel (LISTEN), on a connection of its own that is made anew when it breaks. */
public final class Ear implements AutoCloseable {

    private static final Logger LOG = LoggerFactory.getLogger(Ear.class);

    /** After so many milliseconds of silence it is asked whether anybody is still there. */
    private static final int SILENCE = 10_000;

    private static final int AGAIN = 1_000;
    private static final int ANSWERS_WITHIN_SECONDS = 3;

    private final Base base;
    private final String channel;
    private final Consumer<Optional<String>> hears;
    private final AtomicBoolean closed = new AtomicBoolean();
    private final Thread thread = new Thread(this::listen, "ear");

    /**
     * Begins to listen.
     *
     * @param channel a plain name of letters
     * @param hears takes what was told; nothing whenever it begins to hear, since something may have been told before
     */
    public Ear(Base base, String channel, Consumer<Optional<String>> hears) {
        this.base = base;
        this.channel = channel;
        this.hears = hears;
        thread.setDaemon(true);
        thread.start();
    }

    private void listen() {
        boolean heard = true;
        while (!closed.get()) {
            try (var connection = base.open()) {
                try (var listen = connection.createStatement()) {
                    listen.execute("listen " + channel);
                }
                heard = true;
                hears.accept(Optional.empty());
                hear(connection);
            } catch (SQLException e) {
                if (heard && !closed.get()) LOG.warn("Nobody tells what is changed: {}", e.getMessage());
                heard = false;
                pause();
            }
        }
    }

    private void hear(Connection connection) throws SQLException {
        var told = connection.unwrap(PGConnection.class);
        while (!closed.get()) {
            var all = told.getNotifications(SILENCE);
            for (var one : all) hears.accept(Optional.of(one.getParameter()));
            if (all.length == 0 && !connection.isValid(ANSWERS_WITHIN_SECONDS))
                throw new SQLException("the database does not answer");
        }
    }

    private void pause() {
        try {
            Thread.sleep(AGAIN);
        } catch (InterruptedException e) {
            closed.set(true);
        }
    }

    @Override
    public void close() {
        closed.set(true);
        thread.interrupt();
    }
}
