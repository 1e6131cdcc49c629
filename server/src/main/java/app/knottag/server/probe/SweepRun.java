package app.knottag.server.probe;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.hardware.Mac;
import app.knottag.core.intake.Recognised.Answer;
import app.knottag.core.reach.Here;
import app.knottag.core.reach.Neighbour;
import app.knottag.core.reach.Swept;
import app.knottag.core.reach.Whois;
import java.time.Duration;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.ConcurrentLinkedQueue;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Semaphore;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.concurrent.locks.LockSupport;
import java.util.stream.Collectors;

/**
 * One sweep. Hosts on a link of this machine are asked for their MAC through the kernel's table, as many as it has room for;
 * who answers, and who does not fit in, is asked by a question of its own that counts every answerer. Hosts behind a router
 * are asked by an echo.
 */
final class SweepRun implements AutoCloseable {

    /** The kernel asks three times, a second apart; who has not answered the first two questions is silent. */
    private static final Duration TIME_OUT = Duration.ofMillis(1_100);

    private static final Duration LOOK_EVERY = Duration.ofMillis(80);

    /** Room in the kernel's table that is left to everybody else on this machine. */
    private static final int LEFT_FREE = 64;

    private static final int TOGETHER = 32;
    private static final Duration APART = Duration.ofMillis(4);
    private static final int TOOLS_AT_ONCE = 256;

    private final List<Ipv4Address> hosts;
    private final Swept.Listener listener;
    private final Map<Ipv4Address, Set<Mac>> there = new ConcurrentHashMap<>();
    private final AtomicInteger asked = new AtomicInteger();
    private final Semaphore tools = new Semaphore(TOOLS_AT_ONCE);
    private final ConcurrentLinkedQueue<CompletableFuture<Void>> running = new ConcurrentLinkedQueue<>();
    private final ExecutorService threads = Executors.newCachedThreadPool(r -> {
        var thread = new Thread(r, "sweep");
        thread.setDaemon(true);
        return thread;
    });
    private volatile boolean byTable;

    SweepRun(List<Ipv4Address> hosts, Swept.Listener listener) {
        this.hosts = hosts;
        this.listener = listener;
    }

    Swept run() {
        var here = Wire.here();
        var direct = hosts.stream().filter(h -> here.direct(h).isPresent()).collect(Collectors.toSet());
        var six = direct.isEmpty()
                ? CompletableFuture.completedFuture(Set.<Mac>of())
                : CompletableFuture.supplyAsync(
                        () -> overSix(here, direct.iterator().next()), threads);
        for (var host : hosts) if (!direct.contains(host)) soon(() -> echo(host));
        if (!direct.isEmpty()) ask(hosts.stream().filter(direct::contains).toList());
        for (CompletableFuture<Void> next = running.poll(); next != null; next = running.poll()) next.join();
        String how = direct.isEmpty()
                ? "by an echo each"
                : byTable ? "by this machine's own table, which keeps one answerer" : "by the question for its MAC";
        return new Swept(there, six.join(), how);
    }

    private void soon(Runnable question) {
        running.add(CompletableFuture.runAsync(
                () -> {
                    tools.acquireUninterruptibly();
                    try {
                        if (!listener.stop()) question.run();
                    } finally {
                        tools.release();
                    }
                },
                threads));
    }

    private void ask(List<Ipv4Address> direct) {
        var known = Wire.neighbours().stream().map(Neighbour::address).collect(Collectors.toSet());
        Wire.here().addresses().forEach(known::add);
        int room = Kernel.room() - LEFT_FREE;
        var silent = new HashSet<Ipv4Address>();
        for (var host : direct) {
            // An entry from before is no answer, and would keep the kernel from asking.
            if (known.contains(host) || silent.size() >= room || !Wire.poke(host)) soon(() -> who(host, Set.of()));
            else silent.add(host);
            if (silent.size() % TOGETHER == TOGETHER - 1) LockSupport.parkNanos(APART.toNanos());
            if (listener.stop()) return;
        }
        long end = System.nanoTime() + TIME_OUT.toNanos();
        while (System.nanoTime() < end && !listener.stop()) {
            LockSupport.parkNanos(LOOK_EVERY.toNanos());
            for (var n : Wire.neighbours())
                if (n.confirmed() && silent.remove(n.address())) {
                    listener.answered(n.address());
                    soon(() -> who(n.address(), Set.of(n.mac())));
                }
        }
        listener.asked(asked.addAndGet(silent.size()));
    }

    /** Counts who answers for an address; who answered the kernel just now is there in any case. */
    private void who(Ipv4Address host, Set<Mac> already) {
        var found = Wire.whoisQuickly(host);
        if (found.how() == Whois.How.TABLE) byTable = true;
        var macs = new HashSet<>(already);
        macs.addAll(found.macs());
        if (macs.isEmpty() && found.how() == Whois.How.TABLE) macs.addAll(byPort(host));
        if (!macs.isEmpty()) {
            there.put(host, Set.copyOf(macs));
            listener.answered(host);
        }
        listener.asked(asked.incrementAndGet());
    }

    /** The kernel does not ask again while it trusts its entry; a refused connection is an answer as well. */
    private static Set<Mac> byPort(Ipv4Address host) {
        var entry =
                Wire.neighbours().stream().filter(n -> n.address().equals(host)).findFirst();
        return entry.isPresent() && Wire.refuses(host) ? Set.of(entry.get().mac()) : Set.of();
    }

    private void echo(Ipv4Address host) {
        var answer = Wire.echoOnce(host).answer();
        if (answer == Answer.ANSWERED || answer == Answer.LOSS || answer == Answer.TWICE) {
            there.put(host, Set.of());
            listener.answered(host);
        }
        listener.asked(asked.incrementAndGet());
    }

    private static Set<Mac> overSix(Here here, Ipv4Address any) {
        return Wire.overSix(here.direct(any).orElseThrow().name());
    }

    @Override
    public void close() {
        threads.shutdownNow();
    }
}
