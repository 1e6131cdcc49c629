package app.knottag.server.probe;

import java.io.File;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.TimeUnit;

/** Several machines on this one: network namespaces with real wires between them, and servers in them (iproute2). */
final class Namespaces implements AutoCloseable {

    private static final int LONGEST_SECONDS = 20;

    private final String tag;
    private final List<String> names = new ArrayList<>();
    private final Map<String, Running> servers = new HashMap<>();
    private int wires;

    private record Running(Process process, String line) {}

    Namespaces(String tag) {
        this.tag = tag;
    }

    /** Whether this machine can make namespaces at all; else why not. */
    static String problem() {
        if (!System.getProperty("user.name").equals("root")) return "namespaces need root";
        try {
            run("ip", "netns", "add", "kt-try");
            run("ip", "netns", "del", "kt-try");
            return "";
        } catch (IllegalStateException e) {
            return "this machine makes no network namespaces: " + e.getMessage();
        }
    }

    /** Runs a command to its end and returns what it printed. */
    static String run(String... command) {
        try {
            var process = new ProcessBuilder(command).redirectErrorStream(true).start();
            process.getOutputStream().close();
            process.onExit().orTimeout(LONGEST_SECONDS, TimeUnit.SECONDS).whenComplete((p, late) -> {
                if (late == null) return;
                process.descendants().forEach(ProcessHandle::destroyForcibly);
                process.destroyForcibly();
            });
            String said = new String(process.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
            if (process.waitFor() != 0) throw new IllegalStateException(String.join(" ", command) + ": " + said);
            return said;
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new IllegalStateException(e);
        }
    }

    String full(String name) {
        return "kt-" + tag + "-" + name;
    }

    void add(String name) {
        run("ip", "netns", "add", full(name));
        names.add(name);
        ip(name, "link set lo up");
    }

    /** Runs the ip tool in a machine. */
    void ip(String name, String line) {
        run(("ip -n " + full(name) + " " + line).split(" "));
    }

    /** Runs a line of the shell in a machine; a line that fails is an error. */
    String sh(String name, String line) {
        return run("ip", "netns", "exec", full(name), "sh", "-c", line);
    }

    /** Sends a signal to every socat of a machine. */
    void signal(String name, String signal) {
        for (String pid : run("ip", "netns", "pids", full(name)).split("\\s+"))
            if (!pid.isEmpty() && run("cat", "/proc/" + pid + "/comm").strip().equals("socat"))
                run("kill", "-" + signal, pid);
    }

    /** Lays a wire from a machine's link to a bridge of the switch; returns the switch's end. */
    String plug(String name, String link, String mac, String bridge) {
        String end = "p" + ++wires;
        run(("ip link add " + link + " netns " + full(name) + (mac.isEmpty() ? "" : " address " + mac)
                        + " type veth peer name " + end + " netns " + full("switch"))
                .split(" "));
        ip("switch", "link set " + end + " master " + bridge + " up");
        ip(name, "link set " + link + " up");
        return end;
    }

    /** Starts a server in a machine; with a /run of its own, so that several of one kind can live side by side. */
    void serve(String name, String key, String line) {
        try {
            servers.put(
                    name + "/" + key,
                    new Running(
                            new ProcessBuilder(
                                            "ip",
                                            "netns",
                                            "exec",
                                            full(name),
                                            "sh",
                                            "-c",
                                            "mount -t tmpfs tmpfs /run; exec " + line)
                                    .redirectErrorStream(true)
                                    .redirectOutput(new File(log(name, key)))
                                    .start(),
                            line));
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    private String log(String name, String key) {
        return System.getProperty("java.io.tmpdir") + "/" + full(name) + "-" + key + ".log";
    }

    void stop(String name, String key) {
        var running = servers.remove(name + "/" + key);
        if (running == null) return;
        var workers = running.process().descendants().toList();
        running.process().destroyForcibly();
        workers.forEach(ProcessHandle::destroyForcibly);
        try {
            running.process().waitFor();
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }

    /** Whether a server runs with just this line. */
    boolean runs(String name, String key, String line) {
        var running = servers.get(name + "/" + key);
        return running != null && running.process().isAlive() && running.line().equals(line);
    }

    boolean has(String name) {
        return names.contains(name);
    }

    void remove(String name) {
        for (String pid : run("ip", "netns", "pids", full(name)).split("\\s+"))
            if (!pid.isEmpty()) ProcessHandle.of(Long.parseLong(pid)).ifPresent(ProcessHandle::destroyForcibly);
        run("ip", "netns", "del", full(name));
        names.remove(name);
    }

    @Override
    public void close() {
        List.copyOf(names).forEach(this::remove);
    }
}
