package app.knottag.server.machine;

import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RestController;

/** For whoever watches from outside: whether server and database stand. It says nothing else, and asks for no sign-in. */
@RestController
class HealthController {

    record Health(boolean stands) {}

    private final MachineWatch machine;

    HealthController(MachineWatch machine) {
        this.machine = machine;
    }

    /** Answers 503 where the database is gone, as every route does. */
    @GetMapping("/api/health")
    Health health() {
        return new Health(machine.stands());
    }
}
