package app.knottag.e2e;

import com.microsoft.playwright.Browser;
import com.microsoft.playwright.BrowserContext;
import com.microsoft.playwright.BrowserType;
import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.Playwright;
import com.microsoft.playwright.Request;
import com.microsoft.playwright.assertions.PlaywrightAssertions;
import com.microsoft.playwright.options.AriaRole;
import com.microsoft.playwright.options.ColorScheme;
import com.microsoft.playwright.options.ReducedMotion;
import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.io.UncheckedIOException;
import java.net.ServerSocket;
import java.net.URI;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.LocalTime;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.stream.Collectors;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** A demo of its own, started with the very command that people use, and a browser to walk through it. */
final class Demo implements AutoCloseable {

    private static final Path HOME = Path.of("..").toAbsolutePath().normalize();
    private static Path untouched;
    private final Path data;
    private final JsonNode started;
    private final Playwright playwright;
    private final Browser browser;
    private Second second;
    private Balancer balancer;
    final List<String> complaints = new ArrayList<>();
    private final Map<Page, Asked> asked = new HashMap<>();

    Demo() throws IOException {
        this(folder());
    }

    /** A demo in which nothing has been done yet; what it begins with is made once, and copied for whoever comes next. */
    static synchronized Demo untouched() throws IOException {
        if (untouched == null) {
            untouched = folder();
            start(untouched);
            knot("stop", "--data", untouched.toString());
            Runtime.getRuntime().addShutdownHook(new Thread(() -> delete(untouched)));
        }
        var data = folder();
        run("cp", "-a", untouched + "/.", data.toString());
        return new Demo(data);
    }

    private static Path folder() throws IOException {
        var data = Files.createTempDirectory("knot-e2e-");
        data.toFile().setReadable(true, false);
        data.toFile().setExecutable(true, false);
        return data;
    }

    private static String start(Path data) throws IOException {
        return knot("demo", "--json", "--port", "" + freePort(), "--data", data.toString());
    }

    static int freePort() throws IOException {
        try (var free = new ServerSocket(0)) {
            return free.getLocalPort();
        }
    }

    /** Lets a second server work on the same records, and goes through a balancer from now on. */
    void onTwoServers() throws IOException {
        int port = freePort();
        second = new Second(data, port);
        balancer = new Balancer(List.of(URI.create(url()).getPort(), port));
    }

    /** Kills the second server as a power cut would; {@link #secondAgain} brings it back. */
    void killSecond() {
        second.kill();
    }

    void secondAgain() throws IOException {
        second.start();
    }

    List<Integer> takenByEach() {
        return balancer.taken.stream().map(AtomicInteger::get).toList();
    }

    /** The very program that runs already, with the same words and secrets but a port and a log of its own. */
    private static final class Second {

        private final Path data;
        private final int port;
        private Process process;

        Second(Path data, int port) throws IOException {
            this.data = data;
            this.port = port;
            start();
        }

        void start() throws IOException {
            var first = Path.of(
                    "/proc", Files.readString(data.resolve("run/server.pid")).strip());
            var words = new ArrayList<String>();
            for (var word : nulls(first.resolve("cmdline")))
                words.add(
                        word.startsWith("--server.port=")
                                ? "--server.port=" + port
                                : word.startsWith("--logging.file.name=") ? word.replace(".log", "-2.log") : word);
            var builder = new ProcessBuilder(words).redirectErrorStream(true);
            for (var line : nulls(first.resolve("environ")))
                if (line.startsWith("KNOT_"))
                    builder.environment()
                            .put(line.substring(0, line.indexOf('=')), line.substring(line.indexOf('=') + 1));
            process = builder.start();
            var said = new BufferedReader(new InputStreamReader(process.getInputStream(), StandardCharsets.UTF_8));
            for (var line = said.readLine(); ; line = said.readLine()) {
                if (line == null) throw new IllegalStateException("the second server ended at once");
                if (line.contains("KNOT ready")) return;
            }
        }

        private static List<String> nulls(Path file) throws IOException {
            return List.of(Files.readString(file).split("\0"));
        }

        void kill() {
            process.destroyForcibly();
            ended(process);
        }
    }

    private Demo(Path data) throws IOException {
        this.data = data;
        started = new JsonMapper().readTree(start(data));
        playwright = Playwright.create(
                new Playwright.CreateOptions().setEnv(Map.of("PLAYWRIGHT_SKIP_BROWSER_DOWNLOAD", "1")));
        browser = playwright
                .chromium()
                .launch(new BrowserType.LaunchOptions()
                        .setExecutablePath(Path.of("/usr/bin/chromium"))
                        .setArgs(List.of(
                                "--no-sandbox",
                                "--disable-gpu",
                                "--disable-quic",
                                "--no-first-run",
                                "--disable-background-networking",
                                "--disable-component-update",
                                "--use-fake-ui-for-media-stream",
                                "--use-fake-device-for-media-stream",
                                "--use-file-for-fake-video-capture=" + Film.of("PGB-T1-G7", data),
                                "--disable-sync")));
        PlaywrightAssertions.setDefaultAssertionTimeout(15_000);
    }

    static String knot(String... words) throws IOException {
        var command = new ArrayList<>(List.of(HOME.resolve("knot").toString()));
        command.addAll(List.of(words));
        return run(command.toArray(String[]::new));
    }

    private static String run(String... command) throws IOException {
        var builder = new ProcessBuilder(command).redirectError(ProcessBuilder.Redirect.INHERIT);
        // A demo that lives for two minutes never gets back what the second compiler takes.
        builder.environment().put("JAVA_TOOL_OPTIONS", "-XX:TieredStopAtLevel=1");
        var process = builder.start();
        String said = new String(process.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
        if (ended(process) != 0) throw new IllegalStateException(String.join(" ", command) + " failed: " + said);
        return said;
    }

    private static int ended(Process process) {
        try {
            return process.waitFor();
        } catch (InterruptedException e) {
            throw new IllegalStateException(e);
        }
    }

    /** What a page asked the server for last, and what is not answered yet. */
    private static final class Asked {

        private static final int LATELY = 25;
        private final Map<Request, String> requests = new LinkedHashMap<>();

        static Asked by(Page page) {
            var asked = new Asked();
            page.onRequest(r -> asked.put(r, "asked"));
            page.onResponse(r -> asked.put(r.request(), "answered " + r.status()));
            page.onRequestFailed(r -> asked.put(r, "failed: " + r.failure()));
            return asked;
        }

        private void put(Request request, String what) {
            var path = URI.create(request.url()).getPath();
            if (!path.startsWith("/api/")) return;
            var at = LocalTime.now().truncatedTo(ChronoUnit.MILLIS);
            var before = requests.getOrDefault(request, request.method() + " " + path);
            requests.put(request, before + ", " + at + " " + what);
            if (requests.size() > LATELY)
                requests.remove(requests.keySet().iterator().next());
        }

        List<String> lately() {
            return List.copyOf(requests.values());
        }
    }

    /** What stands on every page that is open, and what it asked for before. */
    String seen() {
        return browser.contexts().stream()
                .flatMap(c -> c.pages().stream())
                .map(p -> "--- " + p.url() + "\n"
                        + String.join("\n", asked.getOrDefault(p, new Asked()).lately()) + "\n"
                        + p.locator("body").innerText())
                .collect(Collectors.joining("\n"));
    }

    String url() {
        return balancer == null ? started.get("url").asString() : balancer.url();
    }

    /** Where the page is open under a name, at the first server. */
    String named() {
        return "http://localhost:" + URI.create(started.get("url").asString()).getPort();
    }

    JsonNode people() {
        return started.get("people");
    }

    /** A fresh window, signed in as the person with this role. */
    Page enter(String role, int width, int height, ColorScheme scheme) {
        var page = window(width, height, scheme);
        page.navigate(url() + "/sites/1/plan");
        for (var person : people())
            if (person.get("role").asString().equals(role)) {
                page.getByLabel("Name").fill(person.get("name").asString());
                page.getByLabel("Password").fill(person.get("password").asString());
            }
        button(page, "Enter").click();
        PlaywrightAssertions.assertThat(heading(page, "Shop floor")).isVisible();
        return page;
    }

    Page enter(String role) {
        return enter(role, 1280, 800, ColorScheme.LIGHT);
    }

    Page window(int width, int height, ColorScheme scheme) {
        BrowserContext context = browser.newContext(new Browser.NewContextOptions()
                .setViewportSize(width, height)
                .setColorScheme(scheme)
                .setReducedMotion(ReducedMotion.REDUCE)
                .setAcceptDownloads(true));
        var page = context.newPage();
        asked.put(page, Asked.by(page));
        page.onClose(asked::remove);
        page.onPageError(complaints::add);
        page.onConsoleMessage(m -> {
            if (m.text().contains("Content Security Policy")) complaints.add(m.text());
        });
        return page;
    }

    static Locator button(Page page, String name) {
        return page.getByRole(
                AriaRole.BUTTON, new Page.GetByRoleOptions().setName(name).setExact(true));
    }

    /** A button whose key stands behind its name. */
    static Locator key(Page page, String name) {
        return page.getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName(name));
    }

    static Locator heading(Page page, String name) {
        return page.getByRole(
                AriaRole.HEADING, new Page.GetByRoleOptions().setName(name).setExact(true));
    }

    static Locator field(Page page, String label) {
        return page.locator("main").getByLabel(label, new Locator.GetByLabelOptions().setExact(true));
    }

    @Override
    public void close() throws IOException {
        playwright.close();
        if (balancer != null) {
            balancer.close();
            second.kill();
        }
        knot("stop", "--data", data.toString());
        delete(data);
    }

    private static void delete(Path folder) {
        try (var files = Files.walk(folder)) {
            files.sorted(Comparator.reverseOrder()).forEach(f -> f.toFile().delete());
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }
}
