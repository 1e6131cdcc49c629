package app.knottag.server.machine;

import static org.assertj.core.api.Assertions.assertThat;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.Mockito.clearInvocations;
import static org.mockito.Mockito.doAnswer;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.never;
import static org.mockito.Mockito.times;
import static org.mockito.Mockito.verify;
import static org.mockito.Mockito.when;

import app.knottag.core.time.Lengths;
import app.knottag.server.Api;
import app.knottag.server.Running;
import app.knottag.server.account.Role;
import app.knottag.server.log.Log;
import jakarta.servlet.FilterChain;
import jakarta.servlet.ServletOutputStream;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.nio.charset.StandardCharsets;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.atomic.AtomicLong;
import java.util.function.Consumer;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.mockito.ArgumentCaptor;
import org.springframework.transaction.TransactionStatus;
import org.springframework.transaction.support.TransactionTemplate;

class MachineWatchTest {

    private final HttpServletRequest request = mock();
    private final HttpServletResponse response = mock();
    private final FilterChain chain = mock();

    @DisplayName("On a full disk nothing is taken in, and whoever is there can still read, sign in and out")
    @ParameterizedTest(name = "{0} {1}, {2} bytes wanted free: goes on {3}")
    @CsvSource({
        "POST, /api/sites, 9223372036854775807, false",
        "PUT, /api/sites/1/sheet, 9223372036854775807, false",
        "DELETE, /api/endpoints/1, 9223372036854775807, false",
        "GET, /api/today, 9223372036854775807, true",
        "POST, /api/session, 9223372036854775807, true",
        "DELETE, /api/session, 9223372036854775807, true",
        "POST, /api/sites, 1, true",
    })
    void fullDisk(String method, String path, long full, boolean goesOn) throws Exception {
        when(request.getMethod()).thenReturn(method);
        when(request.getRequestURI()).thenReturn(path);
        ServletOutputStream out = mock();
        when(response.getOutputStream()).thenReturn(out);
        new Disk(System.getProperty("java.io.tmpdir"), full).doFilter(request, response, chain);
        verify(chain, times(goesOn ? 1 : 0)).doFilter(request, response);
        if (goesOn) return;
        var said = ArgumentCaptor.forClass(byte[].class);
        verify(out).write(said.capture());
        verify(response).setStatus(507);
        assertThat(new String(said.getValue(), StandardCharsets.UTF_8)).contains("disk-full", "nothing was changed");
    }

    @DisplayName("A clock that is set is told from one that runs; a second hand beside it tells")
    @Test
    void clockIsSet() {
        BackupStore store = mock();
        Log log = mock();
        TransactionTemplate transaction = mock();
        doAnswer(call -> {
                    call.<Consumer<TransactionStatus>>getArgument(0).accept(mock());
                    return Optional.empty();
                })
                .when(transaction)
                .executeWithoutResult(any());
        Clock clock = mock();
        var nanos = new AtomicLong(5);
        var at = Instant.parse("2026-12-01T08:00:00Z");
        when(clock.instant()).thenReturn(at);
        var watch = new MachineWatch(
                new Disk("", 0), store, log, transaction, false, new MachineWatch.Hands(clock, nanos::get));
        // Half a minute by both, then one that a time server moved a little, then set by hand, then on as before.
        long[][] passed = {{30, 30, 0}, {60, 75, 0}, {90, 75 - 3600, -3630}, {120, 105 - 3600, 0}, {150, 90_000, 93_465}
        };
        for (var p : passed) {
            nanos.set(5 + Duration.ofSeconds(p[0]).toNanos());
            when(clock.instant()).thenReturn(at.plusSeconds(p[1]));
            clearInvocations(log);
            watch.look();
            if (p[2] == 0) verify(log, never()).write(any());
            else verify(log).write(Log.entry("Knot Tag", "clock jumped").after(Map.of("seconds", p[2])));
        }
        clearInvocations(log);
        when(store.lastEntry()).thenReturn(Optional.of(at.plusSeconds(90_030)));
        watch.begins();
        verify(log, never()).write(any());
        when(store.lastEntry()).thenReturn(Optional.of(at.plusSeconds(97_200)));
        watch.begins();
        verify(log).write(Log.entry("Knot Tag", "clock jumped").after(Map.of("seconds", -7_200L)));
    }

    @DisplayName("What the script notes of backups, and a clock that was set, stand on everybody's Today")
    @Test
    void standsOnToday() throws Exception {
        var office = Running.as(Role.OFFICE);
        new Api(Running.url()).get("/api/health").expect(200);
        assertThat(office.get("/api/today").expect(200).json().get("concerns")).isEmpty();
        Running.write("insert into backup (made_at, file, failed) values (now(), 'b.zip', 'only 3 MB are free in /b')");
        Running.write("insert into log_entry (person, action, after, reason) values ('Knot Tag', 'clock jumped', "
                + "'{\"seconds\": -7200}', '')");
        var concerns = office.get("/api/today").expect(200).json().get("concerns");
        assertThat(concerns.findValuesAsString("title"))
                .containsExactly("A backup failed", "This machine's clock was set back by " + Lengths.of(7200));
        assertThat(concerns.get(0).get("detail").asString()).isEqualTo("Only 3 MB are free in /b. There is none yet.");
        Running.write(
                "insert into backup (made_at, file, bytes, entries, same_disk) values (now(), 'c.zip', 1, 1, true)");
        assertThat(office.get("/api/today").expect(200).json().get("concerns").findValuesAsString("title"))
                .containsExactly("This machine's clock was set back by 2 h");
    }
}
