package app.knottag.server.practice;

import app.knottag.core.practice.HandTask;
import app.knottag.core.practice.HandTask.FreePort;
import app.knottag.core.practice.HandTask.Label;
import app.knottag.core.practice.HandTask.Port;
import app.knottag.core.practice.HandTask.Seal;
import app.knottag.core.practice.HandTask.TakeDown;
import app.knottag.core.practice.Hands;
import app.knottag.server.web.Problem;
import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.util.List;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RestController;

/** Small tasks for hands, eyes and ears over HTTP; nothing of how they went is kept. */
@RestController
class HandsController {

    private static final int ROUNDS = 1_000_000_000;

    /** What there is to hear or to see; what a task has none of is empty. */
    record HandTaskView(
            Drill drill,
            String ask,
            List<String> said,
            List<HandLabelLine> label,
            List<String> seals,
            List<Port> ports) {}

    enum Drill {
        TAKE_DOWN,
        LABEL,
        SEAL,
        FREE_PORT
    }

    record HandLabelLine(String name, String text) {}

    record HandRound(int round, List<HandTaskView> tasks) {}

    /** What somebody made of a task, counted from 0. */
    record HandAnswerRequest(
            int task, @NotNull @Size(max = 100) String answer) {}

    record HandJudged(boolean right, String says) {}

    @GetMapping("/api/practice/hands/{round}")
    HandRound round(@PathVariable int round) {
        return new HandRound(
                round, tasks(round).stream().map(HandsController::view).toList());
    }

    @PostMapping("/api/practice/hands/{round}/answers")
    HandJudged judge(@PathVariable int round, @Valid @RequestBody HandAnswerRequest body) {
        var tasks = tasks(round);
        if (body.task() < 0 || body.task() >= tasks.size())
            throw Problem.field("task", "no-such-task", "A round has the tasks 0 to " + (tasks.size() - 1) + ".");
        var judged = tasks.get(body.task()).judge(body.answer());
        return new HandJudged(judged.right(), judged.says());
    }

    private static List<HandTask> tasks(int round) {
        if (round < 0 || round >= ROUNDS) throw Problem.notFound("There is no such round.");
        return Hands.round(round);
    }

    private static HandTaskView view(HandTask task) {
        var ask = task.ask();
        if (task instanceof TakeDown t)
            return new HandTaskView(Drill.TAKE_DOWN, ask, t.said(), List.of(), List.of(), List.of());
        if (task instanceof Label t)
            return new HandTaskView(Drill.LABEL, ask, List.of(), label(t), List.of(), List.of());
        if (task instanceof Seal t)
            return new HandTaskView(Drill.SEAL, ask, List.of(), List.of(), List.of(t.sheet(), t.seal()), List.of());
        return new HandTaskView(Drill.FREE_PORT, ask, List.of(), List.of(), List.of(), ((FreePort) task).ports());
    }

    private static List<HandLabelLine> label(Label task) {
        return task.lines().stream()
                .map(l -> new HandLabelLine(l.name(), l.text()))
                .toList();
    }
}
