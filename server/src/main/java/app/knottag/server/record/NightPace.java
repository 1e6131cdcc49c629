package app.knottag.server.record;

import java.time.Duration;
import java.util.concurrent.locks.LockSupport;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.stereotype.Component;

/** How many questions of one site's night go out in a second, so that nobody's line or small device is flooded. */
@Component
public class NightPace {

    private final int aSecond;

    NightPace(@Value("${knot.night.questions-a-second:5}") int aSecond) {
        if (aSecond < 1)
            throw new IllegalArgumentException("At least one question goes out in a second, not " + aSecond + ".");
        this.aSecond = aSecond;
    }

    /** Returns how long so many questions take. */
    public Duration takes(int questions) {
        return Duration.ofMillis(questions * 1_000L / aSecond);
    }

    /**
     * Waits until so many questions may have gone out.
     *
     * @param begun when they began, by {@link System#nanoTime()}
     */
    public void keep(long begun, int questions) {
        long left = begun + takes(questions).toNanos() - System.nanoTime();
        if (left > 0) LockSupport.parkNanos(left);
    }
}
