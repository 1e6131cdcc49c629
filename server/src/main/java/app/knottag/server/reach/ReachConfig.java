package app.knottag.server.reach;

import app.knottag.core.reach.Probes;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;

/** Chooses what is probed: the real network, or the stand-ins when this is the demo. */
@Configuration
class ReachConfig {

    @Bean
    Probes probes(StandIns standIns) {
        return standIns.active() ? new StandInProbes(standIns) : new NetworkProbes();
    }
}
