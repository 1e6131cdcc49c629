package app.knottag.core.visit;

import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.stream.IntStream;

/**
 * By how much each stretch may begin later while the visit ends no later: backward along each device and each person, in the
 * order of the plan. Windows count as far as the stretch stays within the one it lies in.
 */
final class Slack {

    private Slack() {}

    static int[] of(Dispatch plan, int finish) {
        var works = plan.works;
        var latest = new int[works.size()];
        Arrays.fill(latest, Window.HORIZON);
        var nextOf = nextOf(plan);
        var order = IntStream.range(0, works.size())
                .filter(s -> plan.start[s] >= 0)
                .boxed()
                .sorted(Comparator.comparingInt((Integer s) -> plan.start[s])
                        .thenComparingInt(s -> s)
                        .reversed())
                .toList();
        for (int s : order) {
            int u = works.unit[s];
            boolean last = s + 1 == works.first[u + 1];
            int end = last ? waitedFor(works, u, latest, finish) : latest[s + 1];
            latest[s] = Math.min(latest[s], end - works.alone[s] - works.hands[s]);
            int then = nextOf[s];
            if (then >= 0)
                latest[s] = Math.min(
                        latest[s],
                        latest[then] - works.walk(works.place[u], works.place[works.unit[then]]) - works.hands[s]);
            latest[s] = Math.min(latest[s], shut(plan, s) - works.hands[s]);
            latest[s] = Math.max(latest[s], plan.start[s]);
        }
        return latest;
    }

    private static int waitedFor(Works works, int unit, int[] latest, int finish) {
        int end = finish;
        for (int v = 0; v < works.after.length; v++)
            for (int other : works.after[v]) if (other == unit) end = Math.min(end, latest[works.first[v]]);
        return end;
    }

    private static int shut(Dispatch plan, int s) {
        int at = plan.start[s];
        return Math.min(
                end(plan.works.brief.hands().get(plan.who[s]).there(), at),
                end(plan.works.unitOf(s).free(), at));
    }

    private static int end(List<Window> windows, int at) {
        return windows.stream()
                .filter(w -> w.from() <= at && at <= w.until())
                .mapToInt(Window::until)
                .max()
                .orElse(Window.HORIZON);
    }

    private static int[] nextOf(Dispatch plan) {
        var next = new int[plan.start.length];
        Arrays.fill(next, -1);
        for (int p = 0; p < plan.works.people(); p++) {
            int who = p;
            var mine = IntStream.range(0, next.length)
                    .filter(s -> plan.who[s] == who)
                    .boxed()
                    .sorted(Comparator.comparingInt(s -> plan.start[s]))
                    .toList();
            for (int i = 0; i + 1 < mine.size(); i++) next[mine.get(i)] = mine.get(i + 1);
        }
        return next;
    }
}
