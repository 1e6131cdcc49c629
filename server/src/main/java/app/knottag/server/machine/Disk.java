package app.knottag.server.machine;

import app.knottag.core.today.Machine;
import app.knottag.server.web.Refusal;
import jakarta.servlet.FilterChain;
import jakarta.servlet.ServletException;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.OptionalLong;
import java.util.Set;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Component;
import org.springframework.web.filter.OncePerRequestFilter;

/** How much room there is where the records lie; changes are refused before there is none. Reading and signing in go on. */
@Component
class Disk extends OncePerRequestFilter {

    private static final Logger LOG = LoggerFactory.getLogger(Disk.class);
    private static final Set<String> READS = Set.of("GET", "HEAD", "OPTIONS");

    private final String folder;
    private final long full;

    /**
     * @param folder where the records lie, or empty when that is another machine
     * @param full below so many bytes nothing is taken in
     */
    Disk(@Value("${knot.data:}") String folder, @Value("${knot.disk.full:" + Machine.FULL + "}") long full) {
        this.folder = folder;
        this.full = full;
    }

    /** Returns how many bytes are free, as far as anybody can tell. */
    OptionalLong free() {
        if (folder.isEmpty()) return OptionalLong.empty();
        try {
            return OptionalLong.of(Files.getFileStore(Path.of(folder)).getUsableSpace());
        } catch (IOException e) {
            LOG.warn("Nobody can tell how much room there is in {}: {}", folder, e.toString());
            return OptionalLong.empty();
        }
    }

    @Override
    protected boolean shouldNotFilter(HttpServletRequest request) {
        return READS.contains(request.getMethod()) || request.getRequestURI().equals("/api/session");
    }

    @Override
    protected void doFilterInternal(HttpServletRequest request, HttpServletResponse response, FilterChain chain)
            throws ServletException, IOException {
        if (free().orElse(Long.MAX_VALUE) >= full) chain.doFilter(request, response);
        else
            Refusal.write(
                    response,
                    HttpStatus.INSUFFICIENT_STORAGE,
                    "disk-full",
                    "The disk of the machine that keeps the records is full, so nothing was changed. Make room there, then try again.");
    }
}
